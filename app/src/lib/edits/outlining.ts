import {
  addBeside,
  releaseAxis,
  removeNodes,
  setPaths,
  shapesOf,
  styleShapes,
  takeLook,
  together,
  type Paint,
  type Path,
  type Recipe,
  type Shape,
  type WidenJoins,
} from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { plainLines } from '$lib/desk/linework.svelte';
import { withProgress } from '$lib/desk/progress';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { newId } from '$lib/ids';
import { pathWorker, proxy, type OutlineWish } from '$lib/workers/paths';
import { freshPaths, namesFor, withoutOwnLines } from './new-lines';
import { pourFill } from './pouring';

// Strokes as shapes, shapes grown and shrunk, several paths as one shape and apart again.

/** What comes of one shape: pieces that hang together, each its outline and holes. */
export type Outlined = readonly (readonly Path[])[];

/** Chosen shapes that have a stroke. */
export const strokedChosen = (desk: Desk): readonly Shape[] =>
  desk.chosenShapes.filter((shape) => shape.stroke);

/** What the worker is asked for, shape by shape. */
export const strokeWishes = (shapes: readonly Shape[]): OutlineWish[] =>
  shapes.map((shape) => ({ kind: 'stroke', paths: plainLines(shape), stroke: shape.stroke! }));

/** A shape beside another one, with a fill of its own. */
const beside = (shape: Shape, name: string, fill: Paint, paths: readonly Path[]): Shape => {
  const { aside: _aside, toned: _toned, ...rest } = withoutOwnLines(shape);
  return { ...rest, id: newId(), name, fill, stroke: null, paths };
};

/**
 * Strokes become shapes filled as they were painted. A shape with a fill keeps it and loses its stroke; the stroke's outline is
 * a shape of its own beside it.
 *
 * @returns null where nothing comes of any of them
 */
export function strokesToShapes(
  desk: Desk,
  shapes: readonly Shape[],
  outlined: readonly Outlined[],
): { recipe: Recipe; ids: string[] } | null {
  const nameOf = namesFor(desk);
  const ids: string[] = [];
  const recipes = shapes.flatMap((shape, i): Recipe[] => {
    const paths = freshPaths(outlined[i]!.flat());
    const stroke = shape.stroke!;
    if (paths.length === 0) return [];
    if (!shape.fill) {
      ids.push(shape.id);
      return [
        releaseAxis([shape.id]),
        setPaths(shape.id, paths),
        styleShapes([shape.id], { fill: stroke.paint, stroke: null }),
      ];
    }
    const made = beside(shape, nameOf(`Line of ${shape.name}`), stroke.paint, paths);
    ids.push(made.id);
    return [styleShapes([shape.id], { stroke: null }), addBeside(shape.id, [made], !stroke.under)];
  });
  return ids.length > 0 ? { recipe: together(...recipes), ids } : null;
}

/** The strokes of what is chosen become shapes. Says so where nothing comes of them. */
export async function strokeChosenToShapes(w: Workplace): Promise<void> {
  const { desk } = w;
  const shapes = strokedChosen(desk);
  const made = await withProgress(w, 'Outlining strokes', pathWorker.end, (tell) =>
    pathWorker.ask((work) => work.outline(strokeWishes(shapes), proxy(tell))),
  );
  // Only what is still as it was: something else may have been done meanwhile.
  if (!made || !shapes.every((shape) => desk.shapeOf(shape.id) === shape)) return;
  const change = strokesToShapes(desk, shapes, made);
  if (!change)
    return desk.say('These strokes paint nothing that could be a shape. Nothing was changed.', 'bad');
  const level = desk.step === 'refine' ? 'path' : 'shape';
  desk.change('Stroke to shape', change.recipe, { choice: chooseShapes(change.ids, level) });
}

