import {
  outputBox,
  outputPictures,
  picturePpi,
  seenSize,
  writeSvg,
  type Art,
  type PlacedPicture,
} from '@mirrot/core';
import sharp from 'sharp';
import type { Database } from './database';
import { seenRendition } from './seen';
import type { Rendition, Size } from './decode';
import { LONGEST_PAGE, writePdf, type PixelsOf } from './pdf/pdf';
import type { OutputOptions } from './output-options';
import { Refusal } from './refusal';

/** Most pixels of a PNG made here. */
const MOST_OUT = 120_000_000;
/** Longest side that can be drawn, pixels: what Cairo, which draws the SVG, can number. */
const LONGEST_OUT = 32_767;
/** Most bytes of the pictures that go into one SVG, as text. */
const MOST_PICTURE_TEXT = 400_000_000;

/** A picture has so many more pixels than are needed before it is made smaller, times. */
const WORTH_SHRINKING = 1.25;
const SHRUNK_QUALITY = 92;

/** A picture's pixels, no more of them to the inch of the sheet than are needed. */
async function shrunk(own: Rendition, picture: PlacedPicture, mostPpi: number): Promise<Rendition> {
  const ppi = picturePpi(picture);
  if (ppi <= mostPpi * WORTH_SHRINKING) return own;
  const width = Math.ceil((seenSize(picture).width * mostPpi) / ppi);
  const smaller = sharp(own.bytes, { limitInputPixels: false }).resize(width);
  return own.type === 'image/jpeg'
    ? { ...own, bytes: await smaller.jpeg({ quality: SHRUNK_QUALITY }).toBuffer() }
    : { ...own, type: 'image/png', bytes: await smaller.png().toBuffer() };
}

/** Pixels of pictures as they are seen, as addresses that hold them, by the pictures' ids. */
export async function pictureTexts(
  db: Database,
  pictures: readonly PlacedPicture[],
  size: Size,
  mostPpi = Infinity,
): Promise<ReadonlyMap<string, string>> {
  const hrefs = new Map<string, string>();
  const texts = new Map<string, string>();
  let length = 0;
  for (const p of pictures) {
    const key = JSON.stringify([p.source, p.square, mostPpi === Infinity ? null : p.placement]);
    let text = texts.get(key);
    if (text === undefined) {
      const { type, bytes } = await shrunk(await seenRendition(db, p, size), p, mostPpi);
      text = `data:${type};base64,${bytes.toString('base64')}`;
      texts.set(key, text);
      length += text.length;
      if (length > MOST_PICTURE_TEXT)
        throw new Refusal(
          413,
          'too-many-pictures',
          'The pictures together are too large for one file. Hide some of them, or leave the pictures out.',
        );
    }
    hrefs.set(p.id, text);
  }
  return hrefs;
}

/** Refuses what has more pixels than can be made here; says what to do instead. */
export function checkPixels(width: number, height: number, instead: string): void {
  if (width * height > MOST_OUT)
    throw new Refusal(
      413,
      'too-many-pixels',
      `That would make ${width} × ${height} pixels; 120 million are the most. ${instead}`,
    );
  if (Math.max(width, height) > LONGEST_OUT)
    throw new Refusal(
      413,
      'too-long',
      `That would make ${width} × ${height} pixels; 32,767 is the most on a side. ${instead}`,
    );
}

/** The drawing as an SVG file, pictures inside it when asked for. */
export async function outputSvg(
  db: Database,
  art: Art,
  options: OutputOptions & { readonly plain?: boolean },
  size: Size = 'full',
  mostPpi?: number,
): Promise<string> {
  const { picture, ...rest } = options;
  const hrefs = await pictureTexts(db, outputPictures(art, picture, options.only), size, mostPpi);
  return writeSvg(art, { ...rest, pictures: picture, pictureHref: (p) => hrefs.get(p.id)! });
}

