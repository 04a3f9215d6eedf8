import {
  addNode,
  COMBININGS,
  findNode,
  nodeNames,
  numberedName,
  releaseAxis,
  removeNodes,
  setPaths,
  shapesOf,
  takeLook,
  together,
  wholePaths,
  type Combined,
  type Path,
  type Recipe,
  type Shape,
  type SplitPiece,
} from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';

// Chosen shapes combined into one, or split up at each other's outlines.

/** All ways, as they are called. */
export const COMBINE_WORDS: Readonly<Record<keyof Combined, string>> = {
  add: 'Add',
  bite: 'Bite',
  overlap: 'Overlap only',
  either: 'Not both',
  split: 'Split up',
};

export type CombineWay = keyof Combined;
export const COMBINE_WAYS: readonly CombineWay[] = [...COMBININGS, 'split'];

/** Shapes that are combined: the chosen closed ones, the lowest first. */
export function shapesToCombine(desk: Desk): readonly Shape[] {
  const chosen = new Set(desk.choice.shapes);
  if (chosen.size < 2) return [];
  const shapes = shapesOf(desk.drawing.kept).flatMap(({ shape }) => (chosen.has(shape.id) ? [shape] : []));
  return shapes.every((shape) => shape.paths.every((path) => path.closed)) ? shapes : [];
}

/** Outlines of shapes, whole. */
export const outlinesOf = (shapes: readonly Shape[]): Path[][] =>
  shapes.map((shape) => wholePaths(shape).map((path) => ({ ...path, form: undefined })));

const fresh = (paths: readonly Path[]): Path[] => paths.map((path) => ({ ...path, id: newId() }));

/** What shapes become: the lowest takes the outlines, the others go. */
function combineRecipe(shapes: readonly Shape[], paths: readonly Path[]): Recipe {
  const [lowest, ...others] = shapes;
  return together(
    releaseAxis([lowest!.id]),
    setPaths(lowest!.id, fresh(paths)),
    removeNodes(others.map(({ id }) => id)),
  );
}

/** The pieces that shapes become, each painted as the topmost it was a part of. */
function splitRecipe(
  desk: Desk,
  shapes: readonly Shape[],
  pieces: readonly SplitPiece[],
): { recipe: Recipe; ids: string[] } {
  const [lowest] = shapes;
  const found = findNode(desk.art, lowest!.id);
  const names = new Set(nodeNames(desk.art));
  const made = pieces.map(({ paths, inside }, i): Shape => {
    const from = shapes[inside.lastIndexOf(true)]!;
    const { axis: _axis, lettering: _lettering, place: _place, ...rest } = from;
    const name = i === 0 ? lowest!.name : numberedName(from.name, names, 2);
    names.add(name);
    return { ...rest, id: i === 0 ? lowest!.id : newId(), name, paths: fresh(paths) };
  });
  const [first, ...more] = made;
  const recipe = together(
    takeLook([lowest!.id], shapes[pieces[0]!.inside.lastIndexOf(true)]!.id),
    combineRecipe(shapes, first!.paths),
    ...more.map((shape, i) => addNode(found!.parent!.id, shape, found!.index + 1 + i)),
  );
  return { recipe, ids: made.map(({ id }) => id) };
}

/** A change that combines shapes, and what is chosen after it; null where nothing would be left. */
export function combining(
  desk: Desk,
  shapes: readonly Shape[],
  way: CombineWay,
  pieces: readonly SplitPiece[],
): { readonly recipe: Recipe; readonly ids: readonly string[] } | null {
  if (pieces.length === 0) return null;
  if (way === 'split') return splitRecipe(desk, shapes, pieces);
  return { recipe: combineRecipe(shapes, pieces[0]!.paths), ids: [shapes[0]!.id] };
}

/** Combines the chosen shapes as one step. Says so where nothing would be left, or nothing would change. */
export function combineChosen(
  desk: Desk,
  shapes: readonly Shape[],
  way: CombineWay,
  combined: Combined,
): void {
  const made = combining(desk, shapes, way, combined[way]);
  if (!made)
    return desk.say(`${COMBINE_WORDS[way]} would leave nothing of them. Nothing was changed.`, 'bad');
  const ofOne = ({ inside }: SplitPiece): boolean => inside.filter(Boolean).length === 1;
  if (way === 'split' && combined.split.every(ofOne))
    return desk.say('None of these shapes overlaps another: there is nothing to split. Nothing was changed.');
  const level = desk.step === 'refine' ? 'path' : 'shape';
  desk.change(COMBINE_WORDS[way], made.recipe, { choice: chooseShapes([...made.ids], level) });
}
