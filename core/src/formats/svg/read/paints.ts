import { readCssColour } from '../../../colour/css';
import { compose, meanScale, type Affine } from '../../../geometry/affine';
import { boxHeight, boxWidth, type Box } from '../../../geometry/bounds';
import type { Gradient, Paint, Stop, Stroke } from '../../../art/paint';
import { GRADIENT_SPREADS, MOST_STOPS, STROKE_ENDS, STROKE_JOINS } from '../../../art/paint-kinds';
import { keepsShape } from '../../../path/path-map';
import type { SvgElement } from './elements';
import type { Style, StyleOf } from './styles';
import { lengthOf, numbersOf, shareOf, transformOf, type Viewport } from './values';

// Fills and strokes (SVG 2, chapters 13 and 14).

/** A document as its parts are looked up in it. */
export interface Lookup {
  readonly byId: ReadonlyMap<string, SvgElement>;
  readonly styleOf: StyleOf;
  /** Notes something that is not read. */
  readonly leave: (what: string) => void;
}

/** Where something is painted. */
export interface Ground {
  readonly viewport: Viewport;
  /** Takes user units to sheet pixels. */
  readonly map: Affine;
  /** Bounds of the outline, user units. */
  readonly box: Box;
}

/** A paint, and how opaque it is beyond what its stops say. */
export interface ReadPaint {
  readonly paint: Paint;
  readonly alpha: number;
}

export const hrefOf = ({ attributes }: SvgElement): string => (attributes.href ?? attributes['xlink:href'] ?? '').trim(); // prettier-ignore

/** A gradient's own stops, or those of the gradient that it names, and so on. */
function inheriting(element: SvgElement, lookup: Lookup): { chain: SvgElement[]; stops: SvgElement[] } {
  const chain: SvgElement[] = [];
  for (
    let at: SvgElement | undefined = element;
    at && !chain.includes(at);
    at = lookup.byId.get(hrefOf(at).slice(1))
  )
    chain.push(at);
  const stops = chain.map((g) => g.children.filter((c) => c.name === 'stop')).find((list) => list.length > 0) ?? []; // prettier-ignore
  return { chain, stops };
}

function stopsOf(elements: readonly SvgElement[], lookup: Lookup, opacity: number): Stop[] {
  let last = 0;
  const stops = elements.flatMap((element): Stop[] => {
    const style = lookup.styleOf(element, null);
    const value = style['stop-color']!;
    const colour = readCssColour(value === 'currentColor' ? style.color! : value);
    if (!colour) return [];
    last = Math.max(last, shareOf(element.attributes.offset, 0));
    return [{ at: last, colour: { hex: colour.hex }, opacity: colour.alpha * shareOf(style['stop-opacity'], 1) * opacity }]; // prettier-ignore
  });
  if (stops.length <= MOST_STOPS) return stops;
  lookup.leave('stops of a gradient beyond 64');
  return [...stops.slice(0, MOST_STOPS - 1), stops.at(-1)!];
}

/** The plane in which a gradient runs from 0 to 1, or to the unit circle, as user units; null where it has no extent. */
function gradientPlane(
  name: string,
  chain: readonly SvgElement[],
  byBox: boolean,
  { viewport }: Ground,
): Affine | null {
  const { width, height } = byBox ? { width: 1, height: 1 } : viewport;
  const value = (attribute: string, whole: number, otherwise: string): number =>
    lengthOf(chain.map((g) => g.attributes[attribute]).find((v) => v !== undefined) ?? otherwise, whole) ?? 0;
  if (name === 'linearGradient') {
    const [x1, y1] = [value('x1', width, '0%'), value('y1', height, '0%')];
    const [dx, dy] = [value('x2', width, '100%') - x1, value('y2', height, '0%') - y1];
    return dx === 0 && dy === 0 ? null : [dx, dy, -dy, dx, x1, y1];
  }
  const r = value('r', Math.hypot(width, height) / Math.SQRT2, '50%');
  return r > 0 ? [r, 0, 0, r, value('cx', width, '50%'), value('cy', height, '50%')] : null;
}

