import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/vector';
import { readHpgl } from '../formats/hpgl/read';
import { writeHpgl } from '../formats/hpgl/write';
import type { PenStroke } from '../path/pen-stroke';
import { seeded } from '../testing';
import { leadBlade, trailOf } from './blade';
import { doubledStretches } from './doubled';
import { FIRST_MACHINE, type Machine } from './machine';
import { crowdedPlaces, motionAlong, placeAt } from './motion';
import { playFile } from './play';

const line = (points: readonly (readonly [number, number])[], closed = false, pen = 1): PenStroke => ({ pen, closed, points: points.map(([x, y]) => ({ x, y })) }); // prettier-ignore
const machine: Machine = {
  ...FIRST_MACHINE,
  speed: 100,
  travelSpeed: 200,
  acceleration: 1000,
  liftTime: 0.15,
};
const total = (strokes: readonly PenStroke[], by = machine): number => motionAlong(strokes, by).times.at(-1)!;
const ring = (n: number, radius: number): PenStroke =>
  line(Array.from({ length: n }, (_, k) => [radius * Math.cos((2 * Math.PI * k) / n), radius * Math.sin((2 * Math.PI * k) / n)] as const), true); // prettier-ignore

describe('the motion of a machine', () => {
  // Worked by hand. Common practice, no source: over a length d at most v fast, from rest to rest, gaining a:
  // d/v + v/a where v is reached, else 2 √(d/a).
  it('takes the time that is worked out by hand', () => {
    // 100 mm up at 200 mm/s: 0.5 + 0.2 s; the pen 0.15 s; 100 mm down at 100 mm/s: 1 + 0.1 s.
    expect(total([line([[100, 0], [200, 0]])])).toBeCloseTo(0.7 + 0.15 + 1.1, 9); // prettier-ignore
    // 5 mm, in which 100 mm/s is never reached: 2 √(5/1000).
    expect(total([line([[0, 0], [5, 0]])])).toBeCloseTo(0.15 + 2 * Math.sqrt(0.005), 9); // prettier-ignore
    // Cut into a hundred pieces it is the same line.
    expect(total([line(Array.from({ length: 101 }, (_, k) => [k, 0] as const))])).toBeCloseTo(0.15 + 1.1, 9);
    // There and back it stands still at the turn: twice 100 mm.
    expect(total([line([[0, 0], [100, 0], [0, 0]])])).toBeCloseTo(0.15 + 2.2, 9); // prettier-ignore
    // Round a right angle with deviation 0.02 mm: v² = 1000 · 0.02 · s/(1−s), s = sin 45°, so 6.948 mm/s. Each side of
    // 100 mm: from rest to 100 mm/s in 0.1 s (5 mm), and down to 6.948 in 0.09305 s (4.9759 mm), 90.0241 mm evenly.
    const corner = Math.sqrt((1000 * 0.02 * Math.SQRT1_2) / (1 - Math.SQRT1_2));
    const side = 0.1 + (100 - corner) / 1000 + (100 - 5 - (100 ** 2 - corner ** 2) / 2000) / 100;
    expect(total([line([[0, 0], [100, 0], [100, 100]])])).toBeCloseTo(0.15 + 2 * side, 9); // prettier-ignore
  });

  it('needs no lift where a stroke begins at the end of the last, but for another pen', () => {
    const [a, b] = [line([[0, 0], [100, 0]]), line([[100, 0], [200, 0]])]; // prettier-ignore
    expect(total([a, b])).toBeCloseTo(0.15 + 2.2, 9);
    expect(total([a, { ...b, pen: 2 }])).toBeCloseTo(0.3 + 2.2, 9);
    expect(motionAlong([], machine).times).toEqual(Float64Array.from([0]));
  });

  it('is at each place in order, with the pen up on the way there', () => {
    const motion = motionAlong([line([[10, 0], [20, 0]]), line([[20, 10], [30, 10]])], machine); // prettier-ignore
    expect([...motion.down]).toEqual([0, 0, 1, 0, 1]);
    expect([...motion.strokes]).toEqual([-1, 0, 0, 1, 1]);
    expect([...motion.places]).toEqual([0, 0, 10, 0, 20, 0, 20, 10, 30, 10]);
    expect([placeAt(motion, 0), placeAt(motion, motion.times[2]!), placeAt(motion, motion.times[3]! - 1e-9), placeAt(motion, 99)]).toEqual([0, 2, 2, 4]); // prettier-ignore
    expect([...motion.times].every((t, i) => i === 0 || t >= motion.times[i - 1]!)).toBe(true);
  });

  it('goes along a circle the slower the tighter it is', () => {
    const round = (radius: number): number => (2 * Math.PI * radius) / total([ring(400, radius)]);
    expect(round(50)).toBeGreaterThan(round(5));
    expect(round(5)).toBeGreaterThan(round(0.5));
  });

  it('is told where places crowd beyond what the machine takes', () => {
    // 100 mm/s over places 0.1 mm apart: 1000 a second, in the middle of a line; ends are slower.
    const dense = line(Array.from({ length: 1001 }, (_, k) => [k / 10, 0] as const));
    const found = crowdedPlaces(motionAlong([dense], machine), 500);
    expect(found).toHaveLength(1);
    expect(found[0]!.rate).toBeGreaterThan(980);
    expect(found[0]!.rate).toBeLessThanOrEqual(1004);
    expect(crowdedPlaces(motionAlong([dense], machine), 1010)).toEqual([]);
    expect(crowdedPlaces(motionAlong([line([[0, 0], [100, 0]])], machine), 400)).toEqual([]); // prettier-ignore
    // Two such lines with a pause between are two places.
    const other = { ...dense, points: dense.points.map(({ x }) => ({ x, y: 50 })) };
    expect(crowdedPlaces(motionAlong([dense, other], machine), 500)).toHaveLength(2);
  });
});

