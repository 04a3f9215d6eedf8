import { EDGE_BLUR, fieldTiles, measureDrift, driftFigures } from '@mirrot/core';
import { CONDITIONS, truthsOfSet } from './bond-set';
for (const c of CONDITIONS.filter((c) => ['soft faint', 'soft hue', 'enlarged', 'lens 2.5'].includes(c.name)))
  for (const [k, { name, truth }] of truthsOfSet.entries()) {
    if (k % 3) continue;
    const d = measureDrift(truth, fieldTiles(await c.take(truth, k), 'edge', EDGE_BLUR), {
      reach: 12,
      light: c.light ?? 'true',
    });
    const v = [...d.value].filter((x) => !Number.isNaN(x));
    const m = v.reduce((s, x) => s + x, 0) / v.length;
    let ac = 0,
      va = 0;
    for (let i = 0; i + 20 < v.length; i++) {
      va += (v[i]! - m) ** 2;
      ac += (v[i]! - m) * (v[i + 20]! - m);
    }
    console.log(
      c.name,
      name,
      'bias',
      m.toFixed(2),
      'sd',
      Math.sqrt(va / v.length).toFixed(2),
      'corr20',
      (ac / va).toFixed(2),
      driftFigures([d], 1).worst.toFixed(1),
    );
  }
