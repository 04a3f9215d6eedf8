import paperCore from 'paper/dist/paper-core.js';
import type Paper from 'paper';
import { Resvg } from '@resvg/resvg-js';
import { beforeAll, describe, expect, it } from 'vitest';
import { insideEvenOdd } from '../geometry/flatten';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import { arrange } from './arrangement';
import { combine, combineAll, COMBININGS, splitUp, type Combining } from './combine';
import { formatPathData } from './data';
import type { Path } from './path';
import { blob, PAIRS } from './testing';
import { flattenPath, pathArea } from './path-measure';

const paper = paperCore as unknown as typeof Paper;
beforeAll(() => paper.setup([1, 1]));

const idOf = (n: number): string => `r${n}`;
const areaOf = (paths: readonly Path[]): number => paths.reduce((sum, p) => sum + pathArea(p), 0);
const WANTED: Readonly<Record<Combining, (a: boolean, b: boolean) => boolean>> = {
  add: (a, b) => a || b,
  bite: (a, b) => a && !b,
  overlap: (a, b) => a && b,
  either: (a, b) => a !== b,
};

const random = seeded(1811);

describe.each(Object.keys(PAIRS))('combining shapes %s', (name) => {
  it('gives the inside that each way says, at every place', () => {
    for (let round = 0; round < 12; round++) {
      const [a, b] = PAIRS[name]!(random);
      const fine = (paths: readonly Path[]) => paths.map((p) => flattenPath(p, 1e-3));
      const [ofA, ofB] = [fine(a), fine(b)];
      const made = combineAll([a, b], idOf);
      for (const way of COMBININGS) {
        const result = fine(made[way].flatMap(({ paths }) => paths));
        let wrong = 0;
        for (let i = 0; i < 150; i++) {
          const p = { x: 100 * random(), y: 100 * random() };
          const wanted = WANTED[way](insideEvenOdd(ofA, p), insideEvenOdd(ofB, p));
          if (insideEvenOdd(result, p) !== wanted) wrong++;
        }
        // A place on the very line may be seen on either side of it.
        expect(wrong, `${way}, round ${round}`).toBeLessThan(2);
      }
    }
  });

  it('loses and gains no area: both sums, Bite and Overlap only, and Split up', () => {
    for (let round = 0; round < 12; round++) {
      const [a, b] = PAIRS[name]!(random);
      const area = (way: Combining): number => areaOf(combine([a, b], way, idOf));
      // Of outlines that cross themselves only what is inside counts.
      const [ownA, ownB] = [a, b].map((one) => areaOf(combine([one], 'add', idOf))) as [number, number];
      const off = 1e-6 * 10_000;
      expect(Math.abs(area('add') + area('overlap') - ownA - ownB)).toBeLessThan(off);
      expect(Math.abs(area('bite') + area('overlap') - ownA)).toBeLessThan(off);
      expect(Math.abs(area('either') - area('add') + area('overlap'))).toBeLessThan(off);
      const pieces = splitUp([a, b], idOf);
      expect(Math.abs(pieces.reduce((sum, { paths }) => sum + areaOf(paths), 0) - area('add'))).toBeLessThan(
        off,
      );
    }
  });
});

