import { createRequire } from 'node:module';
import { beforeAll, describe, expect, it } from 'vitest';
import { homography, project } from '../geometry/homography';
import { seeded } from '../testing';
import { firstMiddles, settleMiddles } from '../colour/middles';
import type { Oklab } from '../colour/oklab';
import { choosePalette } from './choose-palette';
import { sobel } from './edges';
import { warpRaster } from './warp';

// Source outside: OpenCV, compiled to WebAssembly (opencv-js).

interface Mat {
  readonly data: Uint8Array;
  readonly data16S: Int16Array;
  readonly data64F: Float64Array;
  readonly data32F: Float32Array;
  readonly data32S: Int32Array;
  delete(): void;
}
interface OpenCv {
  readonly CV_32FC3: number;
  readonly CV_32SC1: number;
  readonly CV_32FC1: number;
  TermCriteria: new (type: number, rounds: number, epsilon: number) => unknown;
  kmeans(
    data: Mat,
    count: number,
    labels: Mat,
    end: unknown,
    attempts: number,
    flags: number,
    centres: Mat,
  ): number;
  readonly CV_8UC1: number;
  readonly CV_8UC4: number;
  readonly CV_16S: number;
  readonly CV_32FC2: number;
  readonly INTER_CUBIC: number;
  readonly BORDER_REPLICATE: number;
  readonly BORDER_CONSTANT: number;
  Mat: new () => Mat;
  Size: new (w: number, h: number) => unknown;
  Scalar: new (...v: number[]) => unknown;
  matFromArray(rows: number, columns: number, type: number, data: ArrayLike<number>): Mat;
  Sobel(
    from: Mat,
    to: Mat,
    depth: number,
    dx: number,
    dy: number,
    size: number,
    scale: number,
    delta: number,
    border: number,
  ): void;
  getPerspectiveTransform(from: Mat, to: Mat): Mat;
  warpPerspective(
    from: Mat,
    to: Mat,
    map: Mat,
    size: unknown,
    flags: number,
    border: number,
    value: unknown,
  ): void;
}
let cv: OpenCv;
beforeAll(async () => {
  const loaded = createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv & {
    onRuntimeInitialized?: () => void;
  };
  cv = loaded instanceof Promise ? await loaded : loaded;
  if (!cv.Mat)
    await new Promise<void>(
      (done) => ((loaded as { onRuntimeInitialized?: () => void }).onRuntimeInitialized = done),
    );
}, 60_000);

const random = seeded(77);
const quad = () => [[0, 0], [120, 0], [120, 90], [0, 90]].map(([x, y]) => ({ x: x! + random() * 30, y: y! + random() * 25 })); // prettier-ignore

it('gives Sobel’s gradient exactly', () => {
  const [width, height] = [37, 23];
  const grey = Uint8Array.from({ length: width * height }, () => random() * 256);
  const { dx, dy } = sobel(grey, width, height);
  const from = cv.matFromArray(height, width, cv.CV_8UC1, grey);
  for (const [ours, x, y] of [
    [dx, 1, 0],
    [dy, 0, 1],
  ] as const) {
    const to = new cv.Mat();
    cv.Sobel(from, to, cv.CV_16S, x, y, 3, 1, 0, cv.BORDER_REPLICATE);
    expect([...ours]).toEqual([...to.data16S]);
    to.delete();
  }
});

it('finds the same projective map through four points, to 1e-5 of a pixel (theirs is not normalised)', () => {
  for (let i = 0; i < 50; i++) {
    const [a, b] = [quad(), quad()];
    const flat = (points: typeof a): Mat =>
      cv.matFromArray(
        4,
        1,
        cv.CV_32FC2,
        points.flatMap((p) => [Math.fround(p.x), Math.fround(p.y)]),
      );
    const theirs = cv.getPerspectiveTransform(flat(a), flat(b)).data64F;
    const round = (points: typeof a) => points.map((p) => ({ x: Math.fround(p.x), y: Math.fround(p.y) }));
    const ours = homography(round(a), round(b));
    for (const p of [
      { x: 60, y: 40 },
      { x: 5, y: 80 },
    ]) {
      const w = theirs[6]! * p.x + theirs[7]! * p.y + theirs[8]!;
      const q = {
        x: (theirs[0]! * p.x + theirs[1]! * p.y + theirs[2]!) / w,
        y: (theirs[3]! * p.x + theirs[4]! * p.y + theirs[5]!) / w,
      };
      const mine = project(ours, p);
      expect(Math.hypot(mine.x - q.x, mine.y - q.y)).toBeLessThan(1e-5);
    }
  }
});

