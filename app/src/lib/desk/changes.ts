import type { Art, Noted, Recipe } from '@mirrot/core';
import type { Choice } from './choice';

/** The path being drawn: anchors are added at its end. */
export interface Live {
  readonly shape: string;
  readonly path: string;
}

/** What the desk looked at when a step of the history was made. */
export interface Context {
  readonly choice: Choice;
  readonly live: Live | null;
}

/** A change made in this page, with what it was to the history. */
export type MadeChange = Noted<Context>;

/** Receives every change made here, in order, with the drawing after it. */
export interface ChangeSink {
  push(change: MadeChange, art: Art): void;
}

/** A gesture in the making: shown as it goes, kept or dropped as a whole. Ended, it does nothing more. */
export interface Gesture {
  show(recipe: Recipe): void;
  keep(after?: Partial<Context>): void;
  drop(): void;
}

/** What the drawing asks of the desk it lies on. */
export interface DrawingHost {
  readonly choosing: {
    /** What is looked at now. */
    readonly context: Context;
    /** Looks at this again, as far as it is still there. */
    restore(context: Context): void;
  };
  say(text: string): void;
  now(): number;
}

/** Chosen anchors that are kept with a step at most; more are not worth their weight. */
const MOST_CHOSEN_KEPT = 200;

/** What is kept of a context in the journal. */
export const keptContext = (context: Context): Context =>
  context.choice.anchors.length > MOST_CHOSEN_KEPT
    ? { ...context, choice: { ...context.choice, anchors: [] } }
    : context;
