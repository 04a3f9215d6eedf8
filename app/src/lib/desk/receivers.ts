import type { Desk } from './desk.svelte';

/** What a colour, weight or sample goes to, in words: "fill of Shape 4", "next path". */
export function receiverInWords(desk: Desk): string {
  const what = desk.colouring.receiving;
  const { receivers, receivedShape } = desk.choosing;
  if (receivers.length > 1) return `${what} of ${receivers.length} shapes`;
  if (receivedShape) return `${what} of ${receivedShape.name}`;
  return what === 'fill' ? 'next path' : 'nothing chosen';
}
