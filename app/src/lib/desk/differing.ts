import { seenSize, type Art, type PlacedPicture, type Raster } from '@mirrot/core';
import { fileWorker } from '$lib/workers/files';
import { proofWorker } from '$lib/workers/proof';
import type { DifferenceMap } from './comparing.svelte';
import type { LoadedPicture } from './rasters';
import { canvasOf, paintSvg, pngOf } from './svg-pixels';

/** Places that drawing and picture are compared at along the sheet's longer side. */
const PLACES_ALONG = 900;

const pixelsOf = (context: CanvasRenderingContext2D): Raster => {
  const { width, height } = context.canvas;
  return context.getImageData(0, 0, width, height);
};

/** A picture as it lies on the sheet, cropped, `k` pixels to a sheet pixel. */
function laidPicture(
  { placement, crop, ...p }: PlacedPicture,
  image: ImageBitmap,
  width: number,
  height: number,
  k: number,
): Raster {
  // prettier-ignore
  const context = canvasOf(width, height);
  const [a, b, c, d, e, f] = placement;
  context.setTransform(k * a, k * b, k * c, k * d, k * e, k * f);
  context.imageSmoothingQuality = 'high';
  if (crop) {
    context.beginPath();
    context.rect(crop.x0, crop.y0, crop.x1 - crop.x0, crop.y1 - crop.y0);
    context.clip();
  }
  const size = seenSize({ placement, crop, ...p });
  context.drawImage(image, 0, 0, size.width, size.height);
  return pixelsOf(context);
}

/**
 * Where a drawing differs from its picture as it is. Pictures that are part of the drawing are left out.
 *
 * @returns null where it was stopped, or the picture's pixels are not there
 * @throws Error with a sentence
 */
export async function differenceOf(
  art: Art,
  picture: PlacedPicture,
  { image }: LoadedPicture,
): Promise<DifferenceMap | null> {
  if (!image) return null;
  const { sheet } = art;
  const k = PLACES_ALONG / Math.max(sheet.width, sheet.height);
  const [width, height] = [sheet.width, sheet.height].map((v) => Math.max(1, Math.round(v * k))) as [
    number,
    number,
  ];
  const none = new Map(art.pictures.map(({ id }) => [id, 'data:,'] as const));
  const svg = await fileWorker.ask((work) => work.svg(art, { area: 'sheet', ground: null }, none, null));
  if (!svg) return null;
  const drawn = pixelsOf(await paintSvg(svg, width, height));
  const laid = laidPicture(picture, image, width, height, k);
  const found = await proofWorker.ask((work) => work.difference(drawn, laid));
  if (!found) return null;
  const context = canvasOf(width, height);
  context.putImageData(new ImageData(new Uint8ClampedArray(found.pixels.data), width, height), 0, 0);
  const { mean, beyond, compared } = found;
  const box = { x0: 0, y0: 0, x1: sheet.width, y1: sheet.height };
  return { href: URL.createObjectURL(await pngOf(context)), box, mean, beyond, compared };
}
