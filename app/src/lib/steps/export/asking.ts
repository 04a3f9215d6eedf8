import type { Art, FileKind, OutputRange } from '@mirrot/core';
import { exportUrl } from '$lib/desk/api';
import {
  holdsLines,
  isOfDrawing,
  isOfLines,
  joinOf,
  leadOf,
  linesOf,
  linesWish,
  rangeOf,
  type Exporting,
} from '$lib/desk/exporting';
import type { Workplace } from '$lib/desk/workplace.svelte';
import type { LinesWish } from '$lib/workers/files';
import { holdsPictures, isPixels } from './kinds';

// What the panel asks, as the server and the worker want it.

/** What of the drawing goes into the file, and how large it comes out. */
export const rangeNow = ({ desk, exporting }: Workplace): OutputRange =>
  rangeOf(exporting, desk.choice, desk.drawing.kept);

/** What is wished of the lines now; null where the drawing is written as it is painted. */
export const linesNow = (w: Workplace): LinesWish | null =>
  linesWish(w.exporting, rangeNow(w), w.desk.drawing.kept);

/** What is asked of the strokes of a plotter, where it is the server that makes them. */
function plotQuery(out: Exporting): Record<string, string> {
  const [join, lead] = [joinOf(out), leadOf(out)];
  return {
    ...(out.shortWay ? { order: 'short' } : {}),
    ...(out.machine.tool === 'knife' ? { inner: '1' } : {}),
    ...(join > 0 ? { join: String(join) } : {}),
    ...(lead > 0 ? { lead: String(lead) } : {}),
  };
}

/** What is asked of the lines of a file of some kind. */
function lineQuery(out: Exporting, format: FileKind, art: Art): Record<string, string> {
  if (!holdsLines({ ...out, format })) return {};
  const { seen, weighted, bladeMargin, thinned, marks, mirrored, uses } = linesOf({ ...out, format }, art);
  const used = Object.entries(uses).map(([layer, use]) => `${layer}:${use}`);
  return {
    ...(isOfLines(format) ? {} : { hairlines: '1' }),
    ...(seen ? { seen: '1' } : {}),
    ...(weighted ? { weighted: '1' } : {}),
    ...(marks ? { marks: '1' } : {}),
    ...(mirrored ? { mirrored: '1' } : {}),
    ...(bladeMargin > 0 ? { blade: String(bladeMargin) } : {}),
    ...(thinned > 0 ? { thinned: String(thinned) } : {}),
    ...(used.length > 0 ? { uses: used.join(',') } : {}),
    ...(format === 'plt' ? plotQuery(out) : {}),
  };
}

/** What the panel asks of a file of some kind. */
export function queryAs(w: Workplace, format: FileKind): Record<string, string> {
  const { ground, ppi, picture, plain } = w.exporting;
  const { area = 'sheet', margin = 0, scale = 1, only } = rangeNow(w);
  return {
    area,
    ...(isOfLines(format) ? {} : { ground }),
    ...(holdsPictures(format) ? { picture: picture ? '1' : '0' } : {}),
    ...(margin > 0 ? { margin: String(margin) } : {}),
    ...(scale !== 1 ? { scale: String(scale) } : {}),
    ...(only ? { only: [...only].join(',') } : {}),
    ...(format === 'svg' && plain ? { plain: '1' } : {}),
    ...lineQuery(w.exporting, format, w.desk.drawing.kept),
    ...(isPixels(format) ? { ppi: String(ppi) } : {}),
  };
}

/** What the panel asks of the file. */
export function queryOf(w: Workplace): Record<string, string> {
  const { format, each, widths } = w.exporting;
  if (!isOfDrawing(format)) return {};
  return {
    ...queryAs(w, format),
    ...(each !== 'one' ? { each } : {}),
    ...(isPixels(format) && widths.length > 0 ? { widths: widths.join(',') } : {}),
  };
}

/** Width of the preview, pixels. */
const PREVIEW_PX = 460;

/** Address of the drawing as the file has it, small; another one whenever the server has another drawing. */
export function previewUrl(w: Workplace): string {
  const { format } = w.exporting;
  const {
    ppi: _ppi,
    scale: _scale,
    plain: _plain,
    ...query
  } = queryAs(w, isOfDrawing(format) ? format : 'png');
  const of = String(w.saving.revision);
  return exportUrl(w.project.id, 'png', { ...query, width: String(PREVIEW_PX), of });
}
