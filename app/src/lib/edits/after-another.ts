import { ancestorsOf, findNode, moveNodes, takeLook, type Point } from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import type { Task } from '$lib/desk/task';
import { whenFetched } from '$lib/desk/when-fetched';

// What is chosen put under, or made to look as, a shape that is pressed for it.

/** Moves what is chosen right beneath the node that a press on a shape is about. */
function goUnder(desk: Desk, shape: string): void {
  const { art } = desk;
  const ids = chosenNodes(desk.choice, art);
  const found = findNode(art, desk.choosing.wholeOf(shape));
  if (!found?.parent) return;
  const around = [found.node, ...ancestorsOf(art, found.node.id)];
  if (around.some(({ id }) => ids.includes(id)))
    return desk.say(`${found.node.name} is itself chosen, so nothing was moved. Press another.`);
  desk.change(`Move under ${found.node.name}`, moveNodes(ids, found.parent.id, found.index));
}

/**
 * Carries out a task of one press on a shape.
 *
 * @param shape the one pressed; null where there was none
 * @param at where it was pressed, sheet pixels
 */
export function carryOutOn(
  desk: Desk,
  task: Extract<Task, { kind: 'go-under' | 'take-look' | 'stand-on' }>,
  shape: string | null,
  at: Point,
): void {
  const pressed = shape === null ? null : desk.shapeOf(shape);
  if (!pressed) return desk.say('There is no shape here. Press one, or Esc leaves it.');
  desk.pointing.task = null;
  desk.notice = null;
  if (task.kind === 'go-under') return goUnder(desk, pressed.id);
  if (task.kind === 'stand-on')
    return whenFetched(desk, import('./lettering'), ({ standOn }) => standOn(desk, pressed, at));
  desk.change(`Take the look of ${pressed.name}`, takeLook(desk.choosing.receivers, pressed.id));
}