describe('a file on the bench', () => {
  const text = writeHpgl([line([[10, 10], [30, 10], [30, 30], [10, 30]], true), line([[30, 10], [10, 10]])]); // prettier-ignore

  it('is played as it was written', () => {
    const played = playFile(text, machine);
    expect(played.strokes).toEqual(readHpgl(text).strokes);
    expect(played.left).toBe(played.strokes);
    expect(played.way.drawn).toBe(100);
    expect(played.places).toBe(5);
    expect(played.seconds).toBe(played.motion.times.at(-1));
    expect(played.doubled.map(({ stroke, length }) => [stroke, length])).toEqual([[1, 20]]);
    expect(played.box).toEqual({ x0: 0, y0: 0, x1: 30, y1: 30 });
    expect([played.crowded, played.unknown]).toEqual([[], []]);
    expect(() => playFile('hello', machine)).toThrow(/no HP-GL/);
  });

  it('comes out otherwise than it says where a knife trails', () => {
    const { left } = playFile(text, { ...machine, tool: 'knife', bladeOffset: 0.5 });
    expect(left[0]!.points.length).toBeGreaterThan(20);
    expect(Math.max(...left[0]!.points.map(({ x }) => x))).toBeLessThan(30);
  });
});

describe('a trailing knife', () => {
  // Source: the tractrix (Huygens 1693), edge at o (−sech, s/o − tanh) for a way s of the middle at right angles to it.
  it('cuts the tractrix of where its middle is led', () => {
    const [cut] = trailOf([line([[0, 0], [0, 3]])], 0.5); // prettier-ignore
    for (const s of [0.25, 0.5, 1, 2]) {
      const want = { x: -0.5 / Math.cosh(s / 0.5), y: s - 0.5 * Math.tanh(s / 0.5) };
      const near = Math.min(...cut!.points.map((p) => Math.hypot(p.x - want.x, p.y - want.y)));
      expect(near).toBeLessThan(0.02);
    }
    expect(trailOf([line([[0, 0], [1, 0]])], 0)).toEqual([line([[0, 0], [1, 0]])]); // prettier-ignore
  });

  const farthest = (from: readonly Point[], to: PenStroke): number => {
    const all = to.closed ? [...to.points, to.points[0]!] : to.points;
    const near = (p: Point): number => {
      let least = Infinity;
      for (let i = 1; i < all.length; i++) {
        const [a, b] = [all[i - 1]!, all[i]!];
        const d = { x: b.x - a.x, y: b.y - a.y };
        const t = Math.min(
          1,
          Math.max(0, ((p.x - a.x) * d.x + (p.y - a.y) * d.y) / (d.x ** 2 + d.y ** 2 || 1)),
        );
        least = Math.min(least, Math.hypot(p.x - a.x - t * d.x, p.y - a.y - t * d.y));
      }
      return least;
    };
    return Math.max(...from.map(near));
  };

  it('rounds corners off when it is led along them, and cuts them sharp when led ahead', () => {
    const square = line([[10, 10], [30, 10], [30, 30], [10, 30]], true); // prettier-ignore
    const strokes = [square, ring(200, 6), line([[50, 50], [60, 50], [52, 53]])]; // prettier-ignore
    const plain = trailOf(strokes, 0.5);
    const led = trailOf(leadBlade(strokes, 0.5), 0.5);
    strokes.forEach((stroke, i) => {
      expect(farthest(plain[i]!.points, stroke)).toBeGreaterThan(0.015);
      // Where it is led ahead, the edge keeps to the line, and all of the line is cut.
      expect(farthest(led[i]!.points, stroke)).toBeLessThan(0.03);
      expect(farthest(stroke.points, led[i]!)).toBeLessThan(0.03);
    });
    expect(farthest(plain[0]!.points, square)).toBeGreaterThan(0.1);
    expect(farthest(square.points, plain[0]!)).toBeGreaterThan(0.3);
    // A closed one comes off whole: it ends beyond its beginning.
    expect(Math.hypot(led[0]!.points.at(-1)!.x - 10.5, led[0]!.points.at(-1)!.y - 10)).toBeLessThan(0.05);
    expect(leadBlade(strokes, 0)).toEqual(strokes);
  });

  it('stands still where there is nothing to follow', () => {
    const dot = line([[5, 5], [5, 5]]); // prettier-ignore
    for (const one of [...leadBlade([dot], 0.3), ...trailOf([dot], 0.3)])
      expect(one.points.every(({ x, y }) => Number.isFinite(x) && Number.isFinite(y))).toBe(true);
  });
});

