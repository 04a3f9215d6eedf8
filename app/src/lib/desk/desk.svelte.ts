import {
  findShape,
  hexOf,
  isEmptyBox,
  layerOf,
  meanScale,
  paletteOf,
  removeNodes,
  shapeBounds,
  shapeIndex,
  shapesOf,
  tracedPicture,
  uniteBoxes,
  type Art,
  type Box,
  type Colour,
  type FormKind,
  type History,
  type Palette,
  type Path,
  type Point,
  type Recipe,
  type Shape,
  type Snapped,
} from '@mirrot/core';
import type { Notice } from '$lib/ui/notice';
import { findPath, NOTHING_CHOSEN, stillThere, type Choice } from './choice';
import type { ChangeSink, Context, Live } from './changes';
import { Drawing, type Gesture } from './drawing.svelte';
import { createDrifts, type Drifts, type Measuring } from './drifts.svelte';
import { createHabits, type Habits } from './habits.svelte';
import { createInks, type Inks } from './inks.svelte';
import type { Progress } from './progress';
import { createSeeing, type Seeing } from './seeing.svelte';
import { createReaching, type Reaching } from './reaching.svelte';
import { pixelsKey } from './rasters';
import type { Rule, Task } from './task';
import type { Offer } from './offer';
import { GLASS_AT_FIRST, type Step } from './steps';
import { fitted, panned, toSheet, zoomed, type Size, type View } from './view';

export type Sampling = 'pixel' | 'disc';

/** Marks along a path stand no nearer than this while it is dragged, screen pixels. */
const MARKS_APART = 4;

/**
 * The open project in the page: the art, how it is looked at, what is chosen, the history. All changes to the
 * document go through `change` or a `gesture`, undo and redo included, and from there to the sink.
 */
export class Desk {
  readonly #drawing: Drawing;
  step: Step = $state('mount');
  view: View = $state.raw({ scale: 1, tx: 0, ty: 0 });
  bed: Size = $state.raw({ width: 800, height: 600 });
  choice: Choice = $state.raw(NOTHING_CHOSEN);
  live: Live | null = $state.raw(null);
  offer: Offer | null = $state.raw(null);
  notice: Notice | null = $state.raw(null);

  /** Pointer over the bed in bed pixels; null when it is elsewhere. */
  pointerAt: Point | null = $state.raw(null);
  /** A press on the bed is under way. */
  pressing = $state(false);
  /** What the loupe looks at: the anchor being dragged, else the pointer. */
  focus: Point | null = $state.raw(null);
  /** The choosing box being drawn, in sheet pixels. */
  box: Box | null = $state.raw(null);
  /** The disc being sampled, in sheet pixels. */
  disc: { readonly at: Point; readonly radius: number } | null = $state.raw(null);
  /** Keys that are held for as long as something lasts. */
  held: ReadonlySet<string> = $state.raw(new Set());

  /** The next anchor's Carry is the other one. */
  carryOnce = $state(false);
  sampling: Sampling | null = $state(null);
  discRadius = $state(6);
  /** The chosen shapes are filled see-through while they are shaped. */
  haze = $state(false);
  /** Teeth along the chosen paths, as long as they bend. */
  comb = $state(false);
  /** The real weight of strokes shows round the ink. */
  trueStroke = $state(false);
  loupe = $state(true);
  rulers = $state(true);
  stackOpen = $state(true);
  eyeOpen = $state(true);
  #nextFill: { readonly colour: Colour; readonly hex: string } | null = $state.raw(null);
  /** Whether colours go to the fill or to the stroke. */
  receiving: 'fill' | 'stroke' = $state('fill');
  readonly habits: Habits;
  /** What a drag in Block in draws; null for paths. */
  form: FormKind | null = $state(null);
  /** Sides of the next polygon, radius of the next box's corners, and the size last drawn of each. */
  formSides = $state(6);
  formRadius = $state(0);
  formSizes: Partial<Record<FormKind, { readonly width: number; readonly height: number }>> = $state.raw({});
  /** Parts of the next turn axis. */
  axisParts = $state(6);
  /** The crosshair moved by keys, in sheet pixels; null while the pointer draws. */
  cross: Point | null = $state.raw(null);
  /** What a drag has snapped to. */
  taken: Snapped | null = $state.raw(null);
  /** Words beside the pointer while something is drawn, at a point of the sheet. */
  beside: { readonly at: Point; readonly text: string } | null = $state.raw(null);
  /** Shapes lying at a spot of the bed (bed pixels), listed to choose from. */
  listed: { readonly at: Point; readonly shapes: readonly string[] } | null = $state.raw(null);
  /** The point picked to turn and scale about; null for one of the box's own nine. */
  about: Point | null = $state.raw(null);
  /** What lies under the pointer, in words for the status. */
  under: string | null = $state(null);
  /** What Symmetric again goes by: the axis that is set, the drawing's own middle line, its own centre. */
  evenAbout: 'axis' | 'middle' | 'centre' = $state('middle');
  /** A guide pressed once: where the next press turns it about. */
  pivot: { readonly guide: string; readonly at: Point } | null = $state.raw(null);
  /** The layer new shapes go on. */
  layer: string = $state('');
  /** The shape of the path that ended last, until the next press on the bed: it still receives colour. */
  justEnded: string | null = $state(null);
  /** A press starts a new path whatever lies under the pointer. */
  fresh = $state(false);

