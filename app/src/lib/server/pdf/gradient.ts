import { apply, invert, type Box, type SeenPaint } from '@mirrot/core';
import type { Pdf } from './group';

type SeenGradient = Exclude<SeenPaint, { readonly kind: 'flat' }>;

/** What pdfkit's gradients can do and its types do not name. */
interface Placed {
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
}

/** How near two stops may stand: a PDF's have to follow one another. */
const STEP = 1e-4;
/** A gradient that goes on is written out so often at most. */
const MOST_TIMES = 40;

interface At {
  readonly at: number;
  readonly hex: string;
  readonly opacity: number;
}

/** Stops from 0 to 1 that rise, with one at either end. */
function wholeStops(stops: readonly At[]): At[] {
  const rising = stops.map((stop, i) => ({ ...stop, at: Math.min(1, stop.at + i * STEP) }));
  const [first, last] = [rising[0]!, rising.at(-1)!];
  const all = [...(first.at > 0 ? [{ ...first, at: 0 }] : []), ...rising, ...(last.at < 1 ? [{ ...last, at: 1 }] : [])]; // prettier-ignore
  return all.filter((stop, i) => i === all.length - 1 || stop.at < all[i + 1]!.at);
}

/** How far a gradient has to go to fill a box, in its own lengths. */
function reach({ kind, placement }: SeenGradient, box: Box): readonly [from: number, to: number] {
  const back = invert(placement);
  if (!back) return [0, 1];
  const corners = [[box.x0, box.y0], [box.x1, box.y0], [box.x1, box.y1], [box.x0, box.y1]].map(([x, y]) => apply(back, { x: x!, y: y! })); // prettier-ignore
  const along = corners.map((p) => (kind === 'linear' ? p.x : Math.hypot(p.x, p.y)));
  const from = kind === 'linear' ? Math.floor(Math.min(0, ...along)) : 0;
  const to = Math.ceil(Math.max(1, ...along));
  return to - from > MOST_TIMES ? [0, 1] : [from, to];
}

/**
 * A gradient as pdfkit fills with it. One that goes on back and forth, or again and again, is written out as far as the box it
 * fills: PDF's own only go on with the colours of their ends.
 */
export function pdfGradient(pdf: Pdf, paint: SeenGradient, box: Box): PDFKit.Mixins.ColorValue {
  const stops = wholeStops(paint.stops);
  const [from, to] = paint.spread ? reach(paint, box) : [0, 1];
  const long = to - from;
  const all: At[] = Array.from({ length: long }, (_, k) => {
    const turned = paint.spread === 'reflect' && (from + k) % 2 !== 0;
    const own = turned ? stops.map((s) => ({ ...s, at: 1 - s.at })).reverse() : stops;
    return own.map((s, i) => ({ ...s, at: (k + Math.max(i === 0 && k > 0 ? STEP : 0, s.at)) / long }));
  }).flat();
  const gradient =
    paint.kind === 'linear' ? pdf.linearGradient(from, 0, to, 0) : pdf.radialGradient(0, 0, 0, 0, 0, to);
  for (const { at, hex, opacity } of all) gradient.stop(at, hex, opacity);
  const [a, b, c, d, e, f] = paint.placement;
  (gradient as unknown as Placed).setTransform(a, b, c, d, e, f);
  return gradient as unknown as PDFKit.Mixins.ColorValue;
}
