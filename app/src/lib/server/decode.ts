import pLimit from 'p-limit';
import sharp, { type Metadata, type Sharp } from 'sharp';
import { MOST_BYTES, MOST_PIXELS } from '$lib/limits';
import { drawSvg } from './apart';
import { Refusal } from './refusal';

/** Sizes of a picture kept: all pixels, a working copy, a card's thumbnail. */
export const SIZES = ['full', 'work', 'thumb'] as const;
export type Size = (typeof SIZES)[number];

/** Longest side of the smaller sizes, in pixels. */
const LONGEST: Readonly<Record<Exclude<Size, 'full'>, number>> = { work: 2048, thumb: 480 };

export interface Rendition {
  readonly size: Size;
  readonly type: string;
  readonly bytes: Buffer;
}

export interface Decoded {
  readonly width: number;
  readonly height: number;
  readonly ppi: number | null;
  readonly format: string;
  readonly renditions: readonly Rendition[];
}

const NOTHING = 'Nothing was added.';
const limits = { limitInputPixels: MOST_PIXELS, failOn: 'truncated' } as const;
const kB = (bytes: number): string => `${Math.max(1, Math.round(bytes / 1000))} kB`;

/** Decoded at a time: a picture of 100 million pixels takes 400 MB while it is. */
const decoding = pLimit(2);

/** Whether bytes are text of a markup language, or gzip as SVG may be: whatever of that is no SVG is refused. */
function mayBeSvg(bytes: Buffer): boolean {
  if (bytes[0] === 0x1f && bytes[1] === 0x8b) return true;
  const start = bytes.subarray(0, 512).filter((b) => b > 0x20 && b < 0x80);
  return start[0] === 0x3c;
}

/** The pixels of an SVG, as PNG. */
async function drawn(svg: Buffer): Promise<Buffer> {
  const result = await drawSvg(svg);
  if ('png' in result) return result.png;
  if (result.failed === 'too-slow')
    throw new Refusal(
      422,
      'too-slow',
      `This SVG takes over five seconds to draw. ${NOTHING} Try it without its filters, or save it as PNG.`,
    );
  throw refusalOf(new Error(result.failed === 'too-large' ? 'pixel limit' : 'unsupported image format'), svg);
}

/**
 * Reads a picture by its content, whatever its name says: turned as EXIF asks, in sRGB. Two at a time.
 * Sharp is the only reader; an SVG is drawn by it in a process of its own, inert: no script runs, nothing outside is
 * fetched.
 */
export const decodePicture = (bytes: Buffer): Promise<Decoded> => decoding(() => decode(bytes));

async function decode(file: Buffer): Promise<Decoded> {
  if (file.length === 0) throw new Refusal(422, 'empty-file', `This file is empty. ${NOTHING}`);
  if (file.length > MOST_BYTES)
    throw new Refusal(413, 'too-large', `This file has over 60 MB, the most a picture may have. ${NOTHING}`);
  const isSvg = mayBeSvg(file);
  const bytes = isSvg ? await drawn(file) : file;
  let metadata: Metadata;
  try {
    metadata = await sharp(bytes, limits).metadata();
    // An SVG in a wrapping that was not seen through.
    if (metadata.format === 'svg') throw new Error('unsupported image format');
  } catch (error) {
    throw refusalOf(error, bytes);
  }
  const format = isSvg ? 'svg' : metadata.format;
  const source = (): Sharp => sharp(bytes, limits).autoOrient().toColourspace('srgb');
  try {
    const { data, info } = await source().raw().toBuffer({ resolveWithObject: true });
    const pixels = (): Sharp =>
      sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
    const clear = info.channels === 4 || info.channels === 2;
    const kept =
      format === 'jpeg' && (metadata.orientation ?? 1) === 1 && metadata.space === 'srgb' && !metadata.icc;
    const full: Rendition = kept
      ? { size: 'full', type: 'image/jpeg', bytes }
      : { size: 'full', type: 'image/png', bytes: await pixels().png({ compressionLevel: 4 }).toBuffer() };
    const smaller = async (size: 'work' | 'thumb'): Promise<Rendition> => {
      const small = pixels().resize(LONGEST[size], LONGEST[size], {
        fit: 'inside',
        withoutEnlargement: true,
      });
      return clear
        ? { size, type: 'image/png', bytes: await small.png().toBuffer() }
        : {
            size,
            type: 'image/jpeg',
            bytes: await small.jpeg({ quality: 92, chromaSubsampling: '4:4:4' }).toBuffer(),
          };
    };
    return {
      width: info.width,
      height: info.height,
      ppi: isSvg ? null : (metadata.density ?? null),
      format: format ?? 'unknown',
      renditions: [full, await smaller('work'), await smaller('thumb')],
    };
  } catch (error) {
    throw refusalOf(error, bytes);
  }
}

/** A sentence for what sharp could not do. */
function refusalOf(error: unknown, bytes: Buffer): Refusal {
  if (error instanceof Refusal) return error;
  const words = error instanceof Error ? error.message : '';
  if (/pixel limit/i.test(words))
    return new Refusal(
      413,
      'too-many-pixels',
      `This picture has over 100 million pixels, the most Mirrot takes. ${NOTHING} Try a smaller scan.`,
    );
  if (/unsupported image format|missing|not a known|unable to open/i.test(words))
    return new Refusal(
      422,
      'not-a-picture',
      `This file is not a picture Mirrot can read (PNG, JPEG, WebP, GIF, TIFF, AVIF or SVG). ${NOTHING}`,
    );
  return new Refusal(
    422,
    'broken-file',
    `This file is cut short or damaged after ${kB(bytes.length)}. ${NOTHING} Try saving it again from where it came.`,
  );
}