/** Pixels to the inch of the sheet that pictures in an SVG have at most, and more where the sheet is printed finer. */
const PRINT_PPI = 300;

/** The drawing as the SVG file that is handed on: its pictures no sharper than they are printed. */
export const outputSvgFile = (
  db: Database,
  art: Art,
  options: Parameters<typeof outputSvg>[2],
): Promise<string> =>
  outputSvg(db, art, options, 'full', Math.max(PRINT_PPI, art.sheet.ppi) * (options.scale ?? 1));

/** Kinds of pixels that are written. WebP takes no side longer than 16,383 pixels (its own limit). */
export type PixelKind = 'png' | 'webp';
const LONGEST_WEBP = 16_383;
const WEBP_QUALITY = 92;

/** The drawing as pixels, `ppi` to the inch of what is written or `width` across. */
export async function outputPixels(
  db: Database,
  art: Art,
  { kind = 'png', ...options }: OutputOptions & { readonly kind?: PixelKind; readonly ppi?: number; readonly width?: number }, // prettier-ignore
  size: Size = 'full',
): Promise<Buffer> {
  const { x0, y0, x1, y1 } = outputBox(art, options);
  const scale = options.scale ?? 1;
  const ppi = options.ppi ?? 96;
  const width = Math.max(1, options.width ?? Math.round(((x1 - x0) * scale * ppi) / 96));
  const height = Math.max(1, Math.round((width * (y1 - y0)) / (x1 - x0)));
  checkPixels(width, height, 'Choose a smaller width or ppi, or SVG.');
  if (kind === 'webp' && Math.max(width, height) > LONGEST_WEBP)
    throw new Refusal(
      413,
      'too-long',
      `That would make ${width} × ${height} pixels; WebP takes 16,383 on a side. Choose a smaller width or ppi, or PNG.`,
    );
  const svg = await outputSvg(db, art, options, size);
  const sized = svg.replace(
    /^<svg ([^>]*?)width="[^"]*" height="[^"]*"/,
    `<svg $1width="${width}" height="${height}"`,
  );
  const pixels = sharp(Buffer.from(sized), { limitInputPixels: MOST_OUT * 2, unlimited: true })
    .resize(width, height, { fit: 'fill' })
    .withMetadata({ density: options.width ? Math.max(1, (width * 96) / ((x1 - x0) * scale)) : ppi });
  return (
    kind === 'webp' ? pixels.webp({ quality: WEBP_QUALITY, alphaQuality: 100 }) : pixels.png()
  ).toBuffer();
}

/** The drawing as a PDF of one page, its pictures in it when asked for. */
export async function outputPdf(
  db: Database,
  art: Art,
  name: string,
  options: OutputOptions,
): Promise<Buffer> {
  const { x0, y0, x1, y1 } = outputBox(art, options);
  const points = (Math.max(x1 - x0, y1 - y0) * (options.scale ?? 1) * 72) / 96;
  if (points > LONGEST_PAGE)
    throw new Refusal(
      413,
      'too-long',
      'A PDF page is 5.08 m long at most. Make the sheet smaller, or write SVG.',
    );
  return writePdf(art, name, options, pdfPixels(db, 'full'));
}

/** Pixels of pictures as a PDF takes them. */
export const pdfPixels =
  (db: Database, size: Size): PixelsOf =>
  async (picture) => {
    const { type, bytes } = await seenRendition(db, picture, size);
    return type === 'image/jpeg' || type === 'image/png' ? bytes : sharp(bytes).png().toBuffer();
  };

/** A card's thumbnail: the drawing over its picture, `width` pixels across. */
export const outputThumb = (db: Database, art: Art, width: number): Promise<Buffer> =>
  outputPixels(
    db,
    { ...art, sheet: { ...art.sheet, ground: art.sheet.ground ?? '#ffffff' } },
    { area: 'sheet', picture: true, width },
    'thumb',
  );
