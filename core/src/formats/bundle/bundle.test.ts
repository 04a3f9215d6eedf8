import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { changeArt } from '../../art/change';
import { addNode, together } from '../../art/edits';
import { emptyArt, placedPicture } from '../../art/blank';
import { ART_VERSION } from '../../art/limits';
import { artText } from '../../art/write';
import { shapeOf } from '../../art/testing';
import { MOST_ATTEMPTS, type Practised } from '../../practice/attempt';
import { scoreDrawing, type Score } from '../../practice/score';
import { seeded, squarePath } from '../../testing';
import { readBundles } from './read';
import { writeBundle, writeZip, type Bundle } from './write';

const art = changeArt(
  emptyArt({ width: 100, height: 80, unit: 'mm' }, 'layer'),
  together(addNode('layer', shapeOf('a', { name: 'Grün 🌱' })), addNode('layer', shapeOf('b'))),
).art;
const random = seeded(1);
const bytes = Uint8Array.from({ length: 5000 }, () => random() * 256);
const bundle: Bundle = {
  name: 'Gate badge „2“',
  createdAt: '2026-03-01T10:00:00.000Z',
  revision: 7,
  art,
  pictures: [{ id: 'pic-1', name: 'gate.png', bytes }],
  fonts: [{ id: 'font1', name: 'Own.ttf', bytes: bytes.slice(0, 100) }],
  copies: [{ name: 'before', note: 'as it was', byItself: false, revision: 3, createdAt: '2026-03-01T10:05:00.000Z', art: emptyArt({ width: 100, height: 80, unit: 'mm' }, 'layer') }], // prettier-ignore
  journal: [{ revision: 1, version: ART_VERSION, createdAt: '2026-03-01T10:01:00.000Z', entry: { patches: [], note: null } }], // prettier-ignore
  beginning: { revision: 0, art: JSON.parse(artText(art)) as unknown },
  practised: null,
};
const truth = [{ name: 'Tray', paths: [squarePath(10, 10, 80, 't')], fill: null }];
const practised: Practised = {
  exercise: { id: 'tray', title: 'The tray', minutes: 3, todo: ['Eight corners.'], aids: [], truth },
  picture: placedPicture({
    id: 'p',
    source: 'pic-1',
    name: 'Tray',
    width: 40,
    height: 30,
    placement: [1, 0, 0, 1, 0, 0],
  }),
  attempts: [
    {
      createdAt: '2026-03-01T10:09:00.000Z',
      revision: 7,
      seconds: 61.5,
      presses: 19,
      lines: 'M10 10L90 10L90 90L10 90Z',
      score: scoreDrawing([{ paths: truth[0]!.paths, fill: null }], truth) as Score,
    },
  ],
};
const manifestOf = (change: (manifest: Record<string, unknown>) => void): Uint8Array => {
  const manifest = { bundle: 1, art: ART_VERSION, name: 'a', createdAt: bundle.createdAt, revision: 0, pictures: [], fonts: [], copies: [] } as Record<string, unknown>; // prettier-ignore
  change(manifest);
  return zipSync({ 'mirrot.json': strToU8(JSON.stringify(manifest)), 'drawing.json': strToU8(artText(art)) });
};

