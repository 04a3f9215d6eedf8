import type { Point } from '@mirrot/core';
import { toSheet } from '$lib/desk/view';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { pasteInto } from '$lib/edits/clipboard';
import { svgInText } from '$lib/desk/svg-file';
import { takeFiles } from '$lib/edits/taking';
import { filesIn } from '$lib/ui/files';

// What comes to the desk from outside: pasted or dropped.

export { copyChosen, cutChosen } from '$lib/edits/clipboard';

/** Takes what was pasted; false where there is nothing of use in it. */
export function takePasted(workplace: Workplace, data: DataTransfer, at: Point | null): boolean {
  const { desk } = workplace;
  if (!desk.live && pasteInto(desk, workplace, data, at)) return true;
  const svg = svgInText(data.getData('text/plain'));
  const files = svg ? [svg] : filesIn(data);
  if (files.length === 0) return false;
  void takeFiles(workplace, files, at);
  return true;
}

/** What was dropped on the page, and where. */
export interface Dropped extends Pick<DragEvent, 'target' | 'clientX' | 'clientY'> {
  readonly data: DataTransfer;
}

/** Takes what was dropped, where it was dropped when that was on the bed. */
export function takeDropped(
  workplace: Workplace,
  { data, target, clientX, clientY }: Dropped,
  bed: HTMLElement | undefined,
): void {
  const files = filesIn(data);
  const svg = files.length === 0 ? svgInText(data.getData('text/plain')) : null;
  const all = svg ? [svg] : files;
  if (all.length === 0) return;
  const box = bed?.getBoundingClientRect();
  const onBed = box && target instanceof Node && bed!.contains(target);
  const at = onBed ? toSheet(workplace.desk.looking.view, { x: clientX - box.x, y: clientY - box.y }) : null;
  void takeFiles(workplace, all, at);
}
