import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { emptyArt } from '../../art/blank';
import { changeArt } from '../../art/change';
import { artSchema } from '../../art/check';
import { addNode, letPathsBe, mapShape, setLettering, setPath } from '../../art/edits';
import type { Art, Lettering, Shape } from '../../art/schema';
import { findShape } from '../../art/tree';
import { compose, rotation, scaling, translation } from '../../geometry/affine';
import { uniteBoxes, type Box } from '../../geometry/bounds';
import { formatPathData } from '../../path/data';
import type { Path } from '../../path/path';
import { pathBounds } from '../../path/path-measure';
import { transformPath } from '../../path/path-map';
import { circlePath } from '../../testing';
import { fontProblem, readFont } from './font';
import { letterPaths } from './letter-paths';

const file = (name: string): string => createRequire(import.meta.url).resolve(`@fontsource/${name}.woff`);
const bytesOf = (name: string): ArrayBuffer => {
  const bytes = readFileSync(file(name));
  return bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
};
/** A WOFF file as the TrueType file it was made of (W3C WOFF 1.0): resvg reads no WOFF. Gives its name on the disk. */
function sfntOf(name: string): string {
  const woff = readFileSync(file(name));
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i;
    const [offset, packed, size] = [4, 8, 12].map((k) => woff.readUInt32BE(at + k)) as [
      number,
      number,
      number,
    ];
    const bytes = woff.subarray(offset, offset + packed);
    return {
      tag: woff.subarray(at, at + 4),
      sum: woff.readUInt32BE(at + 16),
      data: packed < size ? inflateSync(bytes) : bytes,
    };
  });
  const head = Buffer.alloc(12 + 16 * count);
  head.writeUInt32BE(woff.readUInt32BE(4), 0);
  head.writeUInt16BE(count, 4);
  let offset = head.length;
  const parts = tables.map(({ tag, sum, data }, i) => {
    const at = 12 + 16 * i;
    tag.copy(head, at);
    head.writeUInt32BE(sum, at + 4);
    head.writeUInt32BE(offset, at + 8);
    head.writeUInt32BE(data.length, at + 12);
    const padded = Buffer.concat([data, Buffer.alloc((4 - (data.length % 4)) % 4)]);
    offset += padded.length;
    return padded;
  });
  const path = join(mkdtempSync(join(tmpdir(), 'mirrot-font-')), 'font.ttf');
  writeFileSync(path, Buffer.concat([head, ...parts]));
  return path;
}
const ATKINSON = 'atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal';
const BRICOLAGE = 'bricolage-grotesque/files/bricolage-grotesque-latin-700-normal';
const atkinson = readFont(bytesOf(ATKINSON));
const bricolage = readFont(bytesOf(BRICOLAGE));
const bricolage400 = readFont(bytesOf('bricolage-grotesque/files/bricolage-grotesque-latin-400-normal'));
const plain: Lettering = {
  text: 'mint',
  font: { id: 'a', name: 'A' },
  size: 100,
  spacing: 0,
  placement: [1, 0, 0, 1, 20, 150],
};
const idOf = (n: number): string => `l${n}`;
const set = (lettering: Partial<Lettering>, font = atkinson) =>
  letterPaths(font, { ...plain, ...lettering }, idOf);
const boxOf = (paths: readonly Path[]): Box => paths.map(pathBounds).reduce(uniteBoxes);

describe('a font', () => {
  it('has its name, and sets a text with its kerning', () => {
    expect(atkinson.name).toMatch(/^Atkinson Hyperlegible Next/);
    expect(bricolage.name).toMatch(/^Bricolage Grotesque/);
    const { glyphs } = atkinson.glyphsOf('AV');
    // The font's own figures, as opentype.js reads them: A is 626 units wide of 1,000, and V comes 40 nearer.
    expect(glyphs.map((g) => g.x)).toEqual([0, expect.closeTo(0.586, 9)]);
    expect(atkinson.glyphsOf('a b').glyphs.map((g) => g.paths.length > 0)).toEqual([true, false, true]);
  });

  it('says which characters it does not have, and sets the others', () => {
    const { glyphs, missing } = atkinson.glyphsOf('aЖb Ж中');
    expect(missing).toEqual(['Ж', '中']);
    expect(glyphs).toHaveLength(3);
  });

  it.each([
    [[], /no font/],
    [[0, 1, 0, 0], /broken or cut short/],
    [[...'wOF2'].map((c) => c.charCodeAt(0)), /WOFF2/],
    [[...'<svg xmlns'].map((c) => c.charCodeAt(0)), /no font/],
  ])('of bytes that are none is refused with a sentence', (bytes, sentence) => {
    expect(() => readFont(new Uint8Array(bytes).buffer)).toThrow(sentence);
    expect(() => readFont(new Uint8Array(bytes).buffer)).toThrow(/Nothing was changed\.$/);
  });

  it('cut short anywhere, or with bytes changed, is a font or a sentence, never another error', () => {
    const whole = new Uint8Array(bytesOf(ATKINSON));
    for (let k = 1; k <= 40; k++) {
      const cut = whole.slice(0, Math.floor((whole.length * k) / 41));
      const changed = whole.slice();
      for (let i = 0; i < 60; i++) changed[(i * 7919 * k) % changed.length]! ^= 1 << (i % 8);
      for (const bytes of [cut, changed])
        try {
          letterPaths(readFont(bytes.buffer), plain, idOf);
        } catch (error) {
          expect((error as { code?: string }).code, String(error)).toMatch(/^(font|lettering)$/);
        }
    }
  });

  it('is not looked at when it is huge', () => {
    expect(fontProblem(new Uint8Array(20_000_001))).toMatch(/larger than 20 MB/);
  });
});

