import type { Desk } from '$lib/desk/desk.svelte';
import type { Step } from '$lib/desk/steps';
import { asksForShape } from '$lib/desk/task';
import { carryOutOn } from '$lib/edits/after-another';
import type { Press } from './behaviour';
import { pressAxis } from './axes';
import { pressBlockIn } from './block-in';
import { gripMeasure } from './measuring';
import { gripLines } from './line-grips';
import { pressMount } from './mount';
import { pressRefine, shapeAt } from './refine';
import { ringRound, turnAbout } from './box';
import { gripSample, pressChoose } from './sampling';

const BY_STEP: Readonly<Record<Step, (desk: Desk, p: Parameters<Press>[0]) => ReturnType<Press>>> = {
  mount: pressMount,
  'block-in': pressBlockIn,
  refine: pressRefine,
  colour: pressChoose,
  proof: pressChoose,
  export: pressChoose,
};

/** What a press on the bed does: sampling while D is held, else what the step says. */
export const pressOn =
  (desk: Desk): Press =>
  (p) => {
    if (!desk.pointing.task) desk.leaveOffer();
    desk.pointing.cross = null;
    desk.pointing.listed = null;
    if (desk.pointing.held.has('d')) return gripSample(desk, p);
    if (desk.pointing.task?.kind === 'mirror-axis' || desk.pointing.task?.kind === 'turn-axis')
      return pressAxis(desk, desk.pointing.task, p);
    if (desk.pointing.task?.kind === 'measure') return gripMeasure(desk, p);
    if (desk.pointing.task?.kind === 'pour' || desk.pointing.task?.kind === 'weed')
      return gripLines(desk.pointing.task.kind, desk, p);
    if (desk.pointing.task?.kind === 'about') return { click: (q) => turnAbout(desk, q) };
    if (desk.pointing.task?.kind === 'ring-centre') return { click: (q) => ringRound(desk, q) };
    const { task } = desk.pointing;
    if (asksForShape(task)) return { click: (q) => carryOutOn(desk, task, shapeAt(desk, q), q.sheet) };
    return BY_STEP[desk.step](desk, p);
  };
