import { describe, expect, it } from 'vitest';
import { cross, distance, dot, subtract, unit, type Point } from '../geometry/vector';
import { seeded } from '../seed';
import { anchorPlaces, PLACE } from './anchor-places';
import { chainRun, fitChain, type ChainOptions } from './fit-chain';
import { farthestStretch, runOfPoints, runTangent, type Run } from './fit-path';

const LEVEL = { x: 1, y: 0 };
const options = (more: Partial<ChainOptions> = {}): ChainOptions => ({ tolerance: 0.5, about: 7, most: 8, level: LEVEL, ...more }); // prettier-ignore

/** A line by its length: `count` points a step of 1 apart, turning as `bend` says (radians a step). */
function drawn(count: number, bend: (i: number) => number, heading = 0): Point[] {
  const out = [{ x: 0, y: 0 }];
  for (let i = 1, way = heading; i < count; way += bend(i), i++)
    out.push({ x: out[i - 1]!.x + Math.cos(way), y: out[i - 1]!.y + Math.sin(way) });
  return out;
}
const arc = (radius: number, turns: number): Point[] => drawn(Math.round(2 * Math.PI * radius * turns), () => 1 / radius); // prettier-ignore
/** The fewest there can be: each as long as holds. */
function greedy(run: Run, to: number, { tolerance, about }: ChainOptions): number {
  let [at, count] = [0, 0];
  for (; at < to; count++) {
    const leave = at === 0 || run.corners.has(at) ? null : runTangent(run, at, 0, about);
    at += farthestStretch(run, at, run.points.length - 1 - at, { tolerance, about, leave }).count;
  }
  return count;
}

