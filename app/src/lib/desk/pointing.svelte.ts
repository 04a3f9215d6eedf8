import type { Box, Point, Snapped } from '@mirrot/core';
import type { Rule, Task } from './task';
import { toSheet, type View } from './view';

/** What the pointer and the held keys are about. Nothing of it is kept. */
export class Pointing {
  /** Pointer over the bed in bed pixels; null when it is elsewhere. */
  pointerAt: Point | null = $state.raw(null);
  /** A press on the bed is under way. */
  pressing = $state(false);
  /** What the loupe looks at: the anchor being dragged, else the pointer. */
  focus: Point | null = $state.raw(null);
  /** Keys that are held for as long as something lasts. */
  held: ReadonlySet<string> = $state.raw(new Set());
  /** The crosshair moved by keys, in sheet pixels; null while the pointer draws. */
  cross: Point | null = $state.raw(null);
  /** What a drag has snapped to. */
  snapTarget: Snapped | null = $state.raw(null);
  /** Words beside the pointer while something is drawn, at a point of the sheet. */
  pointerNote: { readonly at: Point; readonly text: string } | null = $state.raw(null);
  /** What lies under the pointer, in words for the status. */
  underPointer: string | null = $state(null);
  /** The node under the pointer on the bed, whose row lights up. */
  overOnBed: string | null = $state(null);
  /** The node whose row the pointer is on, which lights up on the bed. */
  overInStack: string | null = $state(null);
  /** Shapes lying at a spot of the bed (bed pixels), listed to choose from. */
  listed: { readonly at: Point; readonly shapes: readonly string[] } | null = $state.raw(null);
  /** A guide pressed once: where the next press turns it about. */
  pivot: { readonly guide: string; readonly at: Point } | null = $state.raw(null);

  /** What presses do instead of what the step says. */
  task: Task | null = $state.raw(null);
  /** A line being drawn over the picture. */
  rule: Rule | null = $state.raw(null);
  /** The choosing box being drawn, in sheet pixels. */
  box: Box | null = $state.raw(null);
  /** The disc being sampled, in sheet pixels. */
  disc: { readonly at: Point; readonly radius: number } | null = $state.raw(null);

  readonly #looking: { readonly view: View };

  constructor(looking: { readonly view: View }) {
    this.#looking = looking;
  }

  /** Pointer over the bed in sheet pixels; null when it is elsewhere. */
  get pointer(): Point | null {
    return this.pointerAt && toSheet(this.#looking.view, this.pointerAt);
  }

  hold(key: string, on: boolean): void {
    if (this.held.has(key) === on) return;
    const held = new Set(this.held);
    if (on) held.add(key);
    else held.delete(key);
    this.held = held;
  }

  /** Ends what presses were for. */
  rest(): void {
    this.task = null;
    this.cross = null;
    this.listed = null;
    this.pivot = null;
  }
}
