import Ban from '@lucide/svelte/icons/ban';
import Droplet from '@lucide/svelte/icons/droplet';
import CircleDot from '@lucide/svelte/icons/circle-dot';
import Pipette from '@lucide/svelte/icons/pipette';
import Plus from '@lucide/svelte/icons/plus';
import { flatHex, keepAsChip, styleShapes, type Paint } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { Command } from '$lib/desk/command';
import type { Sampling } from '$lib/desk/colouring.svelte';
import type { Desk } from '$lib/desk/desk.svelte';
import { whenFetched } from '$lib/desk/when-fetched';
import type { Workplace } from '$lib/desk/workplace.svelte';
import type * as Toned from './toned';

/** What what receives colours is painted with now, or null. */
function currentPaint(desk: Desk): Paint | null {
  const shape = desk.choosing.receivedShape;
  if (desk.colouring.receiving === 'stroke') return shape?.stroke?.paint ?? null;
  return shape ? shape.fill : desk.colouring.nextFill;
}

/** The one colour that is, as hex; null where there is none or several. */
export const currentColour = (desk: Desk): string | null =>
  flatHex(currentPaint(desk), desk.colouring.palette);

/** The colour that could become a chip: one of its own, that no chip has. */
function colourToKeep(desk: Desk): string | null {
  const paint = currentPaint(desk);
  const hex = paint && 'hex' in paint ? paint.hex : null;
  return desk.art.chips.some((c) => c.hex === hex) ? null : hex;
}

const arm =
  (kind: Sampling) =>
  ({ desk }: { desk: Desk }): void =>
    void (desk.colouring.sampling = desk.colouring.sampling === kind ? null : kind);

/** What works by the picture's tones comes when it is wanted. */
export const toning = (w: Workplace, run: (ways: typeof Toned) => unknown): void =>
  whenFetched(w, import('./toned'), (ways) => void run(ways));

export const COLOUR: readonly Command[] = [
  {
    id: 'body-tone',
    title: 'Body tone',
    icon: Droplet,
    keys: ['B'],
    steps: ['colour'],
    says: ({ desk }) =>
      desk.choosing.receivers.length > 0
        ? 'Body tone: the middle value of what it shows of the picture'
        : 'Body tone for every closed shape without a fill',
    run: (w) => toning(w, ({ toneChosen }) => toneChosen(w)),
  },
  {
    id: 'sample-pixel',
    title: 'Pixel',
    icon: Pipette,
    steps: ['colour'],
    on: (w) => w.desk.colouring.sampling === 'pixel',
    run: arm('pixel'),
  },
  {
    id: 'sample-disc',
    title: 'Disc',
    icon: CircleDot,
    steps: ['colour'],
    on: (w) => w.desk.colouring.sampling === 'disc',
    run: arm('disc'),
  },
  {
    id: 'keep-chip',
    title: 'Keep as a chip',
    icon: Plus,
    steps: ['colour'],
    when: ({ desk }) => colourToKeep(desk) !== null,
    run({ desk }) {
      const hex = colourToKeep(desk);
      if (!hex) return;
      const id = newId();
      desk.change('Keep a chip', keepAsChip({ id, name: '', hex }));
      if (desk.colouring.nextFill && 'hex' in desk.colouring.nextFill && desk.colouring.nextFill.hex === hex)
        desk.colouring.nextFill = { chip: id };
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
