import { addFont, fontBytes, listFonts } from './fonts';
import type { LeftRequest } from '$lib/wire';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { Kysely, Migrator, sql, SqliteDialect } from 'kysely';
import sharp, { type Sharp } from 'sharp';
import { beforeEach, describe, expect, it } from 'vitest';
import {
  addChip,
  addNode,
  addPicture,
  changeArt,
  placedPicture,
  plotFile,
  readHpgl,
  setSheet,
  type Art,
  type Patch,
  type Recipe,
} from '@mirrot/core';
import { shapeWith, square } from '$lib/bed/testing';
import {
  changesRequest,
  exportQuery,
  newProjectRequest,
  pictureName,
  type AgainRequest,
  type JournalAnswer,
} from '$lib/wire';
import { beginningOf } from './beginnings';
import { clearBin } from './bin';
import { projectFrom } from './again';
import { changeCopy, deleteCopy, getCopy, keepCopy, listCopies } from './copies';
import { addCopy } from './copy-rows';
import { openDatabase, type Database } from './database';
import { decodePicture } from './decode';
import { reasonToKeep, WorkClock } from './kept-by-itself';
import { MIGRATIONS } from './migrations';
import { changeDocument, getArt, getJournalJson } from './documents';
import { fileName } from '$lib/file-name';
import { outputPixels, outputSvg, outputThumb } from './output';
import { addPicture as keepPicture, pictureRendition } from './pictures';
import {
  changeProject,
  deleteProject,
  getProject,
  listProjects,
  makeProject,
  keepLeft,
  openedProject,
} from './projects';

let db: Database;
let id: string;
beforeEach(async () => {
  db = await openDatabase(':memory:');
  id = (await makeProject(db, 'Seed packet', { width: 100, height: 50, unit: 'mm' })).id;
});

const readJournal = async (from: Database, project: string): Promise<JournalAnswer> =>
  JSON.parse((await getJournalJson(from, project)).toString()) as JournalAnswer;

const patchesOf = async (recipe: Recipe): Promise<readonly Patch[]> =>
  changeArt((await getArt(db, id)).art, recipe).patches;
const change = async (
  recipe: Recipe,
  base?: number,
  batch: string | null = null,
): Promise<{ revision: number }> =>
  changeDocument(db, id, base ?? (await getArt(db, id)).revision, [await patchesOf(recipe)], batch);
const chip = (name: string): Recipe => addChip({ id: name, name, hex: '#2f6b4f' });
const journal = () => db.selectFrom('journal').selectAll().orderBy('revision').execute();

describe('the database', () => {
  it('keeps what it says it keeps: WAL, synchronous FULL, foreign keys', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'mirrot-db-'));
    const file = await openDatabase(join(folder, 'mirrot.sqlite'));
    const pragma = async (name: string): Promise<unknown> =>
      Object.values((await sql.raw(`pragma ${name}`).execute(file)).rows[0] as object)[0];
    expect(await pragma('journal_mode')).toBe('wal');
    expect(await pragma('synchronous')).toBe(2);
    expect(await pragma('foreign_keys')).toBe(1);
    await file.destroy();
    // Opened again, its tables are up to date and nothing is made twice.
    await (await openDatabase(join(folder, 'mirrot.sqlite'))).destroy();
    rmSync(folder, { recursive: true });
  });

  it('brings tables of the first version up to date and keeps what they hold', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'mirrot-old-'));
    const name = join(folder, 'mirrot.sqlite');
    const old = new Kysely<unknown>({ dialect: new SqliteDialect({ database: new Sqlite(name) }) });
    const first = { '001-first': MIGRATIONS['001-first']! };
    await new Migrator({ db: old, provider: { getMigrations: async () => first } }).migrateToLatest();
    const now = '2026-01-01T00:00:00Z';
    const { art } = await getArt(db, id);
    await sql`insert into projects values ('p', 'Old', ${now}, ${now}, null)`.execute(old);
    await sql`insert into documents values ('p', 1, ${JSON.stringify({ ...art, version: 3 })})`.execute(old);
    await sql`insert into journal (project_id, revision, batch, patches, created_at) values ('p', 1, null, '[]', ${now})`.execute(
      old,
    );
    await old.destroy();
    const opened = await openDatabase(name);
    expect((await getArt(opened, 'p')).art.version).toBe(art.version);
    // The journal stays whole, but its patches do not fit the drawing as it is now.
    expect(await opened.selectFrom('journal').select(['revision', 'version']).execute()).toEqual([{ revision: 1, version: 3 }]); // prettier-ignore
    expect((await readJournal(opened, 'p')).changes).toEqual([]);
    expect(await listProjects(opened)).toMatchObject([{ name: 'Old', revision: 1, sheet: { width: 100 } }]);
    expect(existsSync(`${name}.before-009-handed-over`)).toBe(true);
    // It is replayed from what was stored of it, in its own version.
    const began = await beginningOf(opened, 'p');
    expect([began?.revision, (JSON.parse(began!.text) as Art).version]).toEqual([1, 3]);
    await opened.destroy();
    rmSync(folder, { recursive: true });
  });
});

