import type { PlacedPicture, Raster, Rgb } from '@mirrot/core';
import { apply, invert, meanScale, pixelAt, sampleDisc, type Point } from '@mirrot/core';
import { pictureUrl } from './api';

export interface LoadedPicture {
  readonly source: string;
  readonly pixels: Raster;
  /** Picture pixels that one pixel of `pixels` is wide. */
  readonly step: number;
  /** The same pixels, ready to be drawn. */
  readonly image?: ImageBitmap;
}

/** Pictures up to this many pixels are sampled at full size; larger ones from their working copy. */
const SAMPLED_WHOLE = 16_000_000;

/** Fetches a picture's pixels for sampling and for choosing inks. */
export async function loadPixels(picture: PlacedPicture): Promise<LoadedPicture> {
  const whole = picture.width * picture.height <= SAMPLED_WHOLE;
  const response = await fetch(pictureUrl(picture.source, whole ? 'full' : 'work'));
  if (!response.ok) throw new Error('The picture could not be fetched.');
  const bitmap = await createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' });
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  const { data, width, height } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  return {
    source: picture.source,
    pixels: { width, height, data },
    step: picture.width / width,
    image: bitmap,
  };
}

/** Colour of the picture at a point of the sheet: one pixel, or the middle of a disc of `radius` sheet pixels. */
export function samplePicture(
  loaded: LoadedPicture | null,
  picture: PlacedPicture | null,
  at: Point,
  radius: number,
): Rgb | null {
  if (!loaded || !picture || loaded.source !== picture.source) return null;
  const back = invert(picture.placement);
  if (!back) return null;
  const p = apply(back, at);
  const x = p.x / loaded.step;
  const y = p.y / loaded.step;
  if (radius <= 0) return pixelAt(loaded.pixels, Math.floor(x), Math.floor(y));
  return sampleDisc(loaded.pixels, x, y, (radius * meanScale(back)) / loaded.step);
}
