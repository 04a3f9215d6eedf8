import { askForFile } from '$lib/ui/ask';
import Blend from '@lucide/svelte/icons/blend';
import Copy from '@lucide/svelte/icons/copy-check';
import Maximize from '@lucide/svelte/icons/maximize';
import PanelLeft from '@lucide/svelte/icons/panel-left';
import PanelRight from '@lucide/svelte/icons/panel-right';
import Redo from '@lucide/svelte/icons/redo-2';
import Search from '@lucide/svelte/icons/search';
import Undo from '@lucide/svelte/icons/undo-2';
import Keyboard from '@lucide/svelte/icons/keyboard';
import SunMoon from '@lucide/svelte/icons/sun-moon';
import { lockGuides, meanScale, removeGuides } from '@mirrot/core';
import { allAnchors, walkAnchors, walkHandles, walkShapes } from '$lib/bed/refine';
import { chooseIds } from '$lib/edits/copying';
import { endPath } from '$lib/bed/ending';
import { chooseAnchors, chooseShapes, NOTHING_CHOSEN } from '$lib/desk/choice';
import type { Command } from '$lib/desk/command';
import { STEP_NAMES, STEPS } from '$lib/desk/steps';
import { TASK_WORDS } from '$lib/desk/task';
import { turnMode } from '$lib/ui/mode.svelte';
import { shapeUnderPointer } from '$lib/bed/refine';
import { hasChosen } from '$lib/desk/command';

const steps: Command[] = STEPS.map((step, i) => ({
  id: `open-${step}`,
  title: `Open ${STEP_NAMES[step]}`,
  keys: [String(i + 1)],
  run(w) {
    // 3 opens Refine on the shape under the pointer.
    const under = step === 'refine' && w.desk.step !== 'refine' ? shapeUnderPointer(w.desk) : null;
    w.desk.open(step);
    if (under) w.desk.choose(chooseShapes([under], 'path'));
  },
}));