describe('what a drawing began as', () => {
  it('stays as it was, whatever comes to it, and goes with its project', async () => {
    const { art } = await getArt(db, id);
    await change(chip('a'));
    await change(chip('b'));
    const began = await beginningOf(db, id);
    expect([began?.revision, JSON.parse(began!.text)]).toEqual([0, art]);
    // One that is made of another begins as that one was.
    const again = await projectFrom(db, id, { name: 'Again', keep: ['drawing'] });
    expect((JSON.parse((await beginningOf(db, again.id))!.text) as Art).chips.map(({ id }) => id)).toEqual(['a', 'b']); // prettier-ignore
    await db.deleteFrom('projects').where('id', '=', id).execute();
    expect(await beginningOf(db, id)).toBeNull();
  });
});

describe('projects', () => {
  it('are made, listed, renamed, deleted and brought back', async () => {
    expect(await getProject(db, id)).toMatchObject({
      name: 'Seed packet',
      sheet: { width: 100, height: 50, unit: 'mm' },
    });
    await changeProject(db, id, { name: '🌱 / שתיל' });
    expect((await listProjects(db))[0]!.name).toBe('🌱 / שתיל');
    await deleteProject(db, id);
    expect(await listProjects(db)).toEqual([]);
    await expect(getProject(db, id)).rejects.toThrow('no such project');
    await expect(deleteProject(db, id)).rejects.toThrow('no such project');
    await expect(changeProject(db, id, { name: 'x' })).rejects.toThrow('no such project');
    await changeProject(db, id, { deleted: false });
    expect((await getArt(db, id)).art.sheet.unit).toBe('mm');
  });

  it('remember where their desk was left, and what was measured before where nothing was now', async () => {
    expect(await openedProject(db, id)).toMatchObject({
      openedAt: null,
      drift: null,
      practised: null,
      left: null,
    });
    const { updatedAt } = await getProject(db, id);
    const choice = {
      level: 'shape' as const,
      shapes: ['a'],
      nodes: [],
      anchors: [],
      handle: null,
      segment: null,
    };
    const left: LeftRequest = { step: 'refine', middle: { x: 40, y: 20.5 }, scale: 3, choice, drift: 0.42 };
    await keepLeft(db, id, left);
    expect((await openedProject(db, id)).left).toEqual(left);
    await keepLeft(db, id, { ...left, step: 'colour', drift: null });
    expect(await openedProject(db, id)).toMatchObject({
      drift: 0.42,
      updatedAt,
      revision: 0,
      left: { step: 'colour' },
    });
    expect(await listProjects(db)).toMatchObject([{ drift: 0.42, openedAt: expect.any(String) }]);
    await db.updateTable('projects').set({ left_at: '{"step":"elsewhere"}' }).execute();
    expect((await openedProject(db, id)).left).toBeNull();
    await expect(keepLeft(db, 'nobody', left)).rejects.toThrow('no such project');
  });

  it('keep font files by their beginning, 50 at most, until they are cleared away', async () => {
    const font = Buffer.from('OTTO and the rest');
    const added = await addFont(db, id, 'Seed', font);
    expect(await listFonts(db, id)).toEqual([added]);
    expect(await fontBytes(db, added.id)).toEqual(font);
    await expect(addFont(db, id, 'Notes', Buffer.from('mint'))).rejects.toThrow(/no font that can be read/);
    await expect(addFont(db, 'nobody', 'Seed', font)).rejects.toThrow('no such project');
    for (let k = 1; k < 50; k++) await addFont(db, id, `Seed ${k}`, font);
    await expect(addFont(db, id, 'One more', font)).rejects.toThrow(/50 fonts of its own at most/);
    await db.deleteFrom('projects').execute();
    await expect(fontBytes(db, added.id)).rejects.toThrow(/not here any more/);
  });

  it('are cleared away 30 days after they were deleted, with all they hold', async () => {
    await change(chip('a'));
    await keepCopy(db, id, { name: 'First' });
    await deleteProject(db, id);
    const long = new Date(Date.now() - 31 * 86_400_000).toISOString();
    await db.updateTable('projects').set({ deleted_at: long }).execute();
    await clearBin(db);
    for (const table of ['projects', 'documents', 'journal', 'copies'] as const)
      expect(await db.selectFrom(table).selectAll().execute(), table).toEqual([]);
  });
});

