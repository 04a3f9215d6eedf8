import { isEmptyBox, nodesBox, type Point } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { isDxf, leftOut } from '$lib/desk/svg-file';
import { withProgress, type ProgressPlace } from '$lib/desk/progress';
import { readingWorker } from '$lib/workers/reading';
import { putIn } from './clipboard';

// An SVG or DXF of another program, taken as drawing.

/**
 * Puts an SVG or DXF into the drawing as shapes: with its middle at a point; without one, where it stands in the file when its
 * page is as large as the sheet, else in the middle of the sheet.
 */
export async function takeAsDrawing(
  desk: Desk,
  place: ProgressPlace,
  file: File,
  at: Point | null,
): Promise<void> {
  if (desk.live) return desk.say('A path is being drawn. End it with Enter first. Nothing was added.', 'bad');
  const text = await file.text();
  const reading = await withProgress(
    place,
    `Reading ${file.name}`,
    () => readingWorker.end(),
    () => readingWorker.ask((work) => (isDxf(file) ? work.dxf(text) : work.svg(text))),
  );
  if (!reading) return;
  const { art, left } = reading;
  const nodes = art.layers.flatMap((layer) => layer.children.map(({ id }) => id));
  const box = nodesBox(art, nodes);
  if (nodes.length === 0 || isEmptyBox(box))
    return desk.say(`There is no drawing in ${file.name}. Nothing was added.${leftOut(left)}`, 'bad');
  const { width, height } = desk.art.sheet;
  const alike = Math.abs(art.sheet.width - width) < 0.5 && Math.abs(art.sheet.height - height) < 0.5;
  const ids = putIn(desk, art, at ?? (alike ? null : { x: width / 2, y: height / 2 }), `Take ${file.name}`);
  if (ids.length === 0) return;
  const count = ids.length === 1 ? `${file.name} lies` : `${ids.length} parts of ${file.name} lie`;
  desk.say(`${count} on the sheet.${leftOut(left)}`, left.length > 0 ? 'plain' : 'good');
}
