// Body tone of 500 shapes beside the plain mean of each one's box, and how far both are from what was drawn.
import { bodyTone, deltaE2000, flatHex, parseHex, pathBounds, rgbToCielab, shapesOf, writeSvg, type Raster, type Rgb } from '@mirrot/core'; // prettier-ignore
import { draw } from '../demo/camera';
import { crowd } from './crowd';
import { beside, row } from './table';

const art = crowd(500, 2048, 1536);
const raster: Raster = await draw(writeSvg(art, { ground: '#e9e1d2' }));
const shapes = shapesOf(art).map(({ shape }) => shape);

function meanOfBox(shape: (typeof shapes)[number]): Rgb {
  const box = pathBounds(shape.paths[0]!);
  const sum = [0, 0, 0];
  let n = 0;
  for (let y = Math.ceil(box.y0); y < box.y1; y++)
    for (let x = Math.ceil(box.x0); x < box.x1; x++, n++)
      for (let c = 0; c < 3; c++) sum[c]! += raster.data[(y * raster.width + x) * 4 + c]! / 255;
  return [sum[0]! / n, sum[1]! / n, sum[2]! / n];
}
const toned = (shape: (typeof shapes)[number]): Rgb =>
  bodyTone(raster, { outlines: shape.paths, covers: [], trim: 0.2 })!.body;

console.log('Body tone of 500 shapes, ms (ours, the plain way, ratio):');
const [ours, plain] = beside(
  () => shapes.forEach(toned),
  () => shapes.forEach(meanOfBox),
  3,
);
row('500 shapes', ours, plain, 'the mean of each box');
const worst = (of: (shape: (typeof shapes)[number]) => Rgb): string => {
  const off = shapes
    .map((s) => deltaE2000(rgbToCielab(of(s)), rgbToCielab(parseHex(flatHex(s.fill, new Map())!))))
    .sort((a, b) => a - b);
  return `${off[off.length >> 1]!.toFixed(2)} / ${off[Math.ceil(0.95 * off.length) - 1]!.toFixed(2)}`;
};
console.log(`  ΔE in the middle / for 95 %: ours ${worst(toned)}, the mean ${worst(meanOfBox)}`);
