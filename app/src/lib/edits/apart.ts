import { findNode, nodesBeside, setNode, together } from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';

// What is chosen set apart from the rest: the rest hidden, or locked, and brought back by the same press.

export type Apart = 'hidden' | 'locked';
const WORDS = {
  hidden: { apart: 'Show only this', back: 'Show the rest again', nothing: 'Nothing else is drawn.' },
  locked: { apart: 'Lock all but this', back: 'Unlock the rest again', nothing: 'Nothing else is drawn.' },
} as const;

const turned = (desk: Desk, ids: readonly string[], what: Apart, on: boolean): string[] =>
  ids.filter((id) => {
    const node = findNode(desk.art, id)?.node;
    return node && (what === 'hidden' ? !node.shown : node.locked) === on;
  });

/** Whether the rest is hidden or locked since it was set apart. */
export const isApart = (desk: Desk, what: Apart): boolean =>
  turned(desk, desk.choosing.apart[what], what, true).length > 0;

/** Hides or locks all but what is chosen; where that was done before, brings back just what it hid or locked. */
export function turnApart(desk: Desk, what: Apart): void {
  const set = (label: string, ids: readonly string[], on: boolean): boolean =>
    desk.change(label, together(...ids.map((id) => setNode(id, what === 'hidden' ? { shown: !on } : { locked: on })))); // prettier-ignore
  const words = WORDS[what];
  const before = turned(desk, desk.choosing.apart[what], what, true);
  if (before.length > 0) {
    set(words.back, before, false);
    desk.choosing.apart = { ...desk.choosing.apart, [what]: [] };
    return;
  }
  const rest = nodesBeside(desk.art, chosenNodes(desk.choice, desk.art)).map(({ id }) => id);
  if (rest.length === 0) return desk.say(words.nothing);
  const open = turned(desk, rest, what, false);
  // The page was opened since, or they were turned one by one: all the rest comes back.
  if (open.length === 0) return void set(words.back, rest, false);
  set(words.apart, open, true);
  desk.choosing.apart = { ...desk.choosing.apart, [what]: open };
}
