import {
  addAt,
  addEvenly,
  arrange,
  canCut,
  canJoin,
  canMerge,
  cutHere,
  joinChosen,
  mergeChosen,
  protectChosen,
  reverseChosen,
  startHere,
} from '$lib/edits/anchors';
import { chooseBetween, chooseKin, invertChoice } from '$lib/edits/choosing-kin';
import { canPutBack, putBack } from '$lib/edits/meaning';
import { whenFetched } from '$lib/desk/when-fetched';
import { canMakeSymmetric } from '$lib/edits/axes';
import type { Command } from '$lib/desk/command';
import type { Desk } from '$lib/desk/desk.svelte';
import { canAddInMiddle } from '$lib/edits/shaping';

/** Commands on chosen anchors and paths, in the panel and the finder. */
export const REWORK: readonly Command[] = (
  [
    ['cut-here', 'Cut here', canCut, cutHere],
    ['start-here', 'Start here', (d) => d.choice.anchors.length === 1, startHere],
    ['reverse', 'Reverse', (d) => d.choice.shapes.length > 0, reverseChosen],
    ['merge-anchors', 'Merge', canMerge, mergeChosen],
    ['join-straight', 'Join the ends', canJoin, (d) => joinChosen(d, 'straight')],
    ['join-middle', 'Join in the middle', canJoin, (d) => joinChosen(d, 'middle')],
    ['protect', 'Protect or free', (d) => d.choice.anchors.length > 0, protectChosen],
    ['put-back', 'Put back on the picture', canPutBack, putBack],
    [
      'symmetric-again',
      'Symmetric again',
      canMakeSymmetric,
      (d) => whenFetched(d, import('$lib/edits/symmetry'), ({ offerSymmetric }) => offerSymmetric(d)),
    ],
    ['add-extremes', 'Add at extremes', (d) => d.choice.shapes.length > 0, (d) => addAt(d, 'extremes')],
    ['add-inflections', 'Add at turns', (d) => d.choice.shapes.length > 0, (d) => addAt(d, 'inflections')],
    ['add-three', 'Add three evenly', canAddInMiddle, (d) => addEvenly(d, 3)],
    ['align-level', 'Align level', (d) => d.choice.anchors.length > 1, (d) => arrange(d, 'level')],
    ['align-upright', 'Align upright', (d) => d.choice.anchors.length > 1, (d) => arrange(d, 'upright')],
    ['even-across', 'Even out across', (d) => d.choice.anchors.length > 2, (d) => arrange(d, 'even-across')],
    ['even-down', 'Even out down', (d) => d.choice.anchors.length > 2, (d) => arrange(d, 'even-down')],
    ['choose-between', 'Choose all between', (d) => d.choice.anchors.length === 2, chooseBetween],
    ['choose-rest', 'Choose the rest', () => true, invertChoice],
    [
      'choose-fill',
      'Choose all of this fill',
      (d) => d.choice.shapes.length > 0,
      (d) => chooseKin(d, 'fill'),
    ],
    [
      'choose-stroke',
      'Choose all of this line',
      (d) => d.choice.shapes.length > 0,
      (d) => chooseKin(d, 'stroke'),
    ],
    [
      'choose-layer',
      'Choose all on this layer',
      (d) => d.choice.shapes.length > 0,
      (d) => chooseKin(d, 'layer'),
    ],
  ] as const satisfies readonly (readonly [string, string, (d: Desk) => boolean, (d: Desk) => void])[]
).map(([id, title, when, run]): Command => ({
  id,
  title,
  steps: ['refine'],
  when: (w) => when(w.desk),
  run: (w) => run(w.desk),
}));
