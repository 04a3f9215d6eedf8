import {
  choosePalette,
  edgePicture,
  greyPicture,
  homography,
  levelOffer,
  lineDrawing,
  symmetryAxis,
  takePhoto,
  takeScan,
  toneSteps,
  warpRaster,
  type Box,
  type LevelOffer,
  type Raster,
} from '@mirrot/core';
import * as Comlink from 'comlink';
import { pause } from './pause';
import type { PictureWish, PictureWork, Shown } from './picture';

// Decodes, straightens and shows pictures away from the page. One wish a picture is worked on at a time: a newer one
// stops the older.

const sources = new Map<string, Promise<Raster>>();
const MOST_SOURCES = 4;
const newest = new Map<string, number>();
let wishes = 0;

async function decode(url: string, longest: number | null): Promise<Raster> {
  const response = await fetch(url);
  if (!response.ok) throw new Error('The picture could not be fetched.');
  const bitmap = await createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' });
  const k = longest === null ? 1 : Math.min(1, longest / Math.max(bitmap.width, bitmap.height));
  const [w, h] = [Math.max(1, Math.round(bitmap.width * k)), Math.max(1, Math.round(bitmap.height * k))];
  const canvas = new OffscreenCanvas(w, h);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, w, h);
  const { data, width, height } = context.getImageData(0, 0, w, h);
  bitmap.close();
  return { data, width, height };
}

function sourceOf(url: string, longest: number | null): Promise<Raster> {
  const key = `${url} ${longest ?? 'all'}`;
  let source = sources.get(key);
  if (!source) {
    source = decode(url, longest);
    source.catch(() => sources.delete(key));
    for (const old of [...sources.keys()].slice(0, Math.max(0, sources.size - MOST_SOURCES + 1)))
      sources.delete(old);
    sources.set(key, source);
  }
  return source;
}

const straightened = new Map<string, Raster>();

/** The picture seen straight on, in bands so that a newer wish can stop it; null when one did. */
async function straighten(
  { url, longest, square, width }: PictureWish,
  wanted: () => boolean,
  progress?: (share: number) => void,
): Promise<Raster | null> {
  const source = await sourceOf(url, longest);
  if (!square) return source;
  const key = `${url} ${longest ?? 'all'} ${JSON.stringify(square)}`;
  const known = straightened.get(key);
  if (known) return known;
  const k = source.width / width;
  const w = Math.max(1, Math.round(square.width * k));
  const h = Math.max(1, Math.round(square.height * k));
  const map = homography(
    square.corners.map((p) => ({ x: p.x * k, y: p.y * k })),
    [
      { x: 0, y: 0 },
      { x: w, y: 0 },
      { x: w, y: h },
      { x: 0, y: h },
    ],
  );
  const data = new Uint8ClampedArray(w * h * 4);
  const band = Math.max(1, Math.round(400_000 / w));
  for (let y = 0; y < h; y += band) {
    const end = Math.min(h, y + band);
    data.set(warpRaster(source, map, w, h, [y, end]).data, y * w * 4);
    progress?.(end / h);
    await pause();
    if (!wanted()) return null;
  }
  const made = { width: w, height: h, data };
  for (const old of [...straightened.keys()].slice(0, Math.max(0, straightened.size - 1)))
    straightened.delete(old);
  straightened.set(key, made);
  return made;
}

/** What lies in a box, given in pixels of which one is `k` of the raster's. */
function cropped({ width, height, data }: Raster, box: Box, k: number): Raster {
  const [x0, y0] = [Math.max(0, Math.floor(box.x0 * k)), Math.max(0, Math.floor(box.y0 * k))];
  const [x1, y1] = [Math.min(width, Math.ceil(box.x1 * k)), Math.min(height, Math.ceil(box.y1 * k))];
  const wide = Math.max(1, x1 - x0);
  const rows = new Uint8ClampedArray(4 * wide * Math.max(1, y1 - y0));
  for (let y = y0; y < y1; y++) rows.set(data.subarray(4 * (y * width + x0), 4 * (y * width + x0 + wide)), 4 * wide * (y - y0)); // prettier-ignore
  return { width: wide, height: rows.length / (4 * wide), data: rows };
}

async function encode(raster: Raster): Promise<Blob> {
  const canvas = new OffscreenCanvas(raster.width, raster.height);
  canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(raster.data), raster.width, raster.height), 0, 0); // prettier-ignore
  let clear = false;
  for (let i = 3; i < raster.data.length && !clear; i += 4) clear = raster.data[i] !== 255;
  return canvas.convertToBlob(
    clear ? { type: 'image/webp', quality: 0.98 } : { type: 'image/jpeg', quality: 0.95 },
  );
}

const work: PictureWork = {
  async show(wish, progress) {
    const number = ++wishes;
    newest.set(wish.for, number);
    const wanted = (): boolean => newest.get(wish.for) === number;
    const seen = await straighten(wish, wanted, progress && ((share) => progress(share * 0.6)));
    if (!seen || !wanted()) return null;
    let bounds: readonly number[] | null = null;
    let raster = seen;
    if (wish.view === 'tones') ({ raster, bounds } = toneSteps(seen, wish.tones));
    else if (wish.view === 'edges') raster = edgePicture(seen);
    else if (wish.view === 'lines') raster = lineDrawing(seen);
    else if (wish.view === 'grey') raster = greyPicture(seen);
    progress?.(0.8);
    await pause();
    if (!wanted()) return null;
    const shown: Shown = { blob: await encode(raster), bounds };
    return wanted() ? shown : null;
  },
  async pixels(wish) {
    const seen = await straighten(wish, () => true);
    const data = new Uint8ClampedArray(seen!.data);
    return Comlink.transfer({ width: seen!.width, height: seen!.height, data }, [data.buffer]);
  },
  async level(wish): Promise<LevelOffer | null> {
    const seen = await straighten(wish, () => true);
    return seen && levelOffer(seen);
  },
  async symmetry(wish) {
    const seen = await straighten(wish, () => true);
    const found = seen && symmetryAxis(seen);
    return found && { ...found, step: (wish.square?.width ?? wish.width) / seen.width };
  },
  async palette(wish, count, crop) {
    const seen = (await straighten(wish, () => true))!;
    const k = seen.width / (wish.square?.width ?? wish.width);
    return choosePalette(crop ? cropped(seen, crop, k) : seen, count);
  },
  async practise(url, how, seed) {
    const source = await sourceOf(url, null);
    return encode((how === 'scan' ? takeScan : takePhoto)(source, seed).raster);
  },
  stop: (id) => void newest.set(id, ++wishes),
};
Comlink.expose(work);
