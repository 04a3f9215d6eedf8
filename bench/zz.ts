import sharp from 'sharp';
import { edgeTiles } from '../core/src/trace/field-tiles';
import { halved } from '../core/src/picture/halve';
import { reach, reachMemory, type ReachField } from '../core/src/trace/reach';
const { data, info } = await sharp('demo/pictures/watering-can.jpg').ensureAlpha().raw().toBuffer({ resolveWithObject: true });
const raster = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
const half = halved(raster);
const q = halved(half);
const fields: ReachField[] = [{ fine: edgeTiles(raster), coarse: edgeTiles(half), ratio: 2 }];
fields.push({ ...fields[0]!, coarse: edgeTiles(q), ratio: 4 });
const px = (x: number, y: number) => ({ x: (x - 240) / 0.979166 / 0.32 , y: (y - 101) / 0.979166 / 0.32 });
const memory = reachMemory();
const near = 8 / 0.979166 / 0.32;
const opt = { tolerance: 0.6, near, most: 8 };
let at = reach(fields[0]!, null, px(735, 305), opt, memory)!;
console.log(at.at, near);
const line = [[760,290],[795,278],[830,284],[860,310],[875,350],[873,385],[860,420],[830,460],[790,488],[770,494],[750,500]];
let last = [735,305];
const times: number[] = [];
for (const [x, y] of line) {
  for (let k = 1; k <= 8; k++) {
    const p = px(last[0]! + (x! - last[0]!) * k / 8, last[1]! + (y! - last[1]!) * k / 8);
    for (;;) {
      const far = Math.max(Math.abs(p.x - at.at.x), Math.abs(p.y - at.at.y));
      const f = fields[far > 0.95 * 400 * 2 ? 1 : 0]!;
      const t = performance.now();
      const got = reach(f, { at: at.at, leave: null, drawn: [] }, p, opt, memory);
      times.push(performance.now() - t);
      if (memory.open) continue;
      if (k === 8) console.log(x, y, got?.segments.length, got?.mean.toFixed(2), got?.worst.toFixed(2), got?.segments.map((s) => `${s.cubic[3].x.toFixed(0)},${s.cubic[3].y.toFixed(0)}`).join(' '));
      break;
    }
  }
  last = [x!, y!];
}
times.sort((a, b) => a - b);
console.log('ms', times.length, times[times.length >> 1]!.toFixed(1), times[Math.floor(times.length * .95)]!.toFixed(1), times.at(-1)!.toFixed(1));
const run = memory.edge!.line.run;
const c = px(775, 491);
for (let i = 0; i < run.points.length; i++) {
  const p = run.points[i]!;
  if (Math.hypot(p.x - c.x, p.y - c.y) < 60) console.log(i, p.x.toFixed(2), p.y.toFixed(2), run.corners.has(i) ? 'corner' : '', memory.edge!.line.places?.[i]);
}
