import { removeNodes, type Art, type History, type Path, type Recipe, type Shape } from '@mirrot/core';
import type { Notice } from '$lib/ui/notice';
import type { ChangeSink, Context, Live } from './changes';
import type { Choice } from './choice';
import { Choosing } from './choosing.svelte';
import { Colouring } from './colouring.svelte';
import { Comparing } from './comparing.svelte';
import type { Gesture } from './changes';
import { Drawing } from './drawing.svelte';
import { createHabits, type Habits } from './habits.svelte';
import { Linework } from './linework.svelte';
import { Looking } from './looking.svelte';
import { NextPath } from './next-path.svelte';
import type { Offer } from './offer';
import { Proving } from './proving.svelte';
import { TracedPicture } from './picture.svelte';
import { Pointing } from './pointing.svelte';
import type { Step } from './steps';

/**
 * The open project in the page: the drawing, and what it is looked at, pointed at and drawn with, each in a part of its own.
 * All changes to the document go through `change`, a `gesture` or an `offer`, undo and redo included, and from there to the sink.
 */
export class Desk {
  step: Step = $state('mount');
  notice: Notice | null = $state.raw(null);
  readonly drawing: Drawing;
  readonly choosing: Choosing;
  readonly looking: Looking;
  readonly pointing: Pointing;
  readonly picture: TracedPicture;
  readonly colouring: Colouring;
  readonly linework: Linework;
  readonly next = new NextPath();
  readonly proving: Proving;
  readonly comparing: Comparing;

  constructor(
    art: Art,
    sink: ChangeSink,
    readonly habits: Habits = createHabits(),
    /** Milliseconds on a steady clock. */
    readonly now: () => number = () => performance.now(),
  ) {
    this.drawing = new Drawing(art, sink, this);
    this.proving = new Proving(this);
    this.comparing = new Comparing(this);
    this.looking = new Looking(this);
    this.pointing = new Pointing(this.looking);
    this.choosing = new Choosing(this);
    this.picture = new TracedPicture(this);
    this.colouring = new Colouring(this);
    this.linework = new Linework(this.drawing);
  }

  /** The document as it is shown, an open gesture or an offer included; holding Q shows it before the offer. */
  get art(): Art {
    const { kept, art, offer } = this.drawing;
    return offer?.preview && this.pointing.held.has('q') ? kept : art;
  }
  get history(): History<Context> {
    return this.drawing.history;
  }
  get choice(): Choice {
    return this.choosing.choice;
  }
  get live(): Live | null {
    return this.choosing.live;
  }
  get livePath(): Path | null {
    return this.choosing.livePath;
  }
  get chosenShapes(): Shape[] {
    return this.choosing.shapes;
  }
  get offer(): Offer | null {
    return this.drawing.offer;
  }
  readonly choose = (choice: Choice): void => this.choosing.choose(choice);
  readonly shapeOf = (id: string): Shape | null => this.choosing.shapeOf(id);

  /** Opens a step: the path being drawn ends, pictures lock when Mount is left. */
  open(step: Step): void {
    if (step === this.step) return;
    this.endLive();
    this.colouring.sampling = null;
    this.colouring.brush = false;
    this.leaveOffer();
    this.pointing.rest();
    this.picture.driftAt = null;
    if (this.step === 'mount' && this.art.pictures.some((p) => !p.locked))
      this.change('Lock the picture', (draft) => draft.pictures.forEach((p) => (p.locked = true)));
    this.step = step;
  }

  /**
   * Carries out one change as one step. Nothing changed makes no step.
   *
   * @param mergeKey changes of one key that follow each other within a second are one step
   */
  change(label: string, recipe: Recipe, after: Partial<Context> = {}, mergeKey?: string): boolean {
    const before = this.choosing.context;
    const look = (): void => this.choosing.restore({ ...before, ...after });
    return this.drawing.change(label, recipe, look, mergeKey);
  }
  /** Changes within `run` are one step with those of this key a second before. */
  readonly asOneStep = (key: string, run: () => void): void => this.drawing.asOneStep(key, run);
  /** Makes the drawing another one as one step; what is alike in both is not written anew. */
  become(label: string, art: Art): boolean {
    const before = this.choosing.context;
    return this.drawing.become(label, art, () => this.choosing.restore(before));
  }
  gesture(label: string, mergeKey = ''): Gesture {
    return this.drawing.gesture(label, mergeKey);
  }
  readonly makeOffer = (offer: Offer): void => this.drawing.makeOffer(offer);
  readonly takeOffer = (): void => this.drawing.takeOffer();
  readonly leaveOffer = (): void => this.drawing.leaveOffer();

  /**
   * Ends the path being drawn and keeps it; one with under two anchors goes. A step of its own for undo.
   *
   * @param finish what is done to it in the same step
   */
  endLive(finish: Recipe = () => {}): void {
    const { live, livePath } = this;
    if (!live) return;
    this.next.fresh = false;
    if (!livePath || livePath.anchors.length < 2) {
      this.change('Leave the path', removeNodes([live.shape]), { live: null });
      this.choosing.live = null;
      return;
    }
    this.drawing.mark('End the path', finish, () => {
      this.choosing.live = null;
      this.choosing.justEnded = live.shape;
    });
  }

  readonly undo = (): void => this.#step('undo');
  readonly redo = (): void => this.#step('redo');
  #step(did: 'undo' | 'redo'): void {
    this.drawing.step(did);
    if (this.live && this.step !== 'block-in') this.choosing.live = null;
  }
  /** Goes back or forth to where so many steps are done. */
  goTo(count: number): void {
    while (this.history.done.length > count) this.undo();
    while (this.history.done.length < count && this.history.undone.length > 0) this.redo();
  }

  /** Takes a document that others have had a hand in; the steps stay. */
  replaceArt(art: Art): void {
    this.drawing.replace(art);
    this.choosing.keepLayer();
  }

  say(text: string, tone: Notice['tone'] = 'plain', action?: Notice['action']): void {
    this.notice = { text, tone, action };
  }
}
