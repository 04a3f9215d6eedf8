import { anchor, circlePath, pathOf } from '../testing';
import type { Path } from './path';

// Shared by tests and measurements only: pairs of outlines to combine.

/** An outline of a few anchors at random, curved or straight, that may cross itself. */
export function blob(random: () => number, id: string, size = 100): Path {
  const n = 3 + Math.floor(4 * random());
  const [cx, cy, r] = [
    size * (0.3 + 0.4 * random()),
    size * (0.3 + 0.4 * random()),
    size * (0.1 + 0.3 * random()),
  ];
  const points = Array.from({ length: n }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.6 * random())) / n;
    const k = r * (0.5 + 0.7 * random());
    return { x: cx + k * Math.cos(angle), y: cy + k * Math.sin(angle) };
  });
  const curved = random() < 0.7;
  return pathOf(
    points.map((p, i) => {
      const [a, b] = [points[(i + n - 1) % n]!, points[(i + 1) % n]!];
      const s = 0.1 + 0.25 * random();
      const h = [(b.x - a.x) * s, (b.y - a.y) * s] as const;
      return curved ? anchor(p.x, p.y, [-h[0], -h[1]], h, 'smooth') : anchor(p.x, p.y);
    }),
    true,
    id,
  );
}
type Pair = readonly [Path[], Path[]];
const shifted = (p: Path, id: string, x: number, y = 0): Path => ({ ...p, id, anchors: p.anchors.map((q) => ({ ...q, x: q.x + x, y: q.y + y })) }); // prettier-ignore

/** Pairs as they come in work, in a square of 100: apart, over each other, with borders in common, twice the same, off by a hair. */
export const PAIRS: Readonly<Record<string, (random: () => number) => Pair>> = {
  'lying over each other': (random) => [[blob(random, 'a')], [blob(random, 'b')]],
  'with corners on a grid, so that sides and corners meet': (random) => {
    const snapped = (p: Path): Path => ({ ...p, anchors: p.anchors.map((a) => ({ ...a, x: Math.round(a.x / 10) * 10, y: Math.round(a.y / 10) * 10 })) }); // prettier-ignore
    return [[snapped(blob(random, 'a'))], [snapped(blob(random, 'b'))]];
  },
  'twice the same': (random) => {
    const a = blob(random, 'a');
    return [[a], [{ ...a, id: 'b' }]];
  },
  'off by a hair': (random) => {
    const a = blob(random, 'a');
    return [[a], [{ ...a, id: 'b', anchors: a.anchors.map((q) => ({ ...q, x: q.x + 1e-4 })) }]];
  },
  'with a side in common': (random) => {
    const a = blob(random, 'a');
    return [[a], [{ ...a, id: 'b', anchors: [...a.anchors.slice(0, 2), anchor(100 * random(), 100 * random())] }]]; // prettier-ignore
  },
  'with holes': (random) => [
    [blob(random, 'a'), blob(random, 'h')],
    [blob(random, 'b'), blob(random, 'i')],
  ],
  'that touch at a point': (random) => {
    const a = blob(random, 'a');
    const b = blob(random, 'b');
    const at = a.anchors[0]!;
    const to = b.anchors[0]!;
    return [[a], [shifted(b, 'b', at.x - to.x, at.y - to.y)]];
  },
  'that cross themselves': (random) => {
    const knot = (id: string): Path => {
      const p = blob(random, id);
      const [first, second, ...rest] = p.anchors;
      return { ...p, anchors: [second!, first!, ...rest] };
    };
    return [[knot('a')], [knot('b')]];
  },
  'with holes in holes': (random) => {
    const rings = (id: string, x: number, y: number): Path[] =>
      [40, 28, 14].map((r, i) => circlePath(x, y, r * (0.8 + 0.2 * random()), `${id}${i}`));
    return [rings('a', 45, 50), rings('b', 45 + 20 * random(), 50)];
  },
  'with rounds that touch from within': (random) => {
    const r = 10 + 20 * random();
    return [[circlePath(50, 50, 40, 'a')], [circlePath(90 - r, 50, r, 'b')]];
  },
};
