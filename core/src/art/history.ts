import { applyPatches, type Change, type Patch } from './change';
import type { Art } from './schema';

/** One step: what it is called, patches there and back, and what the desk was looking at before and after. */
export interface Step<Context> {
  readonly label: string;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
  readonly before: Context;
  readonly after: Context;
}

/** Steps done and steps taken back, newest last in both. */
export interface History<Context> {
  readonly done: readonly Step<Context>[];
  readonly undone: readonly Step<Context>[];
}

export const emptyHistory = <Context>(): History<Context> => ({ done: [], undone: [] });

/** Adds a step; what had been taken back is gone. */
export const record = <Context>(
  history: History<Context>,
  label: string,
  change: Pick<Change, 'patches' | 'inverse'>,
  before: Context,
  after: Context,
): History<Context> => ({
  done: [...history.done, { label, patches: change.patches, inverse: change.inverse, before, after }],
  undone: [],
});

/** Adds a change to the newest step: what follows at once, like nudge on nudge, is one step. */
export function extend<Context>(
  history: History<Context>,
  change: Pick<Change, 'patches' | 'inverse'>,
  after: Context,
): History<Context> {
  const last = history.done.at(-1)!;
  const step: Step<Context> = {
    ...last,
    patches: [...last.patches, ...change.patches],
    inverse: [...change.inverse, ...last.inverse],
    after,
  };
  return { done: [...history.done.slice(0, -1), step], undone: [] };
}

/**
 * What a change was to the history, kept beside its patches so that the steps can be found again: a new step, more of the
 * newest one, or a step taken back or done again. A step done again says all there is to say, as a new one does.
 */
export type Note<Context> =
  ({ readonly did: 'step' | 'more' | 'redo' } & Omit<Step<Context>, 'patches'>) | { readonly did: 'undo' };

/** A change with what it was to the history; null for one that came from elsewhere. */
export interface Noted<Context> {
  readonly patches: readonly Patch[];
  readonly note: Note<Context> | null;
}

/**
 * The history that a run of changes leaves, oldest first. Nothing before a change from elsewhere can be taken back, and
 * nothing before the run; what a run that begins in the middle takes back of that is left out.
 */
export const recall = <Context>(run: readonly Noted<Context>[]): History<Context> =>
  run.reduce<History<Context>>((history, { patches, note }) => {
    if (!note) return emptyHistory();
    const { done, undone } = history;
    if (note.did === 'undo') {
      const last = done.at(-1);
      return last ? { done: done.slice(0, -1), undone: [...undone, last] } : emptyHistory();
    }
    const { did, label, inverse, before, after } = note;
    if (did === 'redo')
      return { done: [...done, { label, patches, inverse, before, after }], undone: undone.slice(0, -1) };
    if (did === 'step') return record(history, label, { patches, inverse }, before, after);
    // The end of a step whose beginning is not known cannot be taken back by itself.
    return done.length > 0 ? extend(history, { patches, inverse }, after) : emptyHistory();
  }, emptyHistory());

/** The result of a step back or forth: a change like any other. */
export interface Moved<Context> {
  readonly history: History<Context>;
  readonly art: Art;
  readonly patches: readonly Patch[];
  readonly context: Context;
  readonly label: string;
}

/** Takes the newest step back; null when there is none. */
export function undo<Context>(history: History<Context>, art: Art): Moved<Context> | null {
  const step = history.done.at(-1);
  if (!step) return null;
  return {
    history: { done: history.done.slice(0, -1), undone: [...history.undone, step] },
    art: applyPatches(art, step.inverse),
    patches: step.inverse,
    context: step.before,
    label: step.label,
  };
}

/** Does the step last taken back again; null when there is none. */
export function redo<Context>(history: History<Context>, art: Art): Moved<Context> | null {
  const step = history.undone.at(-1);
  if (!step) return null;
  return {
    history: { done: [...history.done, step], undone: history.undone.slice(0, -1) },
    art: applyPatches(art, step.patches),
    patches: step.patches,
    context: step.after,
    label: step.label,
  };
}
