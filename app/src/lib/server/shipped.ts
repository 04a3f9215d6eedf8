import { readdir, readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
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

/** Bytes of a shipped picture. */
export async function readShipped(file: string): Promise<Buffer> {
  const known = await listShipped();
  if (!known.some((k) => k.file === file))
    throw new Refusal(404, 'no-picture', 'There is no such shipped picture.');
  return readFile(join(folder(), basename(file)));
}
