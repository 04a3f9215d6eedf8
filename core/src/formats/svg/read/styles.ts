import { generate, parse, walk, type CssNode, type Selector } from 'css-tree';
import type { SvgElement } from './elements';

// What an element looks like: its attributes, the rules of style sheets, its own style, and what it inherits (CSS
// Cascading 4; the properties of SVG 2, section 6).

/** Properties that come down from what an element stands in, and their value where nothing says any. */
const INHERITED: Readonly<Record<string, string>> = {
  fill: 'black',
  'fill-opacity': '1',
  'fill-rule': 'nonzero',
  'clip-rule': 'nonzero',
  stroke: 'none',
  'stroke-opacity': '1',
  'stroke-width': '1',
  'stroke-linecap': 'butt',
  'stroke-linejoin': 'miter',
  'stroke-miterlimit': '4',
  'stroke-dasharray': 'none',
  'stroke-dashoffset': '0',
  'paint-order': 'normal',
  color: 'black',
  visibility: 'visible',
  'marker-start': 'none',
  'marker-mid': 'none',
  'marker-end': 'none',
};

/** Properties of an element alone, and their value where nothing says any. */
const OWN: Readonly<Record<string, string>> = {
  opacity: '1',
  display: 'inline',
  overflow: '',
  'clip-path': 'none',
  mask: 'none',
  filter: 'none',
  'mix-blend-mode': 'normal',
  'vector-effect': 'none',
  'stop-color': 'black',
  'stop-opacity': '1',
  'flood-color': 'black',
  'flood-opacity': '1',
  transform: '',
};

/** Values of an element's properties, each as it is written. */
export type Style = Readonly<Record<string, string>>;

interface Declaration {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
}

interface Rule {
  readonly selector: Selector;
  /** How much it counts against others: ids, classes and attributes, types (Selectors 4, section 17). */
  readonly weight: number;
  readonly declarations: readonly Declaration[];
}

function declarationsOf(block: CssNode): Declaration[] {
  const out: Declaration[] = [];
  walk(block, {
    visit: 'Declaration',
    enter({ property, value, important }) {
      const text = value.type === 'Raw' ? value.value : generate(value);
      out.push({ property: property.toLowerCase(), value: text.trim(), important: important !== false });
    },
  });
  return out;
}

const WEIGHTS: Readonly<Record<string, number>> = {
  IdSelector: 1_000_000,
  ClassSelector: 1000,
  AttributeSelector: 1000,
  PseudoClassSelector: 1000,
  TypeSelector: 1,
};

/** The rules of a document's style sheets, and what in them is not read. */
export interface Sheets {
  readonly rules: readonly Rule[];
  readonly left: readonly string[];
}

/** Reads style sheets, in their order. What is broken in them is passed over, as a browser does. */
export function readSheets(texts: readonly string[]): Sheets {
  const rules: Rule[] = [];
  const left = new Set<string>();
  for (const text of texts) {
    const sheet = parse(text, { parseValue: false, onParseError: () => {} });
    if (sheet.type !== 'StyleSheet') continue;
    sheet.children.forEach((node) => {
      if (node.type === 'Atrule' && node.name !== 'charset' && node.name !== 'namespace') left.add(`@${node.name} rules`); // prettier-ignore
      if (node.type !== 'Rule' || node.prelude.type !== 'SelectorList') return;
      const declarations = declarationsOf(node.block);
      node.prelude.children.forEach((selector) => {
        if (selector.type !== 'Selector') return;
        const weight = selector.children.reduce((sum, part) => sum + (part.type === 'TypeSelector' && part.name === '*' ? 0 : (WEIGHTS[part.type] ?? 0)), 0); // prettier-ignore
        rules.push({ selector, weight, declarations });
      });
    });
  }
  return { rules, left: [...left] };
}

const classesOf = ({ attributes }: SvgElement): string[] => (attributes.class ?? '').split(/\s+/);