describe('changes', () => {
  it('append to the journal and write the document, one revision each', async () => {
    expect(await change(chip('a'))).toEqual({ revision: 1 });
    const patches = [await patchesOf(chip('b')), []];
    expect(await changeDocument(db, id, 1, patches, null)).toEqual({ revision: 3 });
    expect((await getArt(db, id)).art.chips.map((c) => c.id)).toEqual(['a', 'b']);
    expect((await journal()).map((r) => r.revision)).toEqual([1, 2, 3]);
  });

  it('are told in order with what they were to the history, and without where nobody said', async () => {
    const context = {
      choice: { level: 'shape', shapes: [], nodes: [], anchors: [], handle: null, segment: null },
      live: null,
    } as const;
    const [one, two] = [await patchesOf(chip('a')), await patchesOf(chip('b'))];
    const note = { did: 'step', label: 'Add a chip', inverse: [], before: context, after: context } as const;
    const read = changesRequest.parse({
      base: 0,
      changes: [one, two],
      notes: [{ ...note, inverse: [] }, { did: 'undo' }],
    });
    await changeDocument(db, id, 0, read.changes as Patch[][], null, read.notes);
    await change(chip('c'));
    const { revision, changes } = await readJournal(db, id);
    expect(revision).toBe(3);
    expect(changes.map((c) => c.note)).toEqual([note, { did: 'undo' }, null]);
    expect(changes[0]!.patches).toEqual(one);
    expect(() => changesRequest.parse({ base: 0, changes: [one], notes: [{ did: 'jump' }] })).toThrow();
    for (let k = 0; k < 310; k++) await changeDocument(db, id, 3 + k, [[]], null);
    expect((await readJournal(db, id)).changes).toHaveLength(300);
  });

  it('against an old revision are refused with the current one, and change nothing', async () => {
    await change(chip('a'));
    const before = await getArt(db, id);
    await expect(change(chip('b'), 0)).rejects.toMatchObject({ status: 409, extra: { revision: 1 } });
    expect(await getArt(db, id)).toEqual(before);
    expect(await journal()).toHaveLength(1);
  });

  it('sent twice under one name are carried out once', async () => {
    const patches = [await patchesOf(chip('a'))];
    expect(await changeDocument(db, id, 0, patches, 'batch')).toEqual({ revision: 1 });
    expect(await changeDocument(db, id, 0, patches, 'batch')).toEqual({ revision: 1 });
    expect((await getArt(db, id)).art.chips).toHaveLength(1);
  });

  const shape = shapeWith('s', [square('p', 0, 0, 10)]);
  it.each<[string, (p: Patch[]) => Patch[]]>([
    [
      'a coordinate that is not a number',
      (p) => JSON.parse(JSON.stringify(p).replace('"x":10', '"x":"NaN"')) as Patch[],
    ],
    [
      'null for a coordinate, as JSON writes NaN',
      (p) => JSON.parse(JSON.stringify(p).replace('"x":10', '"x":null')) as Patch[],
    ],
    ['a coordinate of 1e300', (p) => JSON.parse(JSON.stringify(p).replace('"x":10', '"x":1e300')) as Patch[]],
    ['a place that is not there', () => [{ op: 'replace', path: '/layers/7/name', value: 'x' }]],
    ['an unknown field', () => [{ op: 'add', path: '/sheet/script', value: 'x' }]],
    [
      'a picture that was never added',
      () => [
        {
          op: 'add',
          path: '/pictures/0',
          value: placedPicture({
            id: 'p',
            source: 'nobody',
            name: 'x',
            width: 1,
            height: 1,
            placement: [1, 0, 0, 1, 0, 0],
          }),
        },
      ],
    ],
    ['a name of 501 characters', () => [{ op: 'replace', path: '/layers/0/name', value: 'x'.repeat(501) }]],
  ])('with %s are refused whole', async (_what, spoil) => {
    const good = [...(await patchesOf(addNode((await getArt(db, id)).art.layers[0]!.id, shape)))];
    await expect(
      changeDocument(db, id, 0, [await patchesOf(chip('a')), spoil(good)], null),
    ).rejects.toMatchObject({
      status: 422,
      message: expect.stringContaining('Nothing was changed'),
    });
    expect((await getArt(db, id)).revision).toBe(0);
    expect(await journal()).toEqual([]);
  });
});

