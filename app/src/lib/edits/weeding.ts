import {
  crossingPlaces,
  insertAnchors,
  releaseAxis,
  setPath,
  setPaths,
  shapesOf,
  together,
  wholePaths,
  withoutPieces,
  type Path,
  type Recipe,
  type Shape,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { linesOf, type Lines } from '$lib/desk/linework.svelte';
import { newId } from '$lib/ids';

// Pieces of lines between crossings taken away; anchors put where lines cross.

/** Shapes whose lines can be weeded: those in reach; what was poured keeps to its lines by itself. */
export const shapesToWeed = (desk: Desk): readonly Shape[] => desk.choosing.inReach.filter((s) => !s.poured);

/** Shapes given new lines: those that have none left go. One about an axis is made whole first. */
function withLines(lines: Lines, changed: readonly (readonly Path[] | null)[]): Recipe {
  const recipes = lines.shapes.flatMap((shape): Recipe[] => {
    const own = lines.owners.flatMap((id, i) => (id === shape.id ? [i] : []));
    if (own.every((i) => !changed[i])) return [];
    const paths = own.flatMap((i) => changed[i] ?? [lines.paths[i]!]);
    return [releaseAxis([shape.id]), setPaths(shape.id, paths)];
  });
  return together(...recipes);
}

/** Takes away the pieces that were swiped over, as one step. */
export function weedPieces(desk: Desk, gone: ReadonlySet<number>): void {
  const { pieces } = desk.linework;
  if (!pieces || gone.size === 0) return;
  const { paths } = withoutPieces(pieces.found, [...gone], () => newId());
  desk.change('Weed', withLines(pieces.lines, paths));
}

/** Puts anchors on the chosen shapes where they cross each other or themselves, or any other line in sight. */
export function anchorsAtCrossings(desk: Desk): void {
  const chosen = new Set(desk.choice.shapes);
  const shapes = shapesOf(desk.drawing.kept).flatMap(({ shape, shown }) => (shown ? [shape] : []));
  const lines = linesOf(shapes);
  const places = crossingPlaces(lines.paths).filter(({ line }) => chosen.has(lines.owners[line]!));
  if (places.length === 0)
    return desk.say('What is chosen crosses no line away from its anchors. Nothing was changed.');
  const recipes = shapes
    .filter(({ id }) => chosen.has(id))
    .flatMap((shape): Recipe[] => {
      const first = lines.owners.indexOf(shape.id);
      const changed = wholePaths(shape).map((path, i) => {
        const spots = places.filter(({ line }) => line === first + i);
        return spots.length > 0 ? insertAnchors({ ...path, form: undefined }, spots) : null;
      });
      if (changed.every((path) => path === null)) return [];
      if (!shape.axis) return changed.flatMap((path) => (path ? [setPath(shape.id, path)] : []));
      return [
        releaseAxis([shape.id]),
        setPaths(
          shape.id,
          wholePaths(shape).map((path, i) => changed[i] ?? path),
        ),
      ];
    });
  const word = places.length === 1 ? 'An anchor stands' : `${places.length} anchors stand`;
  if (desk.change('Anchors at crossings', together(...recipes))) desk.say(`${word} where lines cross.`);
}