describe('a chain of segments', () => {
  it('holds wavy lines by as few as there can be, smooth from one to the next', () => {
    const random = seeded(11);
    for (let k = 0; k < 12; k++) {
      const [a, b] = [0.02 + 0.05 * random(), 20 + 60 * random()];
      const run = runOfPoints(drawn(500, (i) => a * Math.sin(i / b)));
      const line = chainRun(run);
      // As a pointer goes along: what is known from before stays.
      for (const to of [60, 190, 333, 499]) {
        const chain = fitChain(line, to, options());
        expect(chain.length).toBe(greedy(run, to, options()));
        expect(chain.every((s) => s.holds && s.worst <= 0.5)).toBe(true);
        expect(chain.reduce((n, s) => n + s.count, 0)).toBe(to);
        for (const [i, { cubic }] of chain.entries()) {
          if (i === 0) continue;
          const before = chain[i - 1]!.cubic;
          expect(distance(before[3], cubic[0])).toBe(0);
          const [u, v] = [unit(subtract(before[3], before[2]))!, unit(subtract(cubic[1], cubic[0]))!];
          expect(dot(u, v)).toBeGreaterThan(0.999);
        }
      }
    }
  });

  it('has its anchors where straight runs end', () => {
    // 80 straight, a quarter of a ring of 40, 90 straight, a quarter back.
    const quarter = Math.round(20 * Math.PI);
    const ends = [80, 80 + quarter, 170 + quarter, 170 + 2 * quarter];
    const bend = (i: number): number =>
      i > ends[0]! && i <= ends[1]! ? 1 / 40 : i > ends[2]! && i <= ends[3]! ? -1 / 40 : 0;
    const chain = fitChain(chainRun(runOfPoints(drawn(320, bend, 0.4))), 319, options());
    const joints = chain.map((_, i) => chain.slice(0, i + 1).reduce((n, s) => n + s.count, 0)).slice(0, -1);
    expect(chain.length).toBe(greedy(runOfPoints(drawn(320, bend, 0.4)), 319, options()));
    // What is left is too much for one anchor more where it ends; there it is elsewhere.
    expect(Math.abs(joints[0]! - ends[0]!)).toBeLessThan(4);
    expect(Math.abs(joints[1]! - ends[1]!)).toBeLessThan(4);
    expect(Math.abs(cross(subtract(chain[0]!.cubic[1], chain[0]!.cubic[0]), subtract(chain[0]!.cubic[3], chain[0]!.cubic[0])))).toBeLessThan(1e-9); // prettier-ignore
  });

  it('has them at a ring’s extremes, by the sheet it lies on', () => {
    for (const turned of [0, 0.5]) {
      const level = { x: Math.cos(turned), y: Math.sin(turned) };
      // Begun a fifth of a turn after an extreme, where longest stretches would end anywhere.
      const points = drawn(500, () => 1 / 90, turned - 1);
      const chain = fitChain(chainRun(runOfPoints(points)), 470, options({ level, tolerance: 0.6 }));
      for (const { cubic } of chain.slice(0, -1)) {
        const way = unit(subtract(cubic[3], cubic[2]))!;
        expect(Math.min(Math.abs(dot(way, level)), Math.abs(way.x * level.y - way.y * level.x))).toBeLessThan(0.02); // prettier-ignore
      }
      expect(chain.length).toBe(greedy(runOfPoints(points), 470, options({ tolerance: 0.6 })));
    }
  });

  it('ends a segment at every corner, where the next may leave as it likes', () => {
    const zigzag = drawn(240, (i) => (i % 60 === 0 ? (i % 120 === 0 ? -1.6 : 1.6) : 0));
    const run = runOfPoints(zigzag, [60, 120, 180]);
    const chain = fitChain(chainRun(run), 239, options());
    expect(chain.map((s) => s.count)).toEqual([60, 60, 60, 59]);
    expect(chain.every((s) => s.worst < 1e-9)).toBe(true);
  });

  it('ends with the last of as many as are allowed', () => {
    const run = runOfPoints(arc(60, 3));
    const chain = fitChain(chainRun(run), run.points.length - 1, options({ most: 2, tolerance: 0.1 }));
    expect(chain.length).toBe(2);
    expect(chain.every((s) => s.holds)).toBe(true);
    const reached = chain.reduce((n, s) => n + s.count, 0);
    expect(reached).toBeLessThan(run.points.length - 1);
    expect(chain[1]!.cubic[3]).toEqual(run.points[reached]);
  });

  it('arrives as it is asked to, with one anchor more where that is needed', () => {
    const run = runOfPoints(arc(80, 0.5));
    const arrive = unit({ x: 1, y: 0.4 })!;
    const chain = fitChain(chainRun(run), run.points.length - 1, options({ arrive }));
    const [, , c, d] = chain.at(-1)!.cubic;
    expect(dot(unit(subtract(c, d))!, arrive)).toBeGreaterThan(1 - 1e-9);
    expect(chain[0]!.holds).toBe(true);
  });

  it('takes two points, and refuses none', () => {
    const two = chainRun(runOfPoints([{ x: 0, y: 0 }, { x: 5, y: 0 }])); // prettier-ignore
    expect(fitChain(two, 1, options())[0]!.cubic[3]).toEqual({ x: 5, y: 0 });
    // Left the other way on a line that is all jags, not even the first step is held.
    const jags = runOfPoints(Array.from({ length: 60 }, (_, i) => ({ x: i, y: i % 2 })));
    expect(fitChain(chainRun(jags), 30, options({ leave: { x: -1, y: 0 } }))).toEqual([]);
    expect(() => fitChain(two, 2, options())).toThrow('ends at a point');
    expect(() => fitChain(two, 1, options({ most: 0 }))).toThrow('one segment or more');
  });
});

describe('places for anchors', () => {
  it('are none on a straight line, and one a quarter on a ring', () => {
    expect(anchorPlaces(runOfPoints(drawn(200, () => 0, 0.3)), 7, LEVEL).every((v) => v === PLACE.any)).toBe(true); // prettier-ignore
    const ring = anchorPlaces(runOfPoints(drawn(700, () => 0.01, 0.1)), 7, LEVEL);
    expect(ring.filter((v) => v === PLACE.extreme).length).toBe(4);
  });

  it('tell a tight turn and a corner from a bend', () => {
    const turn = drawn(200, (i) => (i > 95 && i < 105 ? 0.12 : 0), 0.2);
    const places = anchorPlaces(runOfPoints(turn, [30]), 7, LEVEL);
    expect(places[30]).toBe(PLACE.corner);
    const at = places.indexOf(PLACE.turn);
    expect(Math.abs(at - 100)).toBeLessThan(4);
  });
});
