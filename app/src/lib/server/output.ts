import {
  cutText,
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
import { LONGEST_PAGE, writePdf } from './pdf/pdf';
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
      `That would make ${width} × ${height} pixels; 120 million is the most. ${instead}`,
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
  options: OutputOptions,
  size: Size = 'full',
  mostPpi?: number,
): Promise<string> {
  const { area, ground } = options;
  const hrefs = await pictureTexts(db, outputPictures(art, options.picture), size, mostPpi);
  return writeSvg(art, { area, ground, pictures: options.picture, pictureHref: (p) => hrefs.get(p.id)! });
}

/** The drawing as PNG pixels, `ppi` to the inch of the sheet or `width` across. */
export async function outputPng(
  db: Database,
  art: Art,
  options: OutputOptions & { readonly ppi?: number; readonly width?: number },
  size: Size = 'full',
): Promise<Buffer> {
  const { x0, y0, x1, y1 } = outputBox(art, options.area);
  const ppi = options.ppi ?? 96;
  const width = Math.max(1, options.width ?? Math.round(((x1 - x0) * ppi) / 96));
  const height = Math.max(1, Math.round((width * (y1 - y0)) / (x1 - x0)));
  checkPixels(width, height, 'Choose a smaller width or ppi, or SVG.');
  const svg = await outputSvg(db, art, options, size);
  const sized = svg.replace(
    /^<svg ([^>]*?)width="[^"]*" height="[^"]*"/,
    `<svg $1width="${width}" height="${height}"`,
  );
  return sharp(Buffer.from(sized), { limitInputPixels: MOST_OUT * 2, unlimited: true })
    .resize(width, height, { fit: 'fill' })
    .withMetadata({ density: options.width ? Math.max(1, (width * 96) / (x1 - x0)) : ppi })
    .png()
    .toBuffer();
}

/** The drawing as a PDF of one page, its pictures in it when asked for. */
export async function outputPdf(
  db: Database,
  art: Art,
  name: string,
  options: OutputOptions,
): Promise<Buffer> {
  const { x0, y0, x1, y1 } = outputBox(art, options.area);
  const points = (Math.max(x1 - x0, y1 - y0) * 72) / 96;
  if (points > LONGEST_PAGE)
    throw new Refusal(
      413,
      'too-long',
      'A PDF page is 5.08 m long at most. Make the sheet smaller, or write SVG.',
    );
  return writePdf(art, name, options, async (picture) => {
    const { type, bytes } = await seenRendition(db, picture, 'full');
    return type === 'image/jpeg' || type === 'image/png' ? bytes : sharp(bytes).png().toBuffer();
  });
}

/** A card's thumbnail: the drawing over its picture, `width` pixels across. */
export const outputThumb = (db: Database, art: Art, width: number): Promise<Buffer> =>
  outputPng(
    db,
    { ...art, sheet: { ...art.sheet, ground: art.sheet.ground ?? '#ffffff' } },
    { area: 'sheet', picture: true, width },
    'thumb',
  );

/** A file name from a project's name: letters and digits of any script, hyphens for the rest. */
export function fileName(name: string, extension: string): string {
  const words = name.normalize('NFC').match(/[\p{L}\p{N}]+/gu) ?? [];
  return `${cutText(words.join('-'), 80) || 'drawing'}.${extension}`;
}
