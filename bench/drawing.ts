// What drawing costs in the core: what attracts near a pointer among 50,000 anchors, and Flow all on a long path, each
// beside the plain way to do it.
import {
  bordersBetween,
  evenSpots,
  flattenPath,
  flowAll,
  insertAnchors,
  thinOut,
  nearestAnchor,
  nearestOnPath,
  nearSegments,
  seeded,
  snapField,
  type Anchor,
  type Path,
  type Point,
} from '@mirrot/core';
import fitCurve from 'fit-curve';
import { solveLinear } from '../core/src/geometry/linear';
import { row, time } from './table';

const corner = (x: number, y: number): Anchor => ({ x, y, kind: 'corner', in: null, out: null });
const ms = (v: number): string => v.toFixed(v < 1 ? 4 : 2).padStart(10);

const random = seeded(12);
const paths: Path[] = Array.from({ length: 12_500 }, (_, i) => {
  const [x, y, r] = [random() * 4000, random() * 3000, 4 + random() * 12];
  return {
    id: `p${i}`,
    closed: true,
    anchors: [corner(x - r, y), corner(x, y - r), corner(x + r, y), corner(x, y + r)],
  };
});
const moves: Point[] = Array.from({ length: 400 }, () => ({ x: random() * 4000, y: random() * 3000 }));
const REACH = 8;

console.log('Drawing, ms (ours, the plain way, ratio):');
const laid = time(() => void snapField(paths));
const field = snapField(paths);
const snap = time(() => {
  for (const p of moves) {
    nearestAnchor(field, p, REACH);
    nearSegments(field, p, REACH);
  }
});
const every = time(() => {
  for (const p of moves.slice(0, 4)) {
    let best = REACH;
    for (const path of paths)
      for (const a of path.anchors) best = Math.min(best, Math.hypot(a.x - p.x, a.y - p.y));
    for (const path of paths) nearestOnPath(path, p);
  }
}, 1);
row(
  'snap, a move among 50,000 anchors',
  snap / moves.length,
  every / 4,
  'looking at every anchor and segment',
);
console.log(`  laying them out once${ms(laid).padStart(24)}`);

const wave = (n: number): Path => ({
  id: 'w',
  closed: false,
  anchors: Array.from({ length: n }, (_, i) => corner(i * 10, 40 * Math.sin(i / 3) + 4 * random())),
});
const flow = (n: number): number => {
  const path = wave(n);
  return time(() => void flowAll(path, { sharpest: 3 }), 30);
};
const DENSE = 600;
const dense = time(() => {
  const rows = Array.from({ length: DENSE }, (_, i) =>
    Array.from({ length: DENSE }, (_, j) => (i === j ? 4 : Math.abs(i - j) === 1 ? 1 : 0)),
  );
  solveLinear(rows, new Array<number>(DENSE).fill(1));
}, 1);
row(`Flow all on ${DENSE} anchors`, flow(DENSE), dense, 'its system solved as a full matrix');
console.log(`  Flow all on 10,000 anchors${ms(flow(10_000)).padStart(18)}`);

const tiles: Path[] = [];
for (let y = 0; y < 50; y++)
  for (let x = 0; x < 50; x++)
    tiles.push({
      id: `t${x}-${y}`,
      closed: true,
      anchors: [corner(x, y), corner(x + 1, y), corner(x + 1, y + 1), corner(x, y + 1)],
    });
const around = tiles.map((path) => ({ shape: path.id, path }));
const border = time(() => void bordersBetween(around, { x: 50, y: 20 }, { x: 50, y: 26 }, 1e-6));
console.log(`  a shared border among 2,500 pieces${ms(border)}`);

// Thin out: a long outline, beside Graphics Gems' fitting of the same line.
const crowd: Path = (() => {
  const wave = flowAll(
    {
      id: 'c',
      closed: false,
      anchors: Array.from({ length: 1001 }, (_, i) =>
        corner(i * 20, 60 * Math.sin(i / 2) + 20 * Math.sin(i / 5)),
      ),
    },
    { sharpest: 3 },
  );
  return insertAnchors(wave, Array.from({ length: 1000 }, (_, i) => evenSpots(wave, i, 9)).flat());
})();
const points = flattenPath(crowd, 0.05).map((p) => [p.x, p.y]);
let left = 0;
const thin = time(() => void (left = thinOut(crowd, { tolerance: 0.5 }).path.anchors.length), 1);
let gems = 0;
const fitted = time(() => void (gems = fitCurve(points, 0.25).length), 1);
console.log(
  `  Thin out ${crowd.anchors.length} anchors within 0.5${ms(thin)} to ${left} anchors; fit-curve ${ms(fitted)} to ${gems}`,
);
