import { z } from 'zod';
import { pictureSchema } from '../art/schema';
import type { DeepReadonly } from '../art/scalars';
import { parsePathData } from '../path/data';
import { exerciseSchema } from './exercise';
import { scoreSchema, type Score } from './score';

/** A day and more: no time at work is longer. */
const LONGEST_WORK_SECONDS = 100_000;
/** What an attempt cost its hand. */
export const effortSchema = z.strictObject({
  /** Time at work, pauses left out. */
  seconds: z.number().min(0).max(LONGEST_WORK_SECONDS),
  presses: z.number().int().min(0).max(1_000_000),
});
export type Effort = DeepReadonly<z.infer<typeof effortSchema>>;

/** Nothing heard for longer is a pause: so much of it counts as work, seconds (common practice, no source). */
export const LONGEST_GAP_SECONDS = 30;

/** So much of a gap between two moments of work counts, seconds; a clock that jumped back, or is none, counts nothing. */
export const workIn = (gapSeconds: number): number =>
  Number.isNaN(gapSeconds) ? 0 : Math.max(0, Math.min(LONGEST_GAP_SECONDS, gapSeconds));

/** Characters of an attempt's lines, at most: tens of thousands of anchors. */
const LONGEST_LINES = 2_000_000;
const isPathData = (text: string): boolean => {
  try {
    parsePathData(text, (n) => `a${n}`);
    return true;
  } catch {
    return false;
  }
};

/** What was handed in once. */
export const attemptSchema = effortSchema.extend({
  /** ISO 8601, UTC. */
  createdAt: z.iso.datetime(),
  /** The drawing's revision when it was handed in; null where that was not kept. */
  revision: z.number().int().nonnegative().nullable(),
  score: scoreSchema,
  /** What was drawn, pixels of the picture: SVG path data. */
  lines: z.string().max(LONGEST_LINES).refine(isPathData, 'An attempt’s lines are no path data.'),
});
export type KeptAttempt = DeepReadonly<z.infer<typeof attemptSchema>>;

/** Attempts that go along with one project, at most. */
export const MOST_ATTEMPTS = 500;

/** The exercise that is practised in a project, and what was handed in of it there. */
export const practisedSchema = z.strictObject({
  exercise: exerciseSchema,
  /** The picture that it is done on, as it was placed when it was begun. */
  picture: pictureSchema,
  /** Oldest first. */
  attempts: z.array(attemptSchema).max(MOST_ATTEMPTS),
});
export type Practised = DeepReadonly<z.infer<typeof practisedSchema>>;

/** A drawing of which less than this has no line near it counts as drawn as a whole, a share of its length. */
export const WHOLE = 0.98;

/** The nearest of some attempts: of those that drew the whole, if any did, the one with the least mean; null of none. */
export function bestAttempt<T extends { readonly score: Score }>(attempts: readonly T[]): T | null {
  const rank = ({ score }: T): number => Math.min(WHOLE, score.drawn);
  return attempts.reduce<T | null>((best, one) => {
    if (!best) return one;
    const ahead = rank(one) - rank(best);
    return ahead > 0 || (ahead === 0 && one.score.mean < best.score.mean) ? one : best;
  }, null);
}
