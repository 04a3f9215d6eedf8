// Long because every way a document is read or written goes through one cache and one journal, which stand here.

import {
  applyChecked,
  ART_VERSION,
  artText,
  holdingsOf,
  migrateArt,
  MirrotError,
  patchDocument,
  type Art,
  type Holdings,
  type Patch,
} from '@mirrot/core';
import { LRUCache } from 'lru-cache';
import pLimit, { type LimitFunction } from 'p-limit';
import type { ArtAnswer, ChangesRequest } from '$lib/wire';
import { handleOf, inTransaction, type Database } from './database';
import { decodeEntry, encodeEntry, entryText, packText, unpackText } from './entry';
import { keepBefore, reasonToKeep, WorkClock, type Incoming } from './kept-by-itself';
import { noProject, Refusal } from './refusal';

// The journal is the truth. The stored document is what the drawing was at some revision; a cold start reads it and the
// journal after it. Open documents stay in memory, so that a change costs what it changes.

interface OpenDocument {
  readonly art: Art;
  readonly revision: number;
  readonly holdings: Holdings;
  /** Revision of the stored document, and how much journal stands after it. */
  readonly stored: number;
  readonly entriesAfter: number;
  readonly bytesAfter: number;
}

/** Documents are kept open while they hold so many anchors in all; a shape counts as eight. */
const ANCHORS_KEPT_OPEN = 3_000_000;
const DOCUMENTS_KEPT_OPEN = 100;
/** The document is stored anew after so many changes, or so many bytes of them. */
const ENTRIES_BETWEEN = 2000;
const BYTES_BETWEEN = 4_000_000;
/** And when nothing happened to it for so long, milliseconds. */
const IDLE = 5000;

class Documents {
  readonly open = new LRUCache<string, OpenDocument>({
    max: DOCUMENTS_KEPT_OPEN,
    maxSize: ANCHORS_KEPT_OPEN,
    sizeCalculation: ({ holdings }) => 1 + holdings.anchors + 8 * holdings.shapes,
  });
  readonly idle = new Map<string, NodeJS.Timeout>();
  readonly clock = new WorkClock();
  readonly #turns = new Map<string, LimitFunction>();

  /** Work on one project, one after the other. */
  async inTurn<T>(projectId: string, work: () => Promise<T>): Promise<T> {
    let turn = this.#turns.get(projectId);
    if (!turn) this.#turns.set(projectId, (turn = pLimit(1)));
    try {
      return await turn(work);
    } finally {
      if (turn.activeCount + turn.pendingCount === 0) this.#turns.delete(projectId);
    }
  }
}

const all = new WeakMap<Database, Documents>();
function documentsOf(db: Database): Documents {
  let documents = all.get(db);
  if (!documents) all.set(db, (documents = new Documents()));
  return documents;
}

/** Forgets what is kept in memory of a project, or of all: it is read again when asked for. */
export function forgetDocuments(db: Database, projectId?: string): void {
  const { open, idle } = documentsOf(db);
  if (projectId !== undefined) open.delete(projectId);
  else open.clear();
  for (const [id, timer] of idle)
    if (projectId === undefined || id === projectId) {
      clearTimeout(timer);
      idle.delete(id);
    }
}

async function readDocument(db: Database, projectId: string): Promise<OpenDocument> {
  const row = await db
    .selectFrom('documents')
    .select(['revision', 'art'])
    .where('project_id', '=', projectId)
    .executeTakeFirst();
  if (!row) throw noProject();
  let art: unknown = JSON.parse((await unpackText(row.art)).toString());
  let { revision } = row;
  let [entriesAfter, bytesAfter] = [0, 0];
  const entries = await db
    .selectFrom('journal')
    .select(['revision', 'entry', 'version'])
    .where('project_id', '=', projectId)
    .where('revision', '>', revision)
    .orderBy('revision')
    .execute();
  for (const { entry, version, revision: at } of entries) {
    // Patches fit the version they were made for.
    if ((art as Art).version < version) art = migrateArt(art, version);
    const { patches } = decodeEntry(entry);
    if (patches.length > 0) art = patchDocument(art as Art, patches).document;
    revision = at;
    entriesAfter++;
    bytesAfter += entry.length;
  }
  const drawing = migrateArt(art) as Art;
  return {
    art: drawing,
    revision,
    holdings: holdingsOf(drawing),
    stored: row.revision,
    entriesAfter,
    bytesAfter,
  };
}

/** The open document of a project that is not deleted. */
async function openDocument(db: Database, projectId: string): Promise<OpenDocument> {
  const { open } = documentsOf(db);
  // One that is deleted is forgotten at once.
  const known = open.get(projectId);
  if (known) return known;
  const there = await db
    .selectFrom('projects')
    .select('id')
    .where('id', '=', projectId)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!there) throw noProject();
  const document = await readDocument(db, projectId);
  open.set(projectId, document);
  return document;
}

