import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { MirrotError } from '../../../error';

/** An element of SVG. Those of other vocabularies are left out, with all that stands in them. */
export interface SvgElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly SvgElement[];
  /** The text that stands directly in it. */
  readonly text: string;
  readonly parent: SvgElement | null;
}

/** Most characters of an SVG. */
export const MOST_SVG_CHARACTERS = 40_000_000;
/** Elements stand in each other so deep at most. */
const DEEPEST_ELEMENT = 256;
/** What the text that an SVG defines for itself may come to. A file names a few addresses so; far more is meant to do harm. */
const ENTITY_LIMITS = {
  enabled: true,
  maxEntityCount: 200,
  maxEntitySize: 1000,
  maxExpansionDepth: 4,
  maxTotalExpansions: 10_000,
  maxExpandedLength: 100_000,
};

const SVG_NAMESPACE = 'http://www.w3.org/2000/svg';

const refuse = (why: string): never => {
  throw new MirrotError('svg', `${why} Nothing was added.`);
};

// What the parser gives with `preserveOrder`: a list of objects, each with one tag and, under ":@", its attributes.
type Ordered = Readonly<Record<string, unknown>>;
const ATTRIBUTES = ':@';
const TEXT = '#text';

const tagOf = (node: Ordered): string => Object.keys(node).find((key) => key !== ATTRIBUTES) ?? '';

/** Names of the prefixes that mean SVG: none, or what the document binds to it. */
function svgPrefixes(attributes: Readonly<Record<string, string>>): ReadonlySet<string> {
  const bound = Object.entries(attributes).filter(([, value]) => value.trim() === SVG_NAMESPACE);
  return new Set(['', ...bound.flatMap(([key]) => (key.startsWith('xmlns:') ? [key.slice(6)] : []))]);
}

function elementOf(
  node: Ordered,
  parent: SvgElement | null,
  prefixes: ReadonlySet<string>,
): SvgElement | null {
  const tag = tagOf(node);
  const colon = tag.indexOf(':');
  if (!prefixes.has(tag.slice(0, Math.max(0, colon)))) return null;
  const children: SvgElement[] = [];
  let text = '';
  const attributes = (node[ATTRIBUTES] ?? {}) as Record<string, string>;
  const element: SvgElement = {
    name: tag.slice(colon + 1),
    attributes,
    children,
    parent,
    get text() {
      return text;
    },
  };
  for (const child of (node[tag] as readonly Ordered[] | undefined) ?? []) {
    if (TEXT in child) text += String(child[TEXT]);
    else {
      const inner = elementOf(child, element, prefixes);
      if (inner) children.push(inner);
    }
  }
  return element;
}

/**
 * The elements of an SVG document, its root first.
 *
 * @throws MirrotError `svg` with a sentence: no XML, cut short, no SVG, too large, too deep, or with text of its own that
 *   grows beyond all measure
 */
export function readElements(text: string): SvgElement {
  if (text.length > MOST_SVG_CHARACTERS)
    refuse(`This SVG has over ${MOST_SVG_CHARACTERS / 1e6} million characters, the most that is read.`);
  const source = text.replace(/^\uFEFF/, '').trimStart();
  if (!source.startsWith('<')) refuse('This is not an SVG: it does not begin as one.');
  const valid = XMLValidator.validate(source);
  if (valid !== true)
    refuse(`This SVG is broken at line ${valid.err.line}: ${valid.err.msg.replace(/\.$/, '')}.`);
  let nodes: readonly Ordered[];
  try {
    nodes = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      parseTagValue: false,
      parseAttributeValue: false,
      trimValues: false,
      ignoreDeclaration: true,
      ignorePiTags: true,
      htmlEntities: true,
      maxNestedTags: DEEPEST_ELEMENT,
      processEntities: ENTITY_LIMITS,
    }).parse(source) as readonly Ordered[];
  } catch (error) {
    const why = String(error instanceof Error ? error.message : error);
    if (/nested/i.test(why)) refuse(`Elements of this SVG stand in each other over ${DEEPEST_ELEMENT} deep.`);
    if (/entit|expan/i.test(why))
      refuse('This SVG defines text that is put in again and again. That is not read.');
    return refuse(`This SVG is broken: ${why.replace(/\.$/, '')}.`);
  }
  const root = nodes.find((node) => /(^|:)svg$/.test(tagOf(node)));
  const element =
    root && elementOf(root, null, svgPrefixes((root[ATTRIBUTES] ?? {}) as Record<string, string>));
  if (element?.name !== 'svg') return refuse('This is not an SVG: it has no <svg> element.');
  return element;
}
