import { describe, expect, it } from 'vitest';
import { changeArt, type Recipe } from '../art/change';
import { addNode, mapShape, partShared, setPath, shareBorder, together } from '../art/edits';
import { readArt } from '../art/check';
import type { Art, Shape } from '../art/schema';
import { emptyArt } from '../art/blank';
import { findShape, shapesOf } from '../art/tree';
import { translation } from '../geometry/affine';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import { insertAnchor } from './insert';
import { bordersBetween, type PathOf } from './border';
import { spotOf } from './shared-anchors';
import { segmentCount, segmentCubic, withAnchor, type Path } from './path';
import { removeAnchors } from './remove';

const S = (id: string): string => `S${id}`;
const put = (id: string, path: Path): Recipe => setPath(S(id), path);
const shapeOf = (id: string, path: Path): Shape => ({
  id: S(id), type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths: [path],
}); // prettier-ignore
const blank = emptyArt({ width: 1000, height: 1000, unit: 'px' }, 'l');
const doing = (art: Art, ...recipes: Recipe[]): Art => changeArt(art, together(...recipes)).art;
const pathIn = (art: Art, id: string): Path => findShape(art, S(id))!.paths[0]!;
const outlines = (art: Art, without: string): PathOf[] =>
  shapesOf(art).flatMap(({ shape }) =>
    shape.id === without ? [] : shape.paths.map((path) => ({ shape: shape.id, path })),
  );

let keys = 0;
const newKey = (): string => `k${keys++}`;

/** Draws an open path as a hand would, then takes over the border between its ends. */
function drawAlong(art: Art, id: string, path: Path, way = 0): Art {
  const drawn = doing(art, addNode('l', shapeOf(id, path)));
  const borders = bordersBetween(outlines(drawn, S(id)), path.anchors.at(-1)!, path.anchors[0]!, 1e-6)!;
  return doing(drawn, shareBorder(S(id), path, borders, way, newKey));
}

/** Directed segments that have no like in the other direction: the border of the whole, were there no gaps. */
function unmatched(paths: readonly Path[]): number {
  const open = new Map<string, number>();
  for (const path of paths)
    for (let i = 0; i < segmentCount(path); i++) {
      const c = segmentCubic(path, i);
      // End points and handles, exactly as they are.
      const one = [spotOf(c[0]), path.anchors[i]!.out && spotOf(path.anchors[i]!.out!), spotOf(c[3])].join(
        ' ',
      );
      const next = path.anchors[(i + 1) % path.anchors.length]!;
      const key = [one, next.in && spotOf(next.in)].join('|');
      const back = [spotOf(c[3]), next.in && spotOf(next.in), spotOf(c[0])].join(' ');
      const reverse = [back, path.anchors[i]!.out && spotOf(path.anchors[i]!.out!)].join('|');
      const met = open.get(reverse) ?? 0;
      if (met > 0) open.set(reverse, met - 1);
      else open.set(key, (open.get(key) ?? 0) + 1);
    }
  return [...open.values()].reduce((s, v) => s + v, 0);
}

