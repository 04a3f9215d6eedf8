// Long because what an element does to what stands in it (style, map, clip, viewport) is one walk through the document.

import { readCssColour } from '../../../colour/css';
import { MOST_SHAPES } from '../../../art/limits';
import { BLENDS, MOST_BLUR, type Blend } from '../../../art/paint-kinds';
import type { Shadow } from '../../../art/paint';
import type { ArtNode, Group, Shape } from '../../../art/schema';
import { fitName } from '../../../art/text';
import { shapesIn } from '../../../art/tree';
import { MirrotError } from '../../../error';
import { apply, compose, determinant, IDENTITY, invert, meanScale, translation, type Affine } from '../../../geometry/affine'; // prettier-ignore
import { boxOfPoints, EMPTY_BOX, growBox, isEmptyBox, uniteBoxes, type Box } from '../../../geometry/bounds';
import { add } from '../../../geometry/vector';
import { corner } from '../../../path/anchor';
import { evenOddPaths } from '../../../path/even-odd';
import { pathBounds } from '../../../path/path-measure';
import type { Path } from '../../../path/path';
import { clipOutline, mapPaths, readOutlines } from './clips';
import type { SvgElement } from './elements';
import { isOutline } from './outlines';
import { hrefOf, paintOf, strokeOf, type Lookup } from './paints';
import { readSheets, styler, type Style } from './styles';
import { lengthOf, numbersOf, shareOf, transformOf, viewBoxOf, viewportMap, type Viewport } from './values';

/** What was not read, and how often: "text", "masks". */
export type LeftOut = readonly { readonly what: string; readonly count: number }[];

/** Elements looked at, those that are used again counted each time. */
const MOST_VISITS = 200_000;
/** Refuses a document. */
export const refuse = (why: string): never => {
  throw new MirrotError('svg', `${why} Nothing was added.`);
};

const CAST = 'feGaussianBlur feOffset feFlood feComposite feMerge';
/** Filters that are read, by their steps: a blur, a shadow, or both, as `writeSvg` and others write them. */
const FILTERS = [
  { steps: 'feGaussianBlur', softens: true },
  { steps: 'feDropShadow', softens: false },
  { steps: 'feGaussianBlur feDropShadow', softens: true },
  { steps: CAST, softens: false },
  { steps: `feGaussianBlur ${CAST}`, softens: true },
];

/** What draws nothing where it stands. */
const SILENT = new Set([
  'title', 'desc', 'metadata', 'defs', 'style', 'linearGradient', 'radialGradient', 'stop', 'clipPath', 'mask', 'filter',
  'pattern', 'marker', 'symbol', 'view', 'cursor', 'font', 'font-face', 'color-profile',
]); // prettier-ignore
const CONTAINERS = new Set(['svg', 'g', 'a', 'switch', 'symbol', 'use']);
/** What is not read, by the words that say so. */
const LEFT: Readonly<Record<string, string>> = {
  text: 'text',
  image: 'pictures',
  script: 'scripts',
  foreignObject: 'parts of other kinds of document',
  animate: 'movements',
  animateTransform: 'movements',
  animateMotion: 'movements',
  set: 'movements',
};

/** What an element stands in. */
export interface Around {
  /** Takes the coordinates there to sheet pixels. */
  readonly map: Affine;
  readonly style: Style;
  readonly viewport: Viewport;
  /** Elements that are being used, so that none uses itself. */
  readonly using: ReadonlySet<SvgElement>;
}

/** One walk through a document: what its elements become, and what of it is left out. */
export class Reading {
  readonly #left = new Map<string, number>();
  readonly #byId = new Map<string, SvgElement>();
  /** How many of each role have no name of their own. */
  readonly #numbers = new Map<string, number>();
  readonly lookup: Lookup;
  /** What cuts a group, by its id. */
  readonly #cutBy = new Map<string, string>();
  #ids = 0;
  #visits = 0;
  #shapes = 0;

