import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { writeSvg } from '../formats/svg/write';
import { readArt } from './check';
import { migrateArt } from './migrate';
import { flatHex, paletteOf } from './paint';
import { ART_VERSION } from './limits';
import { shapesOf } from './tree';

// Kept samples: the document of a demo project as each version of the program wrote it, and the SVG that version 5
// wrote of it.
const SAMPLES = join(import.meta.dirname, 'samples');
const read = (name: string): string => readFileSync(join(SAMPLES, name), 'utf8');

const pixels = (svg: string): Uint8Array =>
  new Resvg(svg, { fitTo: { mode: 'width', value: 800 } }).render().pixels;

describe('a document of an older version', () => {
  const versions = Array.from({ length: ART_VERSION - 1 }, (_, i) => i + 1);

  it('is kept of every version', () => {
    const kept = readdirSync(SAMPLES).filter((name) => name.endsWith('.json'));
    expect(kept.toSorted()).toEqual(versions.map((v) => `version-${v}.json`).toSorted());
    for (const v of versions) expect(JSON.parse(read(`version-${v}.json`))).toMatchObject({ version: v });
  });

  it.each(versions)('of version %i opens and is drawn without a differing pixel', (v) => {
    const art = readArt(JSON.parse(read(`version-${v}.json`)));
    expect(art.version).toBe(ART_VERSION);
    // Source outside: resvg.
    expect(Buffer.compare(pixels(writeSvg(art)), pixels(read(`version-${v}.svg`)))).toBe(0);
  });

  it('takes its fills from the chips that had their colours, so that these recolour them', () => {
    const before = JSON.parse(read('version-5.json')) as {
      layers: { children: { id: string; fill: { hex: string } | null }[] }[];
    };
    const art = readArt(before);
    const fills = new Map(before.layers.flatMap((l) => l.children).map((s) => [s.id, s.fill?.hex ?? null]));
    const palette = paletteOf(art.chips);
    for (const { shape } of shapesOf(art)) {
      expect(shape.fill).toHaveProperty('chip');
      expect(flatHex(shape.fill, palette)).toBe(fills.get(shape.id));
    }
  });

  it('keeps a colour that no chip has as its own, and gives strokes the round ends they had', () => {
    const { layers } = readArt(JSON.parse(read('version-3.json')));
    const strokes = layers.flatMap((l) => l.children).map((n) => n.type === 'shape' && n.stroke);
    expect(strokes[0]).toMatchObject({ paint: { hex: '#22315c' }, ends: 'round', joins: 'round', dash: [] });
    expect(layers.every((l) => l.opacity === 1)).toBe(true);
  });

  it('that is none is given back for the check to refuse', () => {
    for (const value of [
      null,
      7,
      'x',
      [],
      { version: 5 },
      { version: 5, layers: 3, chips: 'x' },
      { version: 5, layers: [7, { children: [null, { fill: 3 }] }] },
    ])
      // prettier-ignore
      expect(() => readArt(value)).toThrow(/cannot be read/);
    expect(migrateArt({ version: 4 }, 5)).toEqual({ version: 5 });
    expect(migrateArt(null)).toBeNull();
  });
});
