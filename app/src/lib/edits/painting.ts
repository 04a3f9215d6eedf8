import {
  boxHeight,
  boxWidth,
  flatHex,
  formatHex,
  hexAt,
  hexOf,
  intoGamut,
  isGradient,
  nearestOf,
  oklabToOklch,
  oklabToRgb,
  oklchToOklab,
  paintShapes,
  parseHex,
  putOn,
  rgbToOklab,
  seenPaint,
  shapeBounds,
  takeOff,
  together,
  type Colour,
  type Gradient,
  type Paint,
  type PaintTarget,
  type Recipe,
  type Shape,
  type Stop,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';

// What fills and strokes are painted with: from the panel, a sample, a chip, and the gradient's string on the bed alike.

/** Stroke weight, in sheet pixels, that a shape gets with its first stroke colour. */
export const FIRST_WEIGHT = 2;
/** A shape's first fill where no chip is there, and its first stroke's colour. */
const FIRST_FILL = '#2f6b4f';
const FIRST_INK = '#2a2722';

export const paintOf = (shape: Shape | null, target: PaintTarget): Paint | null =>
  shape ? (target === 'fill' ? shape.fill : (shape.stroke?.paint ?? null)) : null;

/** What what receives colours is painted with now, or null. */
export function currentPaint(desk: Desk): Paint | null {
  const shape = desk.choosing.receivedShape;
  if (!shape) return desk.colouring.receiving === 'fill' ? desk.colouring.nextFill : null;
  return paintOf(shape, desk.colouring.receiving);
}

/** The gradient that what receives colours is painted with, or null. */
export function currentGradient(desk: Desk): Gradient | null {
  const paint = currentPaint(desk);
  return paint && isGradient(paint) ? paint : null;
}

/** The place of the stop that is chosen, in a gradient that may have fewer. */
export const stopAt = (desk: Desk, { stops }: Gradient): number =>
  Math.min(desk.colouring.stop, stops.length - 1);

/** The colour that fields show: of a gradient that of the chosen stop. */
export function currentColour(desk: Desk): Colour | null {
  const paint = currentPaint(desk);
  return paint && isGradient(paint) ? paint.stops[stopAt(desk, paint)]!.colour : paint;
}

/** The colour that fields show, as hex; null where there is none. */
export const currentHex = (desk: Desk): string | null => flatHex(currentColour(desk), desk.colouring.palette);

/** Paints what receives colours anew, each by what it is painted with. */
export function repaint(desk: Desk, change: (paint: Paint | null, shape: Shape) => Paint): Recipe {
  const { receiving } = desk.colouring;
  return together(
    ...desk.choosing.receivedShapes.map((shape) =>
      paintShapes([shape.id], receiving, change(paintOf(shape, receiving), shape), FIRST_WEIGHT),
    ),
  );
}

/** Gives a colour to what is painted: to the chosen stop of a gradient, to all of anything else. */
export const colourRecipe = (desk: Desk, colour: Colour): Recipe =>
  repaint(desk, (paint) => {
    if (!paint || !isGradient(paint)) return colour;
    const chosen = stopAt(desk, paint);
    return { ...paint, stops: paint.stops.map((stop, i) => (i === chosen ? { ...stop, colour } : stop)) };
  });

/** Recent colours that are kept, newest first. */
const MOST_RECENT = 12;

/** Notes a colour among those given last. */
export function remember(desk: Desk, colour: Colour): void {
  const hex = hexOf(colour, desk.colouring.palette);
  const { recentColours } = desk.habits;
  if (recentColours[0] === hex) return;
  desk.habits.set({ recentColours: [hex, ...recentColours.filter((h) => h !== hex)].slice(0, MOST_RECENT) });
}

/** Gives a colour to what receives colours now: chosen shapes, the path just drawn, or the next path. */
export function applyColour(desk: Desk, colour: Colour): void {
  const { receivers } = desk.choosing;
  const { receiving } = desk.colouring;
  remember(desk, colour);
  if (receivers.length > 0) desk.change(`Colour the ${receiving}`, colourRecipe(desk, colour));
  else if (receiving === 'fill') desk.colouring.nextFill = colour;
}

/** A colour as the palette has it, where it is kept to: the nearest chip, and how far off it is. */
export function keptToPalette(desk: Desk, hex: string): { readonly colour: Colour; readonly says: string } {
  const { chips } = desk.art;
  const nearest = desk.habits.keepToPalette && nearestOf(hex, chips.map((c) => c.hex)); // prettier-ignore
  if (!nearest) return { colour: { hex }, says: '' };
  const chip = chips[nearest.at]!;
  return {
    colour: { chip: chip.id },
    says: `${chip.name || chip.hex.toUpperCase()}, ΔE ${nearest.deltaE.toFixed(1)} from ${hex.toUpperCase()}`,
  };
}

/** Gives a sampled colour to what receives colours, by the palette where that is kept to. */
export function applySample(desk: Desk, colour: Colour): void {
  if ('chip' in colour) return applyColour(desk, colour);
  const kept = keptToPalette(desk, colour.hex);
  applyColour(desk, kept.colour);
  if (kept.says) desk.say(`Kept to the palette: ${kept.says}.`);
}

export type PaintKind = 'none' | 'flat' | Gradient['kind'];

export const kindOf = (paint: Paint | null): PaintKind =>
  paint === null ? 'none' : isGradient(paint) ? paint.kind : 'flat';

/** How much lighter the far end of a new gradient is, OKLab. */
const LIGHTER = 0.22;

/** A gradient over a shape, from a colour to a lighter one: across its box, or from its middle out. */
export function gradientOver(shape: Shape, kind: Gradient['kind'], colour: Colour, hex: string): Gradient {
  const box = shapeBounds(shape);
  const [w, h] = [Math.max(boxWidth(box), 1e-3), Math.max(boxHeight(box), 1e-3)];
  const [l, c, hue] = oklabToOklch(rgbToOklab(parseHex(hex)));
  const far = l > 1 - LIGHTER ? l - LIGHTER : l + LIGHTER;
  const other = formatHex(oklabToRgb(oklchToOklab(intoGamut([far, c, hue]))));
  const [x, y] = [box.x0 + w / 2, box.y0 + h / 2];
  const r = Math.hypot(w, h) / 2;
  return {
    kind,
    placement: kind === 'linear' ? [w, 0, 0, w, box.x0, y] : [r, 0, 0, r, x, y],
    stops: [
      { at: 0, colour, opacity: 1 },
      { at: 1, colour: { hex: other }, opacity: 1 },
    ],
  };
}

/** The same gradient of the other kind, about where it is. */
function otherKind(gradient: Gradient, kind: Gradient['kind']): Gradient {
  const [a, b, , , x, y] = gradient.placement;
  return { ...gradient, kind, placement: [a, b, -b, a, x, y] };
}

/** Paints what receives colours with none, a colour or a gradient. What is taken off comes back as it was. */
export function setKind(desk: Desk, kind: PaintKind): void {
  const { receivers } = desk.choosing;
  const { receiving, palette } = desk.colouring;
  if (kind === 'none')
    return void desk.change(`Take the ${receiving} off`, takeOff(receivers, receiving), { choice: desk.choice }); // prettier-ignore
  const [chip] = desk.art.chips;
  const first: Colour =
    receiving === 'stroke'
      ? { hex: FIRST_INK }
      : (desk.colouring.nextFill ?? (chip ? { chip: chip.id } : { hex: FIRST_FILL }));
  if (kind === 'flat' && currentPaint(desk) === null)
    return void desk.change(`Put the ${receiving} on`, putOn(receivers, receiving, first, FIRST_WEIGHT));
  desk.colouring.stop = 0;
  desk.change(
    kind === 'flat' ? `One colour for the ${receiving}` : `A ${kind} gradient`,
    repaint(desk, (paint, shape) => {
      if (kind === 'flat') return paint && isGradient(paint) ? paint.stops[0]!.colour : (paint ?? first);
      if (paint && isGradient(paint)) return paint.kind === kind ? paint : otherKind(paint, kind);
      // What was taken off gives its colour.
      const off = receiving === 'fill' ? shape.aside?.fill : shape.aside?.stroke?.paint;
      const colour = paint ?? (off && !isGradient(off) ? off : first);
      return gradientOver(shape, kind, colour, hexOf(colour, palette));
    }),
  );
}

/** Changes the gradients of what receives colours. */
export const gradientRecipe = (desk: Desk, change: (gradient: Gradient) => Gradient): Recipe => {
  const { receiving } = desk.colouring;
  const shapes = desk.choosing.receivedShapes;
  return together(
    ...shapes.flatMap((shape) => {
      const paint = paintOf(shape, receiving);
      return paint && isGradient(paint)
        ? [paintShapes([shape.id], receiving, change(paint), FIRST_WEIGHT)]
        : [];
    }),
  );
};

/** The stops in order, and where the one of a place in the list stands then. */
export function ordered(stops: readonly Stop[], of: number): { stops: Stop[]; at: number } {
  const sorted = stops.toSorted((a, b) => a.at - b.at);
  return { stops: sorted, at: sorted.indexOf(stops[of]!) };
}

/** A gradient with another stop, of the colour it has there. */
export function withStop(desk: Desk, gradient: Gradient, at: number): { gradient: Gradient; at: number } {
  const [a, b, , , x, y] = gradient.placement;
  const hex = hexAt(seenPaint(gradient, desk.colouring.palette), { x: x + a * at, y: y + b * at });
  const next = gradient.stops.find((s) => s.at >= at) ?? gradient.stops.at(-1)!;
  const sorted = ordered([...gradient.stops, { at, colour: { hex }, opacity: next.opacity }], gradient.stops.length); // prettier-ignore
  return { gradient: { ...gradient, stops: sorted.stops }, at: sorted.at };
}

/** A gradient without one of its stops; with two it stays as it is. */
export const withoutStop = (gradient: Gradient, at: number): Gradient =>
  gradient.stops.length <= 2 ? gradient : { ...gradient, stops: gradient.stops.filter((_, i) => i !== at) };
