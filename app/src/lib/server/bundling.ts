import { fitName, type Bundle, type BundledFile } from '@mirrot/core';
import { newId } from '$lib/ids';
import { journalEntry, type ProjectAnswer } from '$lib/wire';
import { readBundlesApart, writeBundleApart } from './apart';
import { attemptsIn, keepAttempts } from './attempts';
import { addCopy, listedCopies } from './copy-rows';
import { inTransaction, type Database } from './database';
import { decodePicture } from './decode';
import { getArt } from './documents';
import { encodeEntry, entryText } from './entry';
import { beginningOf } from './beginnings';
import { hashOf, storePicture } from './pictures';
import { exerciseIn, type KeptExercise } from './practised';
import { getProject, insertProject } from './projects';
import { Refusal } from './refusal';

/** Rows of the journal that go into one statement: SQLite takes 32,766 values. */
const ROWS_AT_ONCE = 4000;

/** A project as a bundle: the drawing, its pictures and fonts as they came, its kept copies, its journal. */
export async function bundleProject(db: Database, projectId: string): Promise<Uint8Array> {
  const { name, createdAt } = await getProject(db, projectId);
  const { art, revision } = await getArt(db, projectId);
  const copies = await listedCopies(db, projectId);
  const kept = await exerciseIn(db, projectId);
  const practised = kept && { ...kept, attempts: await attemptsIn(db, projectId) };
  const sources = new Set([
    ...[art, ...copies.map((copy) => copy.art)].flatMap((a) => a.pictures.map((p) => p.source)),
    ...(practised ? [practised.picture.source] : []),
  ]);
  const pictures: BundledFile[] = [];
  for (const id of sources) {
    const row = await db
      .selectFrom('pictures')
      .innerJoin('blobs', 'blobs.sha256', 'pictures.sha256')
      .select(['pictures.name', 'bytes'])
      .where('pictures.id', '=', id)
      .executeTakeFirst();
    if (row) pictures.push({ id, name: row.name, bytes: row.bytes });
  }
  const fonts = await db
    .selectFrom('fonts')
    .select(['id', 'name', 'bytes'])
    .where('project_id', '=', projectId)
    .orderBy('id')
    .execute();
  const rows = await db
    .selectFrom('journal')
    .select(['revision', 'version', 'created_at', 'entry'])
    .where('project_id', '=', projectId)
    .where('revision', '<=', revision)
    .orderBy('revision')
    .execute();
  const journal = rows.map((row) => ({
    revision: row.revision,
    version: row.version,
    createdAt: row.created_at,
    entry: JSON.parse(entryText(row.entry).toString()) as unknown,
  }));
  const began = await beginningOf(db, projectId);
  const beginning = began && { revision: began.revision, art: JSON.parse(began.text) as unknown };
  return writeBundleApart({
    name,
    createdAt,
    revision,
    art,
    pictures,
    fonts,
    copies,
    journal,
    beginning,
    practised,
  });
}

type Renamed = <T>(value: T) => T;

/** Puts ids that were taken here into others, wherever they stand in a value. */
function renaming(ids: ReadonlyMap<string, string>): Renamed {
  if (ids.size === 0) return (value) => value;
  const known = new RegExp(`"(${[...ids.keys()].join('|')})"`, 'g');
  return <T>(value: T) =>
    JSON.parse(JSON.stringify(value).replace(known, (_, id: string) => JSON.stringify(ids.get(id)))) as T;
}

const NOTHING = 'Nothing was added.';

