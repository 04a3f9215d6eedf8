import { z } from 'zod';
import { MOST_STOPS, STROKE_ENDS, STROKE_JOINS } from './paint-kinds';
import { hex, id, length, placementSchema, share } from './scalars';

// What the document holds of colours, gradients and strokes.

/** A colour of its own, or one of the palette's chips: recoloured with it. */
export const colourSchema = z.union([z.strictObject({ hex }), z.strictObject({ chip: id })]);

export const stopSchema = z.strictObject({ at: share, colour: colourSchema, opacity: share });

/**
 * Colours that run over into each other. Linear: along the x axis from 0 to 1. Radial: from the origin to the unit
 * circle. `placement` takes that plane to sheet pixels, so that a gradient goes along with every map of its shape,
 * shears too. Before the first stop and after the last it goes on with their colours.
 */
export const gradientSchema = z.strictObject({
  kind: z.enum(['linear', 'radial']),
  placement: placementSchema,
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
});