function gradientOf(element: SvgElement, lookup: Lookup, ground: Ground, opacity: number): ReadPaint | null {
  const { chain, stops: elements } = inheriting(element, lookup);
  const said = (attribute: string): string | undefined =>
    chain.map((g) => g.attributes[attribute]).find((v) => v !== undefined);
  const stops = stopsOf(elements, lookup, opacity);
  const last = stops.at(-1);
  if (!last) return null;
  const spread = GRADIENT_SPREADS.find((s): s is NonNullable<Gradient['spread']> => s !== 'pad' && s === said('spreadMethod')); // prettier-ignore
  if (element.name === 'radialGradient' && ['fx', 'fy', 'fr'].some((a) => said(a) !== undefined && said(a) !== said(a.replace('f', 'c')))) lookup.leave('focal points of gradients'); // prettier-ignore
  const byBox = said('gradientUnits') !== 'userSpaceOnUse';
  const { box } = ground;
  const [width, height] = [boxWidth(box), boxHeight(box)];
  const flat = (): ReadPaint => ({ paint: last.colour, alpha: last.opacity });
  if (stops.length === 1) return flat();
  if (byBox && (width === 0 || height === 0)) return null;
  const plane = gradientPlane(element.name, chain, byBox, ground);
  const own = transformOf(said('gradientTransform'));
  if (!plane || !own) return flat();
  const toUser: Affine = byBox ? [width, 0, 0, height, box.x0, box.y0] : [1, 0, 0, 1, 0, 0];
  const placement = compose(ground.map, compose(toUser, compose(own, plane)));
  if (!(Math.abs(placement[0] * placement[3] - placement[1] * placement[2]) > 0)) return flat();
  const kind: Gradient['kind'] = element.name === 'linearGradient' ? 'linear' : 'radial';
  return { paint: { kind, placement, ...(spread && { spread }), stops }, alpha: 1 };
}

/** A fill or a stroke's paint; null where nothing is painted. */
export function paintOf(
  what: 'fill' | 'stroke',
  style: Style,
  lookup: Lookup,
  ground: Ground,
): ReadPaint | null {
  const opacity = shareOf(style[`${what}-opacity`], 1);
  const colour = (text: string): ReadPaint | null => {
    if (text === 'none' || text === '') return null;
    const read = readCssColour(text.toLowerCase() === 'currentcolor' ? style.color! : text);
    if (!read) lookup.leave('paints that are no colours');
    return read && read.alpha * opacity > 0
      ? { paint: { hex: read.hex }, alpha: read.alpha * opacity }
      : null;
  };
  const value = style[what]!;
  const reference = /^url\(\s*(["']?)([^"')]*)\1\s*\)\s*(.*)$/.exec(value);
  if (!reference) return colour(value);
  const [, , address, fallback] = reference;
  const element = address!.startsWith('#') ? lookup.byId.get(address!.slice(1)) : undefined;
  if (element?.name === 'linearGradient' || element?.name === 'radialGradient')
    return gradientOf(element, lookup, ground, opacity);
  lookup.leave(element?.name === 'pattern' ? 'patterns' : 'paints that are not in the file');
  return colour(fallback!.trim());
}

/** Widest stroke and shortest dash that a drawing has, sheet pixels. */
const WIDEST = 10_000;
const SHORTEST_DASH = 0.001;
const MOST_DASHES = 32;

function dashOf(style: Style, diagonal: number, scale: number, lookup: Lookup): number[] {
  const text = style['stroke-dasharray']!;
  if (text === 'none') return [];
  const lengths = text.split(/[\s,]+/).filter(Boolean).map((v) => lengthOf(v, diagonal)); // prettier-ignore
  if (lengths.some((v) => v === null || v < 0) || !lengths.some((v) => v! > 0)) return [];
  const twice = lengths.length % 2 === 1 ? [...lengths, ...lengths] : lengths;
  if (twice.length <= MOST_DASHES) return twice.map((v) => Math.max(SHORTEST_DASH, v! * scale));
  lookup.leave('dashes of over 32 parts');
  return [];
}

const known = <T extends string>(value: string | undefined, all: readonly T[], otherwise: T): T =>
  all.find((one) => one === value) ?? otherwise;

/** A stroke, and how opaque it is; null where nothing is painted. */
export function strokeOf(
  style: Style,
  lookup: Lookup,
  ground: Ground,
): { readonly stroke: Stroke; readonly alpha: number } | null {
  const painted = paintOf('stroke', style, lookup, ground);
  if (!painted) return null;
  const { width, height } = ground.viewport;
  const diagonal = Math.hypot(width, height) / Math.SQRT2;
  const fixed = style['vector-effect'] === 'non-scaling-stroke';
  if (!fixed && !keepsShape(ground.map)) lookup.leave('lines wider one way than another');
  const scale = fixed ? 1 : meanScale(ground.map);
  const weight = (lengthOf(style['stroke-width'], diagonal) ?? 1) * scale;
  if (!(weight > 0)) return null;
  const dash = dashOf(style, diagonal, scale, lookup);
  const offset = (lengthOf(style['stroke-dashoffset'], diagonal) ?? 0) * scale;
  const stroke: Stroke = {
    paint: painted.paint,
    width: Math.min(WIDEST, weight),
    ends: known(style['stroke-linecap'], STROKE_ENDS, 'butt'),
    joins: known(style['stroke-linejoin'], STROKE_JOINS, 'miter'),
    miterLimit: Math.min(1000, Math.max(1, numbersOf(style['stroke-miterlimit'])[0] ?? 4)),
    dash,
    ...(dash.length > 0 && offset !== 0 && { dashOffset: offset }),
  };
  return { stroke, alpha: painted.alpha };
}
