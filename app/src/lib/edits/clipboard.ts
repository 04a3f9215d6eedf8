import {
  artText,
  boxCentre,
  cuttingOf,
  nodesBox,
  pasteCutting,
  subtract,
  writeSvg,
  type Art,
  type Point,
} from '@mirrot/core';
import { chooseNodes, chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { withProgress, type ProgressPlace } from '$lib/desk/progress';
import { newId } from '$lib/ids';
import { readingWorker } from '$lib/workers/reading';
import { chooseIds } from './copying';
import { deleteChosen } from './shaping';

/** What is copied, for Mirrot itself; other programs get SVG text beside it. */
export const CUTTING_TYPE = 'application/x-mirrot-drawing+json';
/** Characters of what is pasted, at most. */
const MOST_CHARACTERS = 40_000_000;

/** What can be put on a clipboard and taken from it, as the browser's own events have it. */
export interface Clipboard {
  setData(type: string, text: string): void;
  getData(type: string): string;
}

// What was copied here last comes back at once, and whole also where it is pasted as plain text.
let last: { readonly cutting: Art; readonly text: string; readonly svg: string } | null = null;

/** Puts what is chosen on the clipboard. False, and the clipboard as it was, where nothing is. */
export function copyChosen(desk: Desk, clipboard: Clipboard): boolean {
  const cutting = cuttingOf(desk.drawing.kept, chosenNodes(desk.choice, desk.drawing.kept));
  if (!cutting) {
    if (desk.choice.nodes.length > 0) desk.say('Layers are not copied. Choose shapes or groups.');
    return false;
  }
  const svg = writeSvg(cutting, { area: 'drawing', ground: null });
  const text = artText(cutting);
  clipboard.setData(CUTTING_TYPE, text);
  clipboard.setData('text/plain', svg);
  last = { cutting, text, svg };
  const count = cutting.layers[0]!.children.length;
  desk.say(count === 1 ? `${cutting.layers[0]!.children[0]!.name} is copied.` : `${count} are copied.`);
  return true;
}

/** Copies what is chosen and takes it out of the drawing. */
export function cutChosen(desk: Desk, clipboard: Clipboard): boolean {
  const copied = copyChosen(desk, clipboard);
  // Shapes as wholes, whatever of them is chosen: that is what was copied.
  if (copied) {
    desk.choose(chooseIds(desk.art, chosenNodes(desk.choice, desk.art)));
    deleteChosen(desk);
  }
  return copied;
}

/** What was copied, read away from the page: to check thousands of shapes takes a while. Null where it was stopped or is broken; that is said. */
async function readCopied(place: ProgressPlace, text: string): Promise<Art | null> {
  if (text.length > MOST_CHARACTERS) {
    place.say(
      'What was copied is too large to be put in at once. Nothing was added. Copy it in parts.',
      'bad',
    );
    return null;
  }
  const refuse = (error: unknown): never => {
    const why = error instanceof SyntaxError ? 'it is cut short or changed' : (error as Error).message;
    throw new Error(`What was copied cannot be read: ${why.replace(/\.$/, '')}. Nothing was added.`);
  };
  return withProgress(
    place,
    'Reading what was copied',
    () => readingWorker.end(),
    () => readingWorker.ask((work) => work.copied(text)).catch(refuse),
  );
}

/**
 * Puts a drawing into the layer or group that is worked in, and chooses it: where it stood, or with its middle at a point.
 * Ids of what was put in; none where that could not be done.
 */
export function putIn(desk: Desk, cutting: Art, at: Point | null, label = 'Paste'): readonly string[] {
  const parent = desk.choosing.drawingParent;
  if (!parent) {
    desk.say('Every layer is hidden or locked. Show or unlock one to paste on it.', 'bad');
    return [];
  }
  const ids = cutting.layers.flatMap((layer) => layer.children.map(({ id }) => id));
  const by = at ? subtract(at, boxCentre(nodesBox(cutting, ids))) : { x: 0, y: 0 };
  const pasting = pasteCutting(desk.drawing.kept, cutting, parent, by, newId);
  const behind = pasting.left === 1 ? 'A picture' : `${pasting.left} pictures`;
  if (pasting.left > 0)
    desk.say(`${behind} stayed behind: this project does not have what was copied with it.`, 'bad');
  if (pasting.nodes.length === 0) return [];
  const done = desk.change(label, pasting.recipe, { choice: chooseNodes(pasting.nodes) });
  return done ? pasting.nodes.map(({ id }) => id) : [];
}

/**
 * Puts what is on a clipboard into the drawing. Null where there is nothing of a drawing on it; else done when it is in, or
 * was said why not.
 */
export function pasteInto(
  desk: Desk,
  place: ProgressPlace,
  clipboard: Pick<Clipboard, 'getData'>,
  at: Point | null,
): Promise<void> | null {
  const text = clipboard.getData(CUTTING_TYPE);
  const isLast = text ? last?.text === text : last?.svg === clipboard.getData('text/plain');
  const known = isLast ? last!.cutting : null;
  if (!text && !known) return null;
  return (async () => {
    const cutting = known ?? (await readCopied(place, text));
    // Meanwhile a path may have been begun: it goes on, and what was copied can be pasted after it.
    if (cutting && desk.live)
      desk.say('A path is being drawn. End it with Enter, then paste again. Nothing was added.'); // prettier-ignore
    else if (cutting) putIn(desk, cutting, at);
  })();
}
