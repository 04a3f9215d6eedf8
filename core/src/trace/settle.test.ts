import { describe, expect, it } from 'vitest';
import { cubicPoint } from '../geometry/cubic';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import { parsePathData } from '../path/data';
import { flowAll, deriveFlow } from '../path/flow';
import { setMeantSegments } from '../path/meant';
import { nearestOnPath, pathLength } from '../path/path-measure';
import { pathCubics, segmentCubic, type Path } from '../path/path';
import { transformPath } from '../path/path-map';
import { measureDrift } from './drift';
import { EDGE_BLUR, edgeTiles, fieldTiles } from './field-tiles';
import { driftFigures } from './figures';
import { settle } from './settle';
import { rgbToOklab } from '../colour/oklab';
import { widen } from '../path/stroke-to-shape';
import { halved } from '../picture/halve';
import { painted, photographed } from './testing';

const INK = [40, 70, 60] as const;
const PAPER = [235, 228, 210] as const;
const random = seeded(41);
const shaken = (path: Path, by: number): Path => ({
  ...path,
  form: undefined,
  anchors: path.anchors.map((a) => ({
    ...a,
    x: a.x + by * (2 * random() - 1),
    y: a.y + by * (2 * random() - 1),
  })),
});
/** Mean distance of a path from the true outline, both ways, measured densely. */
const off = (path: Path, truth: Path): number => {
  const one = (a: Path, b: Path): number => {
    const d = pathCubics(a).flatMap((c) =>
      Array.from({ length: 30 }, (_, i) => nearestOnPath(b, cubicPoint(c, (i + 0.5) / 30))!.distance),
    );
    return d.reduce((s, v) => s + v, 0) / d.length;
  };
  return Math.max(one(path, truth), one(truth, path));
};
const fieldOf = (truth: Path, grain = 0) =>
  fieldTiles(painted(240, 240, [{ path: truth, rgb: INK }], PAPER, grain), 'edge', EDGE_BLUR);
const WHERE = { reach: 12 };

const LEAF = parsePathData('M60 190C30 120 70 50 180 40C200 120 150 190 60 190Z')[0]!;
const POT = parsePathData('M50 70L190 70L165 200C140 212 100 212 75 200Z')[0]!;

