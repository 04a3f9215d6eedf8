import type { Follow, FormKind } from '@mirrot/core';

/** What the next press in Block in begins. */
export class NextPath {
  /** The next anchor's Carry is the other one. */
  carryOnce = $state(false);
  /** A press starts a new path whatever lies under the pointer. */
  fresh = $state(false);
  /** What it follows, where a key has turned that; null leaves it to what it begins on. */
  follow: Follow | null = $state(null);
  /** What a drag draws; null for paths. */
  form: FormKind | null = $state(null);
  /** Sides of the next polygon, radius of the next box's corners, and the size last drawn of each. */
  formSides = $state(6);
  formRadius = $state(0);
  formSizes: Partial<Record<FormKind, { readonly width: number; readonly height: number }>> = $state.raw({});
  /** Parts of the next turn axis. */
  axisParts = $state(6);
}
