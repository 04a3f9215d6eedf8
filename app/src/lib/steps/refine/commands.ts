import CircleOff from '@lucide/svelte/icons/circle-slash-2';
import Circle from '@lucide/svelte/icons/circle-dot-dashed';
import Minus from '@lucide/svelte/icons/circle-minus';
import Plus from '@lucide/svelte/icons/circle-plus';
import Donut from '@lucide/svelte/icons/donut';
import Spline from '@lucide/svelte/icons/spline';
import Slash from '@lucide/svelte/icons/slash';
import Waves from '@lucide/svelte/icons/waves';
import Waypoints from '@lucide/svelte/icons/waypoints';
import { canCut, cutHere } from '$lib/edits/anchors';
import type { Command } from '$lib/desk/command';
import type { Workplace } from '$lib/desk/workplace.svelte';
import {
  addInMiddle,
  canAddInMiddle,
  closeOrOpen,
  deleteChosen,
  flowChosen,
  flowKinds,
  straighten,
  turnKinds,
} from '$lib/edits/shaping';

import { freeChosenHole, holeToFree, hostOf, makeHoleOfChosen } from '$lib/edits/holes';
import { MEASURED } from './measured';
import { REWORK } from './rework';

const anchorsChosen = (w: Workplace): boolean => w.desk.choice.anchors.length > 0;
export const REFINE: readonly Command[] = [
  ...REWORK,
  ...MEASURED,
  {
    id: 'open-here',
    title: 'Open the path here',
    keys: ['Shift+Delete'],
    steps: ['refine'],
    when: (w) => canCut(w.desk),
    run: (w) => cutHere(w.desk),
  },
  {
    id: 'whiskers',
    title: 'Drift marks',
    steps: ['refine'],
    on: (w) => w.desk.habits.whiskers,
    run: ({ desk }) => desk.habits.set({ whiskers: !desk.habits.whiskers }),
  },
  {
    id: 'haze',
    title: 'Haze',
    keys: ['Z'],
    steps: ['refine'],
    on: (w) => w.desk.habits.haze,
    run: ({ desk }) => void desk.habits.set({ haze: !desk.habits.haze }),
  },
  {
    id: 'comb',
    title: 'Curvature comb',
    steps: ['refine'],
    on: (w) => w.desk.habits.comb,
    run: ({ desk }) => void desk.habits.set({ comb: !desk.habits.comb }),
  },
  {
    id: 'true-stroke',
    title: 'True stroke',
    steps: ['refine'],
    on: (w) => w.desk.habits.trueStroke,
    run: ({ desk }) => void desk.habits.set({ trueStroke: !desk.habits.trueStroke }),
  },
  {
    id: 'turn-kind',
    title: 'Corner or smooth',
    icon: Waypoints,
    keys: ['J'],
    steps: ['refine'],
    when: anchorsChosen,
    run: (w) => turnKinds(w.desk),
  },
  {
    id: 'flow-kind',
    title: 'Flowing or smooth',
    icon: Waves,
    keys: ['Shift+J'],
    steps: ['refine'],
    when: anchorsChosen,
    run: (w) => flowKinds(w.desk),
  },
  {
    id: 'flow-all',
    title: 'Flow all',
    icon: Spline,
    keys: ['F'],
    steps: ['refine', 'block-in'],
    when: (w) => w.desk.choosing.receivedShapes.length > 0 && !w.desk.live,
    run: (w) => flowChosen(w.desk),
  },
  {
    id: 'add-anchor',
    title: 'Add anchor',
    icon: Plus,
    steps: ['refine'],
    when: (w) => canAddInMiddle(w.desk),
    run: (w) => addInMiddle(w.desk),
  },
  {
    id: 'remove-anchor',
    title: 'Remove anchor',
    icon: Minus,
    steps: ['refine'],
    when: anchorsChosen,
    run: (w) => deleteChosen(w.desk),
  },
  {
    id: 'straighten',
    title: 'Straighten',
    icon: Slash,
    steps: ['refine'],
    when: (w) => w.desk.choice.segment !== null,
    run: (w) => straighten(w.desk),
  },
  {
    id: 'close-open',
    title: 'Close or open',
    icon: Circle,
    steps: ['refine'],
    when: (w) => w.desk.choice.shapes.length > 0,
    run: (w) => closeOrOpen(w.desk),
  },
  {
    id: 'make-hole',
    title: 'Make it a hole',
    icon: Donut,
    steps: ['refine', 'block-in', 'colour'],
    when: (w) => hostOf(w.desk) !== null,
    run: ({ desk }) => makeHoleOfChosen(desk),
  },
  {
    id: 'free-hole',
    title: 'Free the hole',
    icon: CircleOff,
    steps: ['refine', 'colour'],
    when: (w) => holeToFree(w.desk) !== null,
    run: ({ desk }) => freeChosenHole(desk),
  },
];