describe('ways along a neighbour', () => {
  const square: PathOf = { shape: 's', path: squarePath(0, 0, 10, 's') };

  it('the shorter first, the other way round second', () => {
    const { ways, added } = bordersBetween([square], { x: 10, y: 0 }, { x: 0, y: 0 }, 1e-6)!;
    expect(added).toEqual([]);
    expect(ways.map((w) => Math.round(w.length * 1e9) / 1e9)).toEqual([10, 30]);
    expect(ways[1]!.anchors.map((a) => [a.x, a.y])).toEqual([
      [10, 0],
      [10, 10],
      [0, 10],
      [0, 0],
    ]);
  });

  it('begin between anchors too: one is added there without changing the line', () => {
    const circle: PathOf = { shape: 'c', path: circlePath(0, 0, 10, 'c') };
    const at = { x: 10 * Math.SQRT1_2, y: 10 * Math.SQRT1_2 };
    const on = segmentCubic(circle.path, 0);
    const half = {
      x: (on[0].x + 3 * on[1].x + 3 * on[2].x + on[3].x) / 8,
      y: (on[0].y + 3 * on[1].y + 3 * on[2].y + on[3].y) / 8,
    };
    expect(Math.hypot(half.x - at.x, half.y - at.y)).toBeLessThan(0.01);
    const { added, ways } = bordersBetween([circle], half, { x: -10, y: 0 }, 1e-6)!;
    expect(added[0]!.path.anchors).toHaveLength(5);
    expect(ways[0]!.anchors[0]).toMatchObject(half);
  });

  it('run over several neighbours whose anchors lie on the same spots, and are none when nothing joins the points', () => {
    const next: PathOf = { shape: 't', path: squarePath(10, 0, 10, 't') };
    const { ways } = bordersBetween([square, next], { x: 20, y: 0 }, { x: 0, y: 0 }, 1e-6)!;
    expect(ways[0]!.length).toBeCloseTo(20, 9);
    expect(
      bordersBetween(
        [square, { shape: 't', path: squarePath(50, 50, 5, 't') }],
        { x: 0, y: 0 },
        { x: 50, y: 50 },
        1e-6,
      ),
    ).toBeNull();
    expect(bordersBetween([square], { x: 0, y: 0 }, { x: 0, y: 0 }, 1e-6)).toBeNull();
    expect(bordersBetween([], { x: 0, y: 0 }, { x: 1, y: 0 }, 1e-6)).toBeNull();
  });
});

