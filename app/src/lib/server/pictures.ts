import { createHash } from 'node:crypto';
import { newId } from '$lib/ids';
import type { PictureAnswer } from '$lib/wire';
import type { Database } from './database';
import { decodePicture, type Rendition, type Size } from './decode';
import { Refusal } from './refusal';
import { getProject } from './projects';

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
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const id = newId();
  const { width, height, ppi, format } = decoded;
  await db.transaction().execute(async (tx) => {
    await tx
      .insertInto('blobs')
      .values({ sha256, format, bytes })
      .onConflict((c) => c.doNothing())
      .execute();
    for (const r of decoded.renditions)
      await tx
        .insertInto('renditions')
        .values({ sha256, size: r.size, type: r.type, bytes: r.bytes })
        .onConflict((c) => c.doNothing())
        .execute();
    await tx
      .insertInto('pictures')
      .values({
        id,
        project_id: projectId,
        sha256,
        name,
        width,
        height,
        ppi,
        created_at: new Date().toISOString(),
      })
      .execute();
  });
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
