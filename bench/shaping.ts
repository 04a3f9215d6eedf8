// What shaping costs in the core: the nearest point of a path, and what lies under the pointer, beside bezier-js's project.
import { Bezier } from 'bezier-js';
import {
  cubicPoint,
  nearestOnCubic,
  nearestOnPath,
  pathCubics,
  seeded,
  type Anchor,
  type Cubic,
  type Path,
  type Point,
  type Shape,
} from '@mirrot/core';
import { row, time } from './table';

// Told by name, so that the page's own types stay with the page.
const BED = new URL('../app/src/lib/bed/hit.ts', import.meta.url).href;
const { hitTest } = (await import(BED)) as { hitTest(field: object, p: Point): unknown };
const NOTHING_CHOSEN = { level: 'shape', shapes: [], anchors: [], handle: null, segment: null };

const random = seeded(77);
const spot = (size: number): Point => ({ x: random() * size, y: random() * size });

console.log('Shaping, µs (ours, bezier-js project, ratio):');
const curves = Array.from(
  { length: 100 },
  () => [spot(100), spot(100), spot(100), spot(100)] as unknown as Cubic,
);
const beziers = curves.map((c) => new Bezier(c.map((p) => ({ ...p }))));
const points = Array.from({ length: 200 }, () => spot(100));
const calls = curves.length * points.length;
const ours = time(() => {
  for (const c of curves) for (const p of points) nearestOnCubic(c, p);
});
const theirs = time(() => {
  for (const b of beziers) for (const p of points) b.project(p);
});
row(
  'nearest on one segment',
  (ours / calls) * 1000,
  (theirs / calls) * 1000,
  'its table of points, then finer steps',
);

/** How much farther than the densest search each finds its point, as a share of the segment's size. */
let [oursOff, theirsOff] = [0, 0];
curves.slice(0, 40).forEach((c, i) => {
  for (const p of points.slice(0, 20)) {
    let dense = Infinity;
    for (let k = 0; k <= 20_000; k++) {
      const q = cubicPoint(c, k / 20_000);
      dense = Math.min(dense, Math.hypot(q.x - p.x, q.y - p.y));
    }
    const q = beziers[i]!.project(p);
    oursOff = Math.max(oursOff, (nearestOnCubic(c, p).distance - dense) / 100);
    theirsOff = Math.max(theirsOff, (Math.hypot(q.x - p.x, q.y - p.y) - dense) / 100);
  }
});
console.log(
  `  farther than dense search, share of the size: ours ${Math.max(0, oursOff).toExponential(1)}, bezier-js ${theirsOff.toExponential(1)}`,
);

const ring = (count: number, r: number): Path => {
  const at = (i: number): Anchor => {
    const a = (2 * Math.PI * i) / count;
    const h = (4 / 3) * Math.tan(Math.PI / 2 / count) * r;
    const k = r * (1 + 0.1 * Math.sin(9 * a));
    const along = { x: -Math.sin(a) * h, y: Math.cos(a) * h };
    return {
      x: 500 + k * Math.cos(a),
      y: 500 + k * Math.sin(a),
      kind: 'smooth',
      in: { x: -along.x, y: -along.y },
      out: along,
    };
  };
  return { id: 'ring', closed: true, anchors: Array.from({ length: count }, (_, i) => at(i)) };
};
for (const count of [24, 3000]) {
  const path = ring(count, 300);
  const segments = pathCubics(path).map((c) => new Bezier(c.map((p) => ({ ...p }))));
  segments.forEach((b) => b.getLUT(100));
  const near = Array.from({ length: count > 100 ? 40 : 400 }, () => spot(1000));
  const whole = time(() => {
    for (const p of near) nearestOnPath(path, p);
  });
  const few = near.slice(0, count > 100 ? 2 : 40);
  const plain = time(() => {
    for (const p of few) {
      let best = Infinity;
      for (const b of segments) best = Math.min(best, b.project(p).d!);
    }
  });
  row(
    `nearest on a path of ${count}`,
    (whole / near.length) * 1000,
    (plain / few.length) * 1000,
    'project on every segment',
  );
}

const shape = (id: string, path: Path): Shape => ({ id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: { hex: '#2f6b4f' }, stroke: null, paths: [path] }); // prettier-ignore
const long = shape('long', ring(3000, 300));
const field = {
  shapes: [long],
  choice: { ...NOTHING_CHOSEN, level: 'path' as const, shapes: ['long'] },
  scale: 1,
  reach: 1,
};
const onLine = pathCubics(long.paths[0]!)
  .filter((_, i) => i % 30 === 0)
  .map((c) => cubicPoint(c, 0.4));
const hits = [...onLine, ...Array.from({ length: 100 }, () => spot(1000))];
const hit = time(() => {
  for (const p of hits) hitTest(field, p);
});
console.log(
  `  what lies under the pointer, a path of 3,000 anchors: ${(hit / hits.length).toFixed(3)} ms a move`,
);
const crowd = Array.from({ length: 5000 }, (_, i) => {
  const path = ring(8, 6);
  const [x, y] = [random() * 4000, random() * 3000];
  return shape(`s${i}`, {
    ...path,
    id: `p${i}`,
    anchors: path.anchors.map((a) => ({ ...a, x: a.x - 500 + x, y: a.y - 500 + y })),
  });
});
const many = { ...field, shapes: crowd, choice: NOTHING_CHOSEN };
const spread = Array.from({ length: 200 }, () => ({ x: random() * 4000, y: random() * 3000 }));
const hitMany = time(() => {
  for (const p of spread) hitTest(many, p);
});
console.log(`  what lies under the pointer, 5,000 shapes: ${(hitMany / spread.length).toFixed(3)} ms a move`);