  constructor(root: SvgElement) {
    const sheets: string[] = [];
    const open = [root];
    for (let element = open.pop(); element; element = open.pop()) {
      const { id } = element.attributes;
      if (id && !this.#byId.has(id)) this.#byId.set(id, element);
      if (element.name === 'style') sheets.push(element.text);
      if (Object.keys(element.attributes).some((key) => /^on[a-z]/.test(key))) this.leave('scripts');
      open.push(...[...element.children].reverse());
    }
    const { rules, left } = readSheets(sheets);
    for (const what of left) this.leave(what);
    this.lookup = { byId: this.#byId, styleOf: styler({ rules, left }), leave: (what) => this.leave(what) };
  }

  leave(what: string): void {
    this.#left.set(what, (this.#left.get(what) ?? 0) + 1);
  }
  get left(): LeftOut {
    return [...this.#left].map(([what, count]) => ({ what, count }));
  }

  readonly newId = (): string => `svg-${++this.#ids}`;

  /** The name an element gives itself, or none. */
  #ownName(element: SvgElement): string | null {
    const title = element.children.find((child) => child.name === 'title')?.text;
    return fitName((title ?? element.attributes.id ?? '').replace(/\s+/g, ' '), '') || null;
  }
  #name(element: SvgElement, role: string): string {
    const own = this.#ownName(element);
    if (own) return own;
    const number = (this.#numbers.get(role) ?? 0) + 1;
    this.#numbers.set(role, number);
    return `${role} ${number}`;
  }

  #group(name: string, children: readonly ArtNode[], more: Partial<Group> = {}): Group {
    return {
      id: this.newId(),
      type: 'group',
      name,
      shown: true,
      locked: false,
      opacity: 1,
      ...more,
      children,
    };
  }

  /** What an element draws, bottom first. */
  nodes(element: SvgElement, around: Around): ArtNode[] {
    if (++this.#visits > MOST_VISITS)
      refuse(`This SVG uses its parts again and again: over ${MOST_VISITS.toLocaleString('en')} in all.`);
    if (SILENT.has(element.name) && element.name !== 'symbol') return [];
    if (!CONTAINERS.has(element.name) && !isOutline(element)) {
      this.leave(LEFT[element.name] ?? `“${element.name.slice(0, 40)}”`);
      return [];
    }
    const style = this.lookup.styleOf(element, around.style);
    const own = transformOf(style.transform);
    if (!own) {
      this.leave('parts with a transform that is not known');
      return [];
    }
    const map = compose(around.map, own);
    if (!(Math.abs(determinant(map)) > 0)) return [];
    const here = { ...around, map, style };
    return isOutline(element) ? this.#shape(element, here) : this.#container(element, here);
  }

  #shape(element: SvgElement, here: Around): ArtNode[] {
    const { style, map, viewport } = here;
    const own = readOutlines(element, viewport, this.lookup, this.newId);
    if (own.length === 0) return [];
    if (++this.#shapes > MOST_SHAPES)
      refuse(`This SVG draws over ${MOST_SHAPES.toLocaleString('en')} shapes, the most a drawing has.`);
    for (const end of ['marker-start', 'marker-mid', 'marker-end'])
      if (style[end] !== 'none' && style[end] !== '') this.leave('markers');
    const box = own.map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
    let fill = paintOf('fill', style, this.lookup, { viewport, map, box });
    const stroke = strokeOf(style, this.lookup, { viewport, map, box });
    const drawn = mapPaths(own, map);
    const filled = fill && style['fill-rule'] !== 'evenodd' ? evenOddPaths(drawn, this.newId) : drawn;
    // A line that encloses nothing has nothing to fill.
    if (filled.length === 0) fill = null;
    const name = this.#name(element, 'Shape');
    const shape = (paths: readonly Path[], more: Partial<Shape>, called = name): Shape => ({
      id: this.newId(),
      type: 'shape',
      name: called,
      shown: style.display !== 'none' && style.visibility === 'visible',
      locked: false,
      opacity: 1,
      fill: null,
      stroke: null,
      paths,
      ...more,
    });
    const paths = fill ? filled : drawn;
    const one = !fill || !stroke || (fill.alpha === 1 && stroke.alpha === 1);
    const beneath = style['paint-order']!.trim().startsWith('stroke') && fill !== null && stroke !== null;
    if (one && (paths === drawn || !stroke)) {
      const opacity = (fill ?? stroke)?.alpha ?? 1;
      const line = stroke && { ...stroke.stroke, ...(beneath && { under: true as const }) };
      const node = shape(paths, { fill: fill?.paint ?? null, stroke: line, opacity });
      return this.#covered(here, [node], name);
    }
    // A fill and a line that are not alike opaque, or in the other order, or along other outlines, are two shapes.
    const again = drawn.map((path) => ({ ...path, id: this.newId() }));
    const parts = [
      shape(paths, { fill: fill!.paint, opacity: fill!.alpha }, `${name}, fill`),
      shape(again, { stroke: stroke!.stroke, opacity: stroke!.alpha }, `${name}, line`),
    ];
    return this.#covered(here, [this.#group(name, beneath ? parts.reverse() : parts)], name);
  }

  #container(element: SvgElement, here: Around): ArtNode[] {
    const { name } = element;
    if (name === 'use') return this.#use(element, here);
    if (name === 'a' && /^(?!#)./.test(hrefOf(element))) this.leave('links');
    if (name === 'svg' || name === 'symbol') return this.#viewport(element, here, {});
    const chosen = element.children.find(
      (c) => c.attributes.requiredExtensions === undefined && /^$|(^|[\s,])en/.test(c.attributes.systemLanguage ?? ''), // prettier-ignore
    );
    const children = name === 'switch' ? (chosen ? [chosen] : []) : element.children;
    return this.#grouped(element, here, children.flatMap((child) => this.nodes(child, here))); // prettier-ignore
  }

  /** A group of what stands in an element. One node that nothing is done to needs none, unless it has a name. */
  #grouped(element: SvgElement, here: Around, inner: readonly ArtNode[]): ArtNode[] {
    if (inner.length === 0) return [];
    const shown = here.style.display !== 'none';
    const [first] = inner;
    const cutBy = this.#cutBy.get(first!.id);
    // All cut by one outline: one group that is cut is the same.
    if (cutBy !== undefined && shown && inner.every(({ id }) => this.#cutBy.get(id) === cutBy)) {
      const parts = (inner as readonly Group[]).map(({ children }) => children);
      const name = this.#ownName(element) ?? first!.name;
      const group = this.#group(name, [parts[0]![0]!, ...parts.flatMap(([, ...rest]) => rest)], {
        clip: parts[0]![0]!.id,
      });
      this.#cutBy.set(group.id, cutBy);
      return this.#covered(here, [group], name);
    }
    if (inner.length === 1 && shown && !this.#ownName(element)) return this.#covered(here, inner, inner[0]!.name); // prettier-ignore
    const name = this.#name(element, 'Group');
    return this.#covered(here, [this.#group(name, inner, { shown })], name);
  }

  #use(element: SvgElement, here: Around): ArtNode[] {
    const href = hrefOf(element);
    const used = href.startsWith('#') ? this.#byId.get(href.slice(1)) : undefined;
    if (!used) {
      this.leave(href.startsWith('#') ? 'uses of what is not in the file' : 'uses of other files');
      return [];
    }
    if (here.using.has(used)) {
      this.leave('parts that use themselves');
      return [];
    }
    const { viewport } = here;
    const x = lengthOf(element.attributes.x, viewport.width) ?? 0;
    const y = lengthOf(element.attributes.y, viewport.height) ?? 0;
    const inside: Around = { ...here, map: compose(here.map, translation(x, y)), using: new Set([...here.using, used]) }; // prettier-ignore
    if (used.name !== 'symbol' && used.name !== 'svg')
      return this.#grouped(element, here, this.nodes(used, inside));
    const style = this.lookup.styleOf(used, here.style);
    const own = transformOf(style.transform) ?? IDENTITY;
    const { width, height } = element.attributes;
    const placed = { ...inside, style, map: compose(inside.map, own) };
    return this.#grouped(element, here, this.#viewport(used, placed, { width, height }));
  }

  /** What stands in a viewport of its own: an inner SVG or a symbol. What reaches beyond it is cut. */
  #viewport(element: SvgElement, here: Around, size: { width?: string; height?: string }): ArtNode[] {
    const { attributes } = element;
    const outer = here.viewport;
    const room: Viewport = {
      x: element.name === 'svg' ? (lengthOf(attributes.x, outer.width) ?? 0) : 0,
      y: element.name === 'svg' ? (lengthOf(attributes.y, outer.height) ?? 0) : 0,
      width: lengthOf(size.width ?? attributes.width, outer.width) ?? outer.width,
      height: lengthOf(size.height ?? attributes.height, outer.height) ?? outer.height,
    };
    if (!(room.width > 0 && room.height > 0)) return [];
    const inner = viewBoxOf(attributes.viewBox);
    const map = inner
      ? compose(here.map, viewportMap(inner, room, attributes.preserveAspectRatio))
      : compose(here.map, translation(room.x, room.y));
    const viewport = inner ?? { x: 0, y: 0, width: room.width, height: room.height };
    const nodes = element.children.flatMap((child) => this.nodes(child, { ...here, map, viewport }));
    const grouped = this.#grouped(element, here, nodes);
    if (['visible', 'auto'].includes(here.style.overflow!) || grouped.length === 0) return grouped;
    const [x, y] = [room.x + room.width, room.y + room.height];
    const frame: Path = {
      id: this.newId(),
      closed: true,
      anchors: [corner(room.x, room.y), corner(x, room.y), corner(x, y), corner(room.x, y)],
    };
    const box = reachOf(grouped, invert(here.map)!);
    const inside = box.x0 >= room.x && box.y0 >= room.y && box.x1 <= x && box.y1 <= y;
    return inside ? grouped : [this.#clipped(this.#name(element, 'Group'), mapPaths([frame], here.map), grouped, frame.id)]; // prettier-ignore
  }

  /** A group that is cut; what is done to the whole is done to what stands in it. `key` says what cuts it. */
  #clipped(name: string, outline: readonly Path[], inner: readonly ArtNode[], key: string): Group {
    const clip: Shape = {
      id: this.newId(),
      type: 'shape',
      name: `Clip of ${name}`.slice(0, 200),
      shown: true,
      locked: false,
      opacity: 1,
      fill: null,
      stroke: null,
      paths: outline,
    };
    const group = this.#group(name, [clip, ...inner], { clip: clip.id });
    this.#cutBy.set(group.id, key);
    return group;
  }