  /** What presses in Mount do instead of moving the picture. */
  task: Task | null = $state.raw(null);
  /** A line being drawn over the picture. */
  rule: Rule | null = $state.raw(null);
  /** A line drawn over a known length, waiting to be told how long it is. */
  measured: Rule | null = $state.raw(null);
  /** Where the origin goes: the sheet's centre or its top left corner. */
  originTo: 'centre' | 'corner' = $state('centre');
  /** What was traced on a picture goes along when it is moved. */
  follow = $state(true);
  /** Pictures being straightened or seen by a view. */
  looking: Progress | null = $state.raw(null);

  readonly seeing: Seeing = createSeeing((progress) => (this.looking = progress));
  readonly inks: Inks = createInks();
  readonly drifts: Drifts = createDrifts((text) => this.say(text, 'bad'));
  readonly reaching: Reaching = createReaching();
  /** A place along a path that the chart points at, or that the pointer is near: the shape, the path, the entry. */
  driftAt: { readonly shape: string; readonly part: number; readonly entry: number } | null =
    $state.raw(null);
  /** Spots of the sheet that the walk along the worst drift has been to. */
  walked: readonly Point[] = [];
  #glass: Record<Step, number> = $state({ ...GLASS_AT_FIRST });
  #glassBefore = 50;
  #viewBefore: View | null = null;
  #viewTime = 0;
  readonly #clock: () => number;

