import { MirrotError } from '../error';
import { readColour } from './css';

/** A colour of a palette with its name, which may be empty. */
export interface NamedColour {
  readonly hex: string;
  readonly name: string;
}

/** How a palette is written as text. */
export const PALETTE_FORMS = ['lines', 'json', 'css'] as const;
export type PaletteForm = (typeof PALETTE_FORMS)[number];

/** A name as a CSS custom property can have it; `otherwise` where nothing of it is left. */
const propertyName = (name: string, otherwise: string): string =>
  name
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '') || otherwise;

function cssText(colours: readonly NamedColour[]): string {
  const taken = new Set<string>();
  const lines = colours.map(({ hex, name }, i) => {
    const stem = propertyName(name, `chip-${i + 1}`);
    let own = stem;
    for (let n = 2; taken.has(own); n++) own = `${stem}-${n}`;
    taken.add(own);
    return `  --${own}: ${hex};`;
  });
  return `:root {\n${lines.join('\n')}\n}\n`;
}

const WRITERS: Readonly<Record<PaletteForm, (colours: readonly NamedColour[]) => string>> = {
  lines: (colours) => colours.map(({ hex, name }) => `${hex} ${name}`.trimEnd()).join('\n') + '\n',
  json: (colours) =>
    `${JSON.stringify(
      colours.map(({ name, hex }) => ({ name, hex })),
      null,
      2,
    )}\n`,
  css: cssText,
};

/** A palette as text: hex and name a line, JSON, or CSS custom properties. */
export const writePalette = (colours: readonly NamedColour[], form: PaletteForm): string =>
  WRITERS[form](colours);

/** What is wrong with a text that is to be a palette. */
const refuse = (what: string): never => {
  throw new MirrotError('palette', `${what} Nothing was added.`);
};

const quoted = (text: string): string => `"${text.slice(0, 40)}${text.length > 40 ? '…' : ''}"`;

/** A colour of the palette; what is wrong with it is said with the place. */
function colourIn(text: string, where: string): string {
  try {
    return readColour(text);
  } catch (error) {
    return refuse(`${where}: ${(error as Error).message}`);
  }
}

function ofJson(text: string): NamedColour[] {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return refuse('This begins like JSON and cannot be read as it.');
  }
  const list = Array.isArray(value)
    ? value.map((item: unknown, i): [string, unknown] => [`Entry ${i + 1}`, item])
    : Object.entries(value as Record<string, unknown>);
  return list.map(([key, item]) => {
    if (typeof item === 'string') return { hex: colourIn(item, key), name: Array.isArray(value) ? '' : key };
    const { hex, name = '' } = (item ?? {}) as Record<string, unknown>;
    if (typeof hex !== 'string' || typeof name !== 'string')
      return refuse(`${key} has no colour: "hex" is missing, or is no text.`);
    return { hex: colourIn(hex, key), name };
  });
}

function ofCss(text: string): NamedColour[] {
  const plain = text.replace(/\/\*[\s\S]*?\*\//g, '');
  return [...plain.matchAll(/--([^\s:;{}]+)\s*:\s*([^;}]+)/g)].map(([, name, value]) => ({
    hex: colourIn(value!.trim(), `--${name!}`),
    name: name!.replace(/-/g, ' '),
  }));
}

/** "#2f6b4f Leaf green", "2f6b4f", "teal", "rgb(1 2 3) Night": a colour, then a name. */
const LINE = /^(#?[0-9a-f]{3,8}(?![\p{L}\p{N}])|[a-z]+\([^)]*\)|[a-z]+)\s*[,;:\t ]?\s*(.*)$/iu;

function ofLines(text: string): NamedColour[] {
  return text.split(/\r\n|[\r\n]/).flatMap((line, i) => {
    const words = line.trim();
    if (words === '' || words.startsWith('//')) return [];
    const found = LINE.exec(words);
    if (!found) return refuse(`Line ${i + 1}: ${quoted(words)} does not begin with a colour.`);
    return [{ hex: colourIn(found[1]!, `Line ${i + 1}`), name: found[2]!.trim() }];
  });
}

/**
 * Reads a palette from text in any of the ways it is written, told apart by how it begins: hex and name a line, JSON (a list
 * of texts or of `{ hex, name }`, or names to colours), CSS custom properties.
 *
 * @param most colours it may have
 * @throws MirrotError `palette` naming the line that is wrong, or where it has none or too many
 */
export function readPalette(text: string, most: number): NamedColour[] {
  const start = text.trimStart();
  const read = /^[[{]/.test(start) && !/^\{\s*--/.test(start) ? ofJson : /(^|[\s{;])--[^\s:;{}]+\s*:/.test(text) ? ofCss : ofLines; // prettier-ignore
  const colours = read(text);
  if (colours.length === 0) return refuse('There is no colour in this text.');
  if (colours.length > most)
    return refuse(`This has ${colours.length.toLocaleString('en')} colours; a palette has ${most.toLocaleString('en')} at most.`); // prettier-ignore
  return colours;
}
