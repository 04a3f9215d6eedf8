import type { Recipe } from '@mirrot/core';
import type { Desk } from './desk.svelte';
import type { Gesture } from './changes';

/** A drag of a slider: shown as it goes, and one step once it ends. */
export function sliderGesture(desk: Desk): { show(label: string, recipe: Recipe): void; keep(): void } {
  let gesture: Gesture | null = null;
  return {
    show(label, recipe) {
      gesture ??= desk.gesture(label);
      gesture.show(recipe);
    },
    keep() {
      gesture?.keep();
      gesture = null;
    },
  };
}
