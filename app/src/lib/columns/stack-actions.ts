import {
  addLayer,
  ancestorsOf,
  INKS,
  nodeNames,
  numberedName,
  setLayerInk,
  setNode,
  setUnmeasured,
  type Layer,
} from '@mirrot/core';
import { chooseNodes, chooseShapes, chosenNodes } from '$lib/desk/choice';
import { chooseIds } from '$lib/edits/copying';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';
import type { Row } from './rows';

/** What a press on a row does: a layer becomes the one that is drawn on, and pressed once more is chosen; all else is chosen. */
export function pressRow(desk: Desk, { node, hidden, shut }: Row, adding: boolean): void {
  if (node.type === 'layer' && desk.choosing.layer !== node.id) {
    desk.choosing.layer = node.id;
    return;
  }
  if (shut || node.locked || hidden || !node.shown)
    return desk.say(
      `${node.name} is ${shut || node.locked ? 'locked' : 'hidden'}, so it cannot be chosen.`,
      'plain',
    );
  // What stands outside the group that is worked in is in reach again.
  const { focus } = desk.choosing;
  if (focus && !ancestorsOf(desk.art, node.id).some(({ id }) => id === focus.id)) desk.choosing.focusOn(null);
  if (adding) {
    const now = chosenNodes(desk.choice, desk.art);
    const next = now.includes(node.id) ? now.filter((id) => id !== node.id) : [...now, node.id];
    desk.choose(chooseIds(desk.art, next));
  } else if (node.type !== 'shape') desk.choose(chooseNodes([node]));
  else desk.choose(chooseShapes([node.id], desk.step === 'refine' ? 'path' : 'shape'));
}

/** What the switches of a row turn. */
export type RowTurn = 'shown' | 'locked' | 'measured';

/** Shows or hides, locks or unlocks, leaves out of drift or measures the node of a row. */
export function turnRow(desk: Desk, { node }: Row, what: RowTurn): void {
  if (what === 'measured') {
    const on = !('unmeasured' in node);
    return void desk.change(on ? `Leave ${node.name} out of drift` : `Measure ${node.name}`, setUnmeasured([node.id], on)); // prettier-ignore
  }
  const words = what === 'shown' ? (node.shown ? 'Hide' : 'Show') : node.locked ? 'Unlock' : 'Lock';
  desk.change(`${words} ${node.name}`, setNode(node.id, { [what]: !node[what] }));
}

/** Adds a layer above the one that is drawn on, and draws on it. */
export function addNewLayer(desk: Desk): void {
  const layer: Layer = {
    id: newId(),
    type: 'layer',
    name: numberedName('Layer', nodeNames(desk.art), desk.art.layers.length + 1),
    shown: true,
    locked: false,
    opacity: 1,
    ink: null,
    children: [],
  };
  desk.change('Add a layer', addLayer(layer, desk.choosing.layer));
  desk.choosing.layer = layer.id;
}

/** Gives a layer the next of the fixed inks, and after the last none: chosen by itself. */
export function nextInk(desk: Desk, layer: Layer): void {
  const at = INKS.findIndex((i) => i.hex === layer.ink);
  const ink = INKS[at + 1] ?? null;
  desk.change('Set the layer’s ink', setLayerInk(layer.id, ink?.hex ?? null));
  desk.say(
    ink
      ? `${layer.name} is traced in ${ink.name.toLowerCase()}.`
      : `Ink on ${layer.name} is chosen against the picture.`,
  );
}

export const inkName = (hex: string | null): string =>
  INKS.find((i) => i.hex === hex)?.name.toLowerCase() ?? 'chosen by itself';