const unquoted = (text: string): string => text.replace(/^(["'])(.*)\1$/s, '$2');

/** Whether an attribute is as a selector asks, by its sign: the whole, a word, a beginning, an end, a part. */
const ATTRIBUTE_TESTS: Readonly<Record<string, (has: string, wanted: string) => boolean>> = {
  '=': (has, wanted) => has === wanted,
  '~=': (has, wanted) => has.split(/\s+/).includes(wanted),
  '|=': (has, wanted) => has === wanted || has.startsWith(`${wanted}-`),
  '^=': (has, wanted) => wanted !== '' && has.startsWith(wanted),
  '$=': (has, wanted) => wanted !== '' && has.endsWith(wanted),
  '*=': (has, wanted) => wanted !== '' && has.includes(wanted),
};

/** Whether an element by itself is as one part of a selector asks; what is not known asks for what no element is. */
function fitsPart(element: SvgElement, part: CssNode): boolean {
  if (part.type === 'TypeSelector') return part.name === '*' || part.name.split('|').at(-1) === element.name;
  if (part.type === 'ClassSelector') return classesOf(element).includes(part.name);
  if (part.type === 'IdSelector') return element.attributes.id === part.name;
  if (part.type === 'AttributeSelector') {
    const has = element.attributes[part.name.name];
    if (has === undefined || !part.matcher || !part.value) return has !== undefined;
    const wanted = part.value.type === 'Identifier' ? part.value.name : unquoted(part.value.value);
    return ATTRIBUTE_TESTS[part.matcher]?.(has, wanted) ?? false;
  }
  if (part.type !== 'PseudoClassSelector') return false;
  const among = element.parent?.children ?? [element];
  if (part.name === 'root') return element.parent === null;
  if (part.name === 'first-child') return among[0] === element;
  return part.name === 'last-child' && among.at(-1) === element;
}

/** Whether a selector's parts up to `end` fit an element; what stands before a combinator is looked for around it. */
function fits(element: SvgElement, parts: readonly CssNode[], end: number): boolean {
  let i = end;
  for (; i >= 0 && parts[i]!.type !== 'Combinator'; i--) if (!fitsPart(element, parts[i]!)) return false;
  if (i < 0) return true;
  const { name } = parts[i] as { name: string };
  const beside = element.parent?.children ?? [];
  const before = beside.slice(0, Math.max(0, beside.indexOf(element)));
  if (name === '>') return element.parent !== null && fits(element.parent, parts, i - 1);
  if (name === '+') return before.length > 0 && fits(before.at(-1)!, parts, i - 1);
  if (name === '~') return before.some((other) => fits(other, parts, i - 1));
  for (let around = element.parent; around; around = around.parent)
    if (fits(around, parts, i - 1)) return true;
  return false;
}

/** Gives each element its style. */
export type StyleOf = (element: SvgElement, parent: Style | null) => Style;

/** @param sheets of the document */
export function styler({ rules }: Sheets): StyleOf {
  const ordered = rules
    .map((rule, order) => ({ ...rule, order, parts: rule.selector.children.toArray() }))
    .sort((a, b) => a.weight - b.weight || a.order - b.order);
  return (element, parent) => {
    const said: Record<string, string> = {};
    const firm: Record<string, string> = {};
    const say = ({ property, value, important }: Declaration): void => {
      if (important) firm[property] = value;
      else said[property] = value;
    };
    for (const [property, value] of Object.entries(element.attributes))
      if (property in INHERITED || property in OWN) said[property] = value.trim();
    for (const { parts, declarations } of ordered)
      if (fits(element, parts, parts.length - 1)) declarations.forEach(say);
    const written = element.attributes.style;
    if (written) declarationsOf(parse(written, { context: 'declarationList', parseValue: false, onParseError: () => {} })).forEach(say); // prettier-ignore
    const own: Record<string, string> = { ...said, ...firm };
    // A shorthand says the three.
    if (own.marker !== undefined)
      for (const end of ['start', 'mid', 'end']) own[`marker-${end}`] ??= own.marker;
    const style: Record<string, string> = {};
    for (const [property, initial] of Object.entries(INHERITED)) {
      const value = own[property];
      style[property] = value === undefined || value === 'inherit' ? (parent?.[property] ?? initial) : value === 'initial' ? initial : value; // prettier-ignore
    }
    for (const [property, initial] of Object.entries(OWN)) {
      const value = own[property];
      style[property] = value === 'inherit' ? (parent?.[property] ?? initial) : value === undefined || value === 'initial' ? initial : value; // prettier-ignore
    }
    return style;
  };
}
