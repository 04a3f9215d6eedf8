import { formatLength, type Finding, type FindingKind, type Unit } from '@mirrot/core';

const times = (n: number): string => `${n} ${n === 1 ? 'time' : 'times'}`;

/** What each kind of finding is called, and how its amount is told. Lengths in the sheet's unit. */
export const FINDING_WORDS: Readonly<
  Record<FindingKind, readonly [title: string, amount: (finding: Finding, unit: Unit) => string]>
> = {
  'open-fill': ['Filled, left open', (f, unit) => `${formatLength(f.amount, unit)} apart`],
  'near-ends': ['Ends that nearly meet', (f, unit) => `${formatLength(f.amount, unit)} apart`],
  'pokes-out': ['Ends and tips that poke out', (f, unit) => `by ${formatLength(f.amount, unit)}`],
  gap: ['Gaps between neighbours', (f, unit) => `${formatLength(f.amount, unit)} wide`],
  kink: ['Kinks', (f) => `${f.amount.toFixed(1)}° out of line`],
  'long-handle': ['Handles longer than their segment', (f) => `${f.amount.toFixed(1)} times as long`],
  'crossed-handles': ['Handles that cross', () => 'across each other'],
  'missing-anchor': [
    'Turns without an anchor',
    (f, unit) => `${formatLength(f.amount, unit)} to either side`,
  ],
  'spare-anchor': ['Spare anchors', (f) => `${f.amount} can go`],
  'self-crossing': ['Outlines that cross themselves', (f) => times(f.amount)],
  doubled: ['Lines drawn twice', (f, unit) => `for ${formatLength(f.amount, unit)}`],
  crowded: ['Too many anchors for a machine', (f) => `${Math.round(f.amount)} to the cm`],
  tiny: ['Crumbs', (f, unit) => `${formatLength(f.amount, unit)} across`],
  sliver: ['Slivers', (f, unit) => `${formatLength(f.amount, unit)} wide`],
  hidden: ['Wholly beneath another', () => 'nothing of it is seen'],
  'ground-patch': ['Painted like the ground, not open', () => 'a hole instead'],
  'off-sheet': ['Off the sheet', (f, unit) => `${formatLength(f.amount, unit)} away`],
  'near-colours': ['Chips that look alike', (f) => `ΔE ${f.amount.toFixed(2)}`],
  'off-palette': ['Fills that are no chip', () => 'of no chip'],
  'near-weights': ['Weights nearly alike', (f, unit) => `others have ${formatLength(f.amount, unit)}`],
  'near-level': ['Nearly level or upright', (f) => `${f.amount.toFixed(1)}° off`],
  drifted: ['Off the picture’s edge', (f) => `by ${f.amount.toFixed(1)} px`],
  uncovered: ['Picture left uncovered', (f) => `${(100 * f.amount).toFixed(2)} % of it`],
  'picture-shown': ['Pictures that will be in the file', () => 'shown whole'],
};
