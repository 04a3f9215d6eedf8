import Droplets from '@lucide/svelte/icons/droplets';
import Eclipse from '@lucide/svelte/icons/eclipse';
import Shovel from '@lucide/svelte/icons/shovel';
import type * as CuttingOut from '$lib/edits/cutting-out';
import { groupsChosen } from '$lib/edits/grouping';
import type * as Outlining from '$lib/edits/outlining';
import type * as Weeding from '$lib/edits/weeding';
import type { Command } from '$lib/desk/command';
import type { Desk } from '$lib/desk/desk.svelte';
import type { Step } from '$lib/desk/steps';
import { TASK_WORDS } from '$lib/desk/task';
import { whenFetched } from '$lib/desk/when-fetched';

// What is done to lines and to what they enclose, in every step.

/** Done now and then, so what does it comes when it is wanted. */
const outlining = (desk: Desk, run: (ways: typeof Outlining) => void): void =>
  whenFetched(desk, import('$lib/edits/outlining'), run);

const weeding = (desk: Desk, run: (ways: typeof Weeding) => void): void =>
  whenFetched(desk, import('$lib/edits/weeding'), run);

const cutting = (desk: Desk, run: (ways: typeof CuttingOut) => void): void =>
  whenFetched(desk, import('$lib/edits/cutting-out'), run);

/** Presses do this and nothing else until Esc, or the same again. */
const lasting = (kind: 'pour' | 'weed', title: string, icon: Command['icon']): Command => ({
  id: kind,
  title,
  icon,
  when: ({ desk }) => !desk.live,
  on: ({ desk }) => desk.pointing.task?.kind === kind,
  run({ desk }) {
    const on = desk.pointing.task?.kind === kind;
    desk.leaveOffer();
    desk.pointing.task = on ? null : { kind };
    if (on) return;
    desk.colouring.brush = false;
    desk.colouring.sampling = null;
    desk.say(TASK_WORDS[kind]);
  },
});

/** Where the picture would hide what lies beneath everything. */
const PROVING_GLASS = 100;
/** Steps in which what lies beneath everything is seen. */
const PROVING_STEPS: readonly Step[] = ['colour', 'proof'];
const isProving = ({ step, looking }: Desk): boolean =>
  looking.ground === 'loud' && PROVING_STEPS.includes(step);

export const LINES: readonly Command[] = [
  lasting('pour', 'Pour', Droplets),
  lasting('weed', 'Weed', Shovel),
  {
    id: 'stroke-to-shape',
    title: 'Stroke to shape',
    when: ({ desk }) => !desk.live && desk.chosenShapes.some((shape) => shape.stroke),
    run: (w) => outlining(w.desk, ({ strokeChosenToShapes }) => void strokeChosenToShapes(w)),
  },
  {
    id: 'crossing-anchors',
    title: 'Anchors at crossings',
    when: ({ desk }) => !desk.live && desk.choice.shapes.length > 0,
    run: ({ desk }) => weeding(desk, ({ anchorsAtCrossings }) => anchorsAtCrossings(desk)),
  },
  {
    id: 'one-shape',
    title: 'As one shape',
    when: ({ desk }) => !desk.live && desk.choice.shapes.length > 1,
    run: ({ desk }) => outlining(desk, ({ asOneShape }) => asOneShape(desk)),
  },
  {
    id: 'free-paths',
    title: 'Free its paths',
    when: ({ desk }) => !desk.live && desk.chosenShapes.some((shape) => shape.paths.length > 1),
    run: ({ desk }) => outlining(desk, ({ freePaths }) => freePaths(desk)),
  },
  {
    id: 'cut-out',
    title: 'Cut out',
    when: ({ desk }) => !desk.live && desk.choice.shapes.length > 0,
    says: () => 'Cut the picture out by the chosen shape, or what else is chosen by the topmost of it',
    run: ({ desk }) => cutting(desk, (ways) => ways.cutOutOrSay(desk)),
  },
  {
    id: 'release-cutout',
    title: 'Release the cutout',
    when: ({ desk }) => !desk.live && groupsChosen(desk).some((group) => group.clip !== undefined),
    run: ({ desk }) => cutting(desk, ({ releaseCutouts }) => releaseCutouts(desk)),
  },
  {
    id: 'prove-hole',
    title: 'Prove the hole',
    icon: Eclipse,
    says: ({ desk }) =>
      isProving(desk) ? 'Take the loud colour away again' : 'Put a loud colour beneath everything',
    on: ({ desk }) => isProving(desk),
    run({ desk }) {
      const { looking } = desk;
      if (isProving(desk)) {
        looking.ground = 'sheet';
        if (looking.glass === PROVING_GLASS) looking.glassBack();
        return;
      }
      // While lines are drawn and refined nothing lies beneath them.
      if (!PROVING_STEPS.includes(desk.step)) desk.open('proof');
      looking.ground = 'loud';
      looking.glass = PROVING_GLASS;
    },
  },
];
