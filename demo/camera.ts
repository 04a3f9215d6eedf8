import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { fromLinear, homography, seeded, toLinear, warpRaster, type Point, type Raster } from '@mirrot/core';

/** Samples across and down that a pixel of a photograph takes of its scene. */
const SAMPLES = 3;
const LIGHT = Float64Array.from({ length: 256 }, (_, value) => toLinear(value / 255));

/**
 * Photographs an SVG scene: a pixel is the mean of the light that falls on it, as in a camera, not of the values that
 * stand for it. Room beyond the scene's edges gives blur something to find there.
 */
export async function draw(svg: string, room = 0): Promise<Raster> {
  const [, width, height] = /width="(\d+)" height="(\d+)"/.exec(svg)!.map(Number) as [number, number, number];
  const roomy = svg.replace(
    /width="\d+" height="\d+" viewBox="[^"]*"/,
    `width="${SAMPLES * (width + 2 * room)}" height="${SAMPLES * (height + 2 * room)}" viewBox="${-room} ${-room} ${width + 2 * room} ${height + 2 * room}"`,
  );
  // As one piece: a reader that draws in strips works out the scene's filters anew for each of them.
  const scene = new Resvg(roomy, { font: { loadSystemFonts: false } }).render().asPng();
  const data = await sharp(scene, { limitInputPixels: false })
    .extract({
      left: SAMPLES * room,
      top: SAMPLES * room,
      width: SAMPLES * width,
      height: SAMPLES * height,
    })
    .ensureAlpha()
    .raw()
    .toBuffer();
  return meanLight(data, width, height);
}

/** Every SAMPLES × SAMPLES samples as one pixel: the mean of their light, weighted by their opacity. */
function meanLight(samples: Uint8Array, width: number, height: number): Raster {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const light = [0, 0, 0];
      let opacity = 0;
      for (let j = 0; j < SAMPLES; j++)
        for (let i = 0; i < SAMPLES; i++) {
          const at = ((SAMPLES * y + j) * SAMPLES * width + SAMPLES * x + i) * 4;
          const a = samples[at + 3]!;
          opacity += a;
          for (let c = 0; c < 3; c++) light[c]! += a * LIGHT[samples[at + c]!]!;
        }
      const to = (y * width + x) * 4;
      if (opacity > 0) for (let c = 0; c < 3; c++) data[to + c] = 255 * fromLinear(light[c]! / opacity);
      data[to + 3] = opacity / SAMPLES ** 2;
    }
  return { width, height, data };
}

/** What a lens makes of a scene: it spreads light, standard deviation in pixels. */
export async function lens({ width, height, data }: Raster, spread: number): Promise<Raster> {
  const seen = await sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
    raw: { width, height, channels: 4 },
  })
    .pipelineColourspace('scrgb')
    .blur(spread)
    .toColourspace('srgb')
    .raw()
    .toBuffer();
  return { width, height, data: new Uint8ClampedArray(seen) };
}

/** Sees a rectangle of the scene, as its four corners lie in the finished picture. */
export function lookAt(scene: Raster, corners: readonly Point[], width: number, height: number): Raster {
  return warpRaster(scene, homography(cornersOf(scene), corners), width, height);
}

export const cornersOf = ({ width, height }: { width: number; height: number }): Point[] => [
  { x: 0, y: 0 },
  { x: width, y: 0 },
  { x: width, y: height },
  { x: 0, y: height },
];

/** Film grain: the same shift for all channels, about `strength` levels wide, stronger in the shade. */
export function grain({ width, height, data }: Raster, strength: number, seed: number): Raster {
  const random = seeded(seed);
  const out = new Uint8ClampedArray(data);
  for (let i = 0; i < out.length; i += 4) {
    const light = (out[i]! + out[i + 1]! + out[i + 2]!) / 765;
    const shift = (random() + random() + random() - 1.5) * strength * (1.25 - 0.6 * light);
    for (let c = 0; c < 3; c++) out[i + c] = out[i + c]! + shift;
  }
  return { width, height, data: out };
}

/** Light that falls off towards the corners. */
export function vignette({ width, height, data }: Raster, depth: number): Raster {
  const out = new Uint8ClampedArray(data);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const r = Math.hypot((x - width / 2) / (width / 2), (y - height / 2) / (height / 2)) / Math.SQRT2;
      const k = 1 - depth * r ** 3;
      const i = (y * width + x) * 4;
      for (let c = 0; c < 3; c++) out[i + c] = out[i + c]! * k;
    }
  return { width, height, data: out };
}

/** The picture as a JPEG file. */
export const develop = ({ width, height, data }: Raster, quality: number, ppi: number): Promise<Buffer> =>
  sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .withMetadata({ density: ppi })
    .jpeg({ quality, mozjpeg: true })
    .toBuffer();
