import { whenFetched } from '$lib/desk/when-fetched';
import Crop from '@lucide/svelte/icons/crop';
import Eye from '@lucide/svelte/icons/eye';
import Expand from '@lucide/svelte/icons/expand';
import FlipHorizontal from '@lucide/svelte/icons/flip-horizontal-2';
import FlipVertical from '@lucide/svelte/icons/flip-vertical-2';
import Frame from '@lucide/svelte/icons/frame';
import Grid from '@lucide/svelte/icons/grid-2x2';
import ImagePlus from '@lucide/svelte/icons/image-plus';
import Level from '@lucide/svelte/icons/align-horizontal-distribute-center';
import Lock from '@lucide/svelte/icons/lock';
import Origin from '@lucide/svelte/icons/crosshair';
import RotateCw from '@lucide/svelte/icons/rotate-cw';
import Ruler from '@lucide/svelte/icons/ruler';
import Scan from '@lucide/svelte/icons/scan';
import Sheet from '@lucide/svelte/icons/file';
import Swap from '@lucide/svelte/icons/replace';
import Trash from '@lucide/svelte/icons/trash-2';
import { fitOnSheet, removePicture, seenBox, seenSize, setPicture } from '@mirrot/core';
import { cropOffer } from '$lib/bed/mount';
import type { Command } from '$lib/desk/command';
import type { Desk } from '$lib/desk/desk.svelte';
import {
  actualPixels,
  flipPicture,
  moveRecipe,
  placePicture,
  turnOf,
  turnOnSheet,
  turnPicture,
} from '$lib/desk/placing';
import { wishFor } from '$lib/desk/seeing.svelte';
import { TASK_WORDS, type Task } from '$lib/desk/task';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { askForPictures } from '$lib/ui/ask';
import { withProgress } from '$lib/desk/progress';
import { pictureWorker } from '$lib/workers/picture';

const hasPicture = (w: Workplace): boolean => w.desk.picture.traced !== null;

/** Begins a task, or ends it when it is under way. */
function turnTask(desk: Desk, task: Task): boolean {
  const on = desk.pointing.task?.kind === task.kind;
  desk.leaveOffer();
  desk.pointing.task = on ? null : task;
  if (!on) desk.say(TASK_WORDS[task.kind]);
  return !on;
}

/** How sure the strongest direction must be to be offered, and how far off level to be worth it, degrees. */
const SURE = 0.25;
const WORTH = 0.05;

async function offerLevel(w: Workplace): Promise<void> {
  const { desk } = w;
  const picture = desk.picture.traced!;
  const wish = { ...wishFor(picture, 'work'), for: `${picture.id} level` };
  const found = await withProgress(
    w,
    'Looking for level edges',
    () => {},
    () => pictureWorker.ask((work) => work.level(wish)),
  );
  if (!found || desk.pointing.task?.kind !== 'level' || desk.picture.traced !== picture) return;
  const degrees = turnOnSheet(picture, found.degrees);
  if (found.certainty < SURE || Math.abs(degrees) < WORTH) return;
  desk.makeOffer({
    text: `Turn by ${degrees.toFixed(1)}°: the strongest edges would stand level`,
    label: 'Level the picture',
    recipe: moveRecipe(picture, turnOf(picture, degrees), desk.picture.follow),
    taken: () => (desk.pointing.task = null),
  });
}

function beginCrop(desk: Desk): void {
  const picture = desk.picture.traced!;
  if (!turnTask(desk, { kind: 'crop', box: seenBox(picture), ratio: null })) return;
  desk.makeOffer(cropOffer(desk));
}

const place = (how: 'fit' | 'fill') => (w: Workplace) => {
  const p = w.desk.picture.traced!;
  const label = how === 'fit' ? 'Fit the picture' : 'Fill the sheet';
  const { x0, y0, x1, y1 } = seenBox(p);
  const [a, b, c, d, e, f] = fitOnSheet({ width: x1 - x0, height: y1 - y0 }, w.desk.art.sheet, how);
  placePicture(w.desk, label, { placement: [a, b, c, d, e - a * x0 - c * y0, f - b * x0 - d * y0] });
};

