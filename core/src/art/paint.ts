import type { z } from 'zod';
import { formatHex, parseHex } from '../colour/srgb';
import { apply, compose, invert, type Affine } from '../geometry/affine';
import type { Point } from '../geometry/vector';
import type { colourSchema, gradientSchema, paintSchema, shadowSchema, stopSchema, strokeSchema } from './paint-schema'; // prettier-ignore
import type { DeepReadonly } from './scalars';

export type Colour = DeepReadonly<z.infer<typeof colourSchema>>;
export type Stop = DeepReadonly<z.infer<typeof stopSchema>>;
export type Gradient = DeepReadonly<z.infer<typeof gradientSchema>>;
export type Paint = DeepReadonly<z.infer<typeof paintSchema>>;
export type Stroke = DeepReadonly<z.infer<typeof strokeSchema>>;
export type Shadow = DeepReadonly<z.infer<typeof shadowSchema>>;

/** A stroke as the pen draws it: round ends and joins, no dashes. Width in sheet pixels. */
export const plainStroke = (paint: Paint, width: number): Stroke => ({
  paint,
  width,
  ends: 'round',
  joins: 'round',
  miterLimit: 4,
  dash: [],
});

/** The stroke `k` times as wide, its dashes as long. */
export const scaleStroke = (stroke: Stroke, k: number): Stroke => ({
  ...stroke,
  width: stroke.width * k,
  dash: stroke.dash.map((v) => v * k),
  ...(stroke.dashOffset !== undefined && { dashOffset: stroke.dashOffset * k }),
});

export const isGradient = (paint: Paint): paint is Gradient => 'kind' in paint;

/** The paint after a map of what it paints; a colour is the same everywhere. */
export const mapPaint = (paint: Paint, map: Affine): Paint =>
  isGradient(paint) ? { ...paint, placement: compose(map, paint.placement) } : paint;

/** The paint with each of its colours put through `change`; itself where none changes. */
export function mapColours(paint: Paint, change: (colour: Colour) => Colour): Paint {
  if (!isGradient(paint)) return change(paint);
  const stops = paint.stops.map((stop) => {
    const colour = change(stop.colour);
    return colour === stop.colour ? stop : { ...stop, colour };
  });
  return stops.every((s, i) => s === paint.stops[i]) ? paint : { ...paint, stops };
}

/** The colours of a paint, in the order of its stops. */
export const coloursIn = (paint: Paint): readonly Colour[] =>
  isGradient(paint) ? paint.stops.map((s) => s.colour) : [paint];

/** What has a fill and a stroke. */
export interface Painted {
  readonly fill: Paint | null;
  readonly stroke: Stroke | null;
  /** What was taken off. */
  readonly aside?: { readonly fill?: Paint | undefined; readonly stroke?: Stroke | undefined } | undefined;
}

/** What something is painted with, and what it was painted with before that was taken off, each put through `change`. Only what changes is given. */
export function changedPaints(
  { fill, stroke, aside }: Painted,
  change: (paint: Paint) => Paint,
): { fill?: Paint; stroke?: Stroke; aside?: NonNullable<Painted['aside']> } {
  const out: ReturnType<typeof changedPaints> = {};
  const ofStroke = (was: Stroke): Stroke => {
    const paint = change(was.paint);
    return paint === was.paint ? was : { ...was, paint };
  };
  const filled = fill && change(fill);
  if (filled && filled !== fill) out.fill = filled;
  const stroked = stroke && ofStroke(stroke);
  if (stroked && stroked !== stroke) out.stroke = stroked;
  if (aside) {
    const kept = {
      ...(aside.fill && { fill: change(aside.fill) }),
      ...(aside.stroke && { stroke: ofStroke(aside.stroke) }),
    };
    if (kept.fill !== aside.fill || kept.stroke !== aside.stroke) out.aside = kept;
  }
  return out;
}

/** The chips that a fill and a stroke take their colours from, each as often as it is taken, those taken off too. */
export const chipsOf = ({ fill, stroke, aside }: Painted): string[] =>
  [fill, stroke?.paint, aside?.fill, aside?.stroke?.paint].flatMap((paint) =>
    paint ? coloursIn(paint).flatMap((c) => ('chip' in c ? [c.chip] : [])) : [],
  );

/** Hexes of chips by their ids. */
export type Palette = ReadonlyMap<string, string>;

const palettes = new WeakMap<object, Palette>();

/** The palette of a list of chips. */
export function paletteOf(chips: readonly { readonly id: string; readonly hex: string }[]): Palette {
  let palette = palettes.get(chips);
  if (!palette) palettes.set(chips, (palette = new Map(chips.map((c) => [c.id, c.hex]))));
  return palette;
}

/** The colour as it is seen. A chip that is not there is black, as a colour that is not given is in SVG. */
export const hexOf = (colour: Colour, palette: Palette): string =>
  'hex' in colour ? colour.hex : (palette.get(colour.chip) ?? '#000000');

/** The one colour of a paint, or null where it has several. */
export const flatHex = (paint: Paint | null, palette: Palette): string | null =>
  paint && !isGradient(paint) ? hexOf(paint, palette) : null;

/** A paint in figures: its chips looked up. */
export type SeenPaint =
  | { readonly kind: 'flat'; readonly hex: string }
  | {
      readonly kind: 'linear' | 'radial';
      readonly placement: Affine;
      readonly spread?: Gradient['spread'];
      readonly stops: readonly { readonly at: number; readonly hex: string; readonly opacity: number }[];
    };

/** The paint with its chips' colours looked up. */
export const seenPaint = (paint: Paint, palette: Palette): SeenPaint =>
  isGradient(paint)
    ? {
        kind: paint.kind,
        placement: paint.placement,
        ...(paint.spread && { spread: paint.spread }),
        stops: paint.stops.map(({ at, colour, opacity }) => ({ at, hex: hexOf(colour, palette), opacity })),
      }
    : { kind: 'flat', hex: hexOf(paint, palette) };

/** Where between 0 and 1 a gradient is that goes on by `spread`. */
function spreadOver(t: number, spread: Gradient['spread']): number {
  if (spread === 'repeat') return t - Math.floor(t);
  if (spread === 'reflect') return 1 - Math.abs((((t % 2) + 2) % 2) - 1);
  return t;
}

/**
 * The colour a paint has at a place on the sheet, without its opacity. Between stops the colours run over into each other
 * in sRGB, as SVG 2 has it (section 14.2.2, `color-interpolation`).
 */
export function hexAt(paint: SeenPaint, at: Point): string {
  if (paint.kind === 'flat') return paint.hex;
  const back = invert(paint.placement);
  const { x, y } = back ? apply(back, at) : { x: 0, y: 0 };
  const along = paint.kind === 'linear' ? x : Math.hypot(x, y);
  const t = spreadOver(along, paint.spread);
  const next = paint.stops.findIndex((s) => s.at > t);
  const [a, b] = [paint.stops.at(next < 0 ? -1 : Math.max(0, next - 1))!, paint.stops.at(next)!];
  const share = b.at > a.at ? Math.min(1, Math.max(0, (t - a.at) / (b.at - a.at))) : 0;
  const [from, to] = [parseHex(a.hex), parseHex(b.hex)];
  return formatHex([0, 1, 2].map((k) => from[k]! + (to[k]! - from[k]!) * share) as [number, number, number]);
}
