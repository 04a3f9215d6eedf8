import Ban from '@lucide/svelte/icons/ban';
import Droplet from '@lucide/svelte/icons/droplet';
import CircleDot from '@lucide/svelte/icons/circle-dot';
import Pipette from '@lucide/svelte/icons/pipette';
import Brush from '@lucide/svelte/icons/brush';
import Plus from '@lucide/svelte/icons/plus';
import { keepAsChip, takeOff } from '@mirrot/core';
import { chooseByFill } from '$lib/edits/choosing-kin';
import { currentColour, currentHex, currentPaint, setKind } from '$lib/edits/painting';
import { newId } from '$lib/ids';
import { NOTHING_CHOSEN } from '$lib/desk/choice';
import type { Command } from '$lib/desk/command';
import type { Sampling } from '$lib/desk/colouring.svelte';
import type { Desk } from '$lib/desk/desk.svelte';
import { whenFetched } from '$lib/desk/when-fetched';
import type { Workplace } from '$lib/desk/workplace.svelte';
import type * as Toned from './toned';

/** The colour that could become a chip: one of its own, that no chip has. */
function colourToKeep(desk: Desk): string | null {
  const colour = currentColour(desk);
  const hex = colour && 'hex' in colour ? colour.hex : null;
  return desk.art.chips.some((c) => c.hex === hex) ? null : hex;
}

const arm =
  (kind: Sampling) =>
  ({ desk }: { desk: Desk }): void => {
    desk.colouring.brush = false;
    desk.colouring.sampling = desk.colouring.sampling === kind ? null : kind;
  };

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
    run: (w) => void w.desk.change('Take the fill off', takeOff(w.desk.choice.shapes, 'fill')),
  },
  {
    id: 'brush',
    title: 'Brush',
    icon: Brush,
    steps: ['colour'],
    says: () => 'Brush: press shapes, or drag across them, to give each the fill of the next path',
    on: (w) => w.desk.colouring.brush,
    run({ desk }) {
      desk.colouring.sampling = null;
      desk.colouring.brush = !desk.colouring.brush;
      if (!desk.colouring.brush) return;
      // What was chosen gives the brush its colour.
      const { receivedShape } = desk.choosing;
      const fill = receivedShape?.fill;
      if (fill && !('kind' in fill)) desk.colouring.nextFill = fill;
      desk.choose(NOTHING_CHOSEN);
      desk.choosing.justEnded = null;
    },
  },
  {
    id: 'gradient-from-picture',
    title: 'Gradient from the picture',
    steps: ['colour'],
    when: ({ desk }) => desk.choosing.receivers.length > 0 && desk.picture.traced !== null,
    run: (w) => toning(w, ({ gradientFromPicture }) => gradientFromPicture(w)),
  },
  {
    id: 'linear-gradient',
    title: 'Linear gradient',
    steps: ['colour'],
    when: ({ desk }) => desk.choosing.receivers.length > 0 && currentPaint(desk) !== null,
    run: ({ desk }) => setKind(desk, 'linear'),
  },
  {
    id: 'radial-gradient',
    title: 'Radial gradient',
    steps: ['colour'],
    when: ({ desk }) => desk.choosing.receivers.length > 0 && currentPaint(desk) !== null,
    run: ({ desk }) => setKind(desk, 'radial'),
  },
  {
    id: 'choose-by-fill',
    title: 'Choose all of this fill',
    steps: ['colour'],
    when: ({ desk }) => desk.choosing.receivers.length > 0 && currentHex(desk) !== null,
    run: ({ desk }) => chooseByFill(desk, currentHex(desk)!),
  },
];
