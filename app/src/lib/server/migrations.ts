import type { Kysely, Migration } from 'kysely';

const first: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .createTable('projects')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addColumn('updated_at', 'text', (c) => c.notNull())
      .addColumn('deleted_at', 'text')
      .execute();
    await db.schema
      .createTable('documents')
      .addColumn('project_id', 'text', (c) => c.primaryKey().references('projects.id').onDelete('cascade'))
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('art', 'text', (c) => c.notNull())
      .execute();
    await db.schema
      .createTable('journal')
      .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
      .addColumn('project_id', 'text', (c) => c.notNull().references('projects.id').onDelete('cascade'))
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('batch', 'text')
      .addColumn('patches', 'text', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addUniqueConstraint('journal_revision', ['project_id', 'revision'])
      .execute();
    await db.schema.createIndex('journal_batch').on('journal').columns(['project_id', 'batch']).execute();
    await db.schema
      .createTable('blobs')
      .addColumn('sha256', 'text', (c) => c.primaryKey())
      .addColumn('format', 'text', (c) => c.notNull())
      .addColumn('bytes', 'blob', (c) => c.notNull())
      .execute();
    await db.schema
      .createTable('renditions')
      .addColumn('sha256', 'text', (c) => c.notNull().references('blobs.sha256').onDelete('cascade'))
      .addColumn('size', 'text', (c) => c.notNull())
      .addColumn('type', 'text', (c) => c.notNull())
      .addColumn('bytes', 'blob', (c) => c.notNull())
      .addPrimaryKeyConstraint('renditions_key', ['sha256', 'size'])
      .execute();
    await db.schema
      .createTable('pictures')
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

/** Migrations by name, carried out in the order of their names. */
export const MIGRATIONS: Readonly<Record<string, Migration>> = { '001-first': first, '002-notes': notes };
