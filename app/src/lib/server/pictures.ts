import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { newId } from '$lib/ids';
import { MOST_PIXELS } from '$lib/limits';
import type { PictureAnswer } from '$lib/wire';
import { inTransaction, type Database } from './database';
import { decodePicture, type Decoded, type Rendition, type Size } from './decode';
import { Refusal } from './refusal';
import { getProject } from './projects';

/** By what a picture's bytes are known. */
export const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** Keeps a picture, decoded, under an id; where there is one of that id already, that one stays. Within a transaction. */
export async function storePicture(
  tx: Database,
  id: string,
  name: string,
  bytes: Buffer,
  { width, height, ppi, format, renditions }: Decoded,
): Promise<void> {
  const sha256 = hashOf(bytes);
  await tx
    .insertInto('blobs')
    .values({ sha256, format, bytes })
    .onConflict((c) => c.doNothing())
    .execute();
  for (const r of renditions)
    await tx
      .insertInto('renditions')
      .values({ sha256, size: r.size, type: r.type, bytes: r.bytes })
      .onConflict((c) => c.doNothing())
      .execute();
  await tx
    .insertInto('pictures')
    .values({ id, sha256, name, width, height, ppi, created_at: new Date().toISOString() })
    .onConflict((c) => c.doNothing())
    .execute();
}

/**
 * Adds a picture to a project. Its bytes are kept once for all projects, under their SHA-256; browsers are sent
 * renditions of it, and the file itself only where it is a plain sRGB JPEG.
 */
export async function addPicture(
  db: Database,
  projectId: string,
  name: string,
  bytes: Buffer,
): Promise<PictureAnswer> {
  await getProject(db, projectId);
  const decoded = await decodePicture(bytes);
  const id = newId();
  await inTransaction(db, async (tx) => {
    await storePicture(tx, id, name, bytes, decoded);
    await tx.insertInto('held_pictures').values({ project_id: projectId, picture_id: id }).execute();
  });
  const { width, height, ppi, format } = decoded;
  return { id, name, width, height, ppi, format };
}

/** A picture's pixels in one of the sizes kept. */
export async function pictureRendition(db: Database, id: string, size: Size): Promise<Rendition> {
  const row = await db
    .selectFrom('pictures')
    .innerJoin('renditions', 'renditions.sha256', 'pictures.sha256')
    .select(['size', 'type', 'bytes'])
    .where('pictures.id', '=', id)
    .where('size', '=', size)
    .executeTakeFirst();
  if (!row) throw new Refusal(404, 'no-picture', 'There is no such picture.');
  return { size, type: row.type, bytes: row.bytes };
}

/**
 * Makes a larger version of a picture, resampled by Lanczos, as a picture of its own.
 *
 * @param factor times as wide and as high, 1 to 8
 */
export async function enlargePicture(
  db: Database,
  projectId: string,
  id: string,
  factor: number,
): Promise<PictureAnswer> {
  const row = await db
    .selectFrom('pictures')
    .innerJoin('held_pictures', 'picture_id', 'id')
    .select(['name', 'width', 'height'])
    .where('id', '=', id)
    .where('project_id', '=', projectId)
    .executeTakeFirst();
  if (!row) throw new Refusal(404, 'no-picture', 'There is no such picture.');
  const [width, height] = [Math.round(row.width * factor), Math.round(row.height * factor)];
  if (width * height > MOST_PIXELS)
    throw new Refusal(
      413,
      'too-many-pixels',
      `That would make ${width} × ${height} pixels; 100 million is the most. Nothing was changed.`,
    );
  const { bytes } = await pictureRendition(db, id, 'full');
  const larger = await sharp(bytes, { limitInputPixels: MOST_PIXELS })
    .resize(width, height, { kernel: 'lanczos3', fit: 'fill' })
    .png({ compressionLevel: 4 })
    .toBuffer();
  return addPicture(db, projectId, row.name, larger);
}
