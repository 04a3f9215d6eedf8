import {
  artText,
  outputPictures,
  paintedPictures,
  paintList,
  type GhostFrame,
  type KeptAttempt,
} from '@mirrot/core';
import { growthApart } from './apart';
import type { FilmWish, GrowthRow } from './apart/growth';
import { beginningOf } from './beginnings';
import type { Database } from './database';
import { getArt } from './documents';
import { pictureTexts } from './output';
import type { KeptExercise } from './practised';
import { Refusal } from './refusal';

// How a drawing grew: what it began as, and the journal since.

/** Bytes of the journal, as it is kept, that are told of at once. */
const MOST_BYTES = 48_000_000;

async function rowsAfter(db: Database, projectId: string, from: number, to: number): Promise<GrowthRow[]> {
  const rows = await db
    .selectFrom('journal')
    .select(['revision', 'version', 'created_at', 'entry'])
    .where('project_id', '=', projectId)
    .where('revision', '>', from)
    .where('revision', '<=', to)
    .orderBy('revision')
    .execute();
  if (rows.reduce((sum, { entry }) => sum + entry.length, 0) > MOST_BYTES)
    throw new Refusal(413, 'too-large', 'This drawing grew in too many changes to be replayed.');
  return rows.map(({ created_at: at, ...row }) => ({ ...row, at }));
}

/** How a project's drawing grew: JSON (`GrowthAnswer`), or moving pictures of it. */
export async function growthOf(
  db: Database,
  projectId: string,
  film: Omit<FilmWish, 'hrefs'> | null,
): Promise<Uint8Array> {
  // Whatever comes while it is told is left for the next time.
  const { art, revision } = await getArt(db, projectId);
  const beginning = await beginningOf(db, projectId);
  const { revision: first, text } = beginning ?? { revision, text: artText(art) };
  const rows = await rowsAfter(db, projectId, first, revision);
  if (!film) return growthApart({ beginning: text, revision: first, rows, wish: null });
  const pictures = [...outputPictures(art, film.picture), ...paintedPictures(paintList(art))];
  const hrefs = await pictureTexts(db, pictures, 'work', (96 * 2 * film.width) / art.sheet.width);
  return growthApart({ beginning: text, revision: first, rows, wish: { ...film, hrefs } });
}

/**
 * An attempt as it grew, from the journal of the project it was drawn in.
 *
 * @param projectId null where that is gone: the attempt's finished lines are told alone then
 */
export async function ghostApart(
  db: Database,
  projectId: string | null,
  attempt: KeptAttempt,
): Promise<GhostFrame[]> {
  // Deleted ones are asked as well: they have their journal for 30 days.
  const project = await db.selectFrom('projects').select(['created_at', 'exercise', 'revision']).where('id', '=', projectId ?? '').executeTakeFirst(); // prettier-ignore
  const beginning = projectId && (await beginningOf(db, projectId));
  if (!projectId || !project?.exercise || !beginning)
    return [{ seconds: 0, lines: attempt.lines, anchors: attempt.score.anchors }];
  const { picture } = JSON.parse(project.exercise) as KeptExercise;
  const { revision, text } = beginning;
  const rows = await rowsAfter(db, projectId, revision, attempt.revision ?? project.revision);
  const wish = { kind: 'ghost', startedAt: project.created_at, picture: picture.id, attempt } as const;
  const told = await growthApart({ beginning: text, revision, rows, wish });
  return JSON.parse(Buffer.from(told).toString()) as GhostFrame[];
}
