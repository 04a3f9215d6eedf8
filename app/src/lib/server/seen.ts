import { createHash } from 'node:crypto';
import { squareMap, type PlacedPicture } from '@mirrot/core';
import { straighten } from './apart';
import type { Database } from './database';
import type { Rendition, Size } from './decode';
import { pictureRendition } from './pictures';

/** Straightened versions kept of one picture in one size: the newest. */
const KEPT = 4;

/** A picture's pixels as they are seen: straightened when it is squared up. Views to see by and Wash are for the desk. */
export async function seenRendition(db: Database, picture: PlacedPicture, size: Size): Promise<Rendition> {
  const own = await pictureRendition(db, picture.source, size);
  if (!picture.square || !squareMap(picture)) return own;
  const { corners, width, height } = picture.square;
  const square = createHash('sha256')
    .update(JSON.stringify([corners, width, height, picture.width]))
    .digest('hex');
  const { sha256 } = await db
    .selectFrom('pictures')
    .select('sha256')
    .where('id', '=', picture.source)
    .executeTakeFirstOrThrow();
  const kept = await db
    .selectFrom('straightened')
    .select(['type', 'bytes'])
    .where('sha256', '=', sha256)
    .where('size', '=', size)
    .where('square', '=', square)
    .executeTakeFirst();
  if (kept) return { size, ...kept };
  const bytes = await straighten({ bytes: own.bytes, ownWidth: picture.width, corners, width, height });
  const type = 'image/png';
  await db
    .insertInto('straightened')
    .values({ sha256, size, square, type, bytes, created_at: new Date().toISOString() })
    .onConflict((c) => c.doNothing())
    .execute();
  await db
    .deleteFrom('straightened')
    .where('sha256', '=', sha256)
    .where('size', '=', size)
    .where('square', 'not in', (q) =>
      q
        .selectFrom('straightened')
        .select('square')
        .where('sha256', '=', sha256)
        .where('size', '=', size)
        .orderBy('created_at', 'desc')
        .limit(KEPT),
    )
    .execute();
  return { size, type, bytes };
}
