import { applyPatches, type Change } from './change';
import { artDifference } from './difference';
import type { Merge } from './merge';
import type { Patch } from './patch';
import type { Art } from './schema';

/** One step: what it is called, patches there and back, and what the desk was looking at before and after. */
export interface Step<Context> {
  readonly label: string;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
  readonly before: Context;
  readonly after: Context;
  /** The run of steps it belongs to, whose patches follow on each other. */
  readonly run: number;
}

/**
 * Steps done and steps taken back, newest last in both.
 *
 * Patches name places, so a step's fit only the drawing it was made on. When something else changed that drawing (another
 * tab, a step of an earlier run), the next step begins a new run. `runs` holds, for each run, the drawing as it would be
 * by its steps alone: a step whose run is no longer the drawing itself is moved there, and what that changes is merged.
 */
export interface History<Context> {
  readonly done: readonly Step<Context>[];
  readonly undone: readonly Step<Context>[];
  readonly runs: ReadonlyMap<number, Art>;
}

export const emptyHistory = <Context>(): History<Context> => ({ done: [], undone: [], runs: new Map() });

/** Runs that steps still belong to, with one of them moved on. */
function movedRun<Context>(
  runs: ReadonlyMap<number, Art>,
  run: number,
  art: Art,
  steps: readonly (readonly Step<Context>[])[],
): ReadonlyMap<number, Art> {
  const next = new Map(runs).set(run, art);
  if (next.size > 1) {
    const used = new Set(steps.flat().map((s) => s.run)).add(run);
    for (const key of next.keys()) if (!used.has(key)) next.delete(key);
  }
  return next;
}

/** The number of the run that goes on from this drawing, or of a new one. */
const runFrom = ({ runs, done }: History<unknown>, art: Art): number => {
  const last = done.at(-1);
  return last && runs.get(last.run) === art ? last.run : Math.max(-1, ...runs.keys()) + 1;
};

/** The drawings before and after a change, with its patches. */
export interface MadeOn extends Pick<Change, 'patches' | 'inverse' | 'art'> {
  readonly from: Art;
}

/** Adds a step; what had been taken back is gone. */
export function record<Context>(
  history: History<Context>,
  label: string,
  { from, art, patches, inverse }: MadeOn,
  before: Context,
  after: Context,
): History<Context> {
  const run = runFrom(history, from);
  const done = [...history.done, { label, patches, inverse, before, after, run }];
  return { done, undone: [], runs: movedRun(history.runs, run, art, [done]) };
}

/** Whether a change on this drawing can be more of the newest step. */
export const canExtend = ({ runs, done }: History<unknown>, from: Art): boolean =>
  done.length > 0 && runs.get(done.at(-1)!.run) === from;

/** Adds a change to the newest step: what follows at once, like nudge on nudge, is one step. */
export function extend<Context>(
  history: History<Context>,
  { art, patches, inverse }: MadeOn,
  after: Context,
): History<Context> {
  const last = history.done.at(-1)!;
  const step: Step<Context> = {
    ...last,
    patches: [...last.patches, ...patches],
    inverse: [...inverse, ...last.inverse],
    after,
  };
  const done = [...history.done.slice(0, -1), step];
  return { done, undone: [], runs: movedRun(history.runs, last.run, art, [done]) };
}

/** What a step says of itself in the journal. */
type Told<Context> = Omit<Step<Context>, 'patches' | 'run'>;

/**
 * What a change was to the history, kept beside its patches so that the steps can be found again: a new step, more of the
 * newest one, a step taken back or done again. A step done again says all there is to say, as a new one does.
 */
export type Note<Context> =
  ({ readonly did: 'step' | 'more' | 'redo' } & Told<Context>) | { readonly did: 'undo' };

/** A change with what it was to the history; null for one that came from elsewhere. */
export interface Noted<Context> {
  readonly patches: readonly Patch[];
  readonly note: Note<Context> | null;
}

/**
 * The history that a run of changes leaves, oldest first. Nothing before a change from elsewhere can be taken back, and
 * nothing before the run; what a run that begins in the middle takes back of that is left out.
 *
 * @param art the drawing after the last change
 */
export function recall<Context>(changes: readonly Noted<Context>[], art: Art): History<Context> {
  let done: Step<Context>[] = [];
  let undone: Step<Context>[] = [];
  for (const { patches, note } of changes) {
    const last = done.at(-1);
    if (!note || ((note.did === 'undo' || note.did === 'more') && !last)) {
      // The end of a step whose beginning is not known cannot be taken back by itself.
      [done, undone] = [[], []];
    } else if (note.did === 'undo') {
      done.pop();
      undone.push(last!);
    } else {
      const { did, label, inverse, before, after } = note;
      const step = { label, patches, inverse, before, after, run: 0 };
      if (did === 'redo') undone.pop();
      else undone = [];
      if (did === 'more')
        done[done.length - 1] = {
          ...last!,
          patches: [...last!.patches, ...patches],
          inverse: [...inverse, ...last!.inverse],
          after,
        };
      else done.push(step);
    }
  }
  return { done, undone, runs: new Map(done.length + undone.length > 0 ? [[0, art]] : []) };
}

/** The result of a step back or forth: a change like any other. */
export interface Moved<Context> {
  readonly history: History<Context>;
  readonly art: Art;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
  readonly context: Context;
  readonly label: string;
  /** The drawing had been changed by others meanwhile: this is the step merged into it, not the step itself. */
  readonly merged: boolean;
  /** Names of what both had changed. */
  readonly conflicts: readonly string[];
}

function move<Context>(
  { runs }: History<Context>,
  art: Art,
  step: Step<Context>,
  back: boolean,
  merge: Merge,
  stacks: Pick<History<Context>, 'done' | 'undone'>,
): Moved<Context> {
  const [patches, inverse] = back ? [step.inverse, step.patches] : [step.patches, step.inverse];
  const from = runs.get(step.run) ?? art;
  const to = applyPatches(from, patches);
  const history = { ...stacks, runs: movedRun(runs, step.run, to, [stacks.done, stacks.undone]) };
  const told = { history, context: back ? step.before : step.after, label: step.label };
  if (from === art) return { ...told, art: to, patches, inverse, merged: false, conflicts: [] };
  const merged = merge(from, to, art);
  return {
    ...told,
    art: merged.art,
    patches: artDifference(art, merged.art),
    inverse: artDifference(merged.art, art),
    merged: true,
    conflicts: merged.conflicts,
  };
}

/**
 * Takes the newest step back; null when there is none.
 *
 * @param merge `mergeArt`: asked only where others had a hand in the drawing, so that a page may fetch it when that is so
 */
export function undo<Context>(history: History<Context>, art: Art, merge: Merge): Moved<Context> | null {
  const step = history.done.at(-1);
  return step
    ? move(history, art, step, true, merge, {
        done: history.done.slice(0, -1),
        undone: [...history.undone, step],
      })
    : null;
}

/** Does the step last taken back again, as `undo` takes one back; null when there is none. */
export function redo<Context>(history: History<Context>, art: Art, merge: Merge): Moved<Context> | null {
  const step = history.undone.at(-1);
  return step
    ? move(history, art, step, false, merge, {
        done: [...history.done, step],
        undone: history.undone.slice(0, -1),
      })
    : null;
}