describe('requests', () => {
  it('are checked: names, sheets, patches, queries', () => {
    const sheet = { width: 10, height: 10, unit: 'mm' };
    const ok = (name: string): boolean => newProjectRequest.safeParse({ name, sheet }).success;
    expect([ok('a/b'), ok('x'.repeat(500)), ok('x'.repeat(501)), ok(' '), ok('a\u0007')]).toEqual([
      true,
      true,
      false,
      false,
      false,
    ]);
    expect(newProjectRequest.safeParse({ name: 'x', sheet: { ...sheet, width: 0 } }).success).toBe(false);
    expect(newProjectRequest.safeParse({ name: 'x', sheet: { ...sheet, width: 1e9 } }).success).toBe(false);
    const patch = (path: string): boolean =>
      changesRequest.safeParse({ base: 0, changes: [[{ op: 'add', path, value: 1 }]] }).success;
    expect([patch('/layers/0'), patch('layers'), patch('/__proto__/x'), patch('/a/constructor/b')]).toEqual([
      true,
      false,
      false,
      false,
    ]);
    expect(exportQuery.safeParse({ ppi: '0' }).success).toBe(false);
    expect(exportQuery.safeParse({ ground: 'red' }).success).toBe(false);
    expect(pictureName.parse('\u0000\u0001 ')).toBe('Picture');
  });
});

