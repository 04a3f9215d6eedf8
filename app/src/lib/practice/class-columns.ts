import { bestAttempt, type KeptAttempt } from '@mirrot/core';
import type { HandedIn } from './class.svelte';
import { percent, px, time } from './words';

// What the class's table tells of each row, and how it sorts and is written.

/** Which of a row's attempts is told of. */
export type Told = 'last' | 'nearest';

export const attemptOf = ({ entry }: Pick<HandedIn, 'entry'>, told: Told): KeptAttempt | null => {
  const attempts = entry?.attempts ?? [];
  return (told === 'last' ? attempts.at(-1) : bestAttempt(attempts)) ?? null;
};

type Value = string | number | null;
export interface Column {
  readonly key: string;
  /** Over the column on the page, and in a file, where the unit is said. */
  readonly title: string;
  readonly inFile: string;
  /** What it sorts by and what is written to a file; null where there is nothing. */
  value(row: HandedIn, attempt: KeptAttempt | null): Value;
  /** How that is told on the page. */
  tell(value: Value, attempt: KeptAttempt | null): string;
}

const measure = (
  key: string,
  title: string,
  inFile: string,
  of: (attempt: KeptAttempt) => number | null,
  tell: (value: number, attempt: KeptAttempt) => string,
): Column => ({
  key,
  title,
  inFile,
  value: (_, attempt) => attempt && of(attempt),
  tell: (value, attempt) => (typeof value === 'number' && attempt ? tell(value, attempt) : ''),
});
const text = (key: string, title: string, value: (row: HandedIn) => string | null): Column => ({
  key,
  title,
  inFile: title,
  value,
  tell: (v) => String(v ?? ''),
});
/** To three places after the point: as far as lines are written. */
const rounded = (v: number | null): number | null => (v === null ? null : Number(v.toFixed(3)));

export const COLUMNS: readonly Column[] = [
  text('file', 'file', ({ name }) => name),
  text('exercise', 'exercise', ({ entry }) => entry?.exercise ?? null),
  { ...text('tries', 'tries', () => null), value: ({ entry }) => entry?.attempts.length ?? null },
  measure('mean', 'mean', 'mean distance, px', ({ score }) => rounded(score.mean), px),
  measure('p95', '95 %', '95 % within, px', ({ score }) => rounded(score.p95), px),
  measure('worst', 'farthest', 'farthest, px', ({ score }) => rounded(score.worst?.distance ?? null), px),
  measure('drawn', 'near a line', 'near a line, share', ({ score }) => rounded(score.drawn), percent),
  measure('anchors', 'anchors', 'anchors', ({ score }) => score.anchors, (v, { score }) => `${v} / ${score.own}`),
  measure('seconds', 'time', 'time at work, s', ({ seconds }) => Math.round(seconds), time),
  measure('presses', 'presses', 'presses', ({ presses }) => presses, String),
]; // prettier-ignore

const OWN_ANCHORS = measure('own', 'original', 'anchors of the original', ({ score }) => score.own, String);
const HANDED_IN: Column = {
  ...text('when', 'handed in', () => null),
  value: (_, attempt) => attempt?.createdAt ?? null,
};
const TROUBLE = text('trouble', 'remark', ({ trouble }) => trouble);

export interface Order {
  readonly key: string;
  readonly up: boolean;
}

const collator = new Intl.Collator(undefined, { numeric: true });
const compare = (a: string | number, b: string | number): number =>
  typeof a === 'number' && typeof b === 'number' ? a - b : collator.compare(String(a), String(b));

/** Rows in an order; what has no value stands last either way, and equal ones as they were put in. */
export function inOrder(rows: readonly HandedIn[], { key, up }: Order, told: Told): HandedIn[] {
  const column = COLUMNS.find((c) => c.key === key) ?? COLUMNS[0]!;
  const keyed = rows.map((row) => ({ row, value: column.value(row, attemptOf(row, told)) }));
  return keyed
    .sort((a, b) => {
      if (a.value === null || b.value === null) return Number(a.value === null) - Number(b.value === null);
      return up ? compare(a.value, b.value) : compare(b.value, a.value);
    })
    .map(({ row }) => row);
}

/** What a spreadsheet takes for a formula, also over several lines (OWASP, CSV injection). */
const WORKED_OUT = /^[=+\-@\t\r]/;

/** The table as CSV (RFC 4180), its order kept: text that a spreadsheet would work out is written as text. */
export async function classCsv(rows: readonly HandedIn[], told: Told): Promise<string> {
  const { default: Papa } = await import('papaparse');
  const columns = [...COLUMNS, OWN_ANCHORS, HANDED_IN, TROUBLE];
  return Papa.unparse(
    {
      fields: columns.map(({ inFile }) => inFile),
      data: rows.map((row) => columns.map((c) => c.value(row, attemptOf(row, told)) ?? '')),
    },
    { escapeFormulae: WORKED_OUT },
  );
}
