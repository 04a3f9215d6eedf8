import { edgeTiles, tilesOf, tileAt, reachMemory, reach, parsePathData } from '@mirrot/core';
import { pixels, CASES, truths } from './originals';
import { clickAlong } from '../core/src/trace/clicking';
const c = CASES[0]!;
const raster = await pixels(c.original.name);
const field = edgeTiles(raster);
for (const { i, j } of tilesOf(raster)) tileAt(field, i, j);
const all = truths({ ...c, shapes: /Face of the rose|Band|Left leaf/ });
for (let k = 0; k < 6; k++) for (const { name, truth } of all) {
  const t: number[] = []; let last = 0;
  const done = clickAlong({ fine: field, coarse: field, ratio: 1 }, truth, 0.6, 8, { clock: () => performance.now() });
  done.times.sort((a, b) => a - b);
  if (k === 5) console.log(name, done.path.anchors.length, truth.anchors.length, 'med', done.times[done.times.length >> 1]!.toFixed(1), '95', done.times[Math.floor(.95 * done.times.length)]!.toFixed(1), done.times.at(-1)!.toFixed(1), done.log.join(' | '));
}