describe('a bundle', () => {
  it('takes an exercise along with its truth and what was handed in of it', () => {
    const [read] = readBundles(writeBundle({ ...bundle, practised }));
    expect(read!.practised).toEqual(practised);
    const none = { ...practised, attempts: [] };
    expect(readBundles(writeBundle({ ...bundle, practised: none }))[0]!.practised).toEqual(none);
  });

  it('is refused where its exercise has no truth, or its attempts make no sense', () => {
    const [attempt] = practised.attempts;
    const exercise = (more: Partial<Practised['exercise']>): unknown => ({ ...practised, exercise: { ...practised.exercise, ...more } }); // prettier-ignore
    const tried = (more: object): unknown => ({ ...practised, attempts: [{ ...attempt!, ...more }] });
    for (const wrong of [
      exercise({ truth: [] }),
      exercise({ truth: [{ ...truth[0]!, paths: [] }] }),
      tried({ seconds: -1 }),
      tried({ seconds: 1e9 }),
      tried({ presses: 0.5 }),
      tried({ lines: 'M0 0 and so on' }),
      tried({ createdAt: 'yesterday' }),
      tried({ score: { ...attempt!.score, drawn: 2 } }),
      tried({ score: { ...attempt!.score, mean: null } }),
      { ...practised, attempts: Array.from({ length: MOST_ATTEMPTS + 1 }, () => attempt!) },
    ])
      expect(() => readBundles(writeBundle({ ...bundle, practised: wrong as Practised }))).toThrow('"exercise.json" in the bundle is broken. Nothing was added.'); // prettier-ignore
  });

  it('read again is what was written, its drawing to the byte', () => {
    const [read] = readBundles(writeBundle(bundle));
    expect(read).toEqual(bundle);
    expect(artText(read!.art)).toBe(artText(art));
    expect(writeBundle(read!)).toEqual(writeBundle(bundle));
    const bare = { ...bundle, pictures: [], fonts: [], copies: [], journal: [], beginning: null };
    expect(readBundles(writeBundle(bare))).toEqual([bare]);
  });

  it('may hold several projects, each a bundle of its own', () => {
    const file = writeZip(['b', 'a', 'a'].map((name) => ({ name: `${name}.zip`, bytes: writeBundle({ ...bundle, name }) }))); // prettier-ignore
    expect(readBundles(file).map(({ name }) => name)).toEqual(['a', 'a', 'b']);
  });

  // Source outside: unzip of Info-ZIP.
  it('is a zip file that unzip finds whole and takes apart', () => {
    const folder = mkdtempSync(join(tmpdir(), 'mirrot-bundle-'));
    try {
      writeFileSync(join(folder, 'a.zip'), writeBundle(bundle));
      expect(execFileSync('unzip', ['-t', join(folder, 'a.zip')], { encoding: 'utf8' })).toMatch(/No errors/);
      execFileSync('unzip', ['-q', join(folder, 'a.zip'), '-d', join(folder, 'out')]);
      expect(readFileSync(join(folder, 'out/drawing.json'), 'utf8')).toBe(artText(art));
      expect(Uint8Array.from(readFileSync(join(folder, 'out/pictures/1')))).toEqual(bytes);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });

  it('is refused in a sentence where it is broken, cut short, or something else', () => {
    const whole = writeBundle(bundle);
    for (const wrong of [
      new Uint8Array(),
      strToU8('hello'),
      whole.slice(0, whole.length / 2),
      whole.slice(100),
    ])
      expect(() => readBundles(wrong)).toThrow(/no zip file|cut short|broken|no project|outside of itself/);
    expect(() => readBundles(zipSync({ 'a.txt': strToU8('x') }))).toThrow(/no project of Mirrot/);
    expect(() => readBundles(zipSync({ 'a.zip': zipSync({ 'a.txt': strToU8('x') }) }))).toThrow(/no project of Mirrot in "a.zip"/); // prettier-ignore
    expect(() => readBundles(manifestOf((m) => (m.pictures = [{ id: 'p', name: 'gate.png', path: 'pictures/1' }])))).toThrow(/lacks "pictures\/1", which is gate.png/); // prettier-ignore
    expect(() => readBundles(manifestOf((m) => delete m.name))).toThrow(/broken/);
    const noDrawing = zipSync({ 'mirrot.json': strToU8(JSON.stringify({ bundle: 1, art: 1 })) });
    expect(() => readBundles(noDrawing)).toThrow(/broken/);
    for (const beginning of ['{"revision":9,"art":{}}', '{"revision":0,"art":{"version":11}}', '[]']) {
      const parts = { 'mirrot.json': strToU8(JSON.stringify({ bundle: 1, art: ART_VERSION, name: 'a', createdAt: bundle.createdAt, revision: 0, pictures: [], fonts: [], copies: [] })), 'drawing.json': strToU8(artText(art)) }; // prettier-ignore
      expect(() => readBundles(zipSync({ ...parts, 'beginning.json': strToU8(beginning) }))).toThrow(/"beginning.json" in the bundle is broken/); // prettier-ignore
    }
    // A bit turned over in the middle of what is packed.
    const turned = whole.slice();
    turned[turned.length - 400]! ^= 0xff;
    expect(() => readBundles(turned)).toThrow(Error);
  });

  it('is refused where a newer version wrote it', () => {
    expect(() => readBundles(manifestOf((m) => (m.bundle = 2)))).toThrow(/newer Mirrot/);
    expect(() => readBundles(manifestOf((m) => (m.art = ART_VERSION + 1)))).toThrow(/newer Mirrot/);
    expect(readBundles(manifestOf((m) => (m.more = 'kept for later')))).toHaveLength(1);
  });

  it('is refused where it is hostile: places outside of it, too many parts, bombs', () => {
    for (const name of ['../../etc/passwd', '/etc/passwd', 'a/../../b', 'C:\\x', '..\\x'])
      expect(() => readBundles(zipSync({ [name]: strToU8('x') })), name).toThrow(/outside of itself/);
    expect(() => readBundles(manifestOf((m) => (m.copies = [{ name: 'a', note: '', byItself: false, revision: 0, createdAt: bundle.createdAt, path: '../drawing.json' }])))).toThrow(/broken/); // prettier-ignore
    const many = Object.fromEntries(Array.from({ length: 3001 }, (_, n) => [`f${n}`, strToU8('')]));
    expect(() => readBundles(zipSync(many))).toThrow(/over 3000 files/);
    // Twelve parts of 50 MB, as the file says.
    const sized = (file: Uint8Array, size: number): Uint8Array => {
      const view = new DataView(file.buffer);
      for (let i = 0; i + 4 < file.length; i++)
        if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, size, true);
      return file;
    };
    const bomb = zipSync(Object.fromEntries(Array.from({ length: 12 }, (_, n) => [`b${n}`, strToU8('x')])));
    expect(() => readBundles(sized(bomb, 50 * 1024 * 1024))).toThrow(/over 512 MB/);
    // One that says it is small: what it says is all that is taken of it.
    const liar = sized(zipSync({ 'mirrot.json': new Uint8Array(5_000_000) }), 10);
    expect(() => readBundles(liar)).toThrow(/broken/);
    expect(() => readBundles(zipSync({ 'mirrot.json': strToU8('{"__proto__":{"x":1},"bundle":1,"art":1}') }))).toThrow(/broken/); // prettier-ignore
    expect(({} as Record<string, unknown>).x).toBeUndefined();
  });
});
