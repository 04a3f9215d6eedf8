import { shapesOf, type Anchor, type Art, type Point } from '@mirrot/core';
import type { Choice } from '$lib/desk/choice';

/** As many as anyone goes through. */
const MOST_PLACES = 500;

/** Anchors worth a close look: those chosen, else corners before others, of what is in sight. */
export function placesToLookAt(art: Art, choice: Choice): Point[] {
  const chosen = new Set(choice.anchors.map(({ path, index }) => `${path} ${index}`));
  const all = shapesOf(art).flatMap(({ shape, shown }) =>
    shown
      ? shape.paths.flatMap(({ id, anchors }) =>
          anchors.map((anchor, index) => ({ anchor, chosen: chosen.has(`${id} ${index}`) })),
        )
      : [],
  );
  const some = all.some((one) => one.chosen) ? all.filter((one) => one.chosen) : all;
  const rank = ({ kind }: Anchor): number => (kind === 'corner' ? 0 : 1);
  return some
    .map(({ anchor }) => anchor)
    .sort((a, b) => rank(a) - rank(b))
    .slice(0, MOST_PLACES)
    .map(({ x, y }) => ({ x, y }));
}
