import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { addPicture, changeArt, placedPicture, removePicture, type Patch, type Recipe } from '@mirrot/core';
import sharp from 'sharp';
import { shapeWith, square } from '$lib/bed/testing';
import type { JournalAnswer } from '$lib/wire';
import { binThumb, clearBin, clearFromBin, DAYS_KEPT, listBin } from './bin';
import { handleOf, openDatabase, type Database } from './database';
import {
  changeDocument,
  forgetDocuments,
  getArt,
  getArtJson,
  getJournalJson,
  storeAllDocuments,
} from './documents';
import { decodeEntry, encodeEntry } from './entry';
import { addPicture as keepPicture, pictureRendition } from './pictures';
import { changeProject, deleteProject, getProject, listProjects, makeProject } from './projects';
import { seenRendition } from './seen';
import { projectThumb } from './thumbs';

let db: Database;
let id: string;
const SHEET = { width: 100, height: 50, unit: 'mm' } as const;
beforeEach(async () => {
  db = await openDatabase(':memory:');
  id = (await makeProject(db, 'Seed packet', SHEET)).id;
});

const readJournal = async (from: Database, project: string): Promise<JournalAnswer> =>
  JSON.parse((await getJournalJson(from, project)).toString()) as JournalAnswer;

const change = async (recipe: Recipe, project = id): Promise<{ revision: number }> => {
  const { art, revision } = await getArt(db, project);
  return changeDocument(db, project, revision, [changeArt(art, recipe).patches], null);
};
const crowd =
  (count: number): Recipe =>
  (draft) => {
    for (let i = 0; i < count; i++)
      draft.layers[0]!.children.push(shapeWith(`s${i}`, [square(`p${i}`, i, 0, 9)]) as never);
  };
const stored = () =>
  db.selectFrom('documents').selectAll().where('project_id', '=', id).executeTakeFirstOrThrow();
const png = (hex: string, width = 20): Promise<Buffer> =>
  sharp({ create: { width, height: 10, channels: 3, background: hex } })
    .png()
    .toBuffer();
const place = (source: string, width = 20): Recipe =>
  addPicture(placedPicture({ id: `on-${source}`, source, name: 'p', width, height: 10, placement: [1, 0, 0, 1, 0, 0] })); // prettier-ignore

describe('a change', () => {
  it('adds to the journal what it changes, and leaves the stored document until there is a rest', async () => {
    await change(crowd(400));
    await storeAllDocuments(db);
    const before = await stored();
    expect(before.revision).toBe(1);
    await change((draft) => void (draft.layers[0]!.children[7]!.name = 'Leaf'));
    expect(await stored()).toEqual(before);
    const entry = await db
      .selectFrom('journal')
      .select('entry')
      .where('revision', '=', 2)
      .executeTakeFirstOrThrow();
    expect(entry.entry.length).toBeLessThan(200);
    await storeAllDocuments(db);
    expect((await stored()).revision).toBe(2);
  });

  it('is there after a cold start, from the stored document and the journal after it', async () => {
    await change(crowd(5));
    await storeAllDocuments(db);
    for (let k = 0; k < 5; k++)
      await change((draft) => void (draft.layers[0]!.children[k]!.name = `Leaf ${k}`));
    const warm = await getArt(db, id);
    forgetDocuments(db);
    expect(await getArt(db, id)).toEqual(warm);
    forgetDocuments(db);
    expect(JSON.parse((await getArtJson(db, id)).toString())).toEqual(warm);
    await storeAllDocuments(db);
    forgetDocuments(db);
    expect(JSON.parse((await getArtJson(db, id)).toString())).toEqual(warm);
  });

  it('is carried out once, whoever else is writing at the same time', async () => {
    const add = (name: string): Patch[] => [
      { op: 'add', path: '/chips/-', value: { id: name, name, hex: '#112233' } },
    ];
    const all = await Promise.allSettled(
      Array.from({ length: 8 }, (_, k) => changeDocument(db, id, 0, [add(`c${k}`)], `b${k}`)),
    );
    expect(all.filter((r) => r.status === 'fulfilled')).toHaveLength(1);
    expect((await getArt(db, id)).art.chips).toHaveLength(1);
    const twice = await Promise.all([0, 1].map(() => changeDocument(db, id, 1, [add('x')], 'same')));
    expect(twice).toEqual([{ revision: 2 }, { revision: 2 }]);
  });

  it('leaves memory and disk alike when it cannot be written', async () => {
    await change(crowd(2));
    handleOf(db).exec(
      "create trigger full before insert on journal begin select raise(abort, 'no room'); end",
    );
    await expect(change((draft) => void (draft.layers[0]!.name = 'Lost'))).rejects.toThrow('no room');
    handleOf(db).exec('drop trigger full');
    expect((await getArt(db, id)).revision).toBe(1);
    await change((draft) => void (draft.layers[0]!.name = 'Kept'));
    forgetDocuments(db);
    expect((await getArt(db, id)).art.layers[0]!.name).toBe('Kept');
  });

  it('brings what the shelf says up to date', async () => {
    await change(crowd(3));
    await change((draft) => {
      draft.sheet.width = 192;
      (draft.layers[0]!.children[0] as { fill: unknown }).fill = { hex: '#112233' };
    });
    expect(await getProject(db, id)).toMatchObject({ revision: 2, shapes: 3, painted: 1, anchors: 12, sheet: { width: 50.8, unit: 'mm' } }); // prettier-ignore
    expect((await listProjects(db))[0]).toEqual(await getProject(db, id));
  });
});

