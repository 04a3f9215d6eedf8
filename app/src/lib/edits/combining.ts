import {
  addBeside,
  closeNearMisses,
  COMBININGS,
  releaseAxis,
  removeNodes,
  setPaths,
  shapesOf,
  takeLook,
  together,
  wholePaths,
  type ClosedMisses,
  type Combined,
  type Path,
  type Recipe,
  type Shape,
  type SplitPiece,
} from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { plainLines } from '$lib/desk/linework.svelte';
import { newId } from '$lib/ids';
import { freshPaths, namesFor, withoutOwnLines } from './new-lines';

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

/** What is combined: chosen closed shapes, the lowest first, and open lines that cut what is split up. */
export interface ToCombine {
  readonly shapes: readonly Shape[];
  readonly lines: readonly Shape[];
}
const NOTHING: ToCombine = { shapes: [], lines: [] };

/** Two shapes at least, or one and a line. */
export function toCombine(desk: Desk): ToCombine {
  const chosen = new Set(desk.choice.shapes);
  if (chosen.size < 2) return NOTHING;
  const all = shapesOf(desk.drawing.kept).flatMap(({ shape }) => (chosen.has(shape.id) ? [shape] : []));
  const isClosed = (shape: Shape): boolean => shape.paths.every((path) => path.closed);
  const [shapes, lines] = [all.filter(isClosed), all.filter((shape) => !isClosed(shape))];
  return shapes.length > 0 ? { shapes, lines } : NOTHING;
}

/** Ways that mean something: one shape by itself can only be split up. */
export const waysFor = ({ shapes }: ToCombine): readonly CombineWay[] =>
  shapes.length > 1 ? COMBINE_WAYS : ['split'];

/** Outlines of shapes, whole. */
export const outlinesOf = (shapes: readonly Shape[]): Path[][] => shapes.map(plainLines);

/** What shapes become: the lowest takes the outlines, and the look of the one that stays; the others go. */
function combineRecipe(shapes: readonly Shape[], paths: readonly Path[], look: string | null = null): Recipe {
  const [lowest, ...others] = shapes;
  return together(
    takeLook([lowest!.id], look ?? lowest!.id),
    releaseAxis([lowest!.id]),
    setPaths(lowest!.id, freshPaths(paths)),
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
  const nameOf = namesFor(desk);
  const made = pieces.map(({ paths, inside }, i): Shape => {
    const from = shapes[inside.lastIndexOf(true)]!;
    const [id, name] = i === 0 ? [lowest!.id, lowest!.name] : [newId(), nameOf(from.name)];
    return { ...withoutOwnLines(from), id, name, paths: freshPaths(paths) };
  });
  const [first, ...more] = made;
  const recipe = together(
    takeLook([lowest!.id], shapes[pieces[0]!.inside.lastIndexOf(true)]!.id),
    combineRecipe(shapes, first!.paths),
    addBeside(lowest!.id, more, true),
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
  const stays = shapes.some(({ id }) => id === desk.choosing.stays) ? desk.choosing.stays : null;
  return { recipe: combineRecipe(shapes, pieces[0]!.paths, stays), ids: [shapes[0]!.id] };
}

/** Anchors and borders nearer than this that do not meet are near misses, sheet pixels. */
const NEAR_MISS_PX = 1;

/** Near misses among what is combined, closed; null where there are none. */
export function nearMisses({ shapes, lines }: ToCombine): ClosedMisses | null {
  const closed = closeNearMisses(outlinesOf([...shapes, ...lines]), NEAR_MISS_PX);
  return closed.count > 0 ? closed : null;
}

/** Moves what nearly meets onto each other, as a step of its own. */
export function closeChosenMisses(desk: Desk, { shapes, lines }: ToCombine, closed: ClosedMisses): void {
  const recipes = [...shapes, ...lines].map((shape, i) => {
    const paths = closed.shapes[i]!;
    const changed = paths.some((path, k) => path.anchors !== wholePaths(shape)[k]!.anchors);
    return changed ? together(releaseAxis([shape.id]), setPaths(shape.id, paths)) : () => {};
  });
  desk.change('Close near misses', together(...recipes));
}

/** Whether a piece lies in one shape alone. */
const ofOne = ({ inside }: SplitPiece): boolean => inside.filter(Boolean).length === 1;

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
  if (way === 'split' && combined.split.length <= shapes.length && combined.split.every(ofOne))
    return desk.say('Nothing here overlaps, and no line goes all the way across: there is nothing to split. Nothing was changed.'); // prettier-ignore
  const level = desk.step === 'refine' ? 'path' : 'shape';
  desk.change(COMBINE_WORDS[way], made.recipe, { choice: chooseShapes([...made.ids], level) });
}
