import { holdingsOf, migrateArt, type Art } from '@mirrot/core';
import { sql, type Kysely, type Migration } from 'kysely';
import { encodeEntry } from './entry';

const first: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .createTable('projects')
      .ifNotExists()
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addColumn('updated_at', 'text', (c) => c.notNull())
      .addColumn('deleted_at', 'text')
      .execute();
    await db.schema
      .createTable('documents')
      .ifNotExists()
      .addColumn('project_id', 'text', (c) => c.primaryKey().references('projects.id').onDelete('cascade'))
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('art', 'text', (c) => c.notNull())
      .execute();
    await db.schema
      .createTable('journal')
      .ifNotExists()
      .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
      .addColumn('project_id', 'text', (c) => c.notNull().references('projects.id').onDelete('cascade'))
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('batch', 'text')
      .addColumn('patches', 'text', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addUniqueConstraint('journal_revision', ['project_id', 'revision'])
      .execute();
    await db.schema
      .createIndex('journal_batch')
      .ifNotExists()
      .on('journal')
      .columns(['project_id', 'batch'])
      .execute();
    await db.schema
      .createTable('blobs')
      .ifNotExists()
      .addColumn('sha256', 'text', (c) => c.primaryKey())
      .addColumn('format', 'text', (c) => c.notNull())
      .addColumn('bytes', 'blob', (c) => c.notNull())
      .execute();
    await db.schema
      .createTable('renditions')
      .ifNotExists()
      .addColumn('sha256', 'text', (c) => c.notNull().references('blobs.sha256').onDelete('cascade'))
      .addColumn('size', 'text', (c) => c.notNull())
      .addColumn('type', 'text', (c) => c.notNull())
      .addColumn('bytes', 'blob', (c) => c.notNull())
      .addPrimaryKeyConstraint('renditions_key', ['sha256', 'size'])
      .execute();
    await db.schema
      .createTable('pictures')
      .ifNotExists()
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('project_id', 'text', (c) => c.notNull().references('projects.id').onDelete('cascade'))
      .addColumn('sha256', 'text', (c) => c.notNull().references('blobs.sha256'))
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('width', 'integer', (c) => c.notNull())
      .addColumn('height', 'integer', (c) => c.notNull())
      .addColumn('ppi', 'real')
      .addColumn('created_at', 'text', (c) => c.notNull())
      .execute();
    await db.schema
      .createTable('copies')
      .ifNotExists()
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('project_id', 'text', (c) => c.notNull().references('projects.id').onDelete('cascade'))
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('art', 'text', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .execute();
  },
};

const notes: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('journal').addColumn('note', 'text').execute();
  },
};

/** What the third migration reads and writes: tables as they were then, not as they are now. */
interface Before {
  documents: { project_id: string; revision: number; art: string };
  projects: Record<string, unknown> & { id: string };
  journal: {
    project_id: string;
    revision: number;
    batch: string | null;
    patches: string;
    note: string | null;
    created_at: string;
  };
  journal_now: Record<string, unknown>;
  held_pictures: { project_id: string; picture_id: string };
  pictures: { id: string };
}

/** Rows of the old journal taken into the new one at a time. */
const ROWS_AT_ONCE = 500;

