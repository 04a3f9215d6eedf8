// Drift and Settle on the demo's own pictures, whose vector originals are known: what is measured beside the truth, and how
// near Settle comes from a rough pass. Then what fields cost, beside OpenCV's nearest.
import {
  driftFigures,
  EDGE_BLUR,
  edgeTiles,
  fieldFor,
  fieldTiles,
  measureDrift,
  measureWeight,
  nearestOnPath,
  parsePathData,
  pathLength,
  seeded,
  settle,
  tileAt,
  tilesOf,
  type FieldTiles,
  type Path,
  type Point,
  type Raster,
} from '@mirrot/core';
import { GLASSHOUSE } from '../demo/originals/glasshouse';
import { PLANT_LABELS } from '../demo/originals/plant-labels';
import { CASES, pixels, truths } from './originals';
import { loadOpenCv } from './opencv';
import { beside, time } from './table';

const random = seeded(71);

/** The truth's own drift beyond which something else lies there: a part hidden by a neighbour. */
const IN_SIGHT = 1;

/** Mean distance of a path from the truth where it has an edge: all of it, and where the truth is in sight. */
function trueOff(path: Path, truth: Path, field: FieldTiles, stroke?: number): { all: number; seen: number } {
  const { x, y, value } = measureDrift(path, field, { reach: 12, stroke, light: 'true' });
  const own = measureDrift(truth, field, { reach: 12, stroke, light: 'true' });
  const hidden = (p: Point): boolean => {
    let [near, far] = [-1, Infinity];
    own.x.forEach((ox, k) => {
      const d = Math.hypot(ox - p.x, own.y[k]! - p.y);
      if (d < far) [near, far] = [k, d];
    });
    return !(Math.abs(own.value[near]!) < IN_SIGHT);
  };
  const found = [...value].flatMap((v, i) => {
    const p = { x: x[i]!, y: y[i]! };
    return Number.isNaN(v) ? [] : [{ far: nearestOnPath(truth, p)!.distance, seen: !hidden(p) }];
  });
  const mean = (list: readonly { far: number }[]): number =>
    list.reduce((s, f) => s + f.far, 0) / list.length;
  return { all: mean(found), seen: mean(found.filter((f) => f.seen)) };
}

console.log(
  'Drift and Settle on the originals, picture px (mean over shapes; true: distance from the original):',
);
console.log(
  '  picture          shapes anchors   on it   rough: true measured   settled: true in sight measured   ms a path',
);
for (const c of CASES) {
  const { original, width } = c;
  const raster = await pixels(original.name);
  const { kind, blur, stroke } = fieldFor(width === null ? 'edge' : 'middle', width);
  const field = kind === 'edge' && blur === EDGE_BLUR ? edgeTiles(raster) : fieldTiles(raster, kind, blur);
  const rows = truths(c)
    .slice(0, 12)
    .flatMap(({ truth }) => {
      const rough = { ...truth, anchors: truth.anchors.map((a) => ({ ...a, x: a.x + 8 * random() - 4, y: a.y + 8 * random() - 4 })) }; // prettier-ignore
      const on = driftFigures([measureDrift(truth, field, { reach: 12, stroke, light: 'true' })], 1);
      if (!(on.measured > 0.5 * on.length)) return [];
      const from = performance.now();
      const { path, before, after } = settle(rough, field, { reach: 12, stroke, light: 'true' });
      const took = performance.now() - from;
      const [off, left] = [trueOff(rough, truth, field, stroke), trueOff(path, truth, field, stroke)];
      return [[truth.anchors.length, on.mean, off.all, before.mean, left.all, left.seen, after.mean, took]];
    });
  const mean = (k: number): number => rows.reduce((s, r) => s + r[k]!, 0) / rows.length;
  const f = (v: number, wide: number): string => v.toFixed(2).padStart(wide);
  console.log(
    `  ${original.name.padEnd(16)} ${String(rows.length).padStart(6)} ${mean(0).toFixed(1).padStart(7)} ${f(mean(1), 7)} ${f(mean(2), 13)} ${f(mean(3), 8)} ${f(mean(4), 15)} ${f(mean(5), 8)} ${f(mean(6), 8)} ${mean(7).toFixed(0).padStart(11)}`,
  );
}

console.log('Weight of strokes, picture px (as drawn, measured median, farthest off of all in a hundred):');
for (const { original, shapes, width } of CASES.filter(
  (c) => c.original === PLANT_LABELS || c.original === GLASSHOUSE,
)) {
  const field = fieldTiles(await pixels(original.name), 'edge', 1.2);
  const found = original.layers
    .flatMap((l) => l.shapes)
    .filter((s) => shapes.test(s.name))
    .map(({ d }) => parsePathData(d)[0]!)
    // A dot shorter than it is wide is no stroke to be measured across.
    .filter((path) => pathLength(path) > width!)
    .flatMap((path) => measureWeight(path, field, 60)?.width ?? [])
    .sort((a, b) => a - b);
  const worst = Math.max(...found.map((w) => Math.abs(w / width! - 1)));
  console.log(
    `  ${original.name.padEnd(16)} ${width!.toFixed(1)} ${found[found.length >> 1]!.toFixed(2)} ${(100 * worst).toFixed(1)} % (${found.length} strokes)`,
  );
}

