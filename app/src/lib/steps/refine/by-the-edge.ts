import { apply, distance, meanScale, type Point } from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import { withProgress } from '$lib/desk/progress';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { offerSettle, worstSpots, type WorstSpot } from '$lib/edits/settling';
import { offerThinOut } from '$lib/edits/thinning';
import { weigh } from '$lib/edits/weighing';
import { pathWorker, proxy } from '$lib/workers/paths';
import { measureWorker } from '$lib/workers/trace';

// What is done by the picture's edge, away from the page: thinned, settled, weighed; and the walk along where it drifts.

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
export const weighChosen = async (w: Workplace): Promise<void> =>
  void (await withProgress(w, 'Measuring', measureWorker.end, () =>
    weigh(w.desk, ({ raster: { key, pixels } }, paths) =>
      measureWorker.ask(key, pixels, (work) => work.weigh(key, paths)),
    ),
  ));

/** Spots nearer to each other than this count as one on the walk, picture pixels. */
const ONE_SPOT = 8;

/** Goes to the worst spot, then to the next worst, and round again. */
export function toWorst({ desk }: Workplace): void {
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
