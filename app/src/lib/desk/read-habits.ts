import { SNAP_KINDS } from '@mirrot/core';
import * as z from 'zod/mini';
import { FIRST_HABITS, type HabitValues } from './habits.svelte';

/** Each habit by itself: whatever cannot be read is as at first. */
const habitsSchema = z.object({
  carry: z.catch(z.boolean(), FIRST_HABITS.carry),
  flowingClicks: z.catch(z.boolean(), FIRST_HABITS.flowingClicks),
  straightOnly: z.catch(z.boolean(), FIRST_HABITS.straightOnly),
  sharpest: z.catch(z.number().check(z.minimum(5), z.maximum(175)), FIRST_HABITS.sharpest),
  thinWithin: z.catch(z.number().check(z.minimum(0.1), z.maximum(10)), FIRST_HABITS.thinWithin),
  angleLocked: z.catch(z.boolean(), FIRST_HABITS.angleLocked),
  driftReach: z.catch(z.number().check(z.minimum(6), z.maximum(60)), FIRST_HABITS.driftReach),
  driftWithin: z.catch(z.number().check(z.minimum(0.1), z.maximum(10)), FIRST_HABITS.driftWithin),
  driftLight: z.catch(z.enum(['looks', 'true']), FIRST_HABITS.driftLight),
  driftCovered: z.catch(z.boolean(), FIRST_HABITS.driftCovered),
  driftDetail: z.catch(z.number().check(z.minimum(0), z.maximum(60)), FIRST_HABITS.driftDetail),
  spareMarks: z.catch(z.boolean(), FIRST_HABITS.spareMarks),
  whiskers: z.catch(z.boolean(), FIRST_HABITS.whiskers),
  settleAnchors: z.catch(z.boolean(), FIRST_HABITS.settleAnchors),
  reach: z.catch(z.boolean(), FIRST_HABITS.reach),
  hints: z.catch(z.boolean(), FIRST_HABITS.hints),
  reachChain: z.catch(z.boolean(), FIRST_HABITS.reachChain),
  reachWithin: z.catch(z.number().check(z.minimum(0.2), z.maximum(10)), FIRST_HABITS.reachWithin),
  toneTrim: z.catch(z.number().check(z.minimum(0), z.maximum(0.45)), FIRST_HABITS.toneTrim),
  keepToPalette: z.catch(z.boolean(), FIRST_HABITS.keepToPalette),
  recentColours: z.catch(z.array(z.string().check(z.regex(/^#[0-9a-f]{6}$/))), []),
  fillWithin: z.catch(z.number().check(z.minimum(0), z.maximum(30)), FIRST_HABITS.fillWithin),
  dealApart: z.catch(z.boolean(), FIRST_HABITS.dealApart),
  pourGap: z.catch(z.number().check(z.minimum(0), z.maximum(1000)), FIRST_HABITS.pourGap),
  pourKeeps: z.catch(z.boolean(), FIRST_HABITS.pourKeeps),
  snapOn: z.catch(z.boolean(), FIRST_HABITS.snapOn),
  snap: z.catch(z.record(z.enum(SNAP_KINDS), z.boolean()), FIRST_HABITS.snap),
  inkWidth: z.catch(z.number().check(z.minimum(1), z.maximum(3)), FIRST_HABITS.inkWidth),
  pen: z.catch(z.boolean(), FIRST_HABITS.pen),
  penWidth: z.catch(z.number().check(z.minimum(0.1), z.maximum(1000)), FIRST_HABITS.penWidth),
  haze: z.catch(z.boolean(), FIRST_HABITS.haze),
  comb: z.catch(z.boolean(), FIRST_HABITS.comb),
  trueStroke: z.catch(z.boolean(), FIRST_HABITS.trueStroke),
  loupe: z.catch(z.boolean(), FIRST_HABITS.loupe),
  rulers: z.catch(z.boolean(), FIRST_HABITS.rulers),
  stackOpen: z.catch(z.boolean(), FIRST_HABITS.stackOpen),
  eyeOpen: z.catch(z.boolean(), FIRST_HABITS.eyeOpen),
  evenAbout: z.catch(z.enum(['axis', 'middle', 'centre']), FIRST_HABITS.evenAbout),
});

/** Habits out of the text they are kept as. */
export function readHabits(text: string): HabitValues {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    value = {};
  }
  const read = habitsSchema.safeParse(value);
  return read.success ? read.data : FIRST_HABITS;
}
