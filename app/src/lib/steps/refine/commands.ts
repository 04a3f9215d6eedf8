import CircleOff from '@lucide/svelte/icons/circle-slash-2';
import Circle from '@lucide/svelte/icons/circle-dot-dashed';
import Minus from '@lucide/svelte/icons/circle-minus';
import Plus from '@lucide/svelte/icons/circle-plus';
import Donut from '@lucide/svelte/icons/donut';
import Spline from '@lucide/svelte/icons/spline';
import Slash from '@lucide/svelte/icons/slash';
import Waves from '@lucide/svelte/icons/waves';
import Waypoints from '@lucide/svelte/icons/waypoints';
import {
  apply,
  cutText,
  distance,
  findNode,
  freeHole,
  makeHole,
  meanScale,
  MOST_CHARACTERS,
  pathInside,
  shapesOf,
  type Point,
  type Shape,
  wholePaths,
} from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import {
  addAt,
  addEvenly,
  arrange,
  canCut,
  canJoin,
  canMerge,
  chooseBetween,
  chooseKin,
  cutHere,
  invertChoice,
  joinChosen,
  mergeChosen,
  protectChosen,
  reverseChosen,
  startHere,
} from '$lib/edits/anchors';
import {
  canMean,
  canPutBack,
  isMeant,
  meanSo,
  putBack,
  rememberPlace,
  remembersPlace,
} from '$lib/edits/meaning';
import { canMakeSymmetric, offerSymmetric } from '$lib/edits/symmetry';
import { offerThinOut } from '$lib/edits/thinning';
import { weigh } from '$lib/edits/weighing';
import { offerSettle, worstSpots, type WorstSpot } from '$lib/edits/settling';
import { withProgress } from '$lib/desk/progress';
import { pathWorker, proxy } from '$lib/workers/paths';
import { measureWorker } from '$lib/workers/trace';
import LocateFixed from '@lucide/svelte/icons/locate-fixed';
import Feather from '@lucide/svelte/icons/feather';
import type { Command } from '$lib/desk/command';
import type { Desk } from '$lib/desk/desk.svelte';
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
import { newId } from '$lib/ids';

const anchorsChosen = (w: Workplace): boolean => w.desk.choice.anchors.length > 0;
const one = (desk: Desk): Shape | null =>
  desk.choice.shapes.length === 1 ? (desk.chosenShapes[0] ?? null) : null;

/** The shape just outside a chosen one: the topmost open to change that it lies wholly inside, below it first. */
export function hostOf(desk: Desk): Shape | null {
  const shape =
    one(desk) ??
    (desk.choosing.justEnded
      ? (shapesOf(desk.art).find((p) => p.shape.id === desk.choosing.justEnded)?.shape ?? null)
      : null);
  if (!shape) return null;
  const placed = shapesOf(desk.art).filter((p) => p.shown && !p.locked);
  const at = placed.findIndex((p) => p.shape.id === shape.id);
  const around = (other: Shape): boolean =>
    other.id !== shape.id &&
    wholePaths(other)[0]!.closed &&
    wholePaths(shape).every((p) => pathInside(p, wholePaths(other)[0]!));
  const below = placed.slice(0, Math.max(0, at)).reverse();
  return [...below, ...placed.slice(at + 1)].map((p) => p.shape).find(around) ?? null;
}

const holeMaker = (desk: Desk): string | null => one(desk)?.id ?? desk.choosing.justEnded;

/** The hole to free: the one whose anchors or segment are chosen, else the last. */
function holeToFree(desk: Desk): string | null {
  const shape = one(desk);
  if (!shape || shape.paths.length < 2) return null;
  const chosen = desk.choice.anchors[0]?.path ?? desk.choice.segment?.path;
  return shape.paths.slice(1).find((p) => p.id === chosen)?.id ?? shape.paths.at(-1)!.id;
}

/** Thins out what is chosen. */
export const thinChosen = async (w: Workplace): Promise<void> =>
  void (await withProgress(w, 'Thinning out', pathWorker.end, (tell) =>
    offerThinOut(w.desk, (wishes) => pathWorker.ask((work) => work.thin(wishes, proxy(tell)))),
  ));

/** Settles what is chosen, away from the page. */
export const settleChosen = async (w: Workplace): Promise<void> =>
  void (await withProgress(w, 'Settling', measureWorker.end, (tell) =>
    offerSettle(w.desk, ({ raster: { key, pixels } }, wishes) =>
      measureWorker.ask(key, pixels, (work) => work.settle(key, wishes, proxy(tell))),
    ),
  ));

/** Measures the picture's stroke under what is in hand. */
const weighChosen = async (w: Workplace): Promise<void> =>
  void (await withProgress(w, 'Measuring', measureWorker.end, () =>
    weigh(w.desk, ({ raster: { key, pixels } }, paths) =>
      measureWorker.ask(key, pixels, (work) => work.weigh(key, paths)),
    ),
  ));