  constructor(
    art: Art,
    sink: ChangeSink,
    clock: () => number = () => performance.now(),
    habits: Habits = createHabits(),
  ) {
    this.habits = habits;
    this.#clock = clock;
    this.layer = art.layers.at(-1)!.id;
    const context = (): Context => this.context;
    this.#drawing = new Drawing(art, sink, {
      get context() {
        return context();
      },
      restore: (looked) => this.#restore(looked),
      say: (text) => this.say(text),
      now: clock,
    });
  }

  /** The document as it is shown, an open gesture included. */
  get art(): Art {
    return this.#drawing.art;
  }
  get history(): History<Context> {
    return this.#drawing.history;
  }
  set history(history: History<Context>) {
    this.#drawing.history = history;
  }

  get carry(): boolean {
    return this.habits.carry;
  }
  set carry(carry: boolean) {
    this.habits.set({ carry });
  }
  get flowingClicks(): boolean {
    return this.habits.flowingClicks;
  }
  set flowingClicks(flowingClicks: boolean) {
    this.habits.set({ flowingClicks });
  }
  get sharpest(): number {
    return this.habits.sharpest;
  }
  set sharpest(sharpest: number) {
    this.habits.set({ sharpest });
  }
  /** Milliseconds on a steady clock. */
  now(): number {
    return this.#clock();
  }

  // --- looking ---------------------------------------------------------------------------------------------------

  get glass(): number {
    return this.#glass[this.step];
  }
  set glass(value: number) {
    if (value === this.glass) return;
    this.#glassBefore = this.glass;
    this.#glass[this.step] = Math.min(100, Math.max(0, value));
  }
  glassBack(): void {
    this.glass = this.#glassBefore;
  }

  /** What is seen, holding Q (bare picture) or Shift+Q (bare drawing) included. */
  get seen(): { readonly picture: number; readonly fills: number; readonly ink: boolean } {
    if (this.held.has('q')) return { picture: 1, fills: 0, ink: false };
    if (this.held.has('shift+q')) return { picture: 0, fills: 1, ink: false };
    return {
      picture: Math.min(1, (100 - this.glass) / 50),
      fills: Math.min(1, this.glass / 50),
      ink: this.step === 'block-in' || this.step === 'refine',
    };
  }

  hold(key: string, on: boolean): void {
    if (this.held.has(key) === on) return;
    const held = new Set(this.held);
    if (on) held.add(key);
    else held.delete(key);
    this.held = held;
  }

  /** Pointer over the bed in sheet pixels; null when it is elsewhere. */
  get pointer(): Point | null {
    return this.pointerAt && toSheet(this.view, this.pointerAt);
  }

  /** Looks elsewhere. Looks that follow each other within half a second count as one for `viewBack`. */
  look(view: View): void {
    const now = this.#clock();
    if (now - this.#viewTime > 500) this.#viewBefore = this.view;
    this.#viewTime = now;
    this.view = view;
  }
  pan(dx: number, dy: number): void {
    this.look(panned(this.view, dx, dy));
  }
  zoom(factor: number, at: Point = { x: this.bed.width / 2, y: this.bed.height / 2 }): void {
    this.look(zoomed(this.view, factor, at));
  }
  /** Looks elsewhere at one go; always a view of its own for `viewBack`. */
  jump(view: View): void {
    this.#viewBefore = this.view;
    this.#viewTime = -Infinity;
    this.view = view;
  }
  fit(box: Box = this.sheetBox): void {
    this.jump(fitted(box, this.bed));
  }
  viewBack(): void {
    if (!this.#viewBefore) return;
    const back = this.#viewBefore;
    this.#viewBefore = this.view;
    this.#viewTime = this.#clock();
    this.view = back;
  }
  /** Looks elsewhere, as near as before, when what is wanted lies outside the bed. */
  bringIntoSight(box: Box): void {
    const { scale, tx, ty } = this.view;
    const centre = { x: ((box.x0 + box.x1) / 2) * scale + tx, y: ((box.y0 + box.y1) / 2) * scale + ty };
    const { width, height } = this.bed;
    if (centre.x < 0 || centre.y < 0 || centre.x > width || centre.y > height)
      this.jump({ scale, tx: tx + width / 2 - centre.x, ty: ty + height / 2 - centre.y });
  }
  get sheetBox(): Box {
    return { x0: 0, y0: 0, x1: this.art.sheet.width, y1: this.art.sheet.height };
  }
  /** Box of what is chosen; null when nothing is. */
  get chosenBox(): Box | null {
    const boxes = this.chosenShapes.map((s) => shapeBounds(s));
    const box = boxes.length > 0 ? boxes.reduce(uniteBoxes) : null;
    return box && !isEmptyBox(box) ? box : null;
  }

  /** Opens a step: the path being drawn ends, pictures lock when Mount is left. */
  open(step: Step): void {
    if (step === this.step) return;
    this.endLive();
    this.sampling = null;
    this.offer = null;
    this.task = null;
    this.cross = null;
    this.listed = null;
    this.pivot = null;
    if (this.step === 'mount' && this.art.pictures.some((p) => !p.locked))
      this.change('Lock the picture', (draft) => draft.pictures.forEach((p) => (p.locked = true)));
    this.step = step;
  }

  // --- what is chosen --------------------------------------------------------------------------------------------

  get chosenShapes(): Shape[] {
    return this.choice.shapes.flatMap((id) => this.shapeOf(id) ?? []);
  }
  /** A shape of the document by id, or null. */
  shapeOf(id: string): Shape | null {
    return shapeIndex(this.art).get(id) ?? null;
  }
  get livePath(): Path | null {
    return this.live && findPath(this.shapeOf(this.live.shape), this.live.path);
  }
  get traced() {
    return tracedPicture(this.art);
  }
  /** How drift is measured now; null while there is no picture to measure by. */
  get measuring(): Measuring | null {
    const { raster } = this.inks;
    const picture = this.traced;
    if (!raster || !picture || raster.key !== pixelsKey(picture) || !picture.shown) return null;
    // A reach in screen pixels, by steps of half as much again, so that a hair of zoom measures nothing anew.
    const screen = this.habits.driftReach / (this.view.scale * meanScale(picture.placement));
    const reach = Math.min(24, Math.max(4, 2 ** (Math.round(2 * Math.log2(screen)) / 2)));
    const { driftWithin: within, driftDetail: detail } = this.habits;
    // While something is pressed, as many places as marks can stand at: the rest when it is let go.
    const apart = MARKS_APART / (this.view.scale * meanScale(picture.placement) * raster.step);
    const spacing = this.pressing ? Math.max(1, Math.min(6, apart)) : 1;
    return { raster, picture, reach, within, detail, spacing };
  }
  /** The ink a shape's lines are shown in. */
  inkOf(shape: Shape): string {
    return this.inks.of(shape, layerOf(this.art, shape.id)?.ink ?? null);
  }
  choose(choice: Choice): void {
    this.choice = choice;
    const shape = choice.shapes.at(-1);
    const layer = shape ? layerOf(this.art, shape) : null;
    if (layer) this.layer = layer.id;
  }

  /** Shape that a colour, weight or sample goes to, or null for the next path. */
  get receivers(): string[] {
    if (this.choice.shapes.length > 0) return [...this.choice.shapes];
    if (this.live) return [this.live.shape];
    return this.justEnded && findShape(this.art, this.justEnded) ? [this.justEnded] : [];
  }

  /** The shapes that receive. */
  get receivedShapes(): Shape[] {
    return this.receivers.flatMap((id) => this.shapeOf(id) ?? []);
  }

  /** The first shape that receives, or null. */
  get receivedShape(): Shape | null {
    return findShape(this.art, this.receivers[0] ?? '');
  }

  /** The layer new shapes go on: the one last used if it is there and open, else the topmost open one. */
  get drawingLayer(): string | null {
    const open = this.art.layers.filter((l) => l.shown && !l.locked);
    return (open.find((l) => l.id === this.layer) ?? open.at(-1))?.id ?? null;
  }

  // --- changing --------------------------------------------------------------------------------------------------

  get context(): Context {
    return { choice: this.choice, live: this.live };
  }

  #restore(context: Context): void {
    this.choice = stillThere(context.choice, this.art);
    this.live =
      context.live && findPath(findShape(this.art, context.live.shape), context.live.path)
        ? context.live
        : null;
  }

  /**
   * Carries out one change as one step. Nothing changed makes no step.
   *
   * @param mergeKey changes of one key that follow each other within a second are one step
   */
  change(label: string, recipe: Recipe, after: Partial<Context> = {}, mergeKey = ''): boolean {
    this.offer = null;
    const before = this.context;
    return this.#drawing.change(label, recipe, () => this.#restore({ ...before, ...after }), mergeKey);
  }

  /** Makes the drawing another one as one step; what is alike in both is not written anew. */
  become(label: string, art: Art): boolean {
    this.offer = null;
    const before = this.context;
    return this.#drawing.become(label, art, () => this.#restore(before));
  }

  /** Begins a change that is shown while it goes on: see `Drawing.gesture`. */
  gesture(label: string, mergeKey = ''): Gesture {
    this.offer = null;
    return this.#drawing.gesture(label, mergeKey);
  }

  /**
   * Ends the path being drawn and keeps it; one with under two anchors goes. A step of its own for undo.
   *
   * @param finish what is done to it in the same step
   */
  endLive(finish: Recipe = () => {}): void {
    const { live, livePath } = this;
    if (!live) return;
    this.fresh = false;
    if (!livePath || livePath.anchors.length < 2) {
      this.change('Leave the path', removeNodes([live.shape]), { live: null });
      this.live = null;
      return;
    }
    const end = (): void => {
      this.live = null;
      this.justEnded = live.shape;
    };
    this.#drawing.mark('End the path', finish, end);
  }

  #step(did: 'undo' | 'redo'): void {
    this.offer = null;
    this.#drawing.step(did);
    if (this.live && this.step !== 'block-in') this.live = null;
  }
  undo(): void {
    this.#step('undo');
  }
  redo(): void {
    this.#step('redo');
  }
  /** Goes back or forth to where so many steps are done. */
  goTo(count: number): void {
    while (this.history.done.length > count) this.undo();
    while (this.history.done.length < count && this.history.undone.length > 0) this.redo();
  }

  /** Takes a document that others have had a hand in; the steps stay. */
  replaceArt(art: Art): void {
    this.#drawing.replace(art);
    if (!art.layers.some((l) => l.id === this.layer)) this.layer = art.layers.at(-1)!.id;
  }

  say(text: string, tone: Notice['tone'] = 'plain', action?: Notice['action']): void {
    this.notice = { text, tone, action };
  }

  /** Colours of the chips by their ids. */
  get palette(): Palette {
    return paletteOf(this.art.chips);
  }
  /** Fill the next path will get, or null for none. A chip that has gone leaves its colour. */
  get nextFill(): Colour | null {
    const next = this.#nextFill;
    return next && 'chip' in next.colour && !this.palette.has(next.colour.chip) ? { hex: next.hex } : (next?.colour ?? null); // prettier-ignore
  }
  set nextFill(colour: Colour | null) {
    this.#nextFill = colour && { colour, hex: hexOf(colour, this.palette) };
  }

  // --- figures ---------------------------------------------------------------------------------------------------

  get figures() {
    const shapes = shapesOf(this.art);
    return {
      shapes: shapes.length,
      paths: shapes.reduce((n, { shape }) => n + shape.paths.length, 0),
      anchors: shapes.reduce((n, { shape }) => n + shape.paths.reduce((m, p) => m + p.anchors.length, 0), 0),
      flowing: shapes.reduce(
        (n, { shape }) =>
          n + shape.paths.reduce((m, p) => m + p.anchors.filter((a) => a.kind === 'flowing').length, 0),
        0,
      ),
      painted: shapes.filter(({ shape }) => shape.fill || shape.stroke).length,
    };
  }
}
