import type { Score } from '@mirrot/core';

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