/** Spots nearer to each other than this count as one on the walk, picture pixels. */
const ONE_SPOT = 8;

/** Goes to the worst spot, then to the next worst, and round again. */
function toWorst({ desk }: Workplace): void {
  const spots = worstSpots(desk);
  if (spots.length === 0)
    return desk.say(`Nothing measured drifts by more than ${desk.habits.driftWithin} px.`, 'good');
  const placeOf = ({ shape, part, entry }: WorstSpot): Point => {
    const { drift, map } = desk.picture.drifts.of(shape)!.parts[part]!;
    return apply(map, { x: drift.x[entry]!, y: drift.y[entry]! });
  };
  // Spots are told by where they lie: what is looked for within changes with the zoom, and the list with it.
  const apart = ONE_SPOT * meanScale(desk.picture.traced!.placement);
  const unseen = (s: WorstSpot): boolean =>
    desk.picture.visitedSpots.every((w) => distance(w, placeOf(s)) > apart);
  let spot = spots.find(unseen);
  if (!spot) {
    desk.picture.visitedSpots = [];
    spot = spots[0]!;
  }
  const place = placeOf(spot);
  desk.picture.visitedSpots = [...desk.picture.visitedSpots, place];
  desk.choose(chooseShapes([spot.shape], 'path'));
  desk.picture.driftAt = { shape: spot.shape, part: spot.part, entry: spot.entry };
  const scale = Math.max(desk.looking.view.scale, 4 / meanScale(desk.picture.traced!.placement));
  const { width, height } = desk.looking.bed;
  desk.looking.jump({ scale, tx: width / 2 - place.x * scale, ty: height / 2 - place.y * scale });
  const count = Math.max(spots.length, desk.picture.visitedSpots.length);
  desk.say(`Spot ${desk.picture.visitedSpots.length} of ${count}: ${spot.size.toFixed(1)} px off.`);
}

/** Commands on chosen anchors and paths, in the panel and the finder. */
const REWORK: readonly Command[] = (
  [
    ['cut-here', 'Cut here', canCut, cutHere],
    ['start-here', 'Start here', (d) => d.choice.anchors.length === 1, startHere],
    ['reverse', 'Reverse', (d) => d.choice.shapes.length > 0, reverseChosen],
    ['merge-anchors', 'Merge', canMerge, mergeChosen],
    ['join-straight', 'Join the ends', canJoin, (d) => joinChosen(d, 'straight')],
    ['join-middle', 'Join in the middle', canJoin, (d) => joinChosen(d, 'middle')],
    ['protect', 'Protect or free', (d) => d.choice.anchors.length > 0, protectChosen],
    ['put-back', 'Put back on the picture', canPutBack, putBack],
    ['symmetric-again', 'Symmetric again', canMakeSymmetric, offerSymmetric],
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

export const REFINE: readonly Command[] = [
  ...REWORK,
  {
    id: 'open-here',
    title: 'Open the path here',
    keys: ['Shift+Delete'],
    steps: ['refine'],
    when: (w) => canCut(w.desk),
    run: (w) => cutHere(w.desk),
  },
  {
    id: 'thin-out',
    title: 'Thin out',
    icon: Feather,
    keys: ['X'],
    steps: ['refine'],
    when: (w) => w.desk.choice.shapes.length > 0,
    run: (w) => void thinChosen(w),
  },
  {
    id: 'settle',
    title: 'Settle',
    icon: LocateFixed,
    keys: ['E'],
    steps: ['refine'],
    when: (w) => w.desk.picture.driftSettings !== null && w.desk.drawing.figures.paths > 0,
    run: (w) => void settleChosen(w),
  },
  {
    id: 'measure-weight',
    title: 'Measure weight',
    steps: ['refine', 'colour'],
    when: (w) => w.desk.picture.driftSettings !== null && w.desk.choosing.receivedShapes.length > 0,
    run: (w) => void weighChosen(w),
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
    run: toWorst,
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
    run({ desk }) {
      const host = hostOf(desk);
      const hole = holeMaker(desk);
      if (!host || !hole) return;
      desk.choosing.justEnded = null;
      desk.change(`Hole in ${host.name}`, makeHole(hole, host.id), {
        choice: chooseShapes([host.id], 'path'),
        live: null,
      });
    },
  },
  {
    id: 'free-hole',
    title: 'Free the hole',
    icon: CircleOff,
    steps: ['refine', 'colour'],
    when: (w) => holeToFree(w.desk) !== null,
    run({ desk }) {
      const host = one(desk);
      const path = holeToFree(desk);
      if (!host || !path || !findNode(desk.art, host.id)) return;
      const { paths: _paths, ...rest } = host;
      const id = newId();
      desk.change(
        'Free the hole',
        freeHole(host.id, path, { ...rest, id, name: cutText(`Hole in ${host.name}`, MOST_CHARACTERS) }),
        {
          choice: chooseShapes([id], 'path'),
        },
      );
    },
  },
];