export const EVERYWHERE: readonly Command[] = [
  ...steps,
  {
    id: 'undo',
    title: 'Undo',
    icon: Undo,
    keys: ['Mod+Z'],
    when: (w) => w.desk.history.done.length > 0,
    says: ({ desk }) => `Undo: ${desk.history.done.at(-1)?.label ?? 'nothing'}`,
    run: (w) => w.desk.undo(),
  },
  {
    id: 'redo',
    title: 'Redo',
    icon: Redo,
    keys: ['Mod+Shift+Z', 'Mod+Y'],
    when: (w) => w.desk.history.undone.length > 0,
    says: ({ desk }) => `Redo: ${desk.history.undone.at(-1)?.label ?? 'nothing'}`,
    run: (w) => w.desk.redo(),
  },
  { id: 'keep-copy', title: 'Keep a copy', icon: Copy, keys: ['K'], run: (w) => void w.keepCopy() },
  {
    id: 'finder',
    title: 'Find a command',
    icon: Search,
    keys: ['Mod+K'],
    run: (w) => void (w.dialog = 'finder'),
  },
  {
    id: 'take-file',
    title: 'Take a picture, drawing, bundle or palette',
    run: (w) =>
      askForFile((files) => {
        import('$lib/edits/taking').then(
          ({ takeFiles }) => void takeFiles(w, files, null),
          () => w.desk.say('What reads files could not be fetched. Try again in a moment.', 'bad'),
        );
      }),
  },
  { id: 'light-dark', title: 'Turn light and dark', icon: SunMoon, run: () => turnMode() },
  { id: 'keys', title: 'Show the keys', icon: Keyboard, keys: ['?'], run: (w) => void (w.dialog = 'keys') },
  { id: 'fit-sheet', title: 'Fit the sheet', icon: Maximize, keys: ['0'], run: (w) => w.desk.looking.fit() },
  {
    id: 'fit-chosen',
    title: 'Fit what is chosen',
    keys: ['Shift+0'],
    when: (w) => w.desk.choosing.box !== null,
    run: (w) => w.desk.looking.fit(w.desk.choosing.box!),
  },
  {
    id: 'pixels-1-1',
    title: 'Show picture pixels one to one',
    keys: ['9'],
    when: (w) => w.desk.picture.traced !== null,
    run: (w) =>
      w.desk.looking.zoom(
        1 /
          meanScale(w.desk.picture.traced!.placement) /
          w.desk.looking.view.scale /
          (globalThis.devicePixelRatio ?? 1),
      ),
  },
  { id: 'zoom-in', title: 'Zoom in', keys: ['+'], run: (w) => w.desk.looking.zoom(1.25) },
  { id: 'zoom-out', title: 'Zoom out', keys: ['-'], run: (w) => w.desk.looking.zoom(0.8) },
  {
    id: 'view-before',
    title: 'Go back to the view before',
    keys: ['W'],
    run: (w) => w.desk.looking.viewBack(),
  },
  {
    id: 'glass-before',
    title: 'Go back to the Glass before',
    icon: Blend,
    keys: ['G'],
    run: (w) => w.desk.looking.glassBack(),
  },
  {
    id: 'loupe',
    title: 'Loupe',
    icon: Search,
    keys: ['L'],
    on: (w) => w.desk.habits.loupe,
    run: (w) => void w.desk.habits.set({ loupe: !w.desk.habits.loupe }),
  },
  {
    id: 'measure',
    title: 'Measure',
    on: (w) => w.desk.pointing.task?.kind === 'measure',
    run({ desk }) {
      const on = desk.pointing.task?.kind === 'measure';
      desk.pointing.task = on ? null : { kind: 'measure', line: null, crossed: null };
      if (!on) desk.say(TASK_WORDS.measure);
    },
  },
  {
    id: 'rulers',
    title: 'Rulers',
    on: (w) => w.desk.habits.rulers,
    run: (w) => void w.desk.habits.set({ rulers: !w.desk.habits.rulers }),
  },
  {
    id: 'lock-guides',
    title: 'Lock or unlock the guides',
    when: (w) => w.desk.art.guides.lines.length > 0,
    on: (w) => w.desk.art.guides.locked,
    run: (w) => void w.desk.change('Lock or unlock the guides', lockGuides(!w.desk.art.guides.locked)),
  },
  {
    id: 'remove-guides',
    title: 'Take all guides away',
    when: (w) => w.desk.art.guides.lines.length > 0,
    run: (w) => void w.desk.change('Take all guides away', removeGuides()),
  },
  {
    id: 'column-stack',
    title: 'Stack',
    icon: PanelLeft,
    keys: ['U'],
    on: (w) => w.columns.shown('stack'),
    run: (w) => w.columns.turn('stack'),
  },
  {
    id: 'column-eye',
    title: 'Eye',
    icon: PanelRight,
    keys: ['I'],
    on: (w) => w.columns.shown('eye'),
    run: (w) => w.columns.turn('eye'),
  },
  {
    id: 'next-anchor',
    title: 'Next anchor',
    keys: ['N'],
    steps: ['refine'],
    when: hasChosen,
    run: (w) => walkAnchors(w.desk, 1),
  },
  {
    id: 'previous-anchor',
    title: 'Anchor before',
    keys: ['Shift+N'],
    steps: ['refine'],
    when: hasChosen,
    run: (w) => walkAnchors(w.desk, -1),
  },
  {
    id: 'add-next-anchor',
    title: 'Choose the next anchor too',
    keys: ['Alt+N'],
    steps: ['refine'],
    when: (w) => w.desk.choice.anchors.length > 0,
    run: (w) => walkAnchors(w.desk, 1, true),
  },
  {
    id: 'add-previous-anchor',
    title: 'Choose the anchor before too',
    keys: ['Alt+Shift+N', 'Shift+Alt+N'],
    steps: ['refine'],
    when: (w) => w.desk.choice.anchors.length > 0,
    run: (w) => walkAnchors(w.desk, -1, true),
  },
  {
    id: 'walk-handles',
    title: 'From the anchor to its handles and back',
    keys: ['M'],
    steps: ['refine'],
    when: (w) => w.desk.choice.anchors.length > 0 || w.desk.choice.handle !== null,
    run: (w) => walkHandles(w.desk),
  },
  { id: 'next-shape', title: 'Next shape', keys: ['V'], run: (w) => walkShapes(w.desk, 1) },
  { id: 'previous-shape', title: 'Shape before', keys: ['Shift+V'], run: (w) => walkShapes(w.desk, -1) },
  {
    id: 'choose-all',
    title: 'Choose all',
    keys: ['Mod+A'],
    run({ desk }) {
      // While a path is shaped, all of its anchors.
      if (desk.step === 'refine' && desk.choice.level === 'path' && desk.choice.shapes.length > 0)
        desk.choose({ ...chooseAnchors(allAnchors(desk)), shapes: desk.choice.shapes });
      else
        desk.choose(
          chooseIds(
            desk.art,
            desk.choosing.wholes.map(({ id }) => id),
          ),
        );
    },
  },
  {
    id: 'new-path',
    title: 'Start a new path',
    keys: ['T'],
    steps: ['mount', 'block-in', 'colour', 'proof', 'export'],
    run(w) {
      endPath(w.desk);
      w.desk.open('block-in');
      w.desk.next.form = null;
      w.desk.choose(NOTHING_CHOSEN);
      w.desk.next.fresh = true;
    },
  },
];
