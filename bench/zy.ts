import { EDGE_BLUR, fieldTiles } from '@mirrot/core';
import { CONDITIONS, truthsOfSet } from './bond-set';
import { edgeThrough } from '../core/src/trace/edge-run';
const c = CONDITIONS.find((c) => c.name === 'lens 0.7')!;
for (const n of ['drop', 'moon', 'leaf', 'star']) {
  const k = truthsOfSet.findIndex((t) => t.name === n);
  const t = truthsOfSet[k]!.truth;
  const field = fieldTiles(await c.take(t, k), 'edge', EDGE_BLUR);
  const a = t.anchors[0]!;
  const g = edgeThrough(field, a, 40, 'true')!;
  console.log(
    n,
    a.x.toFixed(1),
    a.y.toFixed(1),
    g.run.points.length,
    g.index,
    [...g.run.corners],
    g.run.points.map((p) => `${(p.x - a.x).toFixed(1)},${(p.y - a.y).toFixed(1)}`).join(' '),
  );
}
