import { drawnData } from '../../art/line-data';
import type { SeenPaint, Shadow } from '../../art/paint';
import { filterBox, type PaintedPart, type PaintedShape } from '../../art/paint-list';
import { boxHeight, boxWidth } from '../../geometry/bounds';
import { number, type Attributes, type SvgElement } from './xml';

// What is painted, as elements and attributes of SVG 2: the same on the bed and in a file.

/** A gradient as SVG has it. */
export interface GradientElement {
  readonly name: 'linearGradient' | 'radialGradient';
  readonly attributes: Attributes;
  readonly stops: readonly Attributes[];
}

/** The element for a paint; null for a colour, which needs none. */
export function gradientElement(paint: SeenPaint | null | undefined): GradientElement | null {
  if (!paint || paint.kind === 'flat') return null;
  const linear = paint.kind === 'linear';
  return {
    name: linear ? 'linearGradient' : 'radialGradient',
    attributes: {
      gradientUnits: 'userSpaceOnUse',
      ...(linear ? { x1: 0, y1: 0, x2: 1, y2: 0 } : { cx: 0, cy: 0, r: 1 }),
      spreadMethod: paint.spread ?? null,
      gradientTransform: `matrix(${paint.placement.map((v) => number(v, 9)).join(' ')})`,
    },
    stops: paint.stops.map(({ at, hex, opacity }) => ({
      offset: number(at, 6),
      'stop-color': hex,
      'stop-opacity': opacity < 1 ? number(opacity) : null,
    })),
  };
}

/** A filter as SVG has it: its attributes with its room in sheet pixels, and its steps in order. */
export interface FilterElement {
  readonly attributes: Attributes;
  readonly steps: readonly SvgElement[];
}

/** What the steps of a filter call what they give. */
const SOFT = 'soft';
const CAST = 'cast';

/**
 * The steps of a soft shadow. Written out, not as `feDropShadow`: of what is see-through that comes out otherwise in resvg,
 * librsvg and Chromium.
 */
const shadowSteps = ({ x, y, blur, hex, opacity }: Shadow, source: string): SvgElement[] => [
  { name: 'feGaussianBlur', attributes: { in: source, stdDeviation: number(blur) } },
  { name: 'feOffset', attributes: { dx: number(x), dy: number(y), result: CAST } },
  { name: 'feFlood', attributes: { 'flood-color': hex, 'flood-opacity': number(opacity) } },
  { name: 'feComposite', attributes: { in2: CAST, operator: 'in', result: CAST } },
  {
    name: 'feMerge',
    attributes: {},
    inner: [CAST, source].map((one) => ({ name: 'feMergeNode', attributes: { in: one } })),
  },
];

/** The filter that blurs a part and casts its shadow; null for one that is sharp and without a shadow. */
export function filterElement(part: PaintedPart): FilterElement | null {
  const { blur, shadow } = part;
  if (blur === 0 && !shadow) return null;
  const soft: SvgElement[] =
    blur > 0
      ? [{ name: 'feGaussianBlur', attributes: { stdDeviation: number(blur), result: shadow && SOFT } }]
      : [];
  const steps = shadow ? [...soft, ...shadowSteps(shadow, blur > 0 ? SOFT : 'SourceGraphic')] : soft;
  return { attributes: filterRoom(part), steps };
}

function filterRoom(part: PaintedPart): Attributes {
  const box = filterBox(part);
  return {
    filterUnits: 'userSpaceOnUse',
    x: number(box.x0),
    y: number(box.y0),
    width: number(boxWidth(box)),
    height: number(boxHeight(box)),
    // As the CSS function blur() does: in the colours as they are written.
    'color-interpolation-filters': 'sRGB',
  };
}

/** Names an element that stands elsewhere in the document: a gradient, a clip, a mask, a filter. */
export type Reference = (what: 'fill' | 'stroke' | 'clip' | 'mask' | 'filter', part: PaintedPart) => string;

const url = (id: string): string => `url(#${id})`;

/** Attributes that say how a part as a whole is laid over what is beneath. */
export const coveringAttributes = (part: PaintedPart, reference: Reference): Attributes => ({
  opacity: part.opacity < 1 ? number(part.opacity) : null,
  'clip-path': part.clip ? url(reference('clip', part)) : null,
  mask: part.mask ? url(reference('mask', part)) : null,
  filter: part.blur > 0 || part.shadow ? url(reference('filter', part)) : null,
  style: part.blend === 'normal' ? null : `mix-blend-mode:${part.blend}`,
});

/** Attributes of the path element that paints a shape. */
export function shapeAttributes(part: PaintedShape, reference: Reference): Attributes {
  const { fill, stroke } = part;
  const colour = (what: 'fill' | 'stroke', paint: SeenPaint): string =>
    paint.kind === 'flat' ? paint.hex : url(reference(what, part));
  return {
    d: drawnData(part.paths),
    fill: fill ? colour('fill', fill) : 'none',
    'fill-rule': fill ? part.fillRule : null,
    stroke: stroke && colour('stroke', stroke.paint),
    'stroke-width': stroke && number(stroke.width),
    'stroke-linecap': stroke && stroke.ends,
    'stroke-linejoin': stroke && stroke.joins,
    'stroke-miterlimit': stroke?.joins === 'miter' ? number(stroke.miterLimit) : null,
    'stroke-dashoffset': stroke?.dashOffset ? number(stroke.dashOffset) : null,
    'paint-order': stroke?.under && fill ? 'stroke' : null,
    'stroke-dasharray': stroke && stroke.dash.length > 0 ? stroke.dash.map((v) => number(v)).join(' ') : null,
    ...coveringAttributes(part, reference),
  };
}
