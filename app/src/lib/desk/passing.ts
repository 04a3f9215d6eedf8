import type { Recipe } from '@mirrot/core';
import type { Desk } from './desk.svelte';
import type { Offer } from './offer';

/** A change shown while the pointer is on what would make it. */
export interface Passing {
  show(label: string, recipe: Recipe): void;
  leave(): void;
}

/** What else is offered is not taken away by passing over. `from` tells whose it is. */
export const passingOffer = (desk: Desk, from: NonNullable<Offer['from']>): Passing => ({
  show(label, recipe) {
    if (desk.offer && desk.offer.from !== from) return;
    desk.makeOffer({ from, text: label, label, recipe, preview: true, passing: true });
  },
  leave() {
    if (desk.offer?.from === from) desk.leaveOffer();
  },
});
