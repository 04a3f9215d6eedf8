import type { LeftRequest } from '$lib/wire';
import { NOTHING_CHOSEN, stillThere } from './choice';
import type { Desk } from './desk.svelte';
import { toSheet } from './view';

/** Things of a choice that are remembered at most: a larger one is nothing one would look for again. */
const MOST_REMEMBERED = 200;

/** Where the desk stands now. */
export function whereLeft(desk: Desk): LeftRequest {
  const { view, bed } = desk.looking;
  const { all } = desk.picture.drifts;
  const { level, shapes, nodes, anchors } = desk.choice;
  const remembered = shapes.length + nodes.length + anchors.length <= MOST_REMEMBERED;
  return {
    step: desk.step,
    middle: toSheet(view, { x: bed.width / 2, y: bed.height / 2 }),
    scale: view.scale,
    choice: remembered
      ? { ...NOTHING_CHOSEN, level, shapes: [...shapes], nodes: [...nodes], anchors: [...anchors] }
      : { ...NOTHING_CHOSEN, shapes: [], nodes: [], anchors: [] },
    drift: all && Number.isFinite(all.mean) ? all.mean : null,
  };
}

/** Where this tab left a desk: a page that is loaded anew may ask the server before what the old one told has come there. */
const IN_THIS_TAB = 'mirrot-left';

/** Keeps where the desk stands for this tab's next page. */
export function keepInTab(project: string, left: LeftRequest): void {
  try {
    sessionStorage.setItem(IN_THIS_TAB, JSON.stringify({ project, left }));
  } catch {
    // A full or closed store forgets; the server is told as well.
  }
}

/** Where this tab left a project a moment ago, once; null where it did not. */
export function takeFromTab(project: string): LeftRequest | null {
  try {
    const kept = JSON.parse(globalThis.sessionStorage?.getItem(IN_THIS_TAB) ?? 'null') as {
      project: string;
      left: LeftRequest;
    } | null;
    globalThis.sessionStorage?.removeItem(IN_THIS_TAB);
    return kept?.project === project ? kept.left : null;
  } catch {
    return null;
  }
}

/** Goes on where the desk was left: its step, and what of the choice is still there. The view waits for the bed. */
export function goOnWhereLeft(desk: Desk, { step, choice, middle, scale }: LeftRequest): void {
  desk.step = step;
  desk.choose(stillThere(choice, desk.art));
  desk.looking.first = { middle, scale };
}