describe('the journal', () => {
  it('is kept small, and told as it was written', async () => {
    const patches: Patch[] = Array.from({ length: 24 }, (_, k) => ({ op: 'replace', path: `/layers/0/children/3/paths/0/anchors/${k >> 1}/${k % 2 ? 'y' : 'x'}`, value: 100.123 + k })); // prettier-ignore
    const entry = { patches, note: null };
    expect(decodeEntry(encodeEntry(entry))).toEqual(entry);
    expect(encodeEntry(entry).length * 5).toBeLessThan(JSON.stringify(entry).length);
    await change(crowd(1));
    expect((await readJournal(db, id)).changes).toHaveLength(1);
  });
});

describe('the bin', () => {
  it('lists what was deleted with what is in it, brings it back whole, and clears it before its time when asked', async () => {
    await change(
      (draft) => void draft.layers[0]!.children.push(shapeWith('s', [square('p', 0, 0, 9)]) as never),
    );
    const other = (await makeProject(db, 'Other', SHEET)).id;
    expect(await listBin(db)).toEqual([]);
    await deleteProject(db, other);
    await deleteProject(db, id);
    const [first, second] = await listBin(db);
    expect([first!.id, second!.id].sort()).toEqual([id, other].sort());
    const mine = [first!, second!].find((p) => p.id === id)!;
    expect(mine.shapes).toBe(1);
    expect(Date.parse(mine.goneAt) - Date.parse(mine.deletedAt)).toBe(DAYS_KEPT * 86_400_000);
    expect(await binThumb(db, id)).toBeNull();
    await changeProject(db, id, { deleted: false });
    expect((await getArt(db, id)).art.layers[0]!.children).toHaveLength(1);
    await clearFromBin(db, other);
    expect(await listBin(db)).toEqual([]);
    // What is on the shelf, and what is gone, cannot be cleared from the bin.
    for (const not of [id, other]) await expect(clearFromBin(db, not)).rejects.toMatchObject({ status: 404 });
    expect((await getProject(db, id)).name).not.toBe('');
  });
});