describe('a border taken over', () => {
  const start = doing(blank, addNode('l', shapeOf('a', circlePath(100, 100, 50, 'a'))));
  // From the circle's right to its bottom, round outside.
  const outside = pathOf([anchor(150, 100), anchor(200, 200), anchor(100, 150)], false, 'b');
  const shared = drawAlong(start, 'b', outside);

  it('has the neighbour’s anchors and handles exactly, run the other way', () => {
    const [a, b] = [pathIn(shared, 'a'), pathIn(shared, 'b')];
    expect(b.closed).toBe(true);
    expect(b.anchors).toHaveLength(3);
    expect(b.anchors[2]!.out).toEqual(a.anchors[1]!.in);
    expect(b.anchors[0]!.in).toEqual(a.anchors[0]!.out);
    expect(b.anchors[0]!.shared).toBe(a.anchors[0]!.shared);
    expect(readArt(JSON.parse(JSON.stringify(shared)))).toEqual(shared);
  });

  it('R takes it the other way round: all of the circle but that quarter', () => {
    const other = drawAlong(start, 'c', { ...outside, id: 'c' }, 1);
    expect(pathIn(other, 'c').anchors).toHaveLength(5);
  });

  it('moves, bends, gains and loses anchors in both at once', () => {
    const a = pathIn(shared, 'a');
    const moved = doing(
      shared,
      put('a', withAnchor(a, 0, { ...a.anchors[0]!, x: 160, out: { x: 3, y: 30 } })),
    );
    expect(pathIn(moved, 'b').anchors[0]).toMatchObject({ x: 160, y: 100, in: { x: 3, y: 30 } });

    const grown = doing(shared, put('a', insertAnchor(a, 0, 0.3)));
    expect(pathIn(grown, 'b').anchors).toHaveLength(4);
    expect(pathIn(grown, 'b').anchors[3]!.shared).toBe(pathIn(grown, 'a').anchors[1]!.shared);
    expect(unmatched([pathIn(grown, 'a'), pathIn(grown, 'b')])).toBe(unmatched([a, pathIn(shared, 'b')]));
    const back = doing(grown, put('b', removeAnchors(pathIn(grown, 'b'), [3])!));
    expect(pathIn(back, 'a').anchors).toHaveLength(4);
    expect(unmatched([pathIn(back, 'a'), pathIn(back, 'b')])).toBe(5);
  });

  it('moving several anchors of both, and whole shapes, keeps them together', () => {
    const [a, b] = [pathIn(shared, 'a'), pathIn(shared, 'b')];
    const by = (p: Path, i: number): Path => withAnchor(p, i, { ...p.anchors[i]!, x: p.anchors[i]!.x + 7 });
    const both = doing(shared, put('a', by(a, 0)), put('b', by(b, 1)));
    expect(pathIn(both, 'a').anchors[0]!.x).toBe(157);
    expect(pathIn(both, 'b').anchors[0]!.x).toBe(157);
    expect(pathIn(both, 'b').anchors[1]!.x).toBe(207);
    const whole = doing(shared, mapShape(findShape(shared, 'Sb')!, translation(5, 0)));
    expect(pathIn(whole, 'a').anchors[0]!.x).toBe(155);
    expect(pathIn(whole, 'a').anchors[2]!.x).toBe(50);
  });

  it('outlines that share two ends but run apart between them keep each its own curve', () => {
    // A lens: both have the keys of its tips, one goes straight from tip to tip, the other bows.
    const tip = (
      x: number,
      key: string,
      out: [number, number] | null,
      arriving: [number, number] | null,
    ) => ({
      ...anchor(x, 0, arriving, out),
      shared: key,
    });
    const flat = pathOf([tip(0, 'l', null, null), tip(40, 'r', null, null), anchor(20, 30)], true, 'm');
    const bow = pathOf(
      [tip(40, 'r', [-10, -20], null), tip(0, 'l', null, [10, -20]), anchor(20, -40)],
      true,
      'n',
    );
    const art = doing(blank, addNode('l', shapeOf('m', flat)), addNode('l', shapeOf('n', bow)));
    const moved = doing(
      art,
      put('m', withAnchor(flat, 0, { ...flat.anchors[0]!, x: -5, out: { x: 3, y: 3 } })),
    );
    const other = pathIn(moved, 'n').anchors;
    expect([other[1]!.x, other[1]!.in, other[0]!.out]).toEqual([-5, { x: 10, y: -20 }, { x: -10, y: -20 }]);
  });

  it('a flowing neighbour stands still where it is shared, and what is parted goes its own way', () => {
    const soft = pathOf(
      [
        [0, 0],
        [40, -10],
        [80, 0],
        [80, 60],
        [0, 60],
      ].map(([x, y]) => anchor(x!, y!, null, null, 'flowing')),
      true,
      'f',
    );
    let art = doing(blank, addNode('l', shapeOf('f', soft)));
    art = doing(art, put('f', pathIn(art, 'f')));
    art = drawAlong(art, 'g', pathOf([anchor(80, 0), anchor(60, -60), anchor(0, 0)], false, 'g'));
    expect(pathIn(art, 'f').anchors.map((q) => q.kind)).toEqual([
      'smooth',
      'smooth',
      'smooth',
      'flowing',
      'flowing',
    ]);
    const parted = doing(art, partShared([{ shape: 'Sg', path: 'g', index: 0 }]));
    expect(pathIn(parted, 'f').anchors[2]!.shared).toBeUndefined();
    const g = pathIn(parted, 'g');
    const alone = doing(parted, put('g', withAnchor(g, 0, { ...g.anchors[0]!, x: 99 })));
    expect(pathIn(alone, 'f').anchors[2]!.x).toBe(80);
  });
});