/** How shapes are grown or shrunk. */
export interface Widening extends WidenJoins {
  /** Sheet pixels; below 0 they shrink. */
  readonly by: number;
  /** The shape itself, or new ones behind it: as many, each by the distance more. */
  readonly place: 'itself' | 'behind';
  readonly rings: number;
}

export const widenWishes = (
  shapes: readonly Shape[],
  { by, joins, miterLimit, place, rings }: Widening,
): OutlineWish[] =>
  shapes.flatMap((shape) =>
    Array.from({ length: place === 'behind' ? rings : 1 }, (_, k): OutlineWish => ({
      kind: 'widen',
      paths: plainLines(shape),
      by: by * (k + 1),
      joins: { joins, miterLimit },
    })),
  );

/** @returns null where nothing would be left of any of them */
export function widening(
  desk: Desk,
  shapes: readonly Shape[],
  how: Widening,
  outlined: readonly Outlined[],
): { recipe: Recipe; ids: string[] } | null {
  const nameOf = namesFor(desk);
  const ids: string[] = [];
  const each = how.place === 'behind' ? how.rings : 1;
  const fill: Paint = pourFill(desk);
  const recipes = shapes.flatMap((shape, i): Recipe[] => {
    const own = outlined.slice(i * each, (i + 1) * each);
    if (how.place === 'behind') {
      const made = own.toReversed().flatMap((pieces): Shape[] => {
        const paths = freshPaths(pieces.flat());
        if (paths.length === 0) return [];
        const ring = beside(shape, nameOf(`Round ${shape.name}`), fill, paths);
        ids.push(ring.id);
        return [ring];
      });
      return [addBeside(shape.id, made, false)];
    }
    const [first, ...more] = own[0]!;
    if (!first) return [];
    ids.push(shape.id);
    const made = more.map((paths): Shape => {
      const id = newId();
      ids.push(id);
      return { ...withoutOwnLines(shape), id, name: nameOf(shape.name), paths: freshPaths(paths) };
    });
    return [releaseAxis([shape.id]), setPaths(shape.id, freshPaths(first)), addBeside(shape.id, made, true)];
  });
  return ids.length > 0 ? { recipe: together(...recipes), ids } : null;
}

/** Chosen shapes become one with all their paths, with the look of the one that stays, or of the lowest. */
export function asOneShape(desk: Desk): void {
  const chosen = new Set(desk.choice.shapes);
  const shapes = shapesOf(desk.drawing.kept).flatMap(({ shape }) => (chosen.has(shape.id) ? [shape] : []));
  const [lowest, ...others] = shapes;
  if (!lowest || others.length === 0) return;
  const look = desk.choosing.stays ?? lowest.id;
  const recipe = together(
    takeLook([lowest.id], look),
    releaseAxis([lowest.id]),
    setPaths(lowest.id, freshPaths(shapes.flatMap(plainLines))),
    removeNodes(others.map(({ id }) => id)),
  );
  desk.change('As one shape', recipe, { choice: chooseShapes([lowest.id]) });
}

/** Shapes of more than one path among the chosen. */
export const manyPathed = (desk: Desk): readonly Shape[] =>
  desk.chosenShapes.filter((s) => s.paths.length > 1);

/** Every path of the chosen shapes becomes a shape of its own, in its shape's place. */
export function freePaths(desk: Desk): void {
  const nameOf = namesFor(desk);
  const ids: string[] = [];
  const recipes = manyPathed(desk).flatMap((shape): Recipe[] => {
    const [first, ...more] = plainLines(shape);
    const made = more.map((path): Shape => ({ ...withoutOwnLines(shape), id: newId(), name: nameOf(shape.name), paths: freshPaths([path]) })); // prettier-ignore
    ids.push(shape.id, ...made.map(({ id }) => id));
    return [
      releaseAxis([shape.id]),
      setPaths(shape.id, freshPaths([first!])),
      addBeside(shape.id, made, true),
    ];
  });
  if (ids.length > 0) desk.change('Free its paths', together(...recipes), { choice: chooseShapes(ids) });
}
