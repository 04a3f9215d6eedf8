// What showing a 12-megapixel picture another way costs, at screen resolution and whole, beside OpenCV where it has the like.
import {
  edgePicture,
  greyPicture,
  homography,
  levelOffer,
  lineDrawing,
  toneSteps,
  warpRaster,
  type Raster,
} from '@mirrot/core';
import { loadOpenCv } from './opencv';
import { time } from './table';

function picture(width: number, height: number): Raster {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 4;
      const v = 128 + 90 * Math.sin(x / 37) * Math.cos(y / 53) + ((x * 7919 + y * 104_729) % 17);
      data[i] = v;
      data[i + 1] = 255 - v;
      data[i + 2] = (x / width) * 255;
      data[i + 3] = 255;
    }
  return { width, height, data };
}
const first = picture(1100, 825);
const screen = picture(2048, 1536);
const whole = picture(4000, 3000);
console.log(
  'A 12-megapixel picture seen another way, ms (first answer at 1100 px, the working copy of 2048 px, all pixels):',
);
for (const [name, see] of [
  ['grey', (p: Raster) => greyPicture(p)],
  ['tone steps', (p: Raster) => toneSteps(p, { count: 4, bounds: null, smooth: 2 }).raster],
  ['edges', (p: Raster) => edgePicture(p)],
  ['lines', (p: Raster) => lineDrawing(p)],
  ['level', (p: Raster) => levelOffer(p)],
] as const)
  console.log(
    `  ${name.padEnd(12)} ${time(() => see(first))
      .toFixed(0)
      .padStart(6)} ${time(() => see(screen))
      .toFixed(0)
      .padStart(6)} ${time(() => see(whole), 1)
      .toFixed(0)
      .padStart(6)}`,
  );

interface Cv {
  Mat: new () => { delete(): void };
  Size: new (w: number, h: number) => object;
  Scalar: new (...v: number[]) => object;
  CV_8UC4: number;
  CV_64F: number;
  INTER_CUBIC: number;
  BORDER_CONSTANT: number;
  matFromArray(rows: number, columns: number, type: number, data: ArrayLike<number>): object;
  warpPerspective(...a: unknown[]): void;
}
const { cv } = await loadOpenCv<Cv>();
const corners = [{ x: 0, y: 0 }, { x: 2048, y: 0 }, { x: 2048, y: 1536 }, { x: 0, y: 1536 }]; // prettier-ignore
const map = homography(corners, [{ x: 90, y: 40 }, { x: 1980, y: 120 }, { x: 2010, y: 1500 }, { x: 30, y: 1450 }]); // prettier-ignore
const ours = time(() => void warpRaster(screen, map, 2048, 1536));
const from = cv.matFromArray(1536, 2048, cv.CV_8UC4, screen.data);
const matrix = cv.matFromArray(3, 3, cv.CV_64F, map);
const out = new cv.Mat();
const theirs = time(() =>
  cv.warpPerspective(
    from,
    out,
    matrix,
    new cv.Size(2048, 1536),
    cv.INTER_CUBIC,
    cv.BORDER_CONSTANT,
    new cv.Scalar(0, 0, 0, 0),
  ),
);
console.log(
  `  square up    ${ours.toFixed(0).padStart(6)}        OpenCV's warpPerspective, not in linear light ${theirs.toFixed(0)}: ${(ours / theirs).toFixed(1)} times as long`,
);
