import { SNAP_KINDS, type SnapKind } from '@mirrot/core';
import * as z from 'zod/mini';

const KEY = 'mirrot-habits';

/** How someone likes to draw: it stays from one project and one day to the next. Whatever cannot be read is as at first. */
const habitsSchema = z.object({
  /** A curved anchor's leaving handle shapes the next segment. */
  carry: z.catch(z.boolean(), true),
  /** Plain clicks make flowing anchors. */
  flowingClicks: z.catch(z.boolean(), false),
  /** Only straight segments are drawn: a drag moves the new anchor instead of pulling handles. */
  straightOnly: z.catch(z.boolean(), false),
  /** Anchors that turn by more than this, in degrees, stay corners when the rest is made to flow. */
  sharpest: z.catch(z.number().check(z.minimum(5), z.maximum(175)), 70),
  /** How far the line may go when anchors are thinned out, screen pixels. */
  thinWithin: z.catch(z.number().check(z.minimum(0.1), z.maximum(10)), 1),
  /** Dragged handles keep their angle. */
  angleLocked: z.catch(z.boolean(), false),
  /** How far to either side of a path the picture's edge is looked for, screen pixels. */
  driftReach: z.catch(z.number().check(z.minimum(6), z.maximum(60)), 16),
  /** Drift that counts as on the edge, picture pixels. */
  driftWithin: z.catch(z.number().check(z.minimum(0.1), z.maximum(10)), 1),
  /** Bumps of the edge shorter than this are ignored, picture pixels; 0 for none. */
  driftDetail: z.catch(z.number().check(z.minimum(0), z.maximum(60)), 0),
  /** Anchors that could go are marked on chosen paths. */
  spareMarks: z.catch(z.boolean(), true),
  /** Whiskers stand on chosen paths. */
  whiskers: z.catch(z.boolean(), true),
  /** Settle may move anchors, not only handles. */
  settleAnchors: z.catch(z.boolean(), true),
  /** The next segment is offered on the picture's edge while blocking in. */
  reach: z.catch(z.boolean(), true),
  /** Where the edge turns ahead is shown when the pointer rests. */
  hints: z.catch(z.boolean(), true),
  /** How far from the edge one offered segment may lie, picture pixels. */
  reachWithin: z.catch(z.number().check(z.minimum(0.2), z.maximum(10)), 0.6),
  /** Share of the lightest and of the darkest pixels that Body tone leaves out, each. */
  toneTrim: z.catch(z.number().check(z.minimum(0), z.maximum(0.45)), 0.2),
  /** Sampled colours come to the nearest chip. */
  keepToPalette: z.catch(z.boolean(), false),
  /** Colours that were given last, newest first, hex. */
  recentColours: z.catch(z.array(z.string().check(z.regex(/^#[0-9a-f]{6}$/))), []),
  /** How far apart fills may be to count as one when shapes are chosen by their fill, ΔE. */
  fillWithin: z.catch(z.number().check(z.minimum(0), z.maximum(30)), 0),
  /** Neighbours never get the same colour when a range is dealt. */
  dealApart: z.catch(z.boolean(), true),
  /** Gaps between ends of lines that Pour bridges, sheet pixels. */
  pourGap: z.catch(z.number().check(z.minimum(0), z.maximum(1000)), 2),
  /** What is poured keeps up with the lines it lies between. */
  pourKeeps: z.catch(z.boolean(), true),
  snapOn: z.catch(z.boolean(), true),
  snap: z.catch(z.record(z.enum(SNAP_KINDS), z.boolean()), {
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
  inkWidth: z.catch(z.number().check(z.minimum(1), z.maximum(3)), 2),
  /** Paths are single strokes of a pen this wide, sheet pixels. */
  pen: z.catch(z.boolean(), false),
  penWidth: z.catch(z.number().check(z.minimum(0.1), z.maximum(1000)), (0.8 * 96) / 25.4),
  /** The chosen shapes are filled see-through while they are shaped. */
  haze: z.catch(z.boolean(), false),
  /** Teeth along the chosen paths, as long as they bend. */
  comb: z.catch(z.boolean(), false),
  /** The real weight of strokes shows round the ink. */
  trueStroke: z.catch(z.boolean(), false),
  loupe: z.catch(z.boolean(), true),
  rulers: z.catch(z.boolean(), true),
  stackOpen: z.catch(z.boolean(), true),
  eyeOpen: z.catch(z.boolean(), true),
  /** What Symmetric again goes by: the axis that is set, the drawing's own middle line, its own centre. */
  evenAbout: z.catch(z.enum(['axis', 'middle', 'centre']), 'middle'),
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
