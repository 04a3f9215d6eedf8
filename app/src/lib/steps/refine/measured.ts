import {
  canLeaveOut,
  canMean,
  isLeftOut,
  isMeant,
  leaveOutOfDrift,
  meanSo,
  rememberPlace,
  remembersPlace,
} from '$lib/edits/meaning';
import LocateFixed from '@lucide/svelte/icons/locate-fixed';
import Feather from '@lucide/svelte/icons/feather';
import type { Command } from '$lib/desk/command';
import { whenFetched } from '$lib/desk/when-fetched';
import type { Workplace } from '$lib/desk/workplace.svelte';
import type * as ByTheEdge from './by-the-edge';

/** What works by the picture's edge comes with the panel, or when it is first wanted. */
const byTheEdge = (w: Workplace, run: (ways: typeof ByTheEdge) => unknown): void =>
  whenFetched(w, import('./by-the-edge'), (ways) => void run(ways));

/** What is done by the picture's edge: thinned, settled, weighed, walked along. */
export const MEASURED: readonly Command[] = [
  {
    id: 'thin-out',
    title: 'Thin out',
    icon: Feather,
    keys: ['X'],
    steps: ['refine'],
    when: (w) => w.desk.choice.shapes.length > 0,
    run: (w) => byTheEdge(w, ({ thinChosen }) => thinChosen(w)),
  },
  {
    id: 'settle',
    title: 'Settle',
    icon: LocateFixed,
    keys: ['E'],
    steps: ['refine'],
    when: (w) => w.desk.picture.driftSettings !== null && w.desk.drawing.figures.paths > 0,
    run: (w) => byTheEdge(w, ({ settleChosen }) => settleChosen(w)),
  },
  {
    id: 'measure-weight',
    title: 'Measure weight',
    steps: ['refine', 'colour'],
    when: (w) => w.desk.picture.driftSettings !== null && w.desk.choosing.receivedShapes.length > 0,
    run: (w) => byTheEdge(w, ({ weighChosen }) => weighChosen(w)),
  },
  {
    id: 'meant-so',
    title: 'Meant so',
    steps: ['refine'],
    when: (w) => canMean(w.desk),
    on: (w) => isMeant(w.desk),
    run: (w) => meanSo(w.desk),
  },
  {
    id: 'leave-out-of-drift',
    title: 'Leave out of drift',
    steps: ['refine'],
    when: (w) => canLeaveOut(w.desk),
    on: (w) => isLeftOut(w.desk),
    run: (w) => leaveOutOfDrift(w.desk),
  },
  {
    id: 'remember-place',
    title: 'Remember its place',
    steps: ['refine'],
    when: (w) => canMean(w.desk),
    on: (w) => remembersPlace(w.desk),
    run: (w) => rememberPlace(w.desk),
  },
  {
    id: 'worst-first',
    title: 'Worst first',
    steps: ['refine'],
    when: (w) => w.desk.picture.drifts.all !== null,
    run: (w) => byTheEdge(w, ({ toWorst }) => toWorst(w)),
  },
];
