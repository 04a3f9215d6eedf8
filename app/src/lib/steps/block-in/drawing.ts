import {
  FORM_KINDS,
  partShared,
  releaseAxis,
  setDrawingAxis,
  shapesOf,
  together,
  type Shape,
} from '@mirrot/core';
import { compose, apply, scaling, type Point } from '@mirrot/core';
import { offerMirror } from '$lib/edits/axes';
import { endPath } from '$lib/bed/ending';
import { FORM_WORDS } from '$lib/bed/forms';
import type { Command } from '$lib/desk/command';
import type { Desk } from '$lib/desk/desk.svelte';
import { wishFor } from '$lib/desk/seeing.svelte';
import { TASK_WORDS } from '$lib/desk/task';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { withProgress } from '$lib/desk/progress';
import { pictureWorker } from '$lib/workers/picture';

/** The share of a picture's edges that must have their like for its own axis to be offered. */
const SURE = 0.55;

/** Finds the picture's own axis of symmetry and offers it, while a mirror axis is being placed. */
async function offerOwnAxis(w: Workplace): Promise<void> {
  const { desk } = w;
  const picture = desk.picture.traced;
  if (!picture) return;
  const wish = { ...wishFor(picture, 'work'), for: `${picture.id} symmetry` };
  const found = await withProgress(
    w,
    'Looking for the picture’s own axis',
    () => {},
    () => pictureWorker.ask((work) => work.symmetry(wish)),
  );
  const { task } = desk.pointing;
  if (!found || task?.kind !== 'mirror-axis' || desk.picture.traced !== picture) return;
  if (found.share < SURE)
    return desk.say(
      `The picture has no clear axis of its own: ${Math.round(found.share * 100)} % of its edges have their like at best.`,
    );
  const place = compose(picture.placement, scaling(found.step));
  const at = (k: number): Point =>
    apply(place, { x: found.at.x + k * Math.cos(found.angle), y: found.at.y + k * Math.sin(found.angle) });
  const own = { from: at(-100), to: at(100) };
  desk.pointing.task = { ...task, own };
  offerMirror(
    desk,
    `The picture’s own axis: ${Math.round(found.share * 100)} % of its edges have their like across it`,
    own,
  );
}

/** Shapes whose axis is released: those that receive, else all that have one. */
function aboutAxis(desk: Desk): Shape[] {
  const own = desk.choosing.receivedShapes.filter((s) => s.axis);
  return own.length > 0 ? own : shapesOf(desk.art).flatMap(({ shape }) => (shape.axis ? [shape] : []));
}

const canRelease = (desk: Desk): boolean => desk.art.axis !== null || aboutAxis(desk).length > 0;

const shared = (desk: Desk): boolean =>
  desk.choice.anchors.some(
    (a) => desk.shapeOf(a.shape)?.paths.find((p) => p.id === a.path)?.anchors[a.index]?.shared !== undefined,
  );

/** What else is drawn with: forms, axes, snapping. */
export const DRAWING: readonly Command[] = [
  ...FORM_KINDS.map((kind): Command => ({
    id: `draw-${kind}`,
    title: `Draw ${kind === 'ellipse' ? 'ellipses' : kind === 'box' ? 'boxes' : `${FORM_WORDS[kind].toLowerCase()}s`}`,
    steps: ['block-in'],
    on: (w) => w.desk.next.form === kind,
    run({ desk }) {
      endPath(desk);
      desk.next.form = desk.next.form === kind ? null : kind;
      desk.choosing.justEnded = null;
    },
  })),
  {
    id: 'straight-only',
    title: 'Straight only',
    steps: ['block-in'],
    on: (w) => w.desk.habits.straightOnly,
    run: ({ desk }) => desk.habits.set({ straightOnly: !desk.habits.straightOnly }),
  },
  {
    id: 'pen-strokes',
    title: 'Single pen strokes',
    steps: ['block-in'],
    on: (w) => w.desk.habits.pen,
    run: ({ desk }) => desk.habits.set({ pen: !desk.habits.pen }),
  },
  {
    id: 'grid',
    title: 'Grid',
    on: (w) => w.desk.art.grid.shown,
    run: ({ desk }) =>
      void desk.change('Show or hide the grid', (draft) => void (draft.grid.shown = !draft.grid.shown)),
  },
  {
    id: 'mirror-axis',
    title: 'Mirror axis',
    steps: ['block-in'],
    on: (w) => w.desk.pointing.task?.kind === 'mirror-axis',
    run(w) {
      const { desk } = w;
      const on = desk.pointing.task?.kind === 'mirror-axis';
      endPath(desk);
      desk.pointing.task = on ? null : { kind: 'mirror-axis', from: null, own: null };
      if (on) return;
      desk.say(TASK_WORDS['mirror-axis']);
      void offerOwnAxis(w);
    },
  },
  {
    id: 'turn-axis',
    title: 'Turn axis',
    steps: ['block-in'],
    on: (w) => w.desk.pointing.task?.kind === 'turn-axis',
    run({ desk }) {
      const on = desk.pointing.task?.kind === 'turn-axis';
      endPath(desk);
      desk.pointing.task = on ? null : { kind: 'turn-axis' };
      if (!on) desk.say(TASK_WORDS['turn-axis']);
    },
  },
  {
    id: 'release-axis',
    title: 'Release the axis',
    steps: ['block-in', 'refine'],
    when: (w) => canRelease(w.desk),
    run({ desk }) {
      endPath(desk);
      desk.change(
        'Release the axis',
        together(releaseAxis(aboutAxis(desk).map((s) => s.id)), setDrawingAxis(null)),
        { choice: desk.choice },
      );
    },
  },
  {
    id: 'part-anchors',
    title: 'Part from the neighbour',
    steps: ['refine'],
    when: (w) => shared(w.desk),
    run: ({ desk }) =>
      void desk.change('Part from the neighbour', partShared(desk.choice.anchors), { choice: desk.choice }),
  },
  {
    id: 'other-way',
    title: 'The other way round',
    keys: ['R'],
    when: (w) => w.desk.offer?.turn !== undefined,
    run: ({ desk }) => desk.offer?.turn?.(),
  },
];