describe('what is combined', () => {
  it('is as a count of the pixels that resvg draws, in all sizes', () => {
    // Source outside: resvg. Both shapes drawn apart, their pixels counted by each way's rule.
    const SIDE = 700;
    for (const size of [1e-3, 1, 1e5])
      for (let round = 0; round < 3; round++) {
        const [a, b] = [[blob(random, 'a', size)], [blob(random, 'b', size)]];
        const k = 350 / size;
        const inked = (paths: readonly Path[]): boolean[] => {
          const d = paths.map((p) => `M${flattenPath(p, size * 1e-4).map(({ x, y }) => `${x * k + 170} ${y * k + 170}`).join('L')}Z`).join(''); // prettier-ignore
          const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}" height="${SIDE}"><path fill-rule="evenodd" d="${d}"/></svg>`;
          const { pixels } = new Resvg(svg, { font: { loadSystemFonts: false } }).render();
          return Array.from({ length: SIDE * SIDE }, (_, i) => pixels[4 * i + 3]! > 127);
        };
        const [inA, inB] = [inked(a), inked(b)];
        for (const way of COMBININGS) {
          const count = inA.reduce((n, one, i) => n + Number(WANTED[way](one, inB[i]!)), 0);
          const union = inA.reduce((n, one, i) => n + Number(one || inB[i]!), 0);
          const ours = areaOf(combine([a, b], way, idOf)) * k * k;
          expect(Math.abs(ours - count), `${way} at ${size}`).toBeLessThan(0.001 * union + SIDE);
        }
      }
  });

  it('has no more anchors than paper.js gives, and the same area', () => {
    // Source outside: paper.js.
    let [ours, theirs] = [0, 0];
    for (let round = 0; round < 60; round++) {
      const [a, b] = [blob(random, 'a'), blob(random, 'b')];
      const of = (p: Path) => new paper.CompoundPath({ pathData: formatPathData([p]), fillRule: 'evenodd', insert: false }); // prettier-ignore
      for (const [way, call] of [['add', 'unite'], ['bite', 'subtract'], ['overlap', 'intersect']] as const) {
        const made = combine([[a], [b]], way, idOf);
        const paperMade = of(a)[call](of(b), { insert: false }) as paper.PathItem;
        const parts = ('children' in paperMade && paperMade.children ? paperMade.children : [paperMade]) as paper.Path[]; // prettier-ignore
        ours += made.reduce((n, p) => n + p.anchors.length, 0);
        // A closed path has two anchors at least here; paper.js closes a loop with one.
        theirs += parts.reduce((n, p) => n + Math.max(2, p.segments.length), 0);
        expect(Math.abs(areaOf(made) - Math.abs((paperMade as paper.Path).area))).toBeLessThan(0.2);
      } // prettier-ignore
    }
    expect(ours).toBeLessThanOrEqual(theirs);
  });

  it('keeps the anchors, kinds and marks of what borders it; pieces of one segment are one again', () => {
    const plate = circlePath(50, 50, 40, 'plate');
    const marked = {
      ...plate,
      anchors: plate.anchors.map((a, i) => (i === 2 ? { ...a, protected: true as const } : a)),
    };
    const [bitten] = combine([[marked], [squarePath(80, 40, 20, 'bite')]], 'bite', idOf);
    const kept = bitten!.anchors.find((a) => Math.hypot(a.x - 10, a.y - 50) < 1e-9)!;
    expect(kept).toMatchObject({ kind: 'smooth', protected: true });
    // Four of the circle less one, two where the square crosses it, two of its corners.
    expect(bitten!.anchors).toHaveLength(3 + 2 + 2);
    // A hole that touches nothing stays anchor for anchor.
    const holed = combine([[plate], [circlePath(50, 50, 10, 'hole')]], 'bite', idOf);
    expect(holed.map((p) => p.anchors.length)).toEqual([4, 4]);
    expect(holed.flatMap((p) => p.anchors.map((a) => a.kind))).toEqual(
      Array.from({ length: 8 }, () => 'smooth'),
    );
  });

  it('of squares side by side has no line between them, of one apart two islands', () => {
    const [one, ...more] = combine([[squarePath(0, 0, 10, 'a')], [squarePath(10, 0, 10, 'b')]], 'add', idOf);
    expect(more).toEqual([]);
    expect(pathArea(one!)).toBeCloseTo(200, 9);
    expect(combine([[squarePath(0, 0, 10, 'a')], [squarePath(30, 0, 10, 'b')]], 'add', idOf)).toHaveLength(2);
    const three = [squarePath(0, 0, 10, 'a'), squarePath(5, 0, 10, 'b'), squarePath(0, 5, 10, 'c')].map(
      (p) => [p],
    );
    expect(areaOf(combine(three, 'overlap', idOf))).toBeCloseTo(25, 9);
    expect(splitUp(three, idOf)).toHaveLength(6);
  });

  it('of nothing, of what has no area, and where nothing is left, is nothing', () => {
    expect(combine([], 'add', idOf)).toEqual([]);
    expect(arrange([[], []]).stretches).toEqual([]);
    const dot = pathOf([anchor(3, 3)], true);
    expect(combine([[dot], [squarePath(0, 0, 10)]], 'overlap', idOf)).toEqual([]);
    expect(areaOf(combine([[dot], [squarePath(0, 0, 10)]], 'add', idOf))).toBeCloseTo(100, 9);
    expect(combine([[squarePath(0, 0, 10)], [squarePath(0, 0, 10, 'q')]], 'bite', idOf)).toEqual([]);
    expect(combine([[squarePath(0, 0, 10)], [squarePath(0, 0, 10, 'q')]], 'either', idOf)).toEqual([]);
    const hair = pathOf([anchor(0, 0), anchor(10, 0)], true);
    expect(combine([[hair], [squarePath(20, 0, 10)]], 'overlap', idOf)).toEqual([]);
  });
});
