import Ban from '@lucide/svelte/icons/ban';
import CircleDot from '@lucide/svelte/icons/circle-dot';
import Pipette from '@lucide/svelte/icons/pipette';
import Plus from '@lucide/svelte/icons/plus';
import { addChip, styleShapes } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { Command } from '$lib/desk/command';
import type { Desk, Sampling } from '$lib/desk/desk.svelte';

/** The colour now on what receives colours, or null. */
export function currentColour(desk: Desk): string | null {
  const shape = desk.receivedShape;
  if (desk.receiving === 'stroke') return shape?.stroke?.hex ?? null;
  return shape ? (shape.fill?.hex ?? null) : desk.nextFill;
}

const arm =
  (kind: Sampling) =>
  ({ desk }: { desk: Desk }): void =>
    void (desk.sampling = desk.sampling === kind ? null : kind);

export const COLOUR: readonly Command[] = [
  {
    id: 'sample-pixel',
    title: 'Pixel',
    icon: Pipette,
    steps: ['colour'],
    on: (w) => w.desk.sampling === 'pixel',
    run: arm('pixel'),
  },
  {
    id: 'sample-disc',
    title: 'Disc',
    icon: CircleDot,
    steps: ['colour'],
    on: (w) => w.desk.sampling === 'disc',
    run: arm('disc'),
  },
  {
    id: 'keep-chip',
    title: 'Keep as a chip',
    icon: Plus,
    steps: ['colour'],
    when: ({ desk }) =>
      currentColour(desk) !== null && !desk.art.chips.some((c) => c.hex === currentColour(desk)),
    run({ desk }) {
      const hex = currentColour(desk);
      if (hex) desk.change('Keep a chip', addChip({ id: newId(), name: '', hex }));
    },
  },
  {
    id: 'no-fill',
    title: 'Take the fill off',
    icon: Ban,
    steps: ['colour'],
    when: (w) => w.desk.chosenShapes.some((s) => s.fill),
    run: (w) => void w.desk.change('Take the fill off', styleShapes(w.desk.choice.shapes, { fill: null })),
  },
];

/** What a colour, weight or sample goes to, in words: "fill of Shape 4", "next path". */
export function receiverInWords(desk: Desk): string {
  const what = desk.receiving;
  const { receivers, receivedShape } = desk;
  if (receivers.length > 1) return `${what} of ${receivers.length} shapes`;
  if (receivedShape) return `${what} of ${receivedShape.name}`;
  return what === 'fill' ? 'next path' : 'nothing chosen';
}
