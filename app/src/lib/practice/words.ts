import type { AdviceCode, Score } from '@mirrot/core';

// A score in words.

export const px = (v: number): string => `${v < 10 ? v.toFixed(2) : v.toFixed(0)} px`;
export const percent = (share: number): string => `${Math.round(100 * share)} %`;
export function time(seconds: number): string {
  const whole = Math.round(seconds);
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)} min ${whole % 60} s`;
}

/** The ruled table on a packet's back: what is asked of an attempt, and how it is told. */
export const ROWS: readonly (readonly [what: string, tell: (score: Score) => string])[] = [
  ['mean distance', (s) => px(s.mean)],
  ['95 % within', (s) => px(s.p95)],
  ['farthest', (s) => (s.worst ? px(s.worst.distance) : '–')],
  ['near a line', (s) => percent(s.drawn)],
  ['anchors', (s) => `${s.anchors}, the original ${s.own}`],
];

/** Less than this of the outline may be missing, or lie astray, without a word. */
const LITTLE = 0.02;
/** As near as a hand comes at 400 %: common practice, no source. Pixels. */
const NEAR_PX = 0.5;
/** A place that is so many times as far off as 95 % of it stands out. */
const STANDS_OUT = 2.5;
/** More than a tenth beyond the original's anchors are too many. */
const TOO_MANY = 1.1;
/** A colour so far from the true one is seen beside it: CIEDE2000. */
const SEEN_DELTA_E = 3;

/** What would help most in the next try: the first that holds. */
const NEXT: readonly (readonly [when: (s: Score) => boolean, say: (s: Score) => string])[] = [
  [
    (s) => s.drawn < 1 - LITTLE,
    (s) => {
      const missing = s.shapes.filter((shape) => shape.drawn < 1 - LITTLE).sort((a, b) => a.drawn - b.drawn);
      return `${percent(1 - s.drawn)} of the outline has no line near it: ${missing[0]!.name} first.`;
    },
  ],
  [(s) => s.astray > LITTLE, (s) => `${percent(s.astray)} of your lines follow nothing of it. Take those away, or move them on.`],
  [
    (s) => s.worst !== null && s.worst.distance > Math.max(2 * NEAR_PX, STANDS_OUT * s.p95),
    (s) => `One place stands out, ${px(s.worst!.distance)} off: it is ringed in the picture. Shape that side alone.`,
  ],
  [
    (s) => s.mean > NEAR_PX,
    () => 'Zoom in to 400 % and pull each side until your line hides the edge; longer handles before more anchors.',
  ],
  [
    (s) => s.anchors > TOO_MANY * s.own,
    (s) => `Try it with ${s.own} anchors: take one away where the curve holds without it, and shape its neighbours.`,
  ],
  [
    (s) => s.shapes.some(({ deltaE }) => deltaE !== null && deltaE > SEEN_DELTA_E),
    (s) => {
      const off = s.shapes.toSorted((a, b) => (b.deltaE ?? 0) - (a.deltaE ?? 0))[0]!;
      return `The colour of ${off.name} is seen to be another one. Sample its middle value with Body tone.`;
    },
  ],
]; // prettier-ignore

export const whatNext = (score: Score): string =>
  NEXT.find(([when]) => when(score))?.[1](score) ??
  'As near as a hand comes, and with no anchor too many. Try it in less time, or go on to the next one.';

/** The figures explained, without a verdict. */
export function explained({ mean, p95, anchors, own }: Score): string {
  const near =
    mean < 1 ? 'less than a pixel of the picture' : `about ${mean.toFixed(0)} pixels of the picture`;
  const count =
    anchors === own
      ? 'as many anchors as the original has'
      : `${anchors} anchors where the original has ${own}`;
  return `On average your line lies ${px(mean)} from the true one: ${near}. Nineteen parts of twenty lie within ${px(p95)}, drawn with ${count}.`;
}

/** What the coach says: one quiet line, never where the truth lies. `n` is the anchor, or the one before the side. */
export const COACH: Readonly<Record<AdviceCode, (n: number) => string>> = {
  begin: () => 'Begin at a corner, if it has one; else where it bends most.',
  astray: () => 'The line drawn last follows nothing of the exercise.',
  twice: () => 'This outline is drawn twice: one of the two can go.',
  'side-by-side': (n) => `Anchors ${n} and ${n + 1} stand side by side: one of them is enough.`,
  'anchor-off': (n) => `Anchor ${n} stands beside the edge: move it on first, handles after.`,
  'corner-cut': (n) => `After anchor ${n} a corner is cut: it needs an anchor of its own.`,
  'corner-smooth': (n) => `The edge turns sharply at anchor ${n}: make it a corner.`,
  'corner-false': (n) => `The edge is smooth at anchor ${n}: bring its handles into one line.`,
  crossed: (n) => `After anchor ${n} a handle is longer than its side: shorten it first.`,
  'straight-bent': (n) => `The side after anchor ${n} is straight: it needs no handles.`,
  pull: (n) => `The side after anchor ${n} bends: pull it onto the edge.`,
  'bends-twice': (n) => `The side after anchor ${n} bends twice: one anchor at the turn, none between.`,
  'turns-far': (n) => `The side after anchor ${n} turns too far for one: an anchor half way round.`,
  'handle-turned': (n) => `After anchor ${n} a handle leaves the edge’s direction: turn it along the edge.`,
  'handles-short': (n) => `After anchor ${n} pull the handles longer, not the anchors.`,
  'handles-long': (n) => `After anchor ${n} the handles are too long: draw them in.`,
  spare: (n) => `Anchor ${n} can go: the curve holds without it.`,
  close: () => 'Its two ends nearly meet: close it.',
  'go-on': () => 'So far it lies well. Go on along the edge.',
  hole: () => 'This lies well. Its hole is an outline of its own.',
  next: () => 'This lies well. Another shape is still to be drawn.',
  colour: () => 'The lines lie well. Now the colours: sample a middle value for each.',
};
export const ALL_WELL = 'Nothing to say: hand it in.';