describe('what is drawn twice', () => {
  const lengths = (...strokes: PenStroke[]): number[] => doubledStretches(strokes, 0.3).map(({ length }) => Number(length.toFixed(3))); // prettier-ignore

  it('is found where lines lie on each other, either way round, in whole or in part', () => {
    expect(lengths(line([[0, 0], [20, 0]]), line([[20, 0.1], [0, 0.1]]))).toEqual([20]); // prettier-ignore
    expect(lengths(line([[0, 0], [20, 0]]), line([[15, 0], [40, 0]]))).toEqual([5]); // prettier-ignore
    expect(lengths(line([[0, 0], [20, 0]]), line([[30, 0], [20, 0], [10, 0], [10, 9]]))).toEqual([10]); // prettier-ignore
    // Thrice is twice too often.
    const same = line([[0, 0], [20, 0]]); // prettier-ignore
    expect(lengths(same, same, same)).toEqual([20, 20]);
    // One that turns back on itself.
    expect(lengths(line([[0, 0], [20, 0], [0, 0]]))).toEqual([20]); // prettier-ignore
    // A border in common of two squares.
    expect(lengths(line([[0, 0], [10, 0], [10, 10], [0, 10]], true), line([[10, 0], [20, 0], [20, 10], [10, 10]], true))).toEqual([10]); // prettier-ignore
  });

  it('is not where lines cross, meet, lie beside each other, or bend', () => {
    expect(lengths(line([[0, 0], [20, 0]]), line([[10, -10], [10, 10]]))).toEqual([]); // prettier-ignore
    expect(lengths(line([[0, 0], [20, 0]]), line([[20, 0], [40, 0]]))).toEqual([]); // prettier-ignore
    expect(lengths(line([[0, 0], [20, 0]]), line([[0, 1], [20, 1]]))).toEqual([]); // prettier-ignore
    expect(lengths(ring(400, 6), ring(40, 8))).toEqual([]);
    expect(lengths(ring(2000, 1))).toEqual([]);
    expect(doubledStretches([], 0.3)).toEqual([]);
  });

  it('is measured whichever way curves are cut into points', () => {
    const random = seeded(4);
    for (let k = 0; k < 10; k++) {
      const radius = 5 + 40 * random();
      const [a, b] = [
        ring(50 + Math.floor(300 * random()), radius),
        ring(50 + Math.floor(300 * random()), radius),
      ];
      const found = doubledStretches([a, b], 0.6);
      const length = found.reduce((sum, one) => sum + one.length, 0);
      expect(length / (2 * Math.PI * radius)).toBeGreaterThan(0.98);
      expect(length / (2 * Math.PI * radius)).toBeLessThan(1.01);
    }
  });

  it('is the same of what is read back from the file', () => {
    const strokes = [line([[0, 0], [20, 0]]), line([[20, 0], [5, 0]])]; // prettier-ignore
    expect(doubledStretches(readHpgl(writeHpgl(strokes)).strokes, 0.3).map(({ length }) => length)).toEqual([15]); // prettier-ignore
  });
});