  /** Nodes with what their element does to them as a whole: blur and shadow, then clip, then opacity and blend. */
  #covered(here: Around, nodes: readonly ArtNode[], name: string): ArtNode[] {
    const { style } = here;
    if (style.mask !== 'none' && style.mask !== '') this.leave('masks');
    const blend = BLENDS.find((b): b is Exclude<Blend, 'normal'> => b !== 'normal' && b === style['mix-blend-mode']); // prettier-ignore
    const opacity = shareOf(style.opacity, 1);
    const filter = this.#filter(style, here.map);
    const covering = { ...(blend ? { blend } : {}), ...(opacity < 1 ? { opacity } : {}) };
    /** Put on the one node that there is, or on a group of them. */
    const put = (inner: readonly ArtNode[], fields: Partial<Group>): readonly ArtNode[] => {
      if (Object.keys(fields).length === 0) return inner;
      const [one, more] = inner;
      const free =
        one &&
        !more &&
        one.blend === undefined &&
        ((one.blur === undefined && one.shadow === undefined) ||
          (fields.blur === undefined && fields.shadow === undefined));
      // A blurred one is cut and laid over by what stands around it, never before it is blurred.
      if (free && (one.opacity === 1 || fields.opacity === undefined))
        return [{ ...one, ...fields } as ArtNode];
      return [this.#group(name, inner, fields)];
    };
    const blurred = put(nodes, filter);
    const clip = this.#clipOf(here, blurred);
    const whole = put(blurred, covering);
    if (!clip) return [...whole];
    return clip.outline.length === 0 ? [] : [this.#clipped(name, clip.outline, whole, clip.key)];
  }

  /** The outline that cuts an element; null where none does. */
  #clipOf(
    here: Around,
    nodes: readonly ArtNode[],
  ): { readonly outline: readonly Path[]; readonly key: string } | null {
    const value = here.style['clip-path']!;
    if (value === 'none' || value === '') return null;
    const address = /^url\(\s*(["']?)#([^"')]*)\1\s*\)/.exec(value)?.[2];
    const clip = address === undefined ? undefined : this.#byId.get(address);
    if (clip?.name !== 'clipPath') {
      this.leave('clips that are not in the file');
      return null;
    }
    const own = transformOf(this.lookup.styleOf(clip, null).transform) ?? IDENTITY;
    let map = compose(here.map, own);
    if (clip.attributes.clipPathUnits === 'objectBoundingBox') {
      const back = invert(here.map)!;
      const box = nodes.flatMap(shapesIn).flatMap(({ paths }) => mapPaths(paths, back)).map(pathBounds).reduce(uniteBoxes, EMPTY_BOX); // prettier-ignore
      if (isEmptyBox(box) || box.x0 === box.x1 || box.y0 === box.y1) return { outline: [], key: '' };
      map = compose(here.map, compose([box.x1 - box.x0, 0, 0, box.y1 - box.y0, box.x0, box.y0], own));
    }
    const outline = clipOutline(clip, null, map, here.viewport, this.lookup, this.newId);
    return { outline, key: [address, ...map].join(' ') };
  }

  /** The blur and the shadow that a filter is, in sheet pixels. Other filters are not read. */
  #filter(style: Style, map: Affine): Pick<Group, 'blur' | 'shadow'> {
    const value = style.filter!;
    if (value === 'none' || value === '') return {};
    const css = /^blur\(\s*([^)]*)\)$/.exec(value);
    const address = /^url\(\s*(["']?)#([^"')]*)\1\s*\)$/.exec(value)?.[2];
    const parts = address === undefined ? undefined : this.#byId.get(address)?.children;
    const scale = meanScale(map);
    /** One deviation both ways, sheet pixels; null where they differ. */
    const deviation = (text: string | undefined): number | null => {
      const [x = 0, y = x] = numbersOf(text);
      return x === y ? Math.min(MOST_BLUR, Math.max(0, x * scale)) : null;
    };
    const names = (parts ?? []).map((p) => p.name).join(' ');
    const kind = FILTERS.find(({ steps }) => steps === names);
    if (!css && !kind) {
      this.leave('filters');
      return {};
    }
    const blur = css
      ? Math.min(MOST_BLUR, Math.max(0, (lengthOf(css[1], 0) ?? 0) * scale))
      : kind?.softens
        ? deviation(parts![0]!.attributes.stdDeviation)
        : 0;
    const step = (name: string): SvgElement | undefined => parts?.findLast((p) => p.name === name);
    const drop = step('feDropShadow');
    const flood = drop ?? step('feFlood');
    const softened = drop
      ? (drop.attributes.stdDeviation ?? '2')
      : step('feGaussianBlur')?.attributes.stdDeviation;
    const shadow =
      flood && this.#shadow(flood, drop ?? step('feOffset')!, map, deviation(softened), drop ? '2' : '0');
    if (blur === null || shadow === null) {
      this.leave('filters');
      return {};
    }
    return { ...(blur > 0 ? { blur } : {}), ...(shadow ? { shadow } : {}) };
  }

  /** The shadow that a filter casts (Filter Effects 1, sections 9.11 and 9.13); null where it cannot be read. */
  #shadow(
    flood: SvgElement,
    offset: SvgElement,
    [a, b, c, d]: Affine,
    blur: number | null,
    unmoved: string,
  ): Shadow | null {
    const style = this.lookup.styleOf(flood, null);
    const colour = readCssColour(style['flood-color']!);
    if (!colour || blur === null) return null;
    const dx = lengthOf(offset.attributes.dx ?? unmoved, 0) ?? 0;
    const dy = lengthOf(offset.attributes.dy ?? unmoved, 0) ?? 0;
    const opacity = colour.alpha * shareOf(style['flood-opacity'], 1);
    return { x: a * dx + c * dy, y: b * dx + d * dy, blur, hex: colour.hex, opacity };
  }
}

/** A box that holds all that nodes paint, after a map: the hulls of their lines, grown by what a mitre may reach. */
export function reachOf(nodes: readonly ArtNode[], map: Affine): Box {
  const scale = meanScale(map);
  const boxes = nodes.flatMap(shapesIn).map(({ paths, stroke }) => {
    const points = paths.flatMap(({ anchors }) =>
      anchors.flatMap((a) => [a, ...[a.in, a.out].flatMap((h) => (h ? [add(a, h)] : []))]),
    );
    const box = boxOfPoints(points.map((p) => apply(map, p)));
    return stroke ? growBox(box, (stroke.width * scale * Math.max(1, stroke.joins === 'miter' ? stroke.miterLimit : 1)) / 2) : box; // prettier-ignore
  });
  return boxes.reduce(uniteBoxes, EMPTY_BOX);
}