/** A project of a bundle, its pictures decoded, its journal checked. */
async function checkedBundle(bundle: Bundle) {
  const pictures = [];
  for (const { id, name, bytes } of bundle.pictures)
    pictures.push({ id, name, bytes: Buffer.from(bytes), decoded: await decodePicture(Buffer.from(bytes)) });
  const sizes = new Map(pictures.map(({ id, decoded }) => [id, decoded]));
  const placed = [bundle.art, ...bundle.copies.map(({ art }) => art)].flatMap(({ pictures: own }) => own);
  for (const { source, name, width, height } of [
    ...placed,
    ...(bundle.practised ? [bundle.practised.picture] : []),
  ]) {
    const own = sizes.get(source);
    if (!own) throw new Refusal(422, 'bundle', `The bundle lacks the picture "${name}". ${NOTHING}`);
    if (own.width !== width || own.height !== height)
        throw new Refusal(422, 'bundle', `The picture "${name}" in the bundle is not the one that was drawn over. ${NOTHING}`); // prettier-ignore
  }
  const journal = bundle.journal.map(({ entry, ...row }) => {
    const read = journalEntry.safeParse(entry);
    if (!read.success) throw new Refusal(422, 'bundle', `The bundle's journal is broken. ${NOTHING}`);
    return { ...row, entry: read.data };
  });
  const inOrder = journal.every(({ revision }, i) => revision > (journal[i - 1]?.revision ?? 0));
  if (!inOrder || (journal.at(-1)?.revision ?? 0) > bundle.revision)
    throw new Refusal(422, 'bundle', `The bundle's journal is out of order. ${NOTHING}`);
  return { ...bundle, pictures, journal };
}

type Checked = Awaited<ReturnType<typeof checkedBundle>>;

async function addBundle(tx: Database, bundle: Checked, name: string | null): Promise<string> {
  const ids = new Map<string, string>();
  const now = new Date().toISOString();
  for (const { id, bytes } of bundle.pictures) {
    const known = await tx.selectFrom('pictures').select('sha256').where('id', '=', id).executeTakeFirst();
    // The same picture is held once; another one by the same name of an id gets one of its own.
    if (known && known.sha256 !== hashOf(bytes)) ids.set(id, newId());
  }
  for (const { id } of bundle.fonts)
    if (await tx.selectFrom('fonts').select('id').where('id', '=', id).executeTakeFirst())
      ids.set(id, newId());
  const renamed = renaming(ids);
  const idOf = (id: string): string => ids.get(id) ?? id;
  const practised = bundle.practised && renamed(bundle.practised);
  for (const { id, name: called, bytes, decoded } of bundle.pictures)
    await storePicture(tx, idOf(id), called, bytes, decoded);
  const project = await insertProject(tx, {
    name: name ?? fitName(bundle.name, 'Untitled'),
    createdAt: bundle.createdAt,
    revision: bundle.revision,
    art: renamed(bundle.art),
    pictures: bundle.pictures.map(({ id }) => idOf(id)),
    exercise: practised && JSON.stringify({ exercise: practised.exercise, picture: practised.picture } satisfies KeptExercise), // prettier-ignore
    beginning: bundle.beginning && { revision: bundle.beginning.revision, text: JSON.stringify(renamed(bundle.beginning.art)) }, // prettier-ignore
  });
  for (const { id, name: called, bytes } of bundle.fonts)
    await tx
      .insertInto('fonts')
      .values({ id: idOf(id), project_id: project, name: called, bytes: Buffer.from(bytes), created_at: now })
      .execute();
  if (practised) await keepAttempts(tx, practised.exercise.id, project, practised.attempts, true);
  for (const { art, revision, createdAt, ...kept } of bundle.copies)
    await addCopy(tx, project, { art: renamed(art), revision }, { ...kept, createdAt });
  for (let i = 0; i < bundle.journal.length; i += ROWS_AT_ONCE)
    await tx
      .insertInto('journal')
      .values(
        bundle.journal.slice(i, i + ROWS_AT_ONCE).map(({ revision, version, createdAt, entry }) => ({
          project_id: project,
          revision,
          batch: null,
          entry: encodeEntry(renamed(entry)),
          version,
          created_at: createdAt,
        })),
      )
      .execute();
  return project;
}

/**
 * Makes projects of a bundle, or of a zip file of several: all of them or none. Nothing that is here is overwritten.
 *
 * @param name of the project where there is one alone, or null: its own
 */
export async function importBundles(
  db: Database,
  bytes: Uint8Array,
  name: string | null,
): Promise<ProjectAnswer[]> {
  const checked: Checked[] = [];
  for (const bundle of await readBundlesApart(bytes)) checked.push(await checkedBundle(bundle));
  const ids = await inTransaction(db, async (tx) => {
    const made: string[] = [];
    for (const bundle of checked) made.push(await addBundle(tx, bundle, checked.length === 1 ? name : null));
    return made;
  });
  return Promise.all(ids.map((id) => getProject(db, id)));
}
