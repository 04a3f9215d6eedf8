// A thread of its own: sees a picture straight on, which takes seconds for many pixels.
import { parentPort, workerData } from 'node:worker_threads';
import { homography, warpRaster, type Point } from '@mirrot/core';
import sharp from 'sharp';

export interface StraightenWork {
  readonly bytes: Uint8Array;
  /** The picture's own width that the corners are measured in. */
  readonly ownWidth: number;
  readonly corners: readonly Point[];
  /** Size of the straight picture, in the same pixels. */
  readonly width: number;
  readonly height: number;
}

const { bytes, ownWidth, corners, ...straight } = workerData as StraightenWork;
const { data, info } = await sharp(bytes, { limitInputPixels: false })
  .ensureAlpha()
  .raw()
  .toBuffer({ resolveWithObject: true });
const k = info.width / ownWidth;
const width = Math.max(1, Math.round(straight.width * k));
const height = Math.max(1, Math.round(straight.height * k));
const map = homography(
  corners.map((p) => ({ x: p.x * k, y: p.y * k })),
  [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ],
);
const seen = warpRaster({ width: info.width, height: info.height, data }, map, width, height);
const png = await sharp(seen.data, { raw: { width, height, channels: 4 } })
  .png({ compressionLevel: 6 })
  .toBuffer();
parentPort!.postMessage(png);
