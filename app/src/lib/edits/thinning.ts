import { fromPx, setPath, together, type Path, type Thinned, type ThinOptions } from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { byPath } from './shaping';

/** Thins paths out, somewhere; null when it was stopped. */
export type Thinner = (
  wishes: readonly { readonly path: Path; readonly options: ThinOptions }[],
) => Promise<readonly Thinned[] | null>;

/** What is thinned: the chosen anchors of their paths, else all of the chosen shapes. */
function wishesOf(desk: Desk): { shape: string; path: Path; options: ThinOptions }[] {
  const tolerance = desk.habits.thinWithin / desk.looking.view.scale;
  // Two anchors at least, so that a lone chosen one does not mean it alone.
  if (desk.choice.anchors.length > 1)
    return byPath(desk, desk.choice.anchors).map(({ shape, path, indices }) => ({
      shape,
      path,
      options: { tolerance, only: indices },
    }));
  return desk.chosenShapes.flatMap((s) =>
    s.paths.map((path) => ({ shape: s.id, path, options: { tolerance } })),
  );
}

/** Whether thinning out is what is offered now. */
export const offersThinning = (desk: Desk): boolean => desk.offer?.from === 'thin-out';

/**
 * Offers the chosen paths with every anchor taken out that can go within the tolerance set on screen: counts before and
 * after, the worst deviation and where, the anchors that would go.
 */
export async function offerThinOut(desk: Desk, thin: Thinner): Promise<void> {
  const { art } = desk;
  const wishes = wishesOf(desk);
  const done = await thin(wishes.map(({ path, options }) => ({ path, options })));
  // Another edit meanwhile: the answer is of a drawing that is no more.
  if (!done || desk.art !== art) return;
  const removed = done.flatMap((t, k) => t.removed.map((i) => wishes[k]!.path.anchors[i]!));
  const { unit } = desk.art.sheet;
  if (removed.length === 0) {
    desk.leaveOffer();
    desk.say(`No anchor can go within ${desk.habits.thinWithin} px on screen.`);
    return;
  }
  const before = wishes.reduce((n, w) => n + w.path.anchors.length, 0);
  const worst = done.reduce((a, b) => (b.worst.distance > a.worst.distance ? b : a)).worst;
  desk.makeOffer({
    from: 'thin-out',
    text: `Thin out: ${before} → ${before - removed.length} anchors, ${(worst.distance * desk.looking.view.scale).toFixed(2)} px off at worst (${fine(worst.distance, unit)})`,
    ghost: done.map((t) => t.path),
    spare: removed.map(({ x, y }) => ({ x, y })),
    worst: worst.at,
    label: `Thin out ${removed.length} ${removed.length === 1 ? 'anchor' : 'anchors'}`,
    recipe: together(...done.map((t, k) => setPath(wishes[k]!.shape, t.path))),
    after: { choice: chooseShapes(desk.choice.shapes, 'path') },
  });
}

const fine = (v: number, unit: Desk['art']['sheet']['unit']): string =>
  `${fromPx(v, unit).toFixed(3)} ${unit}`;
