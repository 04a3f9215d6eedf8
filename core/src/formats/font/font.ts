// The package ships no types, and those that read this file from elsewhere need them too.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="../../opentype.d.ts" />
import opentype, { type Font as FontFile, type Glyph } from 'opentype.js';
import { MirrotError } from '../../error';
import { fitName } from '../../art/text';
import { parsePathData } from '../../path/data';
import type { Path } from '../../path/path';

/** A glyph of a text: lengths in em, y down, the baseline at 0. */
export interface PlacedGlyph {
  /** Where it begins along the baseline. */
  readonly x: number;
  readonly advance: number;
  /** Its outlines as the font has them, for the nonzero rule; none for a space. */
  readonly paths: readonly Path[];
}

/** A font that texts can be set in. */
export interface Font {
  readonly name: string;
  /** The glyphs of a text in a line, kerned, and the characters that the font does not have: those are left out. */
  glyphsOf(text: string): { readonly glyphs: readonly PlacedGlyph[]; readonly missing: readonly string[] };
}

/** Bytes of a font file, at most. */
export const MOST_FONT_BYTES = 20_000_000;

/** The first four bytes of the files that are read: TrueType (two marks), OpenType, WOFF (W3C WOFF 1.0, section 4). */
const SIGNATURES = new Set(['\0\x01\0\0', 'true', 'OTTO', 'wOFF']);

/** Why bytes cannot be a font that is read, by their beginning and length; null where they may be one. */
export function fontProblem(bytes: Uint8Array): string | null {
  if (bytes.length > MOST_FONT_BYTES)
    return `This font is larger than ${MOST_FONT_BYTES / 1e6} MB. Nothing was changed.`;
  const signature = String.fromCharCode(...bytes.subarray(0, 4));
  if (signature === 'wOF2')
    return 'This font is WOFF2, which is not read. Take the font as TTF, OTF or WOFF. Nothing was changed.';
  return SIGNATURES.has(signature)
    ? null
    : 'This file is no font that can be read: TTF, OTF and WOFF are. Nothing was changed.';
}

/**
 * Outlines of a glyph at one em, as path data: each closed, as all outlines of fonts are, said or not. Sides without length,
 * which some fonts have, are left out.
 */
function glyphData(glyph: Glyph): string {
  let at = '';
  let out = '';
  for (const c of glyph.getPath(0, 0, 1).commands) {
    if (c.type === 'Z') continue;
    if (c.type === 'M' && out !== '') out += 'Z';
    const to = `${c.x} ${c.y}`;
    const [one, two] = [
      c.type === 'Q' || c.type === 'C' ? `${c.x1} ${c.y1}` : to,
      c.type === 'C' ? `${c.x2} ${c.y2}` : to,
    ];
    if (c.type !== 'M' && [one, two, to].every((spot) => spot === at)) continue;
    if (c.type === 'Q') out += `Q${one} ${to}`;
    else if (c.type === 'C') out += `C${one} ${two} ${to}`;
    else out += `${c.type}${to}`;
    at = to;
  }
  return out && `${out}Z`;
}

/**
 * Reads a font file: TrueType, OpenType or WOFF. Kerning is taken from the font (GPOS or kern); ligatures and other
 * substitutions where they can be worked out, else each character stands by itself.
 *
 * @throws MirrotError `font` with a sentence where the bytes are no such font, or are broken
 */
export function readFont(bytes: ArrayBuffer): Font {
  const problem = fontProblem(new Uint8Array(bytes));
  if (problem) throw new MirrotError('font', problem);
  let font: FontFile;
  try {
    font = opentype.parse(bytes);
    // A font without this, or cut short, fails only when a glyph is asked for.
    font.charToGlyph('n').getPath(0, 0, 1);
    if (!(font.unitsPerEm > 0)) throw new Error('no em');
  } catch {
    throw new MirrotError('font', 'This font is broken or cut short. Nothing was changed.');
  }
  const { unitsPerEm } = font;
  const outlines = new Map<number, readonly Path[]>();
  const pathsOf = (glyph: Glyph): readonly Path[] => {
    let paths = outlines.get(glyph.index);
    if (!paths)
      outlines.set(glyph.index, (paths = parsePathData(glyphData(glyph), (n) => `g${glyph.index}-${n}`)));
    return paths;
  };
  const shaped = (text: string): readonly Glyph[] => {
    try {
      return font.stringToGlyphs(text);
    } catch {
      // A substitution that the library does not know: the characters themselves are right all the same.
      return [...text].map((character) => font.charToGlyph(character));
    }
  };
  const kerning = (left: Glyph, right: Glyph): number => {
    const tables = font.position?.getKerningTables(undefined);
    const value = tables
      ? font.position!.getKerningValue(tables, left.index, right.index)
      : font.getKerningValue(left, right);
    return Number.isFinite(value) ? value : 0;
  };
  return {
    name: fitName(font.getEnglishName('fullName') ?? '', 'Font'),
    glyphsOf(text) {
      // Glyph 0 stands for what a font does not have (OpenType specification, "cmap").
      const missing = [...new Set(text)].filter((c) => c.trim() !== '' && font.charToGlyph(c).index === 0);
      const known = [...text].filter((c) => !missing.includes(c)).join('');
      const list = shaped(known);
      let x = 0;
      const glyphs = list.map((glyph, i): PlacedGlyph => {
        const advance = glyph.advanceWidth / unitsPerEm;
        const placed = { x, advance, paths: pathsOf(glyph) };
        const next = list[i + 1];
        x += advance + (next ? kerning(glyph, next) / unitsPerEm : 0);
        return placed;
      });
      return { glyphs, missing };
    },
  };
}
