import { fieldTiles, reach, reachMemory } from '@mirrot/core';
import { pixels } from './originals';
import { followEdge } from '../core/src/trace/along';
const fine = fieldTiles(await pixels('watering-can'), 'edge', 1.5);
const r = reach(
  { fine, coarse: fine, ratio: 1 },
  { at: { x: 1330, y: 846 }, leave: null, drawn: [] },
  { x: 1221, y: 902 },
  { tolerance: 0.6, near: 5.7, hints: 6 },
  reachMemory(),
)!;
console.log(r);
const f = followEdge(fine, r.at, { x: -0.7, y: 0.7 }, 260, 0.012);
console.log(
  f.length,
  f.at(-1),
  f
    .filter((_, i) => i % 20 == 0)
    .map((p) => p.x.toFixed(0) + ',' + p.y.toFixed(0))
    .join(' '),
);
