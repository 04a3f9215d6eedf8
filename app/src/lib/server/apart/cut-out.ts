// A thread of its own: puts a cutout together from its drawn parts, which takes seconds for many pixels.
import { parentPort, workerData } from 'node:worker_threads';
import { cleanEdge } from '@mirrot/core';
import sharp, { type Sharp } from 'sharp';

/** SVG documents of the same size: what is cut, how far the cut goes (sharp, and as soft as it is), what lies beneath. */
export interface CutoutWork {
  readonly content: string;
  readonly inside: string;
  readonly seen: string;
  readonly beneath: string;
  readonly width: number;
  readonly height: number;
  /** Pixels to the inch that the file says it has. */
  readonly ppi: number;
}

const work = workerData as CutoutWork;
const { width, height } = work;

const drawn = (svg: string): Sharp =>
  sharp(Buffer.from(svg), { limitInputPixels: false, unlimited: true })
    .resize(width, height, { fit: 'fill' })
    .toColourspace('srgb')
    .ensureAlpha();
const coverage = (svg: string): Promise<Buffer> => drawn(svg).extractChannel('alpha').raw().toBuffer();

const [data, inside, seen] = [
  await drawn(work.content).raw().toBuffer(),
  await coverage(work.inside),
  work.seen === work.inside ? null : await coverage(work.seen),
];
const cut = cleanEdge({ width, height, data }, inside, seen ?? inside);
const png = await drawn(work.beneath)
  .composite([{ input: Buffer.from(cut.data.buffer), raw: { width, height, channels: 4 } }])
  .withMetadata({ density: work.ppi })
  .png()
  .toBuffer();
parentPort!.postMessage(png);
