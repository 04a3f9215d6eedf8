import type { BedPointer, PressMachine } from '$lib/bed/behaviour';
import type { Command } from '$lib/desk/command';
import type { Desk } from '$lib/desk/desk.svelte';
import { toBed, toSheet } from '$lib/desk/view';
import { nudge } from '$lib/edits/nudging';

// The bed by keys. Arrows move a crosshair, which begins where the pointer is, and Enter presses there; or they nudge what
// is chosen.

const ARROWS = [
  ['←', -1, 0, 'left'],
  ['→', 1, 0, 'right'],
  ['↑', 0, -1, 'up'],
  ['↓', 0, 1, 'down'],
] as const;

/** With each held key: screen pixels the crosshair moves, and screen pixels what is chosen is nudged. */
const AMOUNTS = [
  ['', 10, 1, ''],
  ['Shift+', 100, 10, ' far'],
  ['Alt+', 1, 0.1, ' a little'],
] as const;

/** Whether arrows move the crosshair: it is out, something waits for a place, or nothing is chosen that they could nudge. */
const movesCross = (desk: Desk): boolean =>
  desk.pointing.cross !== null ||
  desk.pointing.task !== null ||
  desk.colouring.sampling !== null ||
  desk.live !== null ||
  desk.choice.shapes.length === 0;

/** Where the crosshair is, or would begin: under the pointer, else in the middle of the bed. */
function crossOf(desk: Desk) {
  const { pointing, looking } = desk;
  const { width, height } = looking.bed;
  return pointing.cross ?? pointing.pointer ?? toSheet(looking.view, { x: width / 2, y: height / 2 });
}

export const CROSSHAIR: readonly Command[] = [
  ...ARROWS.flatMap(([key, x, y, word]) =>
    AMOUNTS.map(([held, moved, nudged, much]): Command => ({
      id: `cross-${word}-${moved}`,
      title: `Move the crosshair, or what is chosen, ${word}${much}`,
      keys: [`${held}${key}`],
      run({ desk }) {
        const { scale } = desk.looking.view;
        if (!movesCross(desk)) return void nudge(desk, { x: (x * nudged) / scale, y: (y * nudged) / scale });
        const from = crossOf(desk);
        const to = { x: from.x + (x * moved) / scale, y: from.y + (y * moved) / scale };
        desk.pointing.cross = to;
        desk.looking.bringIntoSight({ x0: to.x, y0: to.y, x1: to.x, y1: to.y });
      },
    })),
  ),
  {
    id: 'crosshair',
    title: 'Crosshair for the arrows',
    keys: ['.'],
    on: ({ desk }) => desk.pointing.cross !== null,
    run({ desk }) {
      desk.pointing.cross = desk.pointing.cross ? null : crossOf(desk);
    },
  },
];

/** A press on the bed made by keys: at once, or held while the crosshair moves. */
export interface KeyPress {
  /** True while a press is held by keys. */
  readonly held: boolean;
  /** Presses where the crosshair stands and lets go again. */
  click(): void;
  /** Presses where the crosshair stands, and holds. */
  hold(): void;
  /** Takes what is held to where the crosshair stands now. */
  move(): void;
  letGo(): void;
}

export function createKeyPress(desk: Desk, machine: PressMachine): KeyPress {
  let held = false;
  const pointer = (): Omit<BedPointer, 'again'> => {
    const sheet = desk.pointing.cross!;
    const screen = toBed(desk.looking.view, sheet);
    return { sheet, screen, shift: false, alt: false, type: 'mouse', time: desk.now() };
  };
  /** A press puts the crosshair away; one by keys leaves it where it is. */
  const keeping = (act: () => void): void => {
    const at = desk.pointing.cross;
    act();
    desk.pointing.cross = at;
  };
  return {
    get held() {
      return held && machine.busy;
    },
    click() {
      keeping(() => machine.down(pointer()));
      machine.up(pointer());
    },
    hold() {
      held = true;
      keeping(() => machine.down(pointer()));
    },
    move: () => machine.move(pointer()),
    letGo() {
      held = false;
      machine.up(pointer());
    },
  };
}