// A disc of 30 smooth anchors, each up to 4 px off.
const RING = 30;
const disc: Raster = { width: 1000, height: 900, data: new Uint8ClampedArray(1000 * 900 * 4) };
for (let i = 0; i < disc.data.length; i++) {
  const [x, y] = [(i >> 2) % 1000, Math.floor((i >> 2) / 1000)];
  disc.data[i] = i % 4 === 3 ? 255 : Math.hypot(x - 500, y - 450) < 330 ? 70 : 215;
}
const handle = (4 / 3) * Math.tan(Math.PI / 2 / RING) * 330;
const ring: Path = {
  id: 'ring',
  closed: true,
  anchors: Array.from({ length: RING }, (_, i) => {
    const a = (2 * Math.PI * i) / RING;
    const out = { x: -handle * Math.sin(a), y: handle * Math.cos(a) };
    return {
      x: 500 + 330 * Math.cos(a) + 8 * random() - 4,
      y: 450 + 330 * Math.sin(a) + 8 * random() - 4,
      kind: 'smooth',
      in: { x: -out.x, y: -out.y },
      out,
    };
  }),
};
const discField = edgeTiles(disc);
const settled = settle(ring, discField, { reach: 12 });
const took = time(() => void settle(ring, discField, { reach: 12 }));
const measuredIn = time(() => void measureDrift(ring, discField, { reach: 12 }));
console.log(
  `Settle of ${RING} anchors on 2,070 px of outline: ${took.toFixed(0)} ms, mean ${settled.before.mean.toFixed(2)} to ${settled.after.mean.toFixed(2)} px; measuring it once ${measuredIn.toFixed(1)} ms`,
);

const [WIDTH, HEIGHT] = [4000, 3000];
const big: Raster = { width: WIDTH, height: HEIGHT, data: new Uint8ClampedArray(WIDTH * HEIGHT * 4) };
for (let i = 0; i < big.data.length; i++)
  big.data[i] = i % 4 === 3 ? 255 : 128 + 90 * Math.sin(i / 371) + ((i * 7919) % 17);
const ours = time(() => {
  const field = fieldTiles(big, 'edge', EDGE_BLUR);
  for (const { i, j } of tilesOf(big)) tileAt(field, i, j);
}, 2);
console.log(`Edge field of 12 megapixels, ms: ${ours.toFixed(0)} in tiles, one thread`);
const small: Raster = { width: 1200, height: 900, data: big.data.slice(0, 1200 * 900 * 4) };
const ourField = (): void => {
  const field = fieldTiles(small, 'edge', EDGE_BLUR);
  for (const { i, j } of tilesOf(small)) tileAt(field, i, j);
};
// OpenCV's nearest: Gaussian blur and Scharr's slopes of the three channels of Lab, and their products.
interface Mat {
  delete(): void;
  convertTo(to: Mat, type: number, scale: number): void;
}
interface Cv {
  readonly Mat: new () => Mat;
  readonly Size: new (w: number, h: number) => object;
  readonly COLOR_RGBA2RGB: number;
  readonly COLOR_RGB2Lab: number;
  readonly CV_32F: number;
  readonly CV_32FC3: number;
  readonly CV_8UC4: number;
  matFromArray(rows: number, columns: number, type: number, data: ArrayLike<number>): Mat;
  cvtColor(from: Mat, to: Mat, code: number): void;
  GaussianBlur(from: Mat, to: Mat, size: object, sigma: number): void;
  Scharr(from: Mat, to: Mat, depth: number, dx: number, dy: number): void;
  multiply(a: Mat, b: Mat, to: Mat): void;
}
const { cv } = await loadOpenCv<Cv>();
const theirField = (): void => {
  const rgba = cv.matFromArray(small.height, small.width, cv.CV_8UC4, small.data);
  const made = Array.from({ length: 9 }, () => new cv.Mat());
  const [rgb, lab, float, blurred, dx, dy, xx, xy, yy] = made as [
    Mat,
    Mat,
    Mat,
    Mat,
    Mat,
    Mat,
    Mat,
    Mat,
    Mat,
  ];
  cv.cvtColor(rgba, rgb, cv.COLOR_RGBA2RGB);
  rgb.convertTo(float, cv.CV_32FC3, 1 / 255);
  cv.cvtColor(float, lab, cv.COLOR_RGB2Lab);
  cv.GaussianBlur(lab, blurred, new cv.Size(0, 0), EDGE_BLUR);
  cv.Scharr(blurred, dx, cv.CV_32F, 1, 0);
  cv.Scharr(blurred, dy, cv.CV_32F, 0, 1);
  cv.multiply(dx, dx, xx);
  cv.multiply(dx, dy, xy);
  cv.multiply(dy, dy, yy);
  for (const m of [rgba, ...made]) m.delete();
};
const [one, theirs] = beside(ourField, theirField);
console.log(
  `Edge field of 1.1 megapixels, ms: ours ${one.toFixed(0)}, OpenCV's blur and slopes of Lab ${theirs.toFixed(0)}: ${(theirs / one).toFixed(2)} times`,
);
