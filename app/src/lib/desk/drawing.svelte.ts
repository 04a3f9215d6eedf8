import {
  artDifference,
  canExtend,
  changeArt,
  emptyHistory,
  extend,
  MirrotError,
  patchDocument,
  previewArt,
  record,
  redo,
  shapesOf,
  undo,
  type Art,
  type Change,
  type History,
  type MadeOn,
  type Recipe,
} from '@mirrot/core';
import {
  keptContext,
  type ChangeSink,
  type Context,
  type DrawingHost,
  type Gesture,
  type MadeChange,
} from './changes';
import { follow } from './following';
import { mergeFetched } from './merging';
import type { Offer } from './offer';

interface OpenGesture {
  readonly label: string;
  readonly mergeKey: string;
  readonly before: Context;
  recipe: Recipe | null;
}

/** Milliseconds within which changes of one kind count as one. */
const ONE_STEP_WITHIN = 1000;

/**
 * The document in the page and its history. The one gesture that may be open, or the one offer, is a recipe over whatever
 * the document is: what else lands meanwhile (an upload that finishes, another tab's changes) goes into the document, and
 * the recipe is shown over it anew.
 */
export class Drawing {
  /** The document without the open gesture or offer. */
  #kept: Art = $state.raw()!;
  /** The document as it is shown. */
  art: Art = $state.raw()!;
  history: History<Context> = $state.raw(emptyHistory());
  /** What is offered now; null when nothing is. */
  offer: Offer | null = $state.raw(null);
  #open: OpenGesture | null = null;
  #mergeKey = '';
  #last: { step: unknown; mergeKey: string; at: number } = { step: undefined, mergeKey: '', at: -Infinity };
  readonly #sink: ChangeSink;
  readonly #host: DrawingHost;

  constructor(art: Art, sink: ChangeSink, host: DrawingHost) {
    this.#kept = this.art = art;
    this.#sink = sink;
    this.#host = host;
  }

  /** The document as it is kept: without what an open gesture or an offer shows. */
  get kept(): Art {
    return this.#kept;
  }