/** The current drawing of a project and its revision. */
export const getArt = (db: Database, projectId: string): Promise<ArtAnswer> =>
  documentsOf(db).inTurn(projectId, async () => {
    const { revision, art } = await openDocument(db, projectId);
    return { revision, art };
  });

/** As `getArt`, as JSON in UTF-8. A stored document that is up to date is told as it is stored, without being read. */
export const getArtJson = (db: Database, projectId: string): Promise<Buffer> =>
  documentsOf(db).inTurn(projectId, async () => {
    if (!documentsOf(db).open.has(projectId)) {
      const stored = await db
        .selectFrom('documents')
        .innerJoin('projects', 'projects.id', 'documents.project_id')
        .select(['documents.revision', 'projects.revision as now', 'art'])
        .where('project_id', '=', projectId)
        .where('deleted_at', 'is', null)
        .executeTakeFirst();
      if (stored && stored.revision === stored.now) {
        const text = await unpackText(stored.art);
        const version = `{"version":${ART_VERSION},`;
        if (text.toString('latin1', 0, version.length) === version) return answerBytes(stored.revision, text);
      }
    }
    const { revision, art } = await openDocument(db, projectId);
    return answerBytes(revision, Buffer.from(artText(art)));
  });

const answerBytes = (revision: number, art: Buffer): Buffer =>
  Buffer.concat([Buffer.from(`{"revision":${revision},"art":`), art, Buffer.from('}')]);

/** Stores the document as it is now, so that a cold start reads no long journal. */
async function storeDocument(db: Database, projectId: string): Promise<void> {
  const documents = documentsOf(db);
  await documents.inTurn(projectId, async () => {
    const document = documents.open.get(projectId);
    if (!document || document.stored === document.revision) return;
    const { revision, art } = document;
    await db
      .updateTable('documents')
      .set({ revision, art: await packText(artText(art)) })
      .where('project_id', '=', projectId)
      .where('revision', '<', revision)
      .execute();
    documents.open.set(projectId, { ...document, stored: revision, entriesAfter: 0, bytesAfter: 0 });
  });
}

/** Sees to it that a changed document is stored: at once when much has gathered, else when it rests. */
function storeLater(db: Database, projectId: string, { entriesAfter, bytesAfter }: OpenDocument): void {
  const { idle } = documentsOf(db);
  clearTimeout(idle.get(projectId));
  const due = entriesAfter >= ENTRIES_BETWEEN || bytesAfter >= BYTES_BETWEEN;
  const timer = setTimeout(
    () => {
      idle.delete(projectId);
      // The journal has it all the same; it is tried again after the next change.
      if (handleOf(db).open) void storeDocument(db, projectId).catch(() => {});
    },
    due ? 0 : IDLE,
  );
  timer.unref();
  idle.set(projectId, timer);
}

/** Stores every open document that has changed: before the server ends. */
export async function storeAllDocuments(db: Database): Promise<void> {
  for (const projectId of [...documentsOf(db).open.keys()]) await storeDocument(db, projectId);
}

const oldRevision = (current: number, base: number): Refusal =>
  new Refusal(
    409,
    'old-revision',
    `The project has been changed elsewhere: it is at revision ${current}, this change builds on ${base}. Nothing was changed.`,
    { revision: current },
  );

/** A request that was carried out before, by its name: the revision it led to, or null. */
async function carriedOutBefore(
  db: Database,
  projectId: string,
  base: number,
  batch: string,
): Promise<number | null> {
  const done = await db
    .selectFrom('journal')
    .select('revision')
    .where('project_id', '=', projectId)
    .where('revision', '>', base)
    .where('batch', '=', batch)
    .orderBy('revision', 'desc')
    .limit(1)
    .executeTakeFirst();
  return done?.revision ?? null;
}

/** Pictures that a drawing names and did not before: they have to be there, as large as it says, and are held from now on. */
async function newSources(db: Database, before: Art, after: Art): Promise<string[]> {
  if (before.pictures === after.pictures) return [];
  const known = new Map(before.pictures.map((p) => [p.source, p]));
  const changed = after.pictures.filter((p) => {
    const was = known.get(p.source);
    return was?.width !== p.width || was.height !== p.height;
  });
  if (changed.length === 0) return [];
  const sources = [...new Set(changed.map((p) => p.source))];
  const found = await db
    .selectFrom('pictures')
    .select(['id', 'width', 'height'])
    .where('id', 'in', sources)
    .execute();
  const sizes = new Map(found.map((p) => [p.id, p]));
  for (const { source, width, height } of changed) {
    const own = sizes.get(source);
    if (!own)
      throw new Refusal(
        422,
        'no-picture',
        'The drawing names a picture that was never added. Nothing was changed.',
      );
    if (own.width !== width || own.height !== height)
      throw new Refusal(422, 'picture-size', `The drawing says that a picture has ${width} × ${height} pixels; it has ${own.width} × ${own.height}. Nothing was changed.`); // prettier-ignore
  }
  return sources;
}

