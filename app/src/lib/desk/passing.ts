import type { Recipe } from '@mirrot/core';
import type { Desk } from './desk.svelte';
import type { Offer } from './offer';

/** A change shown while the pointer is on what would make it. */
export interface Passing {
  show(label: string, recipe: Recipe): void;
  leave(): void;
  /** As `leave`, for the end of an effect: what is read there is as it was before, and would be put back. */
  leaveAfter(): void;
}

/** What else is offered is not taken away by passing over. `from` tells whose it is. */
export function passingOffer(desk: Desk, from: NonNullable<Offer['from']>): Passing {
  let shown = false;
  const leave = (): void => {
    if (!shown) return;
    shown = false;
    if (desk.offer?.from === from) desk.leaveOffer();
  };
  return {
    show(label, recipe) {
      if (desk.offer && desk.offer.from !== from) return;
      shown = true;
      desk.makeOffer({ from, text: label, label, recipe, preview: true, passing: true });
    },
    leave,
    leaveAfter: () => queueMicrotask(leave),
  };
}