const lightChanges: Migration = {
  async up(anyDb: Kysely<unknown>) {
    const db = anyDb as Kysely<Before>;
    for (const [name, type, value] of [
      ['revision', 'integer', 0],
      ['sheet_width', 'real', 1],
      ['sheet_height', 'real', 1],
      ['sheet_unit', 'text', 'px'],
      ['shapes', 'integer', 0],
      ['painted', 'integer', 0],
      ['anchors', 'integer', 0],
    ] as const)
      await db.schema
        .alterTable('projects')
        .addColumn(name, type, (c) => c.notNull().defaultTo(value))
        .execute();

    await db.schema
      .createTable('journal_now')
      .addColumn('project_id', 'text', (c) => c.notNull().references('projects.id').onDelete('cascade'))
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('batch', 'text')
      .addColumn('entry', 'blob', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addPrimaryKeyConstraint('journal_now_key', ['project_id', 'revision'])
      // One page written for a change instead of three.
      .modifyEnd(sql`without rowid`)
      .execute();
    const versions = new Map<string, number>();
    for (const { project_id, art } of await db.selectFrom('documents').selectAll().execute())
      versions.set(project_id, (JSON.parse(art) as Art).version);
    for (let offset = 0; ; offset += ROWS_AT_ONCE) {
      const rows = await db
        .selectFrom('journal')
        .selectAll()
        .orderBy('project_id')
        .orderBy('revision')
        .limit(ROWS_AT_ONCE)
        .offset(offset)
        .execute();
      for (const { project_id, revision, batch, patches, note, created_at } of rows)
        await db
          .insertInto('journal_now')
          .values({
            project_id,
            revision,
            batch,
            entry: encodeEntry({
              patches: JSON.parse(patches),
              note: note === null ? null : JSON.parse(note),
            }),
            version: versions.get(project_id) ?? 1,
            created_at,
          })
          .execute();
      if (rows.length < ROWS_AT_ONCE) break;
    }
    await db.schema.dropTable('journal').execute();
    await db.schema.alterTable('journal_now').renameTo('journal').execute();

    await db.schema
      .createTable('held_pictures')
      .addColumn('project_id', 'text', (c) => c.notNull().references('projects.id').onDelete('cascade'))
      .addColumn('picture_id', 'text', (c) => c.notNull())
      .addPrimaryKeyConstraint('held_pictures_key', ['project_id', 'picture_id'])
      .execute();
    await db.schema.createIndex('held_pictures_picture').on('held_pictures').column('picture_id').execute();
    await sql`insert into held_pictures (project_id, picture_id) select project_id, id from pictures`.execute(
      db,
    );
    await sql`create table pictures_now (id text primary key, sha256 text not null references blobs (sha256), name text not null, width integer not null, height integer not null, ppi real, created_at text not null)`.execute(
      db,
    );
    await sql`insert into pictures_now select id, sha256, name, width, height, ppi, created_at from pictures`.execute(
      db,
    );
    await db.schema.dropTable('pictures').execute();
    await sql`alter table pictures_now rename to pictures`.execute(db);
    await db.schema.createIndex('pictures_blob').on('pictures').column('sha256').execute();

    const known = new Set((await db.selectFrom('pictures').select('id').execute()).map(({ id }) => id));
    for (const { project_id, revision, art } of await db.selectFrom('documents').selectAll().execute()) {
      const drawing = migrateArt(JSON.parse(art)) as Art;
      const { shapes, painted, anchors } = holdingsOf(drawing);
      const { width, height, unit } = drawing.sheet;
      await db
        .updateTable('projects')
        .set({
          revision,
          sheet_width: width,
          sheet_height: height,
          sheet_unit: unit,
          shapes,
          painted,
          anchors,
        })
        .where('id', '=', project_id)
        .execute();
      for (const { source } of drawing.pictures)
        if (known.has(source))
          await db
            .insertInto('held_pictures')
            .values({ project_id, picture_id: source })
            .onConflict((c) => c.doNothing())
            .execute();
    }

    await db.schema
      .createTable('straightened')
      .addColumn('sha256', 'text', (c) => c.notNull().references('blobs.sha256').onDelete('cascade'))
      .addColumn('size', 'text', (c) => c.notNull())
      .addColumn('square', 'text', (c) => c.notNull())
      .addColumn('type', 'text', (c) => c.notNull())
      .addColumn('bytes', 'blob', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addPrimaryKeyConstraint('straightened_key', ['sha256', 'size', 'square'])
      .execute();
    await db.schema
      .createTable('thumbs')
      .addColumn('project_id', 'text', (c) => c.primaryKey().references('projects.id').onDelete('cascade'))
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('bytes', 'blob', (c) => c.notNull())
      .execute();
  },
};

/** Kept copies have notes, and some are kept by the server itself; projects stand in folders named by a word. */
const keptCopies: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('copies').addColumn('note', 'text', (c) => c.notNull().defaultTo('')).execute();
    await db.schema.alterTable('copies').addColumn('by_itself', 'integer', (c) => c.notNull().defaultTo(0)).execute();
    await db.schema.alterTable('projects').addColumn('folder', 'text', (c) => c.notNull().defaultTo('')).execute();
    await db.schema.createIndex('copies_of_project').on('copies').columns(['project_id', 'created_at']).execute();
  },
}; // prettier-ignore

/** Where someone left the desk of a project, when, and how far the drawing was from its picture. */
const whereLeft: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('projects').addColumn('opened_at', 'text').execute();
    await db.schema.alterTable('projects').addColumn('left_at', 'text').execute();
    await db.schema.alterTable('projects').addColumn('drift', 'real').execute();
  },
};

/** Font files of projects. */
const fonts: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .createTable('fonts')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('project_id', 'text', (c) => c.notNull().references('projects.id').onDelete('cascade'))
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('bytes', 'blob', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .execute();
    await db.schema.createIndex('fonts_of_project').on('fonts').column('project_id').execute();
  },
};

/** What each drawing began as; of those that are there already, what was stored of them last. */
const beginnings: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .createTable('beginnings')
      .addColumn('project_id', 'text', (c) => c.primaryKey().references('projects.id').onDelete('cascade'))
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('art', 'blob', (c) => c.notNull())
      .execute();
    await sql`insert into beginnings (project_id, revision, art) select project_id, revision, art from documents`.execute(db); // prettier-ignore
  },
};

/** Projects that practise an exercise keep it with its truth; what was handed in stays, also when its project has gone. */
const exercises: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('projects').addColumn('exercise', 'text').execute();
    await db.schema
      .createTable('attempts')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('exercise_id', 'text', (c) => c.notNull())
      .addColumn('project_id', 'text', (c) => c.references('projects.id').onDelete('set null'))
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addColumn('seconds', 'real', (c) => c.notNull())
      .addColumn('presses', 'integer', (c) => c.notNull())
      .addColumn('score', 'text', (c) => c.notNull())
      .addColumn('lines', 'text', (c) => c.notNull())
      .execute();
    await db.schema.createIndex('attempts_of_exercise').on('attempts').columns(['exercise_id', 'created_at']).execute();
    await db.schema.createIndex('attempts_of_project').on('attempts').column('project_id').execute();
  },
}; // prettier-ignore

/** Attempts know the drawing's revision, and whether they came with a bundle. */
const handedOver: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('attempts').addColumn('revision', 'integer').execute();
    await db.schema.alterTable('attempts').addColumn('from_bundle', 'integer', (c) => c.notNull().defaultTo(0)).execute();
  },
}; // prettier-ignore

/** Migrations by name, carried out in the order of their names. */
export const MIGRATIONS: Readonly<Record<string, Migration>> = {
  '001-first': first,
  '002-notes': notes,
  '003-light-changes': lightChanges,
  '004-kept-copies': keptCopies,
  '005-where-left': whereLeft,
  '006-fonts': fonts,
  '007-beginnings': beginnings,
  '008-exercises': exercises,
  '009-handed-over': handedOver,
};
