import { z } from 'zod';
import { FARTHEST_COORDINATE } from './limits';

// What the document's schemas are made of.

export const coordinate = z.number().min(-FARTHEST_COORDINATE).max(FARTHEST_COORDINATE);
/** A length that is not zero, sheet pixels. */
export const length = z.number().positive().max(FARTHEST_COORDINATE);
/** A length that may be zero, sheet pixels. */
export const extent = z.number().min(0).max(FARTHEST_COORDINATE);
/** Radians. */
export const angle = z.number().min(-7).max(7);
export const share = z.number().min(0).max(1);

export const id = z
  .string()
  .min(1)
  .max(64)
  .regex(/^[\w-]+$/);
export const hex = z.string().regex(/^#[0-9a-f]{6}$/);

export const pointSchema = z.strictObject({ x: coordinate, y: coordinate });

/** A map of the plane that can be undone. */
export const placementSchema = z
  .tuple([coordinate, coordinate, coordinate, coordinate, coordinate, coordinate])
  .refine(([a, b, c, d]) => a * d - b * c !== 0, 'A placement must not flatten what it places.');

export type DeepReadonly<T> = T extends object ? { readonly [K in keyof T]: DeepReadonly<T[K]> } : T;
