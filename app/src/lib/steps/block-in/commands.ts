import Check from '@lucide/svelte/icons/check';
import Circle from '@lucide/svelte/icons/circle-dot-dashed';
import CornerUpLeft from '@lucide/svelte/icons/corner-up-left';
import PenLine from '@lucide/svelte/icons/pen-line';
import Route from '@lucide/svelte/icons/route';
import Spline from '@lucide/svelte/icons/spline';
import Waves from '@lucide/svelte/icons/waves';
import Waypoints from '@lucide/svelte/icons/waypoints';
import { takeBack, turnFollow, turnLast } from '$lib/bed/block-in';
import { closeLive, endPath } from '$lib/bed/ending';
import type { Command } from '$lib/desk/command';
import type { Workplace } from '$lib/desk/workplace.svelte';
import Magnet from '@lucide/svelte/icons/magnet';
import { DRAWING } from './drawing';

const drawing = (w: Workplace): boolean => w.desk.live !== null;
const anchors = (w: Workplace): number => w.desk.livePath?.anchors.length ?? 0;

export const BLOCK_IN: readonly Command[] = [
  {
    id: 'new-path-here',
    title: 'New path',
    icon: PenLine,
    steps: ['block-in'],
    on: (w) => w.desk.next.fresh,
    run(w) {
      endPath(w.desk);
      w.desk.next.form = null;
      w.desk.next.fresh = true;
    },
  },
  {
    id: 'close-path',
    title: 'Close',
    icon: Circle,
    steps: ['block-in'],
    when: (w) => anchors(w) > 1,
    run: (w) => closeLive(w.desk),
  },
  {
    id: 'end-path',
    title: 'End, keep open',
    icon: Check,
    keys: ['Enter'],
    steps: ['block-in'],
    when: drawing,
    run: (w) => endPath(w.desk),
  },
  {
    id: 'take-back',
    title: 'Take back',
    icon: CornerUpLeft,
    keys: ['Backspace'],
    steps: ['block-in'],
    when: drawing,
    run: (w) => takeBack(w.desk),
  },
  {
    id: 'turn-last',
    title: 'Corner or smooth',
    icon: Waypoints,
    keys: ['J'],
    steps: ['block-in'],
    when: (w) => drawing(w),
    run: (w) => turnLast(w.desk),
  },
  {
    id: 'carry',
    title: 'Carry',
    icon: Spline,
    steps: ['block-in'],
    on: (w) => w.desk.habits.carry,
    run: (w) => void w.desk.habits.set({ carry: !w.desk.habits.carry }),
  },
  {
    id: 'flowing-clicks',
    title: 'Flowing clicks',
    icon: Waves,
    steps: ['block-in'],
    on: (w) => w.desk.habits.flowingClicks,
    run: (w) => void w.desk.habits.set({ flowingClicks: !w.desk.habits.flowingClicks }),
  },
  {
    id: 'carry-once',
    title: 'The other of Carry, once',
    keys: ['O'],
    steps: ['block-in'],
    on: (w) => w.desk.next.carryOnce,
    run: (w) => void (w.desk.next.carryOnce = !w.desk.next.carryOnce),
  },
  {
    id: 'reach',
    title: 'Reach',
    icon: Route,
    steps: ['block-in'],
    on: (w) => w.desk.habits.reach,
    says: () => 'Reach: the next segment is offered on the picture’s edge; C held gives a plain one',
    run: ({ desk }) => desk.habits.set({ reach: !desk.habits.reach }),
  },
  {
    id: 'stroke-or-edge',
    title: 'Stroke or edge',
    keys: ['S'],
    steps: ['block-in'],
    when: (w) => w.desk.habits.reach && w.desk.picture.driftSettings !== null,
    says: () => 'Stroke or edge: whether the path follows a stroke’s middle or an edge',
    run: ({ desk }) => turnFollow(desk),
  },
  {
    id: 'reach-chain',
    title: 'Chain beyond the tick',
    icon: Route,
    steps: ['block-in'],
    on: (w) => w.desk.habits.reachChain,
    says: () =>
      'Chain beyond the tick: where one segment cannot hold the edge the fewest that can are offered',
    run: ({ desk }) => desk.habits.set({ reachChain: !desk.habits.reachChain }),
  },
  {
    id: 'snap',
    title: 'Snap',
    icon: Magnet,
    steps: ['block-in', 'refine'],
    on: (w) => w.desk.habits.snapOn,
    run: ({ desk }) => desk.habits.set({ snapOn: !desk.habits.snapOn }),
  },
  ...DRAWING,
];