  /** Takes a document as what is kept, and shows the open gesture or the offer over it. */
  #put(art: Art): void {
    this.#kept = this.art = art;
    const recipe = this.#open?.recipe ?? (this.offer?.preview ? this.offer.recipe : null);
    if (!recipe) return;
    try {
      this.art = previewArt(art, recipe, follow);
    } catch {
      // What it was about is no longer there.
    }
    if (this.art !== art) return;
    const word = this.#open ? 'so the drag has ended' : 'so the offer is withdrawn';
    this.#open = this.offer = null;
    this.#host.say(`What was being changed is no longer as it was, ${word}. Nothing of it was kept.`);
  }

  #record(label: string, change: MadeOn, before: Context, mergeKey: string): void {
    const now = this.#host.now();
    const last = this.#last;
    const goesOn =
      mergeKey !== '' &&
      mergeKey === last.mergeKey &&
      now - last.at < ONE_STEP_WITHIN &&
      last.step !== undefined &&
      this.history.done.at(-1) === last.step &&
      canExtend(this.history, change.from);
    const after = this.#host.choosing.context;
    this.history = goesOn
      ? extend(this.history, change, after)
      : record(this.history, label, change, before, after);
    this.#last = { step: this.history.done.at(-1), mergeKey, at: now };
    const { patches, inverse } = change;
    const step = { label, inverse, before: keptContext(before), after: keptContext(after) };
    this.#push({ patches, note: { did: goesOn ? 'more' : 'step', ...step } });
  }

  #push(change: MadeChange): void {
    this.#sink.push(change, this.#kept);
  }

  /**
   * Carries out one change as one step. Nothing changed makes no step.
   *
   * @param looking what is looked at after it, told once the document is there
   * @param mergeKey changes of one key that follow each other within a second are one step
   */
  change(label: string, recipe: Recipe, looking: () => void, mergeKey = this.#mergeKey): boolean {
    this.leaveOffer();
    const change = this.#changeBy(recipe);
    if (!change || change.patches.length === 0) return false;
    this.#carryOut(label, change, looking, mergeKey);
    return true;
  }

  /** What a recipe makes of the document; null, and a word, where it cannot be. */
  #changeBy(recipe: Recipe): Change | null {
    try {
      return changeArt(this.#kept, recipe, follow);
    } catch (error) {
      if (!(error instanceof MirrotError)) throw error;
      this.#host.say(error.message);
      return null;
    }
  }

  /** As `change`, by the drawing that is to be: patches say what differs. */
  become(label: string, art: Art, looking: () => void): boolean {
    this.leaveOffer();
    const patches = artDifference(this.#kept, art);
    if (patches.length === 0) return false;
    const { document, inverse } = patchDocument(this.#kept, patches);
    this.#carryOut(label, { art: document, patches, inverse }, looking, '');
    return true;
  }

  /** As `change`, but a step also where nothing changed: what was looked at is the step. */
  mark(label: string, recipe: Recipe, looking: () => void): void {
    const change = this.#changeBy(recipe);
    if (change) this.#carryOut(label, change, looking, '');
  }

  /** Changes made within `run` are of this merge key. */
  asOneStep(mergeKey: string, run: () => void): void {
    this.#mergeKey = mergeKey;
    try {
      run();
    } finally {
      this.#mergeKey = '';
    }
  }

  #carryOut(label: string, change: Change, looking: () => void, mergeKey: string): void {
    const before = this.#host.choosing.context;
    const from = this.#kept;
    this.#put(change.art);
    looking();
    this.#record(label, { ...change, from }, before, mergeKey);
  }

  /**
   * Begins a change that is shown while it goes on: every `show` starts from the document as it is without it. One
   * that is still open is kept first.
   *
   * @param mergeKey changes of one key that follow within a second are one step with it
   */
  gesture(label: string, mergeKey = ''): Gesture {
    this.leaveOffer();
    this.#keep(this.#open, {});
    const open: OpenGesture = { label, mergeKey, before: this.#host.choosing.context, recipe: null };
    this.#open = open;
    return {
      show: (recipe) => {
        if (this.#open !== open) return;
        open.recipe = recipe;
        this.art = previewArt(this.#kept, recipe, follow);
      },
      keep: (after = {}) => this.#keep(open, after),
      drop: () => {
        if (this.#open !== open) return;
        this.#open = null;
        this.art = this.#kept;
        this.#host.choosing.restore(open.before);
      },
    };
  }

  #keep(open: OpenGesture | null, after: Partial<Context>): void {
    if (!open || this.#open !== open) return;
    this.#open = null;
    const from = this.#kept;
    const change = open.recipe && this.#changeBy(open.recipe);
    const changed = change && change.patches.length > 0;
    this.#kept = this.art = changed ? change.art : from;
    this.#host.choosing.restore({ ...this.#host.choosing.context, ...after });
    if (changed) this.#record(open.label, { ...change, from }, open.before, open.mergeKey);
  }

  /** Offers a change, in the place of what was offered before. A gesture that is open is kept first. */
  makeOffer(offer: Offer): void {
    this.leaveOffer();
    this.#keep(this.#open, {});
    this.offer = offer;
    // One that would change nothing where it is made shows nothing.
    if (offer.preview) this.art = previewArt(this.#kept, offer.recipe, follow);
  }
  leaveOffer(): void {
    if (!this.offer) return;
    const { preview } = this.offer;
    this.offer = null;
    if (preview) this.#put(this.#kept);
  }
  /** Makes what is offered a step of the history. */
  takeOffer(): void {
    const { offer } = this;
    if (!offer) return;
    const before = this.#host.choosing.context;
    this.change(offer.label, offer.recipe, () => this.#host.choosing.restore({ ...before, ...offer.after }));
    offer.taken?.();
  }

  /**
   * Takes the newest step back, or does the one last taken back again. While a gesture is open, undo takes that back.
   *
   * @returns false when there was none
   */
  step(did: 'undo' | 'redo'): boolean {
    this.leaveOffer();
    const open = this.#open;
    this.#open = null;
    // A press that has shown nothing yet is no gesture to take back.
    if (open?.recipe) {
      this.art = this.#kept;
      this.#host.choosing.restore(open.before);
      if (did === 'undo') return true;
    }
    const from = this.#kept;
    const moved = (did === 'undo' ? undo : redo)(this.history, from, mergeFetched);
    if (!moved) return false;
    this.#put(moved.art);
    this.history = moved.history;
    this.#host.choosing.restore(moved.context);
    const { patches, inverse, label, merged, conflicts } = moved;
    if (merged) {
      // Others changed the drawing since: in the journal this is a change of its own.
      const looked = keptContext(this.#host.choosing.context);
      const named = did === 'undo' ? `Take back “${label}”` : label;
      if (patches.length > 0)
        this.#push({ patches, note: { did: 'step', label: named, inverse, before: looked, after: looked } });
      if (patches.length === 0)
        this.#host.say(`“${label}” no longer fits: others have changed what it did. Nothing was changed.`);
      else if (conflicts.length > 0)
        this.#host.say(`“${label}” was also changed by others: ${conflicts.join(', ')}.`);
    } else if (did === 'undo') this.#push({ patches, note: { did } });
    else {
      const { run: _run, patches: _patches, before, after, ...step } = moved.history.done.at(-1)!;
      this.#push({
        patches,
        note: { did, ...step, before: keptContext(before), after: keptContext(after) },
      });
    }
    return true;
  }

  /**
   * Takes a document that others have had a hand in. The steps stay: those made before are moved into it when they are
   * taken back, by what `fetchMerge` has fetched before.
   */
  replace(art: Art): void {
    this.#put(art);
    this.#host.choosing.restore(this.#host.choosing.context);
  }

  /** How much is drawn, for the route bar and the status. */
  readonly figures = $derived.by(() => {
    const figures = { shapes: 0, paths: 0, anchors: 0, painted: 0 };
    for (const { shape } of shapesOf(this.art)) {
      figures.shapes++;
      figures.paths += shape.paths.length;
      if (shape.fill || shape.stroke) figures.painted++;
      for (const path of shape.paths) figures.anchors += path.anchors.length;
    }
    return figures;
  });
}
