import {
  addNode,
  apply,
  boxCentre,
  fitName,
  IDENTITY,
  invert,
  lengthTo,
  letPathsBe,
  nearestOnPath,
  pathBounds,
  pathLength,
  reversePath,
  setLettering,
  setNode,
  together,
  transformPath,
  translation,
  uniteBoxes,
  wholePaths,
  type LetterPaths,
  type Lettering,
  type Path,
  type Point,
  type Shape,
} from '@mirrot/core';
import { chooseShapes, chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { toSheet } from '$lib/desk/view';
import { workLoop } from '$lib/desk/work-loop';
import { newId } from '$lib/ids';
import { readingWorker } from '$lib/workers/reading';
import { fontAddress, SHIPPED_FONTS } from './fonts';

// Lines of text: outlines that stay text until they are made paths.

/** What a new line of text says until it is told what. */
const FIRST_TEXT = 'Seeds';
/** Its size as a share of the sheet's height. */
const FIRST_SIZE = 0.1;
/** Its colour where no fill was chosen for the next path. */
const FIRST_HEX = '#2a2722';

/** The line of text that is chosen alone; null for none. */
export function chosenLettering(desk: Desk): (Shape & { readonly lettering: Lettering }) | null {
  const [id, ...others] = chosenNodes(desk.choice, desk.art);
  const shape = id !== undefined && others.length === 0 ? desk.shapeOf(id) : null;
  return shape?.lettering ? { ...shape, lettering: shape.lettering } : null;
}

/** Outlines before they are placed, with a word on what is not in them; null where there are none, which is said. */
async function outlinesOf(desk: Desk, lettering: Lettering, id: string): Promise<LetterPaths | null> {
  try {
    const made = await readingWorker.ask((work) =>
      work.letters(fontAddress(lettering.font.id), { ...lettering, placement: [...IDENTITY] }, id),
    );
    if (!made) return null;
    if (made.missing.length > 0)
      desk.say(`${lettering.font.name} has no “${made.missing.join('')}”: it is left out.`);
    else if (made.cut) desk.say('The text is longer than the line it stands on: what is beyond is left out.');
    return made;
  } catch (error) {
    desk.say((error as Error).message, 'bad');
    return null;
  }
}

/** Writes a line of text in the middle of what is seen, and chooses it. */
export async function writeLine(desk: Desk): Promise<void> {
  const parent = desk.choosing.drawingParent;
  if (!parent) return desk.say('Every layer is hidden or locked. Show or unlock one to write on it.', 'bad');
  const [{ id: fontId, name }] = SHIPPED_FONTS as [(typeof SHIPPED_FONTS)[number]];
  const lettering: Lettering = {
    text: FIRST_TEXT,
    font: { id: fontId, name },
    size: desk.art.sheet.height * FIRST_SIZE,
    spacing: 0,
    placement: [...IDENTITY],
  };
  const id = newId();
  const made = await outlinesOf(desk, lettering, id);
  // Meanwhile a path may have been begun, or the layer locked.
  if (!made || desk.live || desk.choosing.drawingParent !== parent) return;
  const { view, bed } = desk.looking;
  const middle = toSheet(view, { x: bed.width / 2, y: bed.height / 2 });
  const centre = boxCentre(made.paths.map(pathBounds).reduce(uniteBoxes));
  const placement = translation(middle.x - centre.x, middle.y - centre.y);
  const paths = made.paths.map((path) => transformPath(path, placement));
  const shape: Shape = {
    id,
    type: 'shape',
    name: FIRST_TEXT,
    shown: true,
    locked: false,
    opacity: 1,
    fill: desk.colouring.nextFill ?? { hex: FIRST_HEX },
    stroke: null,
    paths,
    // Text is put beside what is traced, not on its edges.
    meant: true,
  };
  desk.change(
    'Write a line of text',
    together(addNode(parent, shape), setLettering(id, { ...lettering, placement }, paths)),
    { choice: chooseShapes([id]) },
  );
}

interface Wish {
  readonly desk: Desk;
  readonly id: string;
  readonly change: Partial<Lettering>;
  readonly key: string;
}
/** What is wished of lines of text and not made yet, by their ids. */
const wished = new Map<string, Wish>();

const make = workLoop(() => {
  const [wish] = wished.values();
  if (!wish) return null;
  wished.delete(wish.id);
  return carryOut(wish);
});

async function carryOut({ desk, id, change, key }: Wish): Promise<void> {
  const asked = desk.shapeOf(id);
  if (!asked?.lettering) return;
  const lettering = withChange(asked.lettering, change);
  const made = await outlinesOf(desk, lettering, id);
  const now = desk.shapeOf(id);
  // Gone, made paths, or changed by another hand meanwhile: what was asked of it no longer fits.
  if (!made || !now?.lettering) return;
  const { placement } = now.lettering;
  const paths = made.paths.map((path) => transformPath(path, placement));
  const named = now.name === fitName(asked.lettering.text, 'Text');
  desk.change(
    'Change the text',
    together(
      setLettering(id, { ...lettering, placement }, paths),
      named ? setNode(id, { name: fitName(lettering.text, 'Text') }) : () => {},
    ),
    { choice: desk.choice },
    `lettering ${id} ${key}`,
  );
}

/** A field that is undefined is left out. */
const withChange = (lettering: Lettering, change: Partial<Lettering>): Lettering =>
  Object.fromEntries(
    Object.entries({ ...lettering, ...change }).filter(([, value]) => value !== undefined),
  ) as unknown as Lettering;

/**
 * Changes the line of text that is chosen. While one wish is carried out, later ones are gathered; those of one key that
 * follow each other are one step.
 */
export async function changeLettering(desk: Desk, change: Partial<Lettering>, key: string): Promise<void> {
  const shape = chosenLettering(desk);
  if (!shape) return;
  const { id } = shape;
  wished.set(id, { desk, id, change: { ...wished.get(id)?.change, ...change }, key });
  await make();
}

/**
 * Stands the chosen text on the line of a shape that was pressed, from there on. The line stays as it is; later changes of
 * it are not followed.
 */
export function standOn(desk: Desk, shape: Shape, at: Point): void {
  const text = chosenLettering(desk);
  if (!text) return desk.say('Choose one line of text first.');
  if (text.id === shape.id) return desk.say('A text cannot stand on itself. Press another line.');
  const back = invert(text.lettering.placement);
  const pressed = back && apply(back, at);
  const lines = back
    ? wholePaths(shape)
        .filter((path) => path.anchors.length > 1)
        .map((path) => transformPath({ ...path, form: undefined }, back))
    : [];
  const near = lines.flatMap((path) => {
    const place = nearestOnPath(path, pressed!);
    return place ? [{ path, place }] : [];
  });
  const [nearest] = near.sort((one, other) => one.place.distance - other.place.distance);
  if (!nearest) return desk.say(`${shape.name} has no line to stand on. Press another.`);
  const { path, place } = nearest;
  // At the end of an open line nothing has room: then it begins at the beginning.
  const length = lengthTo(path, place);
  const start = path.closed || length < 0.9 * pathLength(path) ? length : 0;
  void changeLettering(desk, { along: alongOf(path, start) }, 'along');
}

/** A line as lettering holds it. */
const alongOf = (
  { closed, anchors }: Pick<Path, 'closed' | 'anchors'>,
  start: number,
): Lettering['along'] => ({
  closed,
  anchors: anchors.map(({ shared: _shared, ...anchor }) => anchor),
  start,
});

/** Stands the chosen text on the other side of its line, which it then follows the other way. */
export function turnSide(desk: Desk): void {
  const along = chosenLettering(desk)?.lettering.along;
  if (!along) return;
  const path: Path = { id: 'along', closed: along.closed, anchors: along.anchors };
  const start = Math.max(0, pathLength(path) - along.start);
  void changeLettering(desk, { along: alongOf(reversePath(path), along.closed ? start : 0) }, 'side');
}

/** Makes the chosen lines of text paths like any other. */
export function makePaths(desk: Desk): void {
  desk.change('Make it paths', letPathsBe(desk.choice.shapes), { choice: desk.choice });
}
