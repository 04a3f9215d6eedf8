import {
  addNode,
  deepestPoint,
  findNode,
  insideEvenOdd,
  nodeNames,
  numberedName,
  paintShapes,
  polygonOf,
  setPoured,
  shapesOf,
  together,
  wholePaths,
  type Colour,
  type EnclosedArea,
  type Point,
  type Recipe,
  type Shape,
} from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';
import { FIRST_WEIGHT } from './painting';

// Areas that lines enclose become filled shapes below the lines.

/** Fill of what is poured when no colour was chosen and the palette is empty. */
const PLAIN_FILL: Colour = { hex: '#d9cfb8' };

export function pourFill(desk: Desk): Colour {
  const [chip] = desk.art.chips;
  return desk.colouring.nextFill ?? (chip ? { chip: chip.id } : PLAIN_FILL);
}

const middles = new WeakMap<Shape, Point>();

/** A point well inside a shape. */
function middleOf(shape: Shape): Point {
  let middle = middles.get(shape);
  if (!middle) middles.set(shape, (middle = deepestPoint(wholePaths(shape))));
  return middle;
}

/** A poured shape that fills an area already. */
const filling = (desk: Desk, area: EnclosedArea): Shape | null =>
  shapesOf(desk.drawing.kept).find(
    ({ shape }) => shape.poured && insideEvenOdd(area.paths.map(polygonOf), middleOf(shape)),
  )?.shape ?? null;

/** Where a shape stands that is to lie right below some others: below the lowest of them, unless its layer is locked. */
function placeBelow(desk: Desk, ids: ReadonlySet<string>): { parent: string; index: number } | null {
  const lowest = shapesOf(desk.drawing.kept).find(({ shape }) => ids.has(shape.id));
  const found = lowest && !lowest.locked ? findNode(desk.drawing.kept, lowest.shape.id) : null;
  if (found?.parent) return { parent: found.parent.id, index: found.index };
  const parent = desk.choosing.drawingParent;
  if (!parent) desk.say('Every layer is hidden or locked. Show or unlock one to draw on it.', 'bad');
  return parent ? { parent, index: 0 } : null;
}

/** An area that is about to be filled: its number, and the id of the shape that will fill it. */
export interface Pour {
  readonly area: number;
  readonly id: string;
}

/** Fills areas, each as a shape of its own; one that is filled already gets the colour. Null where nothing can be drawn on. */
export function pourRecipe(desk: Desk, pours: readonly Pour[]): Recipe | null {
  const { known } = desk.linework;
  if (!known) return null;
  const fill = pourFill(desk);
  const names = nodeNames(desk.drawing.kept);
  const recipes: Recipe[] = [];
  for (const { area: number, id } of pours) {
    const area = known.enclosed.areas[number]!;
    const there = filling(desk, area);
    if (there) {
      recipes.push(paintShapes([there.id], 'fill', fill, FIRST_WEIGHT));
      continue;
    }
    const between = [...new Set(area.lines.map((line) => known.lines.owners[line]!))];
    const place = placeBelow(desk, new Set(between));
    if (!place) return null;
    const name = numberedName('Area', names);
    names.add(name);
    const shape: Shape = {
      id,
      type: 'shape',
      name,
      shown: true,
      locked: false,
      opacity: 1,
      fill,
      stroke: null,
      paths: area.paths.map((path, i) => ({ ...path, id: `${id}-${i}` })),
      ...(desk.habits.pourKeeps && { poured: { between, gap: known.gap } }),
    };
    recipes.push(addNode(place.parent, shape, place.index));
  }
  return together(...recipes);
}

export const newPour = (area: number): Pour => ({ area, id: newId() });

/** Chosen shapes that keep up with lines. */
export const pouredChosen = (desk: Desk): readonly Shape[] =>
  desk.chosenShapes.filter((shape) => shape.poured);

/** Chosen areas no longer follow the lines they lie between. */
export function letAreasBe(desk: Desk): void {
  const shapes = pouredChosen(desk);
  desk.change('Let the area be', together(...shapes.map(({ id }) => setPoured(id, null))), {
    choice: chooseShapes(shapes.map(({ id }) => id)),
  });
}
