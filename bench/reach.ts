// Reach on the demo's own pictures: outlines clicked at its ticks, beside their originals.
import {
  driftFigures,
  edgeTiles,
  fieldTiles,
  lineBlur,
  measureDrift,
  nearestOnPath,
  warmTile,
  type Point,
} from '@mirrot/core';
import { halved } from '../core/src/picture/halve';
import { clickAlong, pointsAlong } from '../core/src/trace/clicking';
import { GOURD } from '../demo/originals/gourd';
import { pyramid } from './bond-set';
import { CASES, pixels, truths, type Case } from './originals';

/** Outlines that are in sight for so much of their length. */
const IN_SIGHT = 0.86;
const TOLERANCE = 0.6;
const NEAR = 8;

const mean = (v: readonly number[]): number => v.reduce((s, x) => s + x, 0) / v.length;
const every: Case[] = [...CASES, { original: GOURD, shapes: /./, width: null }].map((c) => ({
  ...c,
  shapes: /./,
}));
console.log('Reach: outlines clicked at its ticks, picture px:');
console.log(
  '  picture          outlines  anchors original   mean distance  worst   ms a move: median   95 %   most',
);
// Once beforehand: the first questions of all are slow until the machine has made its code.
for (const [turn, c] of [every[0]!, ...every].entries()) {
  const raster = await pixels(c.original.name);
  const half = halved(raster);
  const fields = [raster, half, halved(half)].map((r, i) =>
    c.width === null ? edgeTiles(r) : fieldTiles(r, 'line', lineBlur(c.width / 2 ** i)),
  );
  const fine = fields[0]!;
  // As the worker does while nothing is asked: the picture about the pointer is looked at beforehand.
  const look = (p: Point): void => {
    while (warmTile(fine, p, 260));
  };
  const rows: { own: number; anchors: number; off: number; worst: number }[] = [];
  const times: number[] = [];
  for (const { name, truth } of truths(c)) {
    const seen = driftFigures([measureDrift(truth, fine, { reach: 6 })], 1);
    if (!(seen.measured > (c.width === null ? IN_SIGHT : 0.8) * seen.length && seen.mean < 0.6)) continue;
    const done = clickAlong((far) => pyramid(fields, far), truth, TOLERANCE, NEAR, {
      clock: () => performance.now(),
      rest: look,
    });
    const off = pointsAlong(done.path).map((p) => nearestOnPath(truth, p)!.distance);
    if (process.env.LOUD) console.log(`   ${name} (in sight ${(seen.measured / seen.length).toFixed(2)}, drift ${seen.mean.toFixed(2)}): ${truth.anchors.length} -> ${done.path.anchors.length} ${mean(off).toFixed(2)} ${done.whole ? '' : 'NOT WHOLE'}\n      ${done.log.join('\n      ')}`); // prettier-ignore
    if (!done.whole) continue;
    rows.push({ own: truth.anchors.length, anchors: done.path.anchors.length, off: mean(off), worst: Math.max(...off) }); // prettier-ignore
    times.push(...done.times);
  }
  if (turn === 0) continue;
  times.sort((a, b) => a - b);
  const sum = (k: 'own' | 'anchors'): number => rows.reduce((s, r) => s + r[k], 0);
  const f = (v: number | undefined, wide: number, digits = 1): string =>
    (v ?? 0).toFixed(digits).padStart(wide);
  console.log(
    `  ${c.original.name.padEnd(16)} ${f(rows.length, 8, 0)} ${f(sum('anchors'), 8, 0)} ${f(sum('own'), 8, 0)} ${f(mean(rows.map((r) => r.off)), 15, 2)} ${f(Math.max(...rows.map((r) => r.worst)), 6)} ${f(times[times.length >> 1], 19)} ${f(times[Math.floor(times.length * 0.95)], 6)} ${f(times.at(-1), 6)}`,
  );
}
