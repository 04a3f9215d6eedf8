import { z } from 'zod';
import { GRADIENT_SPREADS, MOST_BLUR, MOST_STOPS, STROKE_ENDS, STROKE_JOINS } from './paint-kinds';
import { coordinate, extent, hex, id, length, placementSchema, share } from './scalars';

// What the document holds of colours, gradients and strokes.

/** A colour of its own, or one of the palette's chips: recoloured with it. */
export const colourSchema = z.union([z.strictObject({ hex }), z.strictObject({ chip: id })]);

export const stopSchema = z.strictObject({ at: share, colour: colourSchema, opacity: share });

/**
 * Colours that run over into each other. Linear: along the x axis from 0 to 1. Radial: from the origin to the unit
 * circle. `placement` takes that plane to sheet pixels, so that a gradient goes along with every map of its shape,
 * shears too. Before the first stop and after the last it goes on as `spread` says; left out, with their colours.
 */
export const gradientSchema = z.strictObject({
  kind: z.enum(['linear', 'radial']),
  placement: placementSchema,
  spread: z.enum(GRADIENT_SPREADS).exclude(['pad']).optional(),
  stops: z
    .array(stopSchema)
    .min(2)
    .max(MOST_STOPS)
    .refine(
      (stops) => stops.every((s, i) => i === 0 || stops[i - 1]!.at <= s.at),
      'The stops of a gradient follow one another.',
    ),
});

export const paintSchema = z.union([...colourSchema.options, gradientSchema]);

/** Widest stroke, sheet pixels. */
const WIDEST_STROKE = 10_000;

export const strokeSchema = z.strictObject({
  paint: paintSchema,
  width: length.max(WIDEST_STROKE),
  ends: z.enum(STROKE_ENDS),
  joins: z.enum(STROKE_JOINS),
  /** A corner whose tip would lie farther than this many half widths away is cut off. */
  miterLimit: z.number().min(1).max(1000),
  /** Lengths of dashes and gaps in turn, sheet pixels; none for a whole line. */
  dash: z.array(length).max(32),
  /** How far into the dashes it begins, sheet pixels; left out, at their start. */
  dashOffset: coordinate.optional(),
  /** It is painted beneath the fill, so that only its outer half shows. */
  under: z.literal(true).optional(),
});

/** A soft shadow beneath what is painted: how far it is moved, its blur (standard deviation of a Gaussian), sheet pixels. */
export const shadowSchema = z.strictObject({
  x: coordinate,
  y: coordinate,
  blur: extent.max(MOST_BLUR),
  hex,
  opacity: share,
});
