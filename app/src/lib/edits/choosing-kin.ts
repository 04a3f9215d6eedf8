import { flatHex, hexesApart, layerOf, seenPaint, type Paint, type Shape } from '@mirrot/core';
import { chooseAnchors, chooseShapes, NOTHING_CHOSEN } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { byPath } from './shaping';

// What keys and buttons do to chosen anchors and paths, beyond moving and deleting them.

export type Kin = 'fill' | 'stroke' | 'layer';

/** Chooses all open shapes that have the fill, the stroke's colour, or the layer of a chosen one. */
export function chooseKin(desk: Desk, kin: Kin): void {
  const [first, ...more] = desk.chosenShapes;
  const hex =
    first && more.length === 0 && kin === 'fill' ? flatHex(first.fill, desk.colouring.palette) : null;
  if (hex) return chooseByFill(desk, hex);
  const seen = (paint: Paint | null | undefined): string =>
    paint ? JSON.stringify(seenPaint(paint, desk.colouring.palette)) : 'none';
  const of = (s: Shape): string | undefined =>
    kin === 'layer' ? layerOf(desk.art, s.id)?.id : kin === 'fill' ? seen(s.fill) : seen(s.stroke?.paint);
  const wanted = new Set(desk.chosenShapes.map(of));
  desk.choose(chooseShapes(desk.choosing.inReach.flatMap((s) => (wanted.has(of(s)) ? [s.id] : []))));
}

/** Chooses all open shapes whose fill is one colour and lies as near to this one as fills count as one. */
export function chooseByFill(desk: Desk, hex: string): void {
  const within = desk.habits.fillWithin;
  const { palette } = desk.colouring;
  const apart = new Map<string, number>();
  const alike = desk.choosing.inReach.filter((shape) => {
    const own = flatHex(shape.fill, palette);
    if (own === null) return false;
    if (!apart.has(own)) apart.set(own, hexesApart(own, hex));
    return apart.get(own)! <= within;
  });
  if (alike.length === 0) return desk.say(`No shape in reach has the fill ${hex.toUpperCase()}${within > 0 ? ` within ΔE ${within}` : ''}.`); // prettier-ignore
  desk.choose(chooseShapes(alike.map(({ id }) => id)));
}

/** Chooses what is not chosen: the other anchors of the paths in hand, else the other shapes. */
export function invertChoice(desk: Desk): void {
  const { choice } = desk;
  if (choice.level === 'path' && choice.anchors.length > 0) {
    const all = desk.chosenShapes.flatMap((s) =>
      s.paths.flatMap((p) => p.anchors.map((_, index) => ({ shape: s.id, path: p.id, index }))),
    );
    const left = all.filter((r) => !choice.anchors.some((c) => c.path === r.path && c.index === r.index));
    return desk.choose(
      left.length > 0
        ? { ...chooseAnchors(left), shapes: choice.shapes }
        : chooseShapes(choice.shapes, 'path'),
    );
  }
  const rest = desk.choosing.inReach.filter((s) => !choice.shapes.includes(s.id));
  desk.choose(rest.length > 0 ? chooseShapes(rest.map((s) => s.id)) : NOTHING_CHOSEN);
}

/** Chooses the anchors along a path between two chosen ones, the shorter way round a closed one. */
export function chooseBetween(desk: Desk): void {
  const [group, ...more] = byPath(desk, desk.choice.anchors);
  if (!group || more.length > 0 || group.indices.length !== 2) return;
  const { shape, path } = group;
  const [a, b] = group.indices.toSorted((x, y) => x - y) as [number, number];
  const n = path.anchors.length;
  const on = Array.from({ length: b - a + 1 }, (_, k) => a + k);
  const round = Array.from({ length: n - (b - a) + 1 }, (_, k) => (b + k) % n);
  const run = path.closed && round.length < on.length ? round : on;
  desk.choose({
    ...chooseAnchors(run.map((index) => ({ shape, path: path.id, index }))),
    shapes: desk.choice.shapes,
  });
}
