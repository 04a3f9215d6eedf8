import {
  bordersBetween,
  closeAlong,
  findShape,
  nearestAnchor,
  nearSegments,
  shareBorder,
  styleShapes,
  together,
  type Borders,
  type PathOf,
} from '@mirrot/core';
import { newId } from '$lib/ids';
import { NOTHING_CHOSEN } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { fieldWithout } from '$lib/desk/snap-fields';

/** How far off an end may lie to count as lying on an outline, in parts of a screen pixel: rounding, no more. */
const ON = 1e-4;

/** Outlines whose border can be taken: those of shapes that are open to change and stand for themselves. */
const outlines = (desk: Desk, without: string): PathOf[] =>
  desk.choosing.inReach.flatMap((s) =>
    s.id === without || s.axis ? [] : s.paths.map((path) => ({ shape: s.id, path })),
  );

/**
 * Offers to close the path being drawn along the border of its neighbours, when its first and last anchors both lie on
 * an outline: the shorter way first, R takes the other way round.
 */
export function offerBorder(desk: Desk): void {
  const { live, livePath: path } = desk;
  if (!live || !path || path.anchors.length < 2 || desk.shapeOf(live.shape)?.axis) return;
  const [first, last] = [path.anchors[0]!, path.anchors.at(-1)!];
  const within = ON / desk.looking.view.scale;
  const field = fieldWithout(desk.art, new Set([path.id]));
  const on = (p: typeof first): boolean =>
    nearestAnchor(field, p, within) !== null || nearSegments(field, p, within, 1).length > 0;
  if (!on(first) || !on(last)) return;
  const borders = bordersBetween(outlines(desk, live.shape), last, first, within);
  if (borders) offerWay(desk, borders, 0);
}

function offerWay(desk: Desk, borders: Borders, way: number): void {
  const { live, livePath: path } = desk;
  if (!live || !path) return;
  const other = borders.ways.length > 1;
  const fill = desk.colouring.nextFill;
  const bare = desk.shapeOf(live.shape)?.fill === null;
  const count = borders.ways[way]!.anchors.length - 2;
  desk.makeOffer({
    from: 'border',
    text: `Close along the neighbour’s border${count > 0 ? `, over ${count} of its anchors` : ''}`,
    ghost: [{ ...closeAlong(path, borders.ways[way]!), id: 'ghost' }],
    turn: other ? () => offerWay(desk, borders, 1 - way) : undefined,
    label: 'Share the border',
    recipe: together(
      shareBorder(live.shape, path, borders, way, newId),
      styleShapes(fill && bare ? [live.shape] : [], { fill }),
    ),
    after: { live: null, choice: NOTHING_CHOSEN },
    taken() {
      desk.choosing.justEnded = live.shape;
      const shape = findShape(desk.art, live.shape);
      if (shape) desk.picture.inks.choose(shape, desk.picture.traced);
    },
  });
}