export const MOUNT: readonly Command[] = [
  {
    id: 'add-picture',
    title: 'Add a picture',
    icon: ImagePlus,
    run: (w) => askForPictures((files) => void w.addPictures(files)),
  },
  {
    id: 'level',
    title: 'Level',
    icon: Level,
    steps: ['mount'],
    when: hasPicture,
    on: (w) => w.desk.pointing.task?.kind === 'level',
    run(w) {
      if (turnTask(w.desk, { kind: 'level' })) void offerLevel(w).catch(() => {});
    },
  },
  {
    id: 'square-up',
    title: 'Square up',
    icon: Scan,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => void (w.dialog = 'square-up'),
  },
  {
    id: 'crop',
    title: 'Crop',
    icon: Crop,
    steps: ['mount'],
    when: hasPicture,
    on: (w) => w.desk.pointing.task?.kind === 'crop',
    run: (w) => beginCrop(w.desk),
  },
  {
    id: 'real-size',
    title: 'Real size',
    icon: Ruler,
    steps: ['mount'],
    when: hasPicture,
    on: (w) => w.desk.pointing.task?.kind === 'real-size',
    run: (w) => void turnTask(w.desk, { kind: 'real-size' }),
  },
  {
    id: 'origin',
    title: 'Origin',
    icon: Origin,
    steps: ['mount'],
    when: hasPicture,
    on: (w) => w.desk.pointing.task?.kind === 'origin',
    run: (w) => void turnTask(w.desk, { kind: 'origin' }),
  },
  {
    id: 'swap-picture',
    title: 'Swap',
    icon: Swap,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => void (w.dialog = 'swap'),
  },
  { id: 'sheet', title: 'Sheet', icon: Sheet, steps: ['mount'], run: (w) => void (w.dialog = 'sheet') },
  {
    id: 'fit-picture',
    title: 'Fit to the sheet',
    icon: Frame,
    steps: ['mount'],
    when: hasPicture,
    run: place('fit'),
  },
  {
    id: 'fill-sheet',
    title: 'Fill the sheet',
    icon: Expand,
    steps: ['mount'],
    when: hasPicture,
    run: place('fill'),
  },
  {
    id: 'actual-pixels',
    title: 'Actual pixels at the sheet’s ppi',
    icon: Grid,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => void actualPixels(w.desk),
  },
  {
    id: 'flip-across',
    title: 'Flip across',
    icon: FlipHorizontal,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => void flipPicture(w.desk, true),
  },
  {
    id: 'flip-down',
    title: 'Flip upside down',
    icon: FlipVertical,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => void flipPicture(w.desk, false),
  },
  {
    id: 'quarter-turn',
    title: 'Turn a quarter',
    icon: RotateCw,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => void turnPicture(w.desk, 'Turn a quarter', 90),
  },
  {
    id: 'larger-picture',
    title: 'Make the picture twice as large',
    icon: Expand,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => whenFetched(w, import('$lib/desk/enlarging'), ({ enlargeTraced }) => void enlargeTraced(w)),
  },
  {
    id: 'uncrop',
    title: 'Undo the crop',
    icon: Crop,
    steps: ['mount'],
    when: (w) => Boolean(w.desk.picture.traced?.crop),
    run: (w) => void placePicture(w.desk, 'Undo the crop', { crop: null }),
  },
  {
    id: 'unsquare',
    title: 'See it as it was taken',
    icon: Scan,
    steps: ['mount'],
    when: (w) => Boolean(w.desk.picture.traced?.square),
    run(w) {
      const p = w.desk.picture.traced!;
      const plain = { ...p, square: null, crop: null };
      placePicture(w.desk, 'See it as it was taken', {
        square: null,
        crop: null,
        placement: fitOnSheet(seenSize(plain), w.desk.art.sheet),
      });
    },
  },
  {
    id: 'lock-picture',
    title: 'Lock the picture',
    icon: Lock,
    steps: ['mount'],
    when: hasPicture,
    on: (w) => w.desk.picture.traced?.locked ?? false,
    run(w) {
      const p = w.desk.picture.traced!;
      w.desk.change(
        p.locked ? 'Unlock the picture' : 'Lock the picture',
        setPicture(p.id, { locked: !p.locked }),
      );
    },
  },
  {
    id: 'show-picture',
    title: 'Show the picture',
    icon: Eye,
    steps: ['mount', 'proof'],
    when: hasPicture,
    on: (w) => w.desk.picture.traced?.shown ?? false,
    run(w) {
      const p = w.desk.picture.traced!;
      w.desk.change(p.shown ? 'Hide the picture' : 'Show the picture', setPicture(p.id, { shown: !p.shown }));
    },
  },
  {
    id: 'remove-picture',
    title: 'Take the picture off',
    icon: Trash,
    steps: ['mount'],
    when: hasPicture,
    run: (w) => void w.desk.change('Take the picture off', removePicture(w.desk.picture.traced!.id)),
  },
];