describe('warping', () => {
  it('shows what warpPerspective shows, within 3 of 255 on a smooth picture away from the border', () => {
    const [width, height] = [120, 90];
    const data = new Uint8ClampedArray(width * height * 4);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        data.set(
          [128 + 60 * Math.sin(x / 17), 128 + 60 * Math.cos(y / 13), 90 + x / 2, 255],
          (y * width + x) * 4,
        );
    const to = [{ x: 12, y: 6 }, { x: 110, y: 14 }, { x: 116, y: 84 }, { x: 4, y: 78 }]; // prettier-ignore
    const corners = [{ x: 0, y: 0 }, { x: width, y: 0 }, { x: width, y: height }, { x: 0, y: height }]; // prettier-ignore
    const map = homography(corners, to);
    const ours = warpRaster({ width, height, data }, map, width, height);
    // OpenCV counts pixels from their centres, we from their corners: its map is ours seen from half a pixel in.
    const [a, b, c, d, e, f, g, h, i] = map;
    const shift = [[1, 0, -0.5], [0, 1, -0.5], [0, 0, 1]]; // prettier-ignore
    const back = [[1, 0, 0.5], [0, 1, 0.5], [0, 0, 1]]; // prettier-ignore
    const times = (p: number[][], q: number[][]): number[][] =>
      p.map((row) => q[0]!.map((_, k) => row.reduce((s, v, j) => s + v * q[j]![k]!, 0)));
    const theirs = times(shift, times([[a, b, c], [d, e, f], [g, h, i]], back)).flat(); // prettier-ignore
    const out = new cv.Mat();
    cv.warpPerspective(
      cv.matFromArray(height, width, cv.CV_8UC4, data),
      out,
      cv.matFromArray(3, 3, 6, theirs),
      new cv.Size(width, height),
      cv.INTER_CUBIC,
      cv.BORDER_CONSTANT,
      new cv.Scalar(0, 0, 0, 0),
    );
    let compared = 0;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const k = (y * width + x) * 4;
        // Their border fades over two pixels; ours is cut at the edge.
        const inside = [-3, 0, 3].every((j) =>
          [-3, 0, 3].every((l) => out.data[((y + j) * width + x + l) * 4 + 3] === 255),
        );
        if (!inside) continue;
        compared++;
        for (let ch = 0; ch < 3; ch++)
          expect(Math.abs(out.data[k + ch]! - ours.data[k + ch]!)).toBeLessThanOrEqual(3);
      }
    expect(compared).toBeGreaterThan(4000);
  });
});

describe('middles of colours', () => {
  it('settle where OpenCV’s k-means does from the same first groups', () => {
    const random = seeded(12);
    const colours = Array.from({ length: 1500 }, (): Oklab => {
      const k = Math.floor(4 * random());
      return [0.2 + 0.2 * k + 0.12 * random(), 0.1 * random() - 0.05 * k, 0.2 * random()];
    });
    for (let seed = 1; seed <= 5; seed++) {
      const first = firstMiddles(colours, 6, seed);
      // OpenCV begins from groups: those that the first middles make.
      const groups = settleMiddles(colours, first, 1).owners;
      const data = cv.matFromArray(colours.length, 3, cv.CV_32FC1, colours.flat());
      const labels = cv.matFromArray(colours.length, 1, cv.CV_32SC1, [...groups]);
      const centres = new cv.Mat();
      // Type 3: by rounds and by how far they move; flag 1: the labels given are the first.
      cv.kmeans(data, 6, labels, new cv.TermCriteria(3, 100, 1e-7), 1, 1, centres);
      const theirs = Array.from({ length: 6 }, (_, k) => [...centres.data32F.slice(3 * k, 3 * k + 3)]);
      const ours = settleMiddles(colours, first, 100).middles;
      const sorted = (list: readonly (readonly number[])[]) => list.map((m) => [...m]).sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!); // prettier-ignore
      sorted(ours).forEach((m, k) => m.forEach((v, c) => expect(v).toBeCloseTo(sorted(theirs)[k]![c]!, 3)));
      for (const mat of [data, labels, centres]) mat.delete();
    }
  });

  it('are chosen from a picture: its flat colours, each with its share', () => {
    const data = new Uint8ClampedArray(4 * 120 * 80).fill(255);
    for (let i = 0; i < 120 * 80; i++) data.set(i % 120 < 60 ? [47, 107, 79] : i % 120 < 90 ? [212, 86, 28] : [240, 194, 122], 4 * i); // prettier-ignore
    const found = choosePalette({ width: 120, height: 80, data }, 5);
    expect(found.map(({ hex }) => hex)).toEqual(['#2f6b4f', '#d4561c', '#f0c27a'].slice(0, found.length));
    expect(found.map(({ share }) => share.toFixed(2))).toEqual(['0.50', '0.25', '0.25']);
    expect(choosePalette({ width: 120, height: 80, data }, 5)).toEqual(found);
    expect(choosePalette({ width: 2, height: 1, data: new Uint8ClampedArray(8) }, 5)).toEqual([]);
  });
});
