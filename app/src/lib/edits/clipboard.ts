import {
  artText,
  boxCentre,
  cuttingOf,
  MirrotError,
  nodesBox,
  pasteCutting,
  previewArt,
  readArt,
  subtract,
  writeSvg,
  type Art,
  type Point,
} from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';
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

// Pasted as plain text, what was copied here last comes back whole.
let last: { readonly cutting: Art; readonly svg: string } | null = null;

/** Puts what is chosen on the clipboard. False, and the clipboard as it was, where nothing is. */
export function copyChosen(desk: Desk, clipboard: Clipboard): boolean {
  const cutting = cuttingOf(desk.drawing.kept, chosenNodes(desk.choice, desk.drawing.kept));
  if (!cutting) {
    if (desk.choice.nodes.length > 0) desk.say('Layers are not copied. Choose shapes or groups.');
    return false;
  }
  const svg = writeSvg(cutting, { area: 'drawing', ground: null });
  clipboard.setData(CUTTING_TYPE, artText(cutting));
  clipboard.setData('text/plain', svg);
  last = { cutting, svg };
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

/** What is on a clipboard, as a drawing; null where there is none. Broken, it says so. */
function cuttingIn(desk: Desk, clipboard: Pick<Clipboard, 'getData'>): Art | null {
  const text = clipboard.getData(CUTTING_TYPE);
  if (!text) return last && clipboard.getData('text/plain') === last.svg ? last.cutting : null;
  if (text.length > MOST_CHARACTERS) {
    desk.say(
      'What was copied is too large to be put in at once. Nothing was added. Copy it in parts.',
      'bad',
    );
    return null;
  }
  try {
    return readArt(JSON.parse(text));
  } catch (error) {
    const why = error instanceof MirrotError ? error.message : 'it is cut short or changed';
    desk.say(`What was copied cannot be read: ${why.replace(/\.$/, '')}. Nothing was added.`, 'bad');
    return null;
  }
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
  if (pasting.ids.length === 0) return [];
  try {
    const choice = chooseIds(previewArt(desk.drawing.kept, pasting.recipe), pasting.ids);
    desk.change(label, pasting.recipe, { choice });
    return pasting.ids;
  } catch (error) {
    if (!(error instanceof MirrotError)) throw error;
    desk.say(error.message, 'bad');
    return [];
  }
}

/** Puts what is on a clipboard into the drawing. True when there was something of a drawing on it. */
export function pasteInto(desk: Desk, clipboard: Pick<Clipboard, 'getData'>, at: Point | null): boolean {
  const cutting = cuttingIn(desk, clipboard);
  if (!cutting) return clipboard.getData(CUTTING_TYPE) !== '';
  putIn(desk, cutting, at);
  return true;
}