// Truth: outlines that the picture was painted from.
describe('settling a rough path', () => {
  it.each([
    ['a disc by four smooth anchors', circlePath(120, 120, 70)],
    ['a leaf with two corners', LEAF],
    ['a pot of straight sides and a curved foot', POT],
    ['a square', squarePath(60, 60, 110)],
  ])('brings %s from up to 4 px off to a fifth of a pixel, kinds and count unchanged', (_what, truth) => {
    for (const grain of [0, 16])
      for (let k = 0; k < 4; k++) {
        const rough = shaken(truth, 4);
        const { path, before, after } = settle(rough, fieldOf(truth, grain), WHERE);
        expect(off(rough, truth)).toBeGreaterThan(0.6);
        expect(off(path, truth)).toBeLessThan(grain > 0 ? 0.3 : 0.2);
        expect(after.mean).toBeLessThan(before.mean);
        expect(path.anchors.map((a) => a.kind)).toEqual(truth.anchors.map((a) => a.kind));
        for (const a of path.anchors)
          if (a.kind === 'smooth' && a.in && a.out)
            expect(Math.abs(a.in.x * a.out.y - a.in.y * a.out.x) / (Math.hypot(a.in.x, a.in.y) * Math.hypot(a.out.x, a.out.y))).toBeLessThan(1e-6); // prettier-ignore
      }
  });

  it('bends straight segments where the truth curves', () => {
    const polygon: Path = { ...LEAF, anchors: [[60, 190], [52, 92], [180, 40], [176, 132], [140, 176]].map(([x, y]) => anchor(x!, y!)) }; // prettier-ignore
    const { path } = settle(shaken(polygon, 2), fieldOf(LEAF), WHERE);
    expect(path.anchors).toHaveLength(5);
    expect(off(path, LEAF)).toBeLessThan(0.35);
  });

  it('leaves a straight side straight whose edge jumps: that is two edges, and no bow', () => {
    const stepped = parsePathData('M50 60L148 60L148 65L190 65L190 190L50 190Z')[0]!;
    const rough = parsePathData('M51 61L189 63L191 188L52 189Z')[0]!;
    const { path } = settle(rough, fieldOf(stepped), WHERE);
    expect(path.anchors.every((a) => a.in === null && a.out === null)).toBe(true);
  });

  it('takes flowing anchors along and keeps them flowing', () => {
    const disc = circlePath(120, 120, 70);
    const ring = Array.from({ length: 8 }, (_, i) => anchor(120 + 72 * Math.cos(i * 0.785), 120 + 68 * Math.sin(i * 0.785))); // prettier-ignore
    const rough = deriveFlow(shaken(flowAll(pathOf(ring, true), { sharpest: 3 }), 3));
    const { path } = settle(rough, fieldOf(disc), WHERE);
    expect(path.anchors.every((a) => a.kind === 'flowing')).toBe(true);
    expect(off(path, disc)).toBeLessThan(0.25);
  });

  it('moves handles only when anchors must stay, and only the segments asked for', () => {
    const disc = circlePath(120, 120, 70);
    const long = { ...disc, anchors: disc.anchors.map((a) => ({ ...a, in: a.in && { x: a.in.x * 1.3, y: a.in.y * 1.3 }, out: a.out && { x: a.out.x * 1.3, y: a.out.y * 1.3 } })) }; // prettier-ignore
    const field = fieldOf(disc);
    const { path } = settle(long, field, { ...WHERE, anchors: false });
    path.anchors.forEach((a, i) => expect([a.x, a.y]).toEqual([long.anchors[i]!.x, long.anchors[i]!.y]));
    expect(off(path, disc)).toBeLessThan(0.1);
    const one = settle(long, field, { ...WHERE, only: [1] }).path;
    expect(one.anchors[0]).toEqual(long.anchors[0]);
    expect(one.anchors[3]).toEqual(long.anchors[3]);
    expect(one.anchors[1]).not.toEqual(long.anchors[1]);
  });

  it('finds what a general minimiser of the true distance finds, for the handles of a disc', () => {
    // Reference: golden-section search on the one length that matters, over the true mean distance.
    const disc = circlePath(120, 120, 70);
    const withLength = (l: number): Path => ({ ...disc, anchors: disc.anchors.map((a) => ({ ...a, in: a.in && { x: (a.in.x / 38.66) * l, y: (a.in.y / 38.66) * l }, out: a.out && { x: (a.out.x / 38.66) * l, y: (a.out.y / 38.66) * l } })) }); // prettier-ignore
    let [low, high] = [20, 60];
    for (let k = 0; k < 40; k++) {
      const [a, b] = [high - (high - low) / 1.618, low + (high - low) / 1.618];
      if (off(withLength(a), disc) < off(withLength(b), disc)) high = b;
      else low = a;
    }
    const { path } = settle(withLength(30), fieldOf(disc), { ...WHERE, anchors: false });
    for (const a of path.anchors) expect(Math.hypot(a.out!.x, a.out!.y)).toBeCloseTo((low + high) / 2, 0);
  });

  it('tells figures as drift itself does where that is asked for', () => {
    const rough = shaken(LEAF, 4);
    const field = fieldOf(LEAF, 16);
    const { path, before, after } = settle(rough, field, { ...WHERE, figureSpacing: 1 });
    expect(before).toEqual(driftFigures([measureDrift(rough, field, WHERE)], 1));
    expect(after).toEqual(driftFigures([measureDrift(path, field, WHERE)], 1));
    expect(after.mean).toBeLessThan(before.mean);
  });

  it('leaves what is meant so where it is, and out of the figures', () => {
    const disc = circlePath(120, 120, 70);
    const field = fieldOf(disc);
    const rough = setMeantSegments(shaken(disc, 3), [2], true);
    const { path, before } = settle(rough, field, { ...WHERE, figureSpacing: 1 });
    // Its ends stay; where they are smooth their handles turn with the neighbour's.
    for (const i of [2, 3]) expect(path.anchors[i]).toMatchObject({ x: rough.anchors[i]!.x, y: rough.anchors[i]!.y }); // prettier-ignore
    expect(segmentCubic(path, 0)).not.toEqual(segmentCubic(rough, 0));
    expect(before.length).toBeLessThan(0.8 * pathLength(rough));
    const all = setMeantSegments(rough, [0, 1, 2, 3], true);
    expect(settle(all, field, WHERE).path).toBe(all);
  });

  it('never makes it worse and says when it cannot help: on the edge already, on flat paper, far away, one anchor', () => {
    const disc = circlePath(120, 120, 70);
    const exact = settle(disc, fieldOf(disc), WHERE);
    expect(exact.after.mean).toBeLessThanOrEqual(exact.before.mean);
    const flat = fieldTiles(painted(240, 240, [], PAPER), 'edge', EDGE_BLUR);
    for (const path of [disc, pathOf([anchor(3, 3)]), transformPath(disc, [1, 0, 0, 1, 900, 0])]) {
      const same = settle(path, flat, WHERE);
      expect(same.path).toBe(path);
    }
    for (let k = 0; k < 10; k++) {
      const any = pathOf(
        Array.from({ length: 5 }, () => anchor(20 + 200 * random(), 20 + 200 * random())),
        true,
      );
      const { before, after } = settle(any, fieldOf(LEAF, 16), WHERE);
      if (before.measured > 0) expect(after.mean).toBeLessThanOrEqual(before.mean);
    }
  });
});

