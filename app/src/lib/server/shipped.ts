import { readdir, readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import sharp from 'sharp';
import type { ShippedAnswer } from '$lib/wire';
import { Refusal } from './refusal';

const folder = (): string => process.env.MIRROT_SHIPPED ?? 'demo/pictures';

/** Pictures that ship with the application, to start a project from. */
export async function listShipped(): Promise<ShippedAnswer[]> {
  const files = await readdir(folder()).catch(() => [] as string[]);
  return files
    .filter((f) => f.endsWith('.jpg'))
    .sort()
    .map((file) => {
      const words = file.replace(/\.jpg$/, '').replaceAll('-', ' ');
      return { file, name: words.charAt(0).toUpperCase() + words.slice(1) };
    });
}

/** Sizes a shipped picture is given in: whole to start a project from, and as a thumbnail for the shelf. */
export const SHIPPED_SIZES = ['full', 'thumb'] as const;

/** A thumbnail of a shipped picture covers so much of the shelf, in pixels of a screen of twice the density. */
const THUMB_PX = { width: 168, height: 120 };

/** Bytes of a shipped picture, a JPEG. */
export async function readShipped(
  file: string,
  size: (typeof SHIPPED_SIZES)[number] = 'full',
): Promise<Buffer> {
  const known = await listShipped();
  if (!known.some((k) => k.file === file))
    throw new Refusal(404, 'no-picture', 'There is no such shipped picture.');
  const bytes = await readFile(join(folder(), basename(file)));
  return size === 'full'
    ? bytes
    : sharp(bytes).resize(THUMB_PX.width, THUMB_PX.height, { fit: 'cover' }).jpeg({ quality: 88 }).toBuffer();
}
