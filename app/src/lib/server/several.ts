import { fileName } from '$lib/file-name';
import type { SeveralKind } from '$lib/wire';
import { zipApart } from './apart';
import { bundleProject } from './bundling';
import type { Database } from './database';
import { getArt } from './documents';
import { outputPdf, outputPixels, outputSvgFile } from './output';
import { getProject } from './projects';
import { Refusal } from './refusal';

/** Bytes of all files that go into one zip. */
const MOST_TOGETHER = 800 * 1024 * 1024;

/** A project as one file of a kind, the whole sheet. */
async function fileOf(db: Database, id: string, kind: SeveralKind, name: string): Promise<Uint8Array> {
  if (kind === 'zip') return bundleProject(db, id);
  const { art } = await getArt(db, id);
  const whole = { area: 'sheet', picture: false } as const;
  if (kind === 'svg') return Buffer.from(await outputSvgFile(db, art, whole));
  if (kind === 'png') return outputPixels(db, art, { ...whole, ppi: art.sheet.ppi });
  return outputPdf(db, art, name, whole);
}

/** Several projects in one zip file, each as a bundle or as a file of its own. */
export async function zipProjects(
  db: Database,
  ids: readonly string[],
  kind: SeveralKind,
): Promise<Uint8Array> {
  const files: { name: string; bytes: Uint8Array }[] = [];
  let total = 0;
  for (const id of new Set(ids)) {
    const { name } = await getProject(db, id);
    const bytes = await fileOf(db, id, kind, name);
    total += bytes.length;
    if (total > MOST_TOGETHER)
      throw new Refusal(413, 'too-large', 'These projects together are over 800 MB. Take fewer at a time.');
    files.push({ name: fileName(name, kind), bytes });
  }
  return zipApart(files);
}