/** Rows of the journal that go into one statement: SQLite takes 32,766 values. */
const ROWS_AT_ONCE = 1000;

/**
 * Carries out changes on the drawing: one transaction appends each to the journal. What is stored and checked is what
 * they change, not the drawing.
 *
 * @param base revision the changes build on; an older one is refused with 409 and the current revision
 * @param notes what each change was to the history, when its sender says
 * @param batch name of this request; when it was carried out before, nothing happens and its revision is answered
 */
export function changeDocument(
  db: Database,
  projectId: string,
  base: number,
  changes: readonly (readonly Patch[])[],
  batch: string | null,
  notes: ChangesRequest['notes'] = [],
): Promise<{ revision: number }> {
  const documents = documentsOf(db);
  return documents.inTurn(projectId, async () => {
    const current = await openDocument(db, projectId);
    if (batch !== null && base < current.revision) {
      const revision = await carriedOutBefore(db, projectId, base, batch);
      if (revision !== null) return { revision };
    }
    if (base !== current.revision) throw oldRevision(current.revision, base);
    let next: OpenDocument;
    let size = 0;
    const now = new Date().toISOString();
    try {
      // Checked once, after all of them: a request is carried out whole or not at all.
      const { art, holdings } = applyChecked(current.art, changes.flat(), current.holdings);
      const incoming: Incoming[] = [];
      const entries = changes.map((patches, i) => {
        const note = notes[i] ?? null;
        const entry = encodeEntry({ patches, note } as Parameters<typeof encodeEntry>[0]);
        size += entry.length;
        incoming.push({ patches, bytes: entry.length, label: note && 'label' in note ? note.label : null });
        return {
          project_id: projectId,
          revision: base + 1 + i,
          batch,
          entry,
          version: ART_VERSION,
          created_at: now,
        };
      });
      const sources = await newSources(db, current.art, art);
      next = {
        art,
        holdings,
        revision: base + changes.length,
        stored: current.stored,
        entriesAfter: current.entriesAfter + changes.length,
        bytesAfter: current.bytesAfter + size,
      };
      const { shapes, painted, anchors } = holdings;
      const { width, height, unit } = art.sheet;
      const hourWorked = documents.clock.tick(projectId, Date.now());
      const reason = current.holdings.shapes > 0 ? reasonToKeep(incoming, hourWorked) : null;
      await inTransaction(db, async (tx) => {
        if (reason !== null) await keepBefore(tx, projectId, current, reason);
        for (let i = 0; i < entries.length; i += ROWS_AT_ONCE)
          await tx
            .insertInto('journal')
            .values(entries.slice(i, i + ROWS_AT_ONCE))
            .execute();
        for (const picture_id of sources)
          await tx
            .insertInto('held_pictures')
            .values({ project_id: projectId, picture_id })
            .onConflict((c) => c.doNothing())
            .execute();
        await tx
          .updateTable('projects')
          .set({
            updated_at: now,
            revision: next.revision,
            sheet_width: width,
            sheet_height: height,
            sheet_unit: unit,
            shapes,
            painted,
            anchors,
          })
          .where('id', '=', projectId)
          .execute();
      });
    } catch (error) {
      // What is in memory may be half way: it is read again.
      if (!(error instanceof MirrotError)) documents.open.delete(projectId);
      if (error instanceof MirrotError)
        throw new Refusal(
          422,
          error.code,
          `${error.message.replace(/\.? Nothing was changed\.$|\.$/, '')}. Nothing was changed.`,
        );
      throw error;
    }
    documents.open.set(projectId, next);
    storeLater(db, projectId, next);
    return { revision: next.revision };
  });
}

/** Changes that a page is told of when it opens, and their size together in bytes as they are kept, at most. */
const MOST_CHANGES = 300;
const MOST_TOLD = 1_000_000;

/**
 * The newest changes of a project with what they were to the history, as far back as is told: a `JournalAnswer` as JSON in
 * UTF-8, put together of what is kept without being read.
 */
export const getJournalJson = (db: Database, projectId: string): Promise<Buffer> =>
  documentsOf(db).inTurn(projectId, async () => {
    const { revision } = await openDocument(db, projectId);
    const rows = await db
      .selectFrom('journal')
      .select(['entry', 'version'])
      .where('project_id', '=', projectId)
      .orderBy('revision', 'desc')
      .limit(MOST_CHANGES)
      .execute();
    let told = 0;
    // Patches of an older version do not fit the drawing as it is now.
    const end = rows.findIndex((r) => r.version !== ART_VERSION || (told += r.entry.length) > MOST_TOLD);
    const changes = (end < 0 ? rows : rows.slice(0, end)).reverse().map(({ entry }) => entryText(entry));
    return Buffer.concat([
      Buffer.from(`{"revision":${revision},"changes":[`),
      ...changes.flatMap((text, i) => (i === 0 ? [text] : [Buffer.from(','), text])),
      Buffer.from(']}'),
    ]);
  });