describe('a mosaic of 300 polygons', () => {
  // 20 × 15 cells over corners shifted at random, each drawn over its free sides, the rest taken from its neighbours.
  const [across, down] = [20, 15];
  const random = seeded(42);
  const corner = Array.from({ length: (across + 1) * (down + 1) }, (_, i) => ({
    x: 50 * (i % (across + 1)) + 30 * (random() - 0.5),
    y: 50 * Math.floor(i / (across + 1)) + 30 * (random() - 0.5),
  }));
  const at = (x: number, y: number): (typeof corner)[number] => corner[y * (across + 1) + x]!;
  const dot = (p: { x: number; y: number }): ReturnType<typeof anchor> => anchor(p.x, p.y);
  let art = blank;
  for (let y = 0; y < down; y++)
    for (let x = 0; x < across; x++) {
      const id = `c${y}-${x}`;
      const [a, b, c, d] = [at(x, y), at(x + 1, y), at(x + 1, y + 1), at(x, y + 1)];
      if (x === 0 && y === 0)
        art = doing(art, addNode('l', shapeOf(id, pathOf([a, b, c, d].map(dot), true, id))));
      else if (y === 0) art = drawAlong(art, id, pathOf([a, b, c, d].map(dot), false, id));
      else if (x === 0) art = drawAlong(art, id, pathOf([b, c, d, a].map(dot), false, id));
      else art = drawAlong(art, id, pathOf([b, c, d].map(dot), false, id));
    }
  const all = (of: Art): Path[] => shapesOf(of).map(({ shape }) => shape.paths[0]!);

  /** Twice the area, exactly: doubles are whole multiples of 2⁻⁶⁰ here, so BigInt holds their products. */
  const twice = (path: Path): bigint => {
    const whole = (v: number): bigint => {
      const shifted = v * 2 ** 52;
      expect(Number.isInteger(shifted)).toBe(true);
      return BigInt(shifted);
    };
    return path.anchors.reduce((sum, p, i) => {
      const q = path.anchors[(i + 1) % path.anchors.length]!;
      return sum + whole(p.x) * whole(q.y) - whole(q.x) * whole(p.y);
    }, 0n);
  };
  const rim = (of: Art): Path => {
    // The outermost corners as they are now, found by their places in the first drawing's cells.
    const cell = (x: number, y: number): Path => findShape(of, `Sc${y}-${x}`)!.paths[0]!;
    const ring: { x: number; y: number }[] = [];
    const spots = new Map<string, number>();
    for (const p of all(of))
      p.anchors.forEach((q, i) => {
        const r = p.anchors[(i + 1) % p.anchors.length]!;
        const [one, back] = [`${spotOf(q)}|${spotOf(r)}`, `${spotOf(r)}|${spotOf(q)}`];
        if (spots.has(back)) spots.delete(back);
        else spots.set(one, 1);
      });
    const next = new Map([...spots.keys()].map((k) => k.split('|') as [string, string]));
    expect(cell(0, 0).closed).toBe(true);
    let here = [...next.keys()][0]!;
    const start = here;
    do {
      const [x, y] = here.split(' ').map(Number) as [number, number];
      ring.push({ x, y });
      here = next.get(here)!;
    } while (here !== start);
    expect(ring).toHaveLength(next.size);
    return pathOf(ring.map(dot), true);
  };

  it('has no gap and no overlap: inner sides cancel, and the areas add up exactly', () => {
    expect(all(art)).toHaveLength(300);
    expect(all(art).every((p) => p.anchors.length === 4)).toBe(true);
    expect(unmatched(all(art))).toBe(2 * (across + down));
    expect(all(art).reduce((s, p) => s + twice(p), 0n)).toBe(twice(rim(art)));
  });

  it('still has none after a hundred corners were moved by shapes taken at random', () => {
    let moved = art;
    for (let k = 0; k < 100; k++) {
      const shapes = shapesOf(moved);
      const { shape } = shapes[Math.floor(random() * shapes.length)]!;
      const path = shape.paths[0]!;
      const i = Math.floor(random() * path.anchors.length);
      const a = path.anchors[i]!;
      const round = (v: number): number => Math.round(v * 1024) / 1024;
      moved = doing(
        moved,
        setPath(
          shape.id,
          withAnchor(path, i, {
            ...a,
            x: round(a.x + 8 * (random() - 0.5)),
            y: round(a.y + 8 * (random() - 0.5)),
          }),
        ),
      );
    }
    expect(unmatched(all(moved))).toBe(2 * (across + down));
    expect(all(moved).reduce((s, p) => s + twice(p), 0n)).toBe(twice(rim(moved)));
  });
});
