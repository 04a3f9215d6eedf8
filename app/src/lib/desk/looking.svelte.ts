import type { Box, Path, Point } from '@mirrot/core';
import type { Comparing } from './comparing.svelte';
import { GLASS_AT_FIRST, type Step } from './steps';
import { fitted, panned, zoomed, type Size, type View } from './view';

/** What looking asks of the desk it belongs to. */
export interface LookingHost {
  readonly step: Step;
  readonly pointing: { readonly held: ReadonlySet<string> };
  readonly comparing: Pick<Comparing, 'wiped' | 'halves' | 'mapped' | 'lined'>;
  readonly art: { readonly sheet: Size };
  now(): number;
}

/** Looks that follow each other within this count as one for `viewBack`, milliseconds. */
const ONE_LOOK_WITHIN_MS = 500;

/** What lies beneath everything: the sheet's own ground, or one that shows where the drawing is open. */
export const GROUNDS = ['sheet', 'checks', 'loud', 'dark', 'light', 'own'] as const;
export type Ground = (typeof GROUNDS)[number];

/** How the sheet is looked at: the view, the bed's size, the Glass of every step. */
export class Looking {
  ground: Ground = $state('sheet');
  /** The colour of a ground of one's own, hex. */
  ownGround = $state('#3aa6d0');
  /** What of the picture no shape covers is hatched. */
  uncovered = $state(false);
  /** Lines of another state of the drawing, seen over this one; null for none. */
  ghost: readonly Path[] | null = $state.raw(null);
  /** The point of the sheet that was in the middle of the bed when the project was left, and the scale; null for none. */
  first: { readonly middle: Point; readonly scale: number } | null = null;
  view: View = $state.raw({ scale: 1, tx: 0, ty: 0 });
  bed: Size = $state.raw({ width: 800, height: 600 });
  #glass: Record<Step, number> = $state({ ...GLASS_AT_FIRST });
  #glassBefore = 50;
  #viewBefore: View | null = null;
  #viewTime = 0;
  readonly #host: LookingHost;

  constructor(host: LookingHost) {
    this.#host = host;
  }

  get glass(): number {
    return this.#glass[this.#host.step];
  }
  set glass(value: number) {
    if (value === this.glass) return;
    this.#glassBefore = this.glass;
    this.#glass[this.#host.step] = Math.min(100, Math.max(0, value));
  }
  glassBack(): void {
    this.glass = this.#glassBefore;
  }

  /** What is seen, holding Q (bare picture) or Shift+Q (bare drawing) included. */
  get seen(): { readonly picture: number; readonly fills: number; readonly ink: boolean } {
    const { step } = this.#host;
    const { held } = this.#host.pointing;
    if (held.has('q')) return { picture: 1, fills: 0, ink: false };
    if (held.has('shift+q')) return { picture: 0, fills: 1, ink: false };
    const { wiped, halves, mapped, lined } = this.#host.comparing;
    if (mapped) return { picture: 0, fills: 0, ink: false };
    const drawing = lined ? { fills: 0, ink: true } : { fills: 1, ink: false };
    if (halves) return { picture: 0, ...drawing };
    if (wiped) return { picture: 1, ...drawing };
    if (lined) return { picture: Math.min(1, (100 - this.glass) / 50), ...drawing };
    return {
      picture: Math.min(1, (100 - this.glass) / 50),
      fills: Math.min(1, this.glass / 50),
      ink: step === 'block-in' || step === 'refine',
    };
  }

  /** Looks elsewhere, as a part of a movement: `viewBack` goes to where the movement began. */
  look(view: View): void {
    const now = this.#host.now();
    if (now - this.#viewTime > ONE_LOOK_WITHIN_MS) this.#viewBefore = this.view;
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
  /** Looks at the drawing for the first time in this visit, as it was looked at last, else as a whole. */
  begin(): void {
    if (!this.first) return this.fit();
    const { middle, scale } = this.first;
    const { width, height } = this.bed;
    this.jump({ scale, tx: width / 2 - middle.x * scale, ty: height / 2 - middle.y * scale });
  }
  fit(box: Box = this.sheetBox): void {
    this.jump(fitted(box, this.bed));
  }
  viewBack(): void {
    if (!this.#viewBefore) return;
    const back = this.#viewBefore;
    this.#viewBefore = this.view;
    this.#viewTime = this.#host.now();
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
    const { width, height } = this.#host.art.sheet;
    return { x0: 0, y0: 0, x1: width, y1: height };
  }
}