describe('a line of text', () => {
  it('is drawn as resvg draws the same text in the same font', () => {
    for (const [font, name, family, kerned] of [
      [atkinson, ATKINSON, 'Atkinson Hyperlegible Next', true],
      // Its kerning lies in extension tables (GPOS type 9), which opentype.js does not read.
      [bricolage, BRICOLAGE, 'Bricolage Grotesque', false],
    ] as const) {
      const text = 'Quillmere, 3 & 8';
      const svg = (inner: string): string =>
        `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="200">${inner}</svg>`;
      const { paths } = set({ text }, font);
      const d = paths.map((p) => formatPathData([p])).join('');
      const ours = new Resvg(svg(`<path fill-rule="evenodd" d="${d}"/>`)).render().pixels;
      // Source outside: resvg, from the same file as TrueType.
      const theirs = new Resvg(
        svg(
          `<text x="20" y="150" font-family="${family}" font-weight="${name.includes('700') ? 700 : 400}" font-size="100" font-variant-ligatures="none" style="font-kerning:${kerned ? 'auto' : 'none'}">${text.replace('&', '&amp;')}</text>`,
        ),
        { font: { loadSystemFonts: false, fontFiles: [sfntOf(name)] } },
      ).render().pixels;
      let [apart, inked] = [0, 0];
      for (let i = 3; i < ours.length; i += 4) {
        inked += theirs[i]!;
        apart += Math.abs(ours[i]! - theirs[i]!);
      }
      expect(inked).toBeGreaterThan(255 * 5000);
      expect(apart / inked, family).toBeLessThan(0.01);
    }
  });

  it('is closed outlines, each with an id of its own', () => {
    for (const { id, closed, anchors } of [
      ...set({ text: 'sorrel oo' }).paths,
      ...set({ text: 'Quillmere 0123456789 & dill' }, bricolage400).paths,
    ]) {
      expect(closed, id).toBe(true);
      anchors.forEach((a, i) => {
        const next = anchors[(i + 1) % anchors.length]!;
        expect(Math.hypot(a.x - next.x, a.y - next.y), `${id} ${i}`).toBeGreaterThan(1e-6);
      });
    }
    const ids = set({ text: 'sorrel oo' }).paths.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('is as wide as its spacing makes it, and goes where its placement takes it', () => {
    const near = boxOf(set({}).paths);
    const wide = boxOf(set({ spacing: 0.2 }).paths);
    expect(wide.x1 - near.x1).toBeCloseTo(3 * 0.2 * 100, 6);
    const placement = compose(translation(40, 30), compose(rotation(0.3), scaling(2, 0.5)));
    const mapped = set({}).paths.map((p) => transformPath(p, compose(placement, [1, 0, 0, 1, -20, -150])));
    const placed = boxOf(set({ placement }).paths);
    const expected = boxOf(mapped);
    for (const side of ['x0', 'y0', 'x1', 'y1'] as const) expect(placed[side]).toBeCloseTo(expected[side], 6);
  });

  it('stands on a circle with every glyph as far from its centre as its baseline says', () => {
    const circle = circlePath(0, 0, 200);
    const along = { closed: true, anchors: circle.anchors, start: 30 };
    const { paths, cut } = set({ text: 'ooooooooooo', along, placement: [1, 0, 0, 1, 0, 0] });
    expect(cut).toBe(false);
    const single = boxOf(set({ text: 'o', placement: [1, 0, 0, 1, 0, 0] }).paths);
    // Round letters, each turned about the centre: their extremes lie on two circles.
    const radii = paths.flatMap((p) => p.anchors.map((a) => Math.hypot(a.x, a.y)));
    expect(Math.max(...radii)).toBeLessThan(200 - single.y0 + 2);
    expect(Math.min(...radii)).toBeGreaterThan(200 - single.y1 - 2);
    const angles = paths.map((p) => Math.atan2(p.anchors[0]!.y, p.anchors[0]!.x).toFixed(3));
    // Inside and outside of an "o" begin on one ray, each letter on another.
    expect(new Set(angles).size).toBe(paths.length / 2);
  });

  it('goes on past the first anchor of a closed line, once round at most', () => {
    const { anchors } = circlePath(0, 0, 60);
    const on = (text: string, start: number) =>
      set({ text, along: { closed: true, anchors, start }, placement: [1, 0, 0, 1, 0, 0] });
    const round = 2 * Math.PI * 60;
    const [here, there] = [on('oo', 0), on('oo', 0.9 * round)];
    expect(there.cut).toBe(false);
    expect(there.paths).toHaveLength(here.paths.length);
    // Turned about the centre by nine tenths of a turn.
    const turned = here.paths.map((p) => transformPath(p, rotation(0.9 * 2 * Math.PI)));
    for (const side of ['x0', 'y0', 'x1', 'y1'] as const)
      expect(boxOf(there.paths)[side]).toBeCloseTo(boxOf(turned)[side], 0);
    expect(on('oooooooooooooo', 100).cut).toBe(true);
  });

  it('longer than the open line it stands on, ends with it and says so', () => {
    const anchors = [
      { x: 0, y: 0, kind: 'corner' as const, in: null, out: null },
      { x: 100, y: 0, kind: 'corner' as const, in: null, out: null },
    ];
    const on = (text: string) =>
      set({ text, along: { closed: false, anchors, start: 0 }, placement: [1, 0, 0, 1, 0, 0] });
    expect(on('mi').cut).toBe(false);
    const long = on('mimimimi');
    expect(long.cut).toBe(true);
    expect(boxOf(long.paths).x1).toBeLessThan(140);
    expect(boxOf(on('mi').paths).x1).toBeCloseTo(
      boxOf(set({ text: 'mi', placement: [1, 0, 0, 1, 0, 0] }).paths).x1,
      6,
    );
  });

  it('of which nothing would be seen is refused', () => {
    expect(() => set({ text: '   ' })).toThrow(/nothing to be seen/);
    expect(() => set({ text: '中文' })).toThrow(/has no “中文”/);
    expect(set({ text: 'a中' }).missing).toEqual(['中']);
  });
});

describe('lettering in a drawing', () => {
  const made = set({});
  const shape: Shape = {
    id: 's', type: 'shape', name: 'mint', shown: true, locked: false, opacity: 1, fill: { hex: '#336699' }, stroke: null,
    paths: [circlePath(0, 0, 1)],
  }; // prettier-ignore
  const art: Art = changeArt(
    changeArt(emptyArt({ width: 400, height: 300, unit: 'px' }, 'layer'), addNode('layer', shape)).art,
    setLettering('s', plain, made.paths),
  ).art;
  const now = (of: Art): Shape => findShape(of, 's')!;

  it('is checked as a drawing, and is its outlines in the list of what is painted', () => {
    expect(artSchema.safeParse(art).success).toBe(true);
    expect(artSchema.safeParse(changeArt(art, setLettering('s', { ...plain, text: 'x'.repeat(201) }, made.paths)).art).success).toBe(false); // prettier-ignore
    expect(now(art).paths).toEqual(made.paths);
  });

  it('moved, turned or stretched stays text: set anew, it lies on its own outlines', () => {
    const map = compose(translation(3, 4), compose(rotation(0.5), scaling(1.5, 0.7)));
    const moved = now(changeArt(art, mapShape(now(art), map)).art);
    const again = letterPaths(atkinson, moved.lettering!, idOf).paths;
    again.forEach((path, i) =>
      path.anchors.forEach((a, k) => {
        expect(a.x).toBeCloseTo(moved.paths[i]!.anchors[k]!.x, 6);
        expect(a.y).toBeCloseTo(moved.paths[i]!.anchors[k]!.y, 6);
      }),
    );
  });

  it('becomes paths when asked, or when an anchor of it is moved; undone, it is text again', () => {
    expect(now(changeArt(art, letPathsBe(['s'])).art).lettering).toBeUndefined();
    const [first] = made.paths;
    const pulled = { ...first!, anchors: first!.anchors.map((a, i) => (i === 0 ? { ...a, x: a.x + 5 } : a)) };
    const change = changeArt(art, setPath('s', pulled));
    expect(now(change.art).lettering).toBeUndefined();
    expect(now(changeArt(art, letPathsBe(['nobody'])).art)).toBe(now(art));
  });
});