describe('pictures', () => {
  it('stay for as long as a project uses them, whoever brought them, and go with the last one', async () => {
    const other = (await makeProject(db, 'Other', SHEET)).id;
    const picture = await keepPicture(db, id, 'p.png', await png('#d4561c'));
    await change(place(picture.id), other);
    await deleteProject(db, id);
    const later = Date.now() + (DAYS_KEPT + 1) * 86_400_000;
    await clearBin(db, later);
    expect((await pictureRendition(db, picture.id, 'thumb')).bytes.length).toBeGreaterThan(0);
    // Taken out of the drawing it can come back by undo.
    await change(removePicture(`on-${picture.id}`), other);
    await clearBin(db, later);
    expect((await pictureRendition(db, picture.id, 'thumb')).bytes.length).toBeGreaterThan(0);
    await deleteProject(db, other);
    await clearBin(db, later);
    for (const table of [
      'pictures',
      'blobs',
      'renditions',
      'held_pictures',
      'straightened',
      'thumbs',
    ] as const)
      expect(await db.selectFrom(table).selectAll().execute(), table).toEqual([]);
    await expect(pictureRendition(db, picture.id, 'thumb')).rejects.toThrow('no such picture');
  });

  it('that went give their room on the disk back', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'mirrot-bin-'));
    const file = await openDatabase(join(folder, 'mirrot.sqlite'));
    const project = (await makeProject(file, 'Large', SHEET)).id;
    const noise = Buffer.from(Array.from({ length: 300 * 300 * 3 }, (_, i) => (i * 2654435761) >>> 24));
    const bytes = await sharp(noise, { raw: { width: 300, height: 300, channels: 3 } })
      .png()
      .toBuffer();
    await keepPicture(file, project, 'noise.png', bytes);
    const pages = (): number => Number(handleOf(file).pragma('page_count', { simple: true }));
    const before = pages();
    await deleteProject(file, project);
    await clearBin(file, Date.now() + (DAYS_KEPT + 1) * 86_400_000);
    expect(pages()).toBeLessThan(before / 2);
    expect(handleOf(file).pragma('freelist_count', { simple: true })).toBe(0);
    await file.destroy();
    rmSync(folder, { recursive: true });
  });

  it('that are squared up are straightened once, in a thread of their own', async () => {
    const picture = await keepPicture(db, id, 'p.png', await png('#d4561c'));
    await change(place(picture.id));
    const corners = [[1, 1], [18, 2], [19, 9], [2, 8]].map(([x, y]) => ({ x, y })); // prettier-ignore
    await change((draft) => void (draft.pictures[0]!.square = { corners, width: 40, height: 20 } as never));
    const { art } = await getArt(db, id);
    const [one, two] = [
      await seenRendition(db, art.pictures[0]!, 'full'),
      await seenRendition(db, art.pictures[0]!, 'full'),
    ];
    expect(await sharp(one.bytes).metadata()).toMatchObject({ width: 40, height: 20 });
    expect(two.bytes.equals(one.bytes)).toBe(true);
    expect(await db.selectFrom('straightened').select('size').execute()).toHaveLength(1);
  });

  it('have the size they have, whatever a drawing says', async () => {
    const picture = await keepPicture(db, id, 'p.png', await png('#d4561c'));
    await expect(change(place(picture.id, 1))).rejects.toThrow('it has 20 × 10. Nothing was changed.');
    await change(place(picture.id));
    await expect(change((draft) => void (draft.pictures[0]!.width = 20_000))).rejects.toMatchObject({
      status: 422,
    });
    const corners = [0, 0, 0, 0].map((_, i) => ({ x: i, y: 0 }));
    const square = { corners, width: 20, height: 10 };
    await expect(change((draft) => void (draft.pictures[0]!.square = square as never))).rejects.toThrow('lie in a line'); // prettier-ignore
  });

  it('of the shelf are drawn once for each revision', async () => {
    const first = await projectThumb(db, id);
    handleOf(db).exec("update thumbs set bytes = x'00'");
    expect((await projectThumb(db, id)).bytes).toEqual(Buffer.from([0]));
    await change(crowd(1));
    const second = await projectThumb(db, id);
    expect([first.revision, second.revision]).toEqual([0, 1]);
    expect(second.bytes.length).toBeGreaterThan(100);
  });
});
