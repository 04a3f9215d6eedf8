import type { Light, SnapKind } from '@mirrot/core';

export const HABITS_KEY = 'mirrot-habits';

/** How someone likes to draw: it stays from one project and one day to the next. */
export interface HabitValues {
  /** A curved anchor's leaving handle shapes the next segment. */
  readonly carry: boolean;
  /** Plain clicks make flowing anchors. */
  readonly flowingClicks: boolean;
  /** Only straight segments are drawn: a drag moves the new anchor instead of pulling handles. */
  readonly straightOnly: boolean;
  /** Anchors that turn by more than this, in degrees, stay corners when the rest is made to flow. */
  readonly sharpest: number;
  /** How far the line may go when anchors are thinned out, screen pixels. */
  readonly thinWithin: number;
  /** Dragged handles keep their angle. */
  readonly angleLocked: boolean;
  /** How far to either side of a path the picture's edge is looked for, screen pixels. */
  readonly driftReach: number;
  /** Drift that counts as on the edge, picture pixels. */
  readonly driftWithin: number;
  /** Bumps of the edge shorter than this are ignored, picture pixels; 0 for none. */
  readonly driftDetail: number;
  /** Where a blurred edge counts as being: half way as it looks, or half way in light, its true size. */
  readonly driftLight: Light;
  /** What shapes above cover is measured too. */
  readonly driftCovered: boolean;
  /** Anchors that could go are marked on chosen paths. */
  readonly spareMarks: boolean;
  /** Whiskers stand on chosen paths. */
  readonly whiskers: boolean;
  /** Settle may move anchors, not only handles. */
  readonly settleAnchors: boolean;
  /** The next segment is offered on the picture's edge while blocking in. */
  readonly reach: boolean;
  /** Where the edge turns ahead is shown when the pointer rests. */
  readonly hints: boolean;
  /** Where one segment cannot hold the edge, several are offered at once. */
  readonly reachChain: boolean;
  /** How far from the edge one offered segment may lie, picture pixels. */
  readonly reachWithin: number;
  /** Share of the lightest and of the darkest pixels that Body tone leaves out, each. */
  readonly toneTrim: number;
  /** Sampled colours come to the nearest chip. */
  readonly keepToPalette: boolean;
  /** Colours that were given last, newest first, hex. */
  readonly recentColours: readonly string[];
  /** How far apart fills may be to count as one when shapes are chosen by their fill, ΔE. */
  readonly fillWithin: number;
  /** Neighbours never get the same colour when a range is dealt. */
  readonly dealApart: boolean;
  /** Gaps between ends of lines that Pour bridges, sheet pixels. */
  readonly pourGap: number;
  /** What is poured keeps up with the lines it lies between. */
  readonly pourKeeps: boolean;
  readonly snapOn: boolean;
  readonly snap: Readonly<Record<SnapKind, boolean>>;
  /** Width of the tracing ink of the path in hand, screen pixels; finished ones are thinner. */
  readonly inkWidth: number;
  /** Paths are single strokes of a pen this wide, sheet pixels. */
  readonly pen: boolean;
  readonly penWidth: number;
  /** The chosen shapes are filled see-through while they are shaped. */
  readonly haze: boolean;
  /** Teeth along the chosen paths, as long as they bend. */
  readonly comb: boolean;
  /** The real weight of strokes shows round the ink. */
  readonly trueStroke: boolean;
  readonly loupe: boolean;
  readonly rulers: boolean;
  readonly stackOpen: boolean;
  readonly eyeOpen: boolean;
  /** What Symmetric again goes by: the axis that is set, the drawing's own middle line, its own centre. */
  readonly evenAbout: 'axis' | 'middle' | 'centre';
}

/** The habits of someone who has not changed any. */
export const FIRST_HABITS: HabitValues = {
  carry: true,
  flowingClicks: false,
  straightOnly: false,
  sharpest: 70,
  thinWithin: 1,
  angleLocked: false,
  driftReach: 16,
  driftWithin: 1,
  driftDetail: 0,
  driftCovered: false,
  driftLight: 'looks',
  spareMarks: true,
  whiskers: true,
  settleAnchors: true,
  reach: true,
  hints: true,
  reachChain: true,
  reachWithin: 0.6,
  toneTrim: 0.2,
  keepToPalette: false,
  recentColours: [],
  fillWithin: 0,
  dealApart: true,
  pourGap: 2,
  pourKeeps: true,
  snapOn: true,
  snap: {
    anchors: true,
    segments: true,
    crossings: true,
    guides: true,
    lines: true,
    sheet: true,
    edge: false,
    grid: true,
  },
  inkWidth: 2,
  pen: false,
  penWidth: (0.8 * 96) / 25.4,
  haze: false,
  comb: false,
  trueStroke: false,
  loupe: true,
  rulers: true,
  stackOpen: true,
  eyeOpen: true,
  evenAbout: 'middle',
};

export type Store = Pick<Storage, 'getItem' | 'setItem'>;

export interface Habits extends Readonly<HabitValues> {
  set(values: Partial<HabitValues>): void;
  setSnap(kind: SnapKind, on: boolean): void;
}

/** Habits that are kept in a store, the browser's when none is given. */
export function createHabits(
  remembered: HabitValues = FIRST_HABITS,
  store: Store | undefined = globalThis.localStorage,
): Habits {
  const values = $state({ ...remembered });
  const set = (changed: Partial<HabitValues>): void => {
    Object.assign(values, changed);
    try {
      store?.setItem(HABITS_KEY, JSON.stringify(values));
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
