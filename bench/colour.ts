// Colours of a picture, areas by colour, a range dealt, and body tones on twelve megapixels: ours beside a plain way.
import {
  areaByColour,
  bodyTone,
  choosePalette,
  deal,
  firstMiddles,
  neighboursOf,
  settleMiddles,
  shapesOf,
  writeSvg,
  type Oklab,
  type Raster,
} from '@mirrot/core';
import { draw } from '../demo/camera';
import { crowd } from './crowd';
import { loadOpenCv } from './opencv';
import { beside, row, time } from './table';

const art = crowd(500, 4000, 3000);
const raster: Raster = await draw(writeSvg(art, { ground: '#e9e1d2' }));
const shapes = shapesOf(art).map(({ shape }) => shape);
console.log(`Colour, ms (${((raster.width * raster.height) / 1e6).toFixed(0)} megapixels, 500 shapes):`);
const tones = time(
  () => shapes.forEach((s) => bodyTone(raster, { outlines: s.paths, covers: [], trim: 0.2 })),
  2,
);
console.log(`  body tone of all 500${tones.toFixed(0).padStart(24)}`);
console.log(
  `  nine colours of the picture${time(() => choosePalette(raster, 9), 2)
    .toFixed(0)
    .padStart(17)}`,
);

interface Mat {
  delete(): void;
}
interface OpenCv {
  readonly CV_32FC1: number;
  readonly KMEANS_PP_CENTERS: number;
  Mat: new () => Mat;
  TermCriteria: new (type: number, rounds: number, epsilon: number) => unknown;
  matFromArray(rows: number, columns: number, type: number, data: ArrayLike<number>): Mat;
  kmeans(data: Mat, count: number, labels: Mat, end: unknown, attempts: number, flags: number, centres: Mat): number; // prettier-ignore
}
const { cv } = await loadOpenCv<OpenCv>();
let seed = 7;
const next = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
const colours = Array.from({ length: 12_000 }, (): Oklab => [
  next(),
  0.3 * next() - 0.15,
  0.3 * next() - 0.15,
]);
const data = cv.matFromArray(colours.length, 3, cv.CV_32FC1, colours.flat());
const [ours, theirs] = beside(
  () => settleMiddles(colours, firstMiddles(colours, 9, 1), 20),
  () => {
    const [labels, centres] = [new cv.Mat(), new cv.Mat()];
    cv.kmeans(data, 9, labels, new cv.TermCriteria(3, 20, 1e-6), 1, cv.KMEANS_PP_CENTERS, centres);
    labels.delete();
    centres.delete();
  },
  3,
);
row('k-means, nine of 12,000, 20 rounds', ours, theirs, 'OpenCV (WebAssembly)');

const many = crowd(5000);
console.log(
  `  area by colour of 5,000 shapes${time(() => areaByColour(many), 2)
    .toFixed(0)
    .padStart(14)}`,
);
const pieces = shapesOf(crowd(400)).map(({ shape }) => shape);
const light = pieces.map(next);
console.log(`  a range dealt over 400${time(() => deal(light, 6, neighboursOf(pieces, 1)), 2).toFixed(0).padStart(22)}`); // prettier-ignore