describe('pictures', () => {
  const plain = (width = 40, height = 30): Sharp =>
    sharp({ create: { width, height, channels: 3, background: '#2f6b4f' } });
  const refused = (bytes: Buffer) => decodePicture(bytes).then(() => 'taken', (e: Error) => e.message); // prettier-ignore

  it('are read by content in every format, and kept once by their SHA-256', async () => {
    for (const format of ['png', 'jpeg', 'webp', 'gif', 'tiff', 'avif'] as const) {
      const decoded = await decodePicture(await plain().toFormat(format).toBuffer());
      expect([decoded.width, decoded.height, decoded.renditions.length], format).toEqual([40, 30, 3]);
    }
    const bytes = await plain().png().toBuffer();
    const [one, two] = [
      await keepPicture(db, id, 'leaf.txt', bytes),
      await keepPicture(db, id, 'again.png', bytes),
    ];
    expect(one).toMatchObject({ name: 'leaf.txt', width: 40, height: 30, format: 'png' });
    expect(one.id).not.toBe(two.id);
    expect(await db.selectFrom('blobs').select('sha256').execute()).toHaveLength(1);
    expect((await pictureRendition(db, two.id, 'thumb')).type).toBe('image/jpeg');
    await expect(pictureRendition(db, 'nobody', 'full')).rejects.toThrow('no such picture');
  });

  it('are turned as EXIF asks', async () => {
    const turned = await plain().withMetadata({ orientation: 6 }).jpeg().toBuffer();
    expect(await decodePicture(turned)).toMatchObject({ width: 30, height: 40 });
  });

  // Source outside: sharp (libvips, Little CMS) wrote the files; the colours are those the profiles mean.
  it('of CMYK and of wide gamut become the sRGB they mean', async () => {
    const middle = async (bytes: Buffer): Promise<number[]> => {
      const { renditions } = await decodePicture(bytes);
      const { data } = await sharp(renditions[0]!.bytes)
        .removeAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      return [...data.subarray(0, 3)];
    };
    const near = (a: number[], b: number[], within: number): void =>
      a.forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThanOrEqual(within));
    const cmyk = await plain()
      .toColourspace('cmyk')
      .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
      .toBuffer();
    expect((await sharp(cmyk).metadata()).space).toBe('cmyk');
    // Print inks hold less than sRGB: near is all there can be.
    near(await middle(cmyk), [0x2f, 0x6b, 0x4f], 24);
    const wide = await plain().withIccProfile('p3').png().toBuffer();
    expect((await sharp(wide).metadata()).hasProfile).toBe(true);
    near(await middle(wide), [0x2f, 0x6b, 0x4f], 3);
  });

  it('keep a scan’s pixels to the inch', async () => {
    expect((await decodePicture(await plain().withMetadata({ density: 300 }).jpeg().toBuffer())).ppi).toBe(
      300,
    );
  });

  it('of SVG are drawn inert: no script runs, nothing outside is fetched', async () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><script>throw 1</script><image href="http://127.0.0.1:9/x.png" width="9" height="9"/><rect width="40" height="20" fill="#f00" onclick="alert(1)"/></svg>`;
    const decoded = await decodePicture(Buffer.from(svg));
    expect(decoded.width / decoded.height).toBeCloseTo(2, 2);
    expect(decoded.renditions.map((r) => r.type)).toEqual(['image/png', 'image/png', 'image/png']);
  });

  it('cut short in any format are refused or drawn whole, never half taken without a word', async () => {
    const noise = Buffer.from(Array.from({ length: 300 * 200 * 3 }, (_, i) => (i * 2654435761) >>> 24));
    const whole = sharp(noise, { raw: { width: 300, height: 200, channels: 3 } });
    for (const format of ['png', 'jpeg', 'webp', 'gif', 'tiff', 'avif'] as const) {
      const bytes = await whole.clone().toFormat(format).toBuffer();
      expect(await refused(bytes), format).toBe('taken');
      expect(await refused(bytes.subarray(0, Math.floor(bytes.length * 0.6))), format).toMatch(
        /Nothing was added/,
      );
    }
    expect(await refused(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="10" hei'))).toMatch(
      /Nothing was added/,
    );
    expect(
      await refused(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="1e9" height="1e9"/>')),
    ).toMatch(/Nothing was added/);
  });

  it('are refused with a sentence: empty, cut short, mislabelled, no picture, enormous', async () => {
    const jpeg = await plain(400, 300).jpeg().toBuffer();
    expect(await refused(Buffer.alloc(0))).toBe('This file is empty. Nothing was added.');
    expect(await refused(jpeg.subarray(0, 700))).toMatch(/cut short or damaged.*Nothing was added/);
    expect(await refused(Buffer.from('<html>hello</html>'))).toMatch(/not a picture Mirrot can read/);
    expect(await refused(Buffer.from('%PDF-1.4 not really'))).toMatch(/Nothing was added/);
    expect(
      await refused(
        Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), Buffer.alloc(64)]),
      ),
    ).toMatch(/Nothing was added/);
    expect(await refused(Buffer.alloc(61 * 1024 * 1024))).toMatch(/60 MB/);
    const wide = await sharp({ create: { width: 20_000, height: 6000, channels: 3, background: '#000' }, limitInputPixels: false }).png({ compressionLevel: 1 }).toBuffer(); // prettier-ignore
    expect(await refused(wide)).toMatch(/100 million pixels/);
  });
});

describe('kept copies', () => {
  it('are the drawing as it was', async () => {
    await change(chip('a'));
    const copy = await keepCopy(db, id, { name: 'Before the leaves' });
    await change(chip('b'));
    expect((await getCopy(db, id, copy.id)).chips).toHaveLength(1);
    expect(await listCopies(db, id)).toMatchObject([{ name: 'Before the leaves', revision: 1 }]);
    await expect(getCopy(db, id, 'nobody')).rejects.toThrow('no such kept copy');
  });
});

describe('copies that are kept by themselves', () => {
  const one = async (n: number): Promise<Recipe> =>
    addNode((await getArt(db, id)).art.layers[0]!.id, shapeWith(`s${n}`, [square(`p${n}`, 10, 10, 20)]));

  it('come before a change of many parts, named after it, and hold what was there', async () => {
    for (let n = 0; n < 3; n++) await change(await one(n));
    const many = Array.from({ length: 120 }, (_, i) => ({ op: 'replace' as const, path: '/sheet/ppi', value: 100 + i })); // prettier-ignore
    const note = { did: 'step', label: 'Thin out', inverse: [], before: { choice: { level: 'shape', shapes: [], nodes: [], anchors: [], handle: null, segment: null }, live: null }, after: { choice: { level: 'shape', shapes: [], nodes: [], anchors: [], handle: null, segment: null }, live: null } } as const; // prettier-ignore
    await changeDocument(db, id, 3, [many], null, [note as never]);
    const [copy, ...more] = await listCopies(db, id);
    expect(more).toEqual([]);
    expect(copy).toMatchObject({ name: 'Before: Thin out', byItself: true, revision: 3 });
    expect((await getCopy(db, id, copy!.id)).sheet.ppi).toBe(300);
    // An empty drawing is not worth one, and one that is refused leaves none.
    await expect(changeDocument(db, id, 4, [[...many, { op: 'replace', path: '/nowhere/x', value: 1 }]], null)).rejects.toThrow(); // prettier-ignore
    expect(await listCopies(db, id)).toHaveLength(1);
  });

  it('come once a working hour, pauses not counted', () => {
    const clock = new WorkClock();
    const minute = 60_000;
    let at = 0;
    const due: number[] = [];
    for (let n = 0; n < 150; n++) if (clock.tick('p', (at += minute))) due.push(n);
    expect(due).toEqual([60, 120]);
    // A night away is no work.
    expect(clock.tick('p', at + 600 * minute)).toBe(false);
    expect(reasonToKeep([], true)).toBe('After an hour of work');
    expect(reasonToKeep([{ patches: [], bytes: 10, label: 'x' }], false)).toBeNull();
    expect(reasonToKeep([{ patches: [], bytes: 1e6, label: null }], false)).toBe('Before a large change');
  });

  it('are 24 at most, the oldest go first; those that were named stay', async () => {
    const now = await getArt(db, id);
    const named = await keepCopy(db, id, { name: 'Mine' });
    const first = await addCopy(db, id, now, { name: 'by itself 0', byItself: true });
    await changeCopy(db, id, first.id, { note: 'the good one' });
    for (let n = 1; n < 30; n++) {
      const { id: copy } = await addCopy(db, id, now, { name: `by itself ${n}`, byItself: true });
      // One a millisecond is no order: they are told apart by their time.
      await db.updateTable('copies').set({ created_at: new Date(n * 1000).toISOString() }).where('id', '=', copy).execute(); // prettier-ignore
    }
    const kept = await listCopies(db, id);
    expect(kept.filter(({ byItself }) => byItself).length).toBeLessThanOrEqual(25);
    expect(kept.map((c) => c.id)).toEqual(expect.arrayContaining([named.id, first.id]));
    await deleteCopy(db, id, named.id);
    await expect(deleteCopy(db, id, named.id)).rejects.toThrow('no such kept copy');
    await expect(changeCopy(db, id, named.id, { name: 'x' })).rejects.toThrow('no such kept copy');
  });
});

describe('a project made of another', () => {
  it('has of it what is asked for, and holds its pictures by itself', async () => {
    const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#2f6b4f' } }).png().toBuffer(); // prettier-ignore
    const picture = await keepPicture(db, id, 'p.png', bytes);
    await change(addPicture(placedPicture({ id: 'pic', source: picture.id, name: 'P', width: 40, height: 30, placement: [1, 0, 0, 1, 0, 0] }))); // prettier-ignore
    await change(chip('a'));
    const layer = (await getArt(db, id)).art.layers[0]!.id;
    await change(addNode(layer, shapeWith('s', [square('p', 10, 10, 20)], { fill: { chip: 'a' } })));
    const copy = await keepCopy(db, id, { name: 'First' });
    const from = async (keep: AgainRequest['keep'], more: object = {}) => {
      const made = await projectFrom(db, id, { name: 'Next', keep, ...more });
      return { made, ...(await getArt(db, made.id)).art };
    };
    const bare = await from([]);
    expect([bare.made.shapes, bare.pictures.length, bare.chips.length]).toEqual([0, 0, 0]);
    expect(bare.sheet).toEqual((await getArt(db, id)).art.sheet);
    const palette = await from(['palette', 'layers']);
    expect([palette.chips.length, palette.layers[0]!.id, palette.layers[0]!.children.length]).toEqual([1, layer, 0]); // prettier-ignore
    const all = await from(['drawing'], { copy: copy.id });
    expect([all.made.shapes, all.pictures.length, all.chips.length, all.traced]).toEqual([1, 1, 1, 'pic']);
    // The picture stays when the project it came from is cleared away.
    await deleteProject(db, id);
    await clearBin(db, Date.now() + 31 * 86_400_000);
    expect(await db.selectFrom('pictures').select('id').execute()).toHaveLength(1);
  });
});

// Source outside: sharp's own reading of the PNG; CSS Values 4 (96 px to the inch).
describe('output', () => {
  const filled = shapeWith('s', [square('p', 10, 10, 20)], { fill: { hex: '#d4561c' } });
  const art = async () => {
    await change(addNode((await getArt(db, id)).art.layers[0]!.id, filled));
    return (await getArt(db, id)).art;
  };

  it('writes PNG at a ppi or a width, clear or filled, sheet or drawing', async () => {
    const drawing = await art();
    const png = (options: object) => outputPixels(db, drawing, { area: 'sheet', picture: false, ...options });
    const sheet = await sharp(await png({ ppi: 300 })).metadata();
    expect([sheet.width, sheet.height, sheet.density]).toEqual([1181, 591, 300]);
    const alone = sharp(await png({ area: 'drawing', width: 200 }));
    expect(await alone.metadata()).toMatchObject({ width: 200, height: 200 });
    const stats = await alone.stats();
    expect(stats.channels.slice(0, 3).map((c) => Math.round(c.mean))).toEqual([0xd4, 0x56, 0x1c]);
    const pixel = async (options: object): Promise<number[]> => [
      ...(await sharp(await png(options))
        .ensureAlpha()
        .extract({ left: 0, top: 0, width: 1, height: 1 })
        .raw()
        .toBuffer()),
    ];
    expect((await pixel({ ppi: 96 }))[3]).toBe(0);
    expect(await pixel({ ppi: 96, ground: '#112233' })).toEqual([0x11, 0x22, 0x33, 255]);
    await expect(png({ width: 20_000 })).rejects.toThrow('120 million');
  });

  it('writes WebP, any size, a margin, what is chosen alone, plain SVG, and strokes for a plotter', async () => {
    await change(addNode((await getArt(db, id)).art.layers[0]!.id, shapeWith('t', [square('q', 100, 60, 40)], { fill: { hex: '#2f6b4f' } }))); // prettier-ignore
    const drawing = await art();
    const only = new Set(['s']);
    const webp = await outputPixels(db, drawing, { kind: 'webp', area: 'drawing', margin: 5, only, scale: 3, ppi: 96, picture: false }); // prettier-ignore
    // The square of 20 with 5 all round, three times as large.
    expect(await sharp(webp).metadata()).toMatchObject({ format: 'webp', width: 90, height: 90 });
    await expect(outputPixels(db, drawing, { kind: 'webp', area: 'sheet', width: 20_000, picture: false })).rejects.toThrow(/million|16,383/); // prettier-ignore
    const svg = await outputSvg(db, drawing, {
      area: 'drawing',
      only,
      scale: 2,
      plain: true,
      picture: false,
    });
    expect(svg).toMatch(/width="10.5833mm" height="10.5833mm" viewBox="10 10 20 20"/);
    expect(svg).not.toMatch(/<g|id=|<title/);
    expect(svg.match(/<path/g)).toHaveLength(1);
    const { strokes } = readHpgl(plotFile(drawing, { range: { scale: 2 } }).text);
    expect(strokes.map(({ closed, points }) => [closed, points.length])).toEqual([[true, 4], [true, 4]]); // prettier-ignore
    // From the sheet's lower left corner, twice as large; a plotter counts in 0.025 mm.
    const first = strokes.find(({ points }) =>
      points.some(({ x }) => Math.abs(x - (20 * 25.4) / 96) < 0.02),
    )!;
    expect(Math.max(...first.points.map(({ y }) => y))).toBeCloseTo(2 * (50 - (10 * 25.4) / 96), 1);
  });

  it('leaves the picture out of an SVG unless asked, and puts its pixels in when asked', async () => {
    const picture = await keepPicture(
      db,
      id,
      'p.png',
      await sharp({ create: { width: 8, height: 8, channels: 3, background: '#fff' } })
        .png()
        .toBuffer(),
    );
    await change(
      addPicture(
        placedPicture({
          id: 'pic',
          source: picture.id,
          name: 'p',
          width: 8,
          height: 8,
          placement: [1, 0, 0, 1, 0, 0],
        }),
      ),
    );
    const { art: drawing } = await getArt(db, id);
    expect(await outputSvg(db, drawing, { area: 'sheet', picture: false })).not.toContain('<image');
    expect(await outputSvg(db, drawing, { area: 'sheet', picture: true })).toContain(
      'href="data:image/png;base64,',
    );
    expect((await sharp(await outputThumb(db, drawing, 64)).metadata()).width).toBe(64);
  });

  it('works for an empty drawing, and takes file names from any script', async () => {
    await change(setSheet({ ground: null }));
    const { art: empty } = await getArt(db, id);
    expect(
      (await sharp(await outputPixels(db, empty, { area: 'drawing', picture: false, ppi: 96 })).metadata())
        .width,
    ).toBe(378);
    expect([fileName('a/b\\c: "x"', 'svg'), fileName('🌱', 'png'), fileName('שתיל ירוק', 'svg')]).toEqual([
      'a-b-c-x.svg',
      'drawing.png',
      'שתיל-ירוק.svg',
    ]);
  });
});
