import { edgeTiles, nearestOnPath } from '@mirrot/core';
import { clickAlong, pointsAlong } from '../core/src/trace/clicking';
import { CONDITIONS, truthsOfSet } from './bond-set';
const names = process.env.ONLY!.split(',');
for (const c of CONDITIONS.filter((c) => names.includes(c.name)))
  for (const [k, { name, truth }] of truthsOfSet.entries()) {
    const field = edgeTiles(await c.take(truth, k));
    const done = clickAlong({ fine: field, coarse: field, ratio: 1 }, truth, 0.6, 8, {
      light: c.light ?? 'true',
    });
    const off = pointsAlong(done.path).map((p) => nearestOnPath(truth, p)!.distance);
    const worst = Math.max(...off);
    if (worst > 2.5 || !done.whole || done.path.anchors.length > truth.anchors.length + 1)
      console.log(
        c.name,
        name,
        done.whole,
        done.path.anchors.length,
        'of',
        truth.anchors.length,
        worst.toFixed(1),
        '\n   ',
        done.log.join('\n    '),
      );
  }
