import { ancestorsOf, findNode, openShapes, shapesIn, type Art, type Group, type Shape } from '@mirrot/core';

// A group that is worked in: the rest of the drawing fades and is out of reach. Everywhere else a group is one thing.

/** The groups a node stands in, outermost first. */
export const groupsAbove = (art: Art, id: string): readonly Group[] =>
  ancestorsOf(art, id)
    .flatMap((node) => (node.type === 'group' ? [node] : []))
    .reverse();

/** The group of this id that can be worked in: it is there, in sight and not locked. Else null. */
export function focusable(art: Art, id: string | null): Group | null {
  const node = id === null ? null : findNode(art, id)?.node;
  if (node?.type !== 'group') return null;
  return [node, ...ancestorsOf(art, node.id)].every((n) => n.shown && !n.locked) ? node : null;
}

/** Shapes in reach, bottom first: in sight and not locked, and in the group that is worked in. */
export function shapesInReach(art: Art, focus: Group | null): readonly Shape[] {
  if (!focus) return openShapes(art);
  const inside = new Set(shapesIn(focus));
  return openShapes(art).filter((shape) => inside.has(shape));
}

/** What a press on a shape is about: the outermost group it stands in, beneath the one that is worked in; else itself. */
export function wholeOf(art: Art, focus: Group | null, shape: string): string {
  const groups = groupsAbove(art, shape);
  const at = focus ? groups.findIndex((g) => g.id === focus.id) : -1;
  return groups[at + 1]?.id ?? shape;
}

/** One thing to choose, and the shapes of it that are in reach. */
export interface Whole {
  readonly id: string;
  readonly shapes: readonly Shape[];
}

/** All that is chosen as one thing, bottom first: shapes and groups right in the layers, or in the group worked in. */
export function wholesInReach(art: Art, focus: Group | null): readonly Whole[] {
  const open = new Set(openShapes(art));
  return (focus ? [focus] : art.layers).flatMap((parent) =>
    parent.children.flatMap((node) => {
      const shapes = shapesIn(node).filter((shape) => open.has(shape));
      return shapes.length > 0 ? [{ id: node.id, shapes }] : [];
    }),
  );
}
