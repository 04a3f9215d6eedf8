import {
  boxesMeet,
  coversPicture,
  shapeBounds,
  shapesOf,
  type Art,
  type Box,
  type Shape,
} from '@mirrot/core';
import Flatbush from 'flatbush';

interface Covering {
  readonly tree: Flatbush | null;
  readonly shapes: readonly { readonly shape: Shape; readonly level: number; readonly box: Box }[];
  readonly levels: ReadonlyMap<string, number>;
  readonly known: Map<string, readonly Shape[]>;
}

const all = new WeakMap<Art['layers'], Covering>();
function coveringIn(art: Art): Covering {
  let covering = all.get(art.layers);
  if (!covering) {
    const placed = shapesOf(art);
    const shapes = placed.flatMap(({ shape, shown }, level) =>
      shown && coversPicture(shape) ? [{ shape, level, box: shapeBounds(shape) }] : [],
    );
    const tree = shapes.length > 0 ? new Flatbush(shapes.length) : null;
    for (const { box } of shapes) tree!.add(box.x0, box.y0, box.x1, box.y1);
    tree?.finish();
    const levels = new Map(placed.map(({ shape }, level) => [shape.id, level] as const));
    all.set(art.layers, (covering = { tree, shapes, levels, known: new Map() }));
  }
  return covering;
}

const NONE: readonly Shape[] = [];

/**
 * Shapes in sight that stand above one, lie where it lies and hide the picture: the picture shows them there, not what it
 * follows. One that was moved away is measured where it was, and nothing covers it there.
 */
export function coverersAbove(art: Art, shape: Shape): readonly Shape[] {
  if (shape.place) return NONE;
  const { tree, shapes, levels, known } = coveringIn(art);
  if (!tree) return NONE;
  let above = known.get(shape.id);
  if (!above) {
    const box = shapeBounds(shape);
    const own = levels.get(shape.id) ?? Infinity;
    above = tree
      .search(box.x0, box.y0, box.x1, box.y1)
      .sort((a, b) => a - b)
      .flatMap((i) => (shapes[i]!.level > own && boxesMeet(shapes[i]!.box, box) ? [shapes[i]!.shape] : []));
    known.set(shape.id, above.length === 0 ? NONE : above);
  }
  return above;
}