// Truth: outlines that a soft picture was photographed from.
describe('settling from far off', () => {
  const soft = (truth: Path) => {
    const raster = photographed(240, 240, [{ path: truth, rgb: INK }], PAPER, { blur: 2, grain: 2 });
    const half = halved(raster);
    return { field: edgeTiles(raster), coarser: [edgeTiles(half), edgeTiles(halved(half))] };
  };
  it.each([
    ['a leaf with two corners', LEAF],
    ['a pot of straight sides and a curved foot', POT],
    ['a disc', circlePath(120, 120, 70)],
  ])('brings %s home from anchors up to 20 px off, without spike or loop', (_what, truth) => {
    const { field, coarser } = soft(truth);
    for (let k = 0; k < 2; k++) {
      const rough = shaken(truth, 20);
      const { path, after } = settle(rough, field, { reach: 16, light: 'true', coarser });
      expect(off(path, truth)).toBeLessThan(0.5);
      expect(after.mean).toBeLessThan(0.15);
      expect(pathLength(path)).toBeLessThan(1.02 * pathLength(truth));
    }
  });

  it('leaves no spike at the acute tips of a crescent beside a rim, whose outer edges meet 16 px farther out', () => {
    const moon = parsePathData('M156 37C105 43 72 83 72 124C72 168 108 206 160 206C117 231 39 201 39 121C39 53 105 15 156 37Z')[0]!; // prettier-ignore
    const [[rim]] = widen([moon], 4, { joins: 'round', miterLimit: 4 }, (n) => `rim${n}`) as [[Path]];
    const areas = [
      { path: rim, rgb: [96, 128, 108] },
      { path: moon, rgb: [46, 84, 70] },
    ] as const;
    const field = edgeTiles(photographed(240, 240, areas, [228, 218, 196], { blur: 0.7, grain: 1 }));
    const own = rgbToOklab([46 / 255, 84 / 255, 70 / 255]);
    for (let k = 0; k < 4; k++) {
      const { path } = settle(shaken(moon, 5), field, { reach: 12, light: 'true', own });
      const ends = pathCubics(path).flatMap((c) => Array.from({ length: 30 }, (_, i) => nearestOnPath(moon, cubicPoint(c, i / 30))!.distance)); // prettier-ignore
      expect(Math.max(...ends)).toBeLessThan(4);
    }
  });

  it('draws no tip of a star beside a rim out to a spike, and needs no smaller picture for what only corners hide', () => {
    const star = parsePathData(
      'M120 26L143 91L211 93L157 135L176 200L120 161L65 200L84 135L29 93L97 91Z',
    )[0]!;
    const [[rim]] = widen([star], 4, { joins: 'round', miterLimit: 4 }, (n) => `rim${n}`) as [[Path]];
    const areas = [
      { path: rim, rgb: [96, 128, 108] },
      { path: star, rgb: [46, 84, 70] },
    ] as const;
    const raster = photographed(240, 240, areas, [228, 218, 196], { blur: 0.7, grain: 1 });
    const own = rgbToOklab([46 / 255, 84 / 255, 70 / 255]);
    let far = 0;
    for (let k = 0; k < 6; k++) {
      let asked = false;
      const smaller = new Proxy(edgeTiles(halved(raster)), {
        get: (tiles, key) => {
          asked = true;
          return Reflect.get(tiles, key) as unknown;
        },
      });
      const { path } = settle(shaken(star, 5), edgeTiles(raster), { reach: 12, light: 'true', own, coarser: [smaller] }); // prettier-ignore
      const off = path.anchors.map((a, i) => Math.hypot(a.x - star.anchors[i]!.x, a.y - star.anchors[i]!.y));
      expect(Math.max(...off)).toBeLessThan(10);
      if (asked) far++;
    }
    expect(far).toBeLessThanOrEqual(2);
  });

  it('counts what comes into reach as gain, not as harm', () => {
    // Half of the rough line lies out of reach: of what is measured the mean is small, of all of it large.
    const truth = circlePath(120, 120, 70);
    const { field, coarser } = soft(truth);
    const rough: Path = {
      ...truth,
      anchors: truth.anchors.map((a, i) => (i === 0 ? { ...a, x: a.x + 26 } : a)),
    };
    const { path, before, after } = settle(rough, field, { reach: 8, light: 'true', coarser });
    expect(before.measured).toBeLessThan(0.75 * before.length);
    expect(after.measured).toBeGreaterThan(0.95 * after.length);
    expect(off(path, truth)).toBeLessThan(0.2);
  });

  it('gives figures of chosen segments alone when only they may move', () => {
    const truth = circlePath(120, 120, 70);
    const { field } = soft(truth);
    const rough = shaken(truth, 4);
    const { before } = settle(rough, field, { reach: 12, only: [1] });
    expect(before).toEqual(driftFigures([measureDrift(rough, field, { reach: 12 })], 1, 1));
  });
});
