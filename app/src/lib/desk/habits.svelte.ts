import { SNAP_KINDS, type SnapKind } from '@mirrot/core';
import { z } from 'zod';

const KEY = 'mirrot-habits';

/** How someone likes to draw: it stays from one project and one day to the next. Whatever cannot be read is as at first. */
const habitsSchema = z.object({
  /** A curved anchor's leaving handle shapes the next segment. */
  carry: z.boolean().catch(true),
  /** Plain clicks make flowing anchors. */
  flowingClicks: z.boolean().catch(false),
  /** Only straight segments are drawn: a drag moves the new anchor instead of pulling handles. */
  straightOnly: z.boolean().catch(false),
  /** Anchors that turn by more than this, in degrees, stay corners when the rest is made to flow. */
  sharpest: z.number().min(5).max(175).catch(70),
  /** How far the line may go when anchors are thinned out, screen pixels. */
  thinWithin: z.number().min(0.1).max(10).catch(1),
  /** Dragged handles keep their angle. */
  angleLocked: z.boolean().catch(false),
  /** How far to either side of a path the picture's edge is looked for, screen pixels. */
  driftReach: z.number().min(6).max(60).catch(16),
  /** Drift that counts as on the edge, picture pixels. */
  driftWithin: z.number().min(0.1).max(10).catch(1),
  /** Bumps of the edge shorter than this are ignored, picture pixels; 0 for none. */
  driftDetail: z.number().min(0).max(60).catch(0),
  /** Anchors that could go are marked on chosen paths. */
  spareMarks: z.boolean().catch(true),
  /** Whiskers stand on chosen paths. */
  whiskers: z.boolean().catch(true),
  /** Settle may move anchors, not only handles. */
  settleAnchors: z.boolean().catch(true),
  /** The next segment is offered on the picture's edge while blocking in. */
  reach: z.boolean().catch(true),
  /** Where the edge turns ahead is shown when the pointer rests. */
  hints: z.boolean().catch(true),
  /** How far from the edge one offered segment may lie, picture pixels. */
  reachWithin: z.number().min(0.2).max(10).catch(0.6),
  snapOn: z.boolean().catch(true),
  snap: z.record(z.enum(SNAP_KINDS), z.boolean()).catch({
    anchors: true,
    segments: true,
    crossings: true,
    guides: true,
    lines: true,
    sheet: true,
    edge: false,
    grid: true,
  }),
  /** Width of the tracing ink of the path in hand, screen pixels; finished ones are thinner. */
  inkWidth: z.number().min(1).max(3).catch(2),
  /** Paths are single strokes of a pen this wide, sheet pixels. */
  pen: z.boolean().catch(false),
  penWidth: z
    .number()
    .min(0.1)
    .max(1000)
    .catch((0.8 * 96) / 25.4),
  /** The chosen shapes are filled see-through while they are shaped. */
  haze: z.boolean().catch(false),
  /** Teeth along the chosen paths, as long as they bend. */
  comb: z.boolean().catch(false),
  /** The real weight of strokes shows round the ink. */
  trueStroke: z.boolean().catch(false),
  loupe: z.boolean().catch(true),
  rulers: z.boolean().catch(true),
  stackOpen: z.boolean().catch(true),
  eyeOpen: z.boolean().catch(true),
  /** What Symmetric again goes by: the axis that is set, the drawing's own middle line, its own centre. */
  evenAbout: z.enum(['axis', 'middle', 'centre']).catch('middle'),
});
type HabitValues = z.infer<typeof habitsSchema>;

export type Store = Pick<Storage, 'getItem' | 'setItem'>;

export interface Habits extends Readonly<HabitValues> {
  set(values: Partial<HabitValues>): void;
  setSnap(kind: SnapKind, on: boolean): void;
}

function remembered(store: Store | undefined): HabitValues {
  let value: unknown;
  try {
    value = JSON.parse(store?.getItem(KEY) ?? '{}');
  } catch {
    value = {};
  }
  const read = habitsSchema.safeParse(value);
  return read.success ? read.data : habitsSchema.parse({});
}

/** Habits kept in a store, the browser's when none is given. */
export function createHabits(store: Store | undefined = globalThis.localStorage): Habits {
  const values = $state(remembered(store));
  const set = (changed: Partial<HabitValues>): void => {
    Object.assign(values, changed);
    try {
      store?.setItem(KEY, JSON.stringify(values));
    } catch {
      // A full or closed store forgets; drawing goes on.
    }
  };
  return new Proxy({} as Habits, {
    get(_, name) {
      if (name === 'set') return set;
      if (name === 'setSnap')
        return (kind: SnapKind, on: boolean) => set({ snap: { ...values.snap, [kind]: on } });
      return values[name as keyof HabitValues];
    },
  });
}
