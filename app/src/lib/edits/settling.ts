import {
  placedById,
  setPath,
  shapesOf,
  together,
  transformPath,
  type Affine,
  type Art,
  type DriftFigures,
  type Path,
  type Settled,
  type SettleOptions,
  type Shape,
} from '@mirrot/core';
import { noPicture } from './no-picture';
import type { Desk } from '$lib/desk/desk.svelte';
import { shapeMap, wishesOf, type DriftSettings } from '$lib/desk/drifts.svelte';
import type { TraceWish } from '$lib/workers/trace';
import { segmentsOf } from './shaping';

/** Settles paths, somewhere; null when it was stopped. */
export type Settler = (
  by: DriftSettings,
  wishes: readonly (TraceWish & { readonly options: SettleOptions })[],
) => Promise<readonly Settled[] | null>;

/** Shapes that are settled: the chosen ones, or all that are open to change. */
const shapesToSettle = (desk: Desk): readonly Shape[] =>
  desk.choice.shapes.length > 0 ? desk.chosenShapes : desk.choosing.inReach;

const isLocked = (art: Art, { id }: Shape): boolean => placedById(art, id)?.locked ?? false;
const isMeasured = (art: Art, { id }: Shape): boolean => placedById(art, id)?.measured ?? false;

/** Why there is nothing that Settle may move. */
function whyNotAsked(desk: Desk): string {
  const shapes = shapesToSettle(desk);
  if (shapes.length > 0 && shapes.every((shape) => shape.meant))
    return 'It is meant so, away from the picture: Settle leaves it where it is. Nothing was changed.';
  if (shapes.length > 0 && shapes.every((shape) => !isMeasured(desk.art, shape)))
    return 'It is left out of drift: Settle leaves it where it is. Nothing was changed.';
  if (shapes.length > 0 && shapes.every((shape) => isLocked(desk.art, shape)))
    return 'It is locked. Nothing was changed. Unlock it to settle it.';
  return 'Choose segments next to each other, or shapes, to settle.';
}

/** Why Settle brought nothing nearer to its edge. */
function whyNotBetter(done: readonly Settled[]): string {
  const sum = (of: (f: DriftFigures) => number): number => done.reduce((s, d) => s + of(d.before), 0);
  const [long, measured, covered] = [sum((f) => f.length), sum((f) => f.measured), sum((f) => f.covered)];
  if (!(long > 0)) return 'All of it is meant so: Settle leaves it where it is.';
  if (measured > 0) return 'It lies as near to the edge as Settle can bring it.';
  return covered > long / 2
    ? 'Shapes above cover it, and the picture shows those.'
    : 'There is no edge in reach to settle onto.';
}

/** Whether Settle is what is offered now. */
export const offersSettling = (desk: Desk): boolean => desk.offer?.from === 'settle';

/** A settled path back on the sheet: kinds as they were, also where the picture lies stretched. */
function onSheet(path: Path, was: Path, map: Affine): Path {
  const back = transformPath(path, map);
  return {
    ...back,
    anchors: back.anchors.map((a, i) => ({ ...a, kind: was.anchors[i]!.kind })),
  };
}

/**
 * Offers what is chosen (segments, shapes, or all) moved onto the picture's edge, with figures before and after. Says when
 * it cannot help.
 */
export async function offerSettle(desk: Desk, run: Settler): Promise<void> {
  const by = desk.picture.driftSettings;
  if (!by) return desk.say(noPicture(desk, 'to settle onto'), 'bad');
  const { art } = desk;
  const work = shapesToSettle(desk).flatMap((shape) => {
    const wishes = wishesOf(shape, by, art);
    return shape.paths.flatMap((path, k) => {
      const only = segmentsOf(desk, path);
      if (only?.length === 0 || !wishes[k]) return [];
      const { reach, flip, detail, covers, light, own } = wishes[k];
      if (isLocked(art, shape)) return [];
      const options: SettleOptions = {
        reach,
        flip,
        detail,
        covers,
        light,
        ...(own && { own }),
        anchors: desk.habits.settleAnchors,
        tolerance: by.within / by.raster.step,
        // As the panel shows it.
        figureSpacing: 1,
        ...(only ? { only } : {}),
      };
      return [{ shape, path, wish: { ...wishes[k], options } }];
    });
  });
  if (work.length === 0) return desk.say(whyNotAsked(desk));
  const done = await run(
    by,
    work.map((w) => w.wish),
  );
  // Another edit meanwhile: the answer is of a drawing that is no more.
  if (!done || desk.art !== art) return;
  const better = done.flatMap((d, k) => (d.path === work[k]!.wish.path ? [] : [{ ...work[k]!, settled: d }]));
  if (better.length === 0) {
    desk.leaveOffer();
    return desk.say(`${whyNotBetter(done)} Nothing was changed.`);
  }
  const { step } = by.raster;
  const mean = (of: 'before' | 'after'): { mean: number; worst: number } => {
    let [sum, length, worst] = [0, 0, 0];
    for (const { settled } of better) {
      const f = settled[of];
      sum += f.mean * f.measured;
      length += f.measured;
      worst = Math.max(worst, Math.abs(f.worst));
    }
    return { mean: (sum / length) * step, worst: worst * step };
  };
  const [before, after] = [mean('before'), mean('after')];
  const paths = better.map((b) => ({ ...b, path: onSheet(b.settled.path, b.path, shapeMap(b.shape, by)) }));
  const segments = better.reduce((sum, { wish }) => sum + (wish.options.only?.length ?? 0), 0);
  const whole = better.length === 1 ? better[0]!.shape.name : `${better.length} paths`;
  const what = segments > 0 ? `${segments === 1 ? 'a segment' : `${segments} segments`} of ${whole}` : whole;
  desk.makeOffer({
    from: 'settle',
    text: `Settle ${what}: mean drift ${before.mean.toFixed(2)} → ${after.mean.toFixed(2)} px, worst ${before.worst.toFixed(1)} → ${after.worst.toFixed(1)} px`,
    ghost: paths.map((p) => p.path),
    label: 'Settle',
    recipe: together(...paths.map((p) => setPath(p.shape.id, p.path))),
  });
}

/** A spot where drift is beyond the tolerance: the farthest of a stretch. */
export interface WorstSpot {
  readonly shape: string;
  readonly part: number;
  readonly entry: number;
  readonly size: number;
}

/** The worst spots of all shapes measured, worst first: of each stretch beyond the tolerance its farthest entry. */
export function worstSpots(desk: Desk): WorstSpot[] {
  const within = desk.habits.driftWithin;
  const spots: WorstSpot[] = [];
  for (const { shape, shown } of shapesOf(desk.art)) {
    const known = shown ? desk.picture.drifts.of(shape.id) : null;
    known?.parts.forEach(({ drift }, part) => {
      let best: WorstSpot | null = null;
      const keep = (): void => {
        if (best) spots.push(best);
        best = null;
      };
      for (let entry = 0; entry < drift.value.length; entry++) {
        const size = Math.abs(drift.value[entry]!);
        if (!(size > within)) keep();
        else if (!best || size > best.size) best = { shape: shape.id, part, entry, size };
      }
      keep();
    });
  }
  return spots.sort((a, b) => b.size - a.size);
}
