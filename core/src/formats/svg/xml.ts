import { cutText } from '../../art/text';

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text for a file: what XML 1.0 (section 2.2) cannot hold is left out. */
export const escapeXml = (text: string): string =>
  text.replace(/[\p{Cc}\p{Cs}\uFFFE\uFFFF]/gu, '').replace(/[&<>"]/g, (c) => ESCAPES[c]!);

/** A number with so many digits after the point at most. */
export const number = (v: number, digits = 3): string => String(Number(v.toFixed(digits)));

export type Attributes = Readonly<Record<string, string | number | null>>;

/** An element as data, what stands in it, and what else is said of it. */
export type SvgElement<More = unknown> = More & {
  readonly name: string;
  readonly attributes: Attributes;
  readonly inner?: readonly SvgElement<More>[];
};

/** The opening tag of an element, attributes that are null left out. */
export const openTag = (name: string, attributes: Attributes): string =>
  `<${name}${Object.entries(attributes)
    .flatMap(([key, value]) => (value === null ? [] : ` ${key}="${escapeXml(String(value))}"`))
    .join('')}>`;

/** An element whole; closed at once where nothing stands in it. */
export const element = (name: string, attributes: Attributes, content: string | null = null): string =>
  content === null
    ? `${openTag(name, attributes).slice(0, -1)}/>`
    : `${openTag(name, attributes)}${content}</${name}>`;

/** Ids from names: letters and digits of any script, joined by hyphens; unlike each other. */
export function idMaker(): (name: string) => string {
  const used = new Set<string>();
  return (name) => {
    const words =
      name
        .normalize('NFC')
        .toLowerCase()
        .match(/[\p{L}\p{N}]+/gu) ?? [];
    let stem = cutText(words.join('-'), 80) || 'item';
    if (!/^\p{L}/u.test(stem)) stem = `n-${stem}`;
    let id = stem;
    for (let n = 2; used.has(id); n++) id = `${stem}-${n}`;
    used.add(id);
    return id;
  };
}
