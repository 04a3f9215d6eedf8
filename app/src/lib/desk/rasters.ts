import {
  apply,
  boxHas,
  invert,
  meanScale,
  pixelAt,
  sampleDisc,
  seenBox,
  type PlacedPicture,
  type Point,
  type Raster,
  type Rgb,
} from '@mirrot/core';
import { pictureWorker } from '$lib/workers/picture';
import { wishFor } from './seeing.svelte';

/** A picture's pixels as they are seen: straightened, but without any view. */
export interface LoadedPicture {
  readonly key: string;
  readonly pixels: Raster;
  /** Seen pixels that one pixel of `pixels` is wide. */
  readonly step: number;
  /** The same pixels, ready to be drawn. */
  readonly image?: ImageBitmap;
}

/** Pictures up to this many pixels are sampled at full size; larger ones from their working copy. */
const SAMPLED_WHOLE = 16_000_000;

/** What a picture's loaded pixels depend on. */
export const pixelsKey = ({ source, square }: Pick<PlacedPicture, 'source' | 'square'>): string =>
  square ? `${source} ${JSON.stringify(square)}` : source;

/** Fetches a picture's pixels for sampling, the loupe and choosing inks. */
export async function loadPixels(picture: PlacedPicture): Promise<LoadedPicture> {
  const whole = picture.width * picture.height <= SAMPLED_WHOLE;
  const wish = { ...wishFor(picture, whole ? 'full' : 'work'), for: `${picture.id} pixels` };
  const seen = await pictureWorker.ask((work) => work.pixels(wish));
  if (!seen) throw new Error('The picture’s pixels could not be read.');
  const { width, height, data } = seen;
  const image = await createImageBitmap(new ImageData(new Uint8ClampedArray(data), width, height));
  const across = picture.square?.width ?? picture.width;
  return { key: pixelsKey(picture), pixels: { width, height, data }, step: across / width, image };
}

/**
 * Loads a picture's pixels for as long as they are wanted, which may end before they are there.
 *
 * @param got is given the pixels, and null once they are given back
 * @returns gives them back
 */
export function borrowPixels(
  picture: PlacedPicture,
  got: (loaded: LoadedPicture | null) => void,
  failed: () => void,
): () => void {
  let wanted = true;
  let held: LoadedPicture | null = null;
  loadPixels(picture)
    .then((loaded) => {
      if (!wanted) return loaded.image?.close();
      held = loaded;
      got(loaded);
    })
    .catch(() => wanted && failed());
  return () => {
    wanted = false;
    got(null);
    held?.image?.close();
  };
}

/** Colour of the picture at a point of the sheet: one pixel, or the middle of a disc of `radius` sheet pixels. */
export function samplePicture(
  loaded: LoadedPicture | null,
  picture: PlacedPicture | null,
  at: Point,
  radius: number,
): Rgb | null {
  if (!loaded || !picture || loaded.key !== pixelsKey(picture)) return null;
  const back = invert(picture.placement);
  if (!back) return null;
  const p = apply(back, at);
  // What is cropped away is not there to be sampled.
  if (picture.crop && !boxHas(seenBox(picture), p)) return null;
  const x = p.x / loaded.step;
  const y = p.y / loaded.step;
  if (radius <= 0) return pixelAt(loaded.pixels, Math.floor(x), Math.floor(y));
  return sampleDisc(loaded.pixels, x, y, (radius * meanScale(back)) / loaded.step);
}
