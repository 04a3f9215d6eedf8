import Copy from '@lucide/svelte/icons/copy';
import Download from '@lucide/svelte/icons/download';
import Image from '@lucide/svelte/icons/image';
import type { FileKind, OutputRange } from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import { exportUrl, fetchExport, fetchPlotFigures } from '$lib/desk/api';
import type { Command } from '$lib/desk/command';
import { withProgress } from '$lib/desk/progress';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { writeFile } from '$lib/desk/writing';
import type { PlotFigures } from '$lib/wire';
import { holdsPictures, isOfLines, isPixels, nameOf } from './kinds';

/** What of the drawing goes into the file, and how large it comes out. */
export function rangeOf({ desk, exporting }: Workplace): OutputRange {
  const { area, margin, scale } = exporting;
  if (area === 'sheet') return { area, scale };
  const only = area === 'chosen' ? new Set(chosenNodes(desk.choice, desk.art)) : undefined;
  return { area: 'drawing', margin, scale, only };
}

/** What the panel asks of a file of some kind. */
export function queryAs(w: Workplace, format: FileKind): Record<string, string> {
  const { ground, ppi, picture, plain, shortWay } = w.exporting;
  const { area = 'sheet', margin = 0, scale = 1, only } = rangeOf(w);
  return {
    area,
    ...(isOfLines(format) ? {} : { ground }),
    ...(holdsPictures(format) ? { picture: picture ? '1' : '0' } : {}),
    ...(margin > 0 ? { margin: String(margin) } : {}),
    ...(scale !== 1 ? { scale: String(scale) } : {}),
    ...(only ? { only: [...only].join(',') } : {}),
    ...(format === 'svg' && plain ? { plain: '1' } : {}),
    ...(format === 'plt' && shortWay ? { order: 'short' } : {}),
    ...(isPixels(format) ? { ppi: String(ppi) } : {}),
  };
}

/** What the panel asks of the file. */
export const queryOf = (w: Workplace): Record<string, string> => queryAs(w, w.exporting.format);

/** What drawing it on a plotter comes to, in its order and in a short one. */
export const fetchFigures = (w: Workplace, signal: AbortSignal): Promise<PlotFigures> =>
  fetchPlotFigures(w.project.id, { ...queryAs(w, 'plt'), figures: '1' }, signal);

/** Width of the preview, pixels. */
const PREVIEW_PX = 460;

/** Address of the drawing as the file has it, small; another one whenever the server has another drawing. */
export function previewUrl(w: Workplace): string {
  const { ppi: _ppi, scale: _scale, plain: _plain, order: _order, ...query } = queryOf(w);
  const { format } = w.exporting;
  const of = String(w.saving.revision);
  if (isOfLines(format)) return exportUrl(w.project.id, 'svg', { ...query, lines: format, of });
  return exportUrl(w.project.id, 'png', { ...query, width: String(PREVIEW_PX), of });
}

async function saveFile(w: Workplace): Promise<void> {
  const { format } = w.exporting;
  if (await writeFile(w, `the ${nameOf(format)} file`, format, queryOf(w))) w.lastFile = nameOf(format);
}

/** Most things that are asked for one by one: their ids stand in the address of the file. A group is one. */
export const MOST_CHOSEN = 500;

/** All is on the server, and where only what is chosen is wanted, something is, and not too much. */
function settled(w: Workplace): boolean {
  const chosen = chosenNodes(w.desk.choice, w.desk.art).length;
  return (
    w.saving.state === 'kept' && (w.exporting.area !== 'chosen' || (chosen > 0 && chosen <= MOST_CHOSEN))
  );
}

/** Fetches something and puts it on the clipboard; says what became of it. */
async function copy<T>(
  w: Workplace,
  label: string,
  fetched: (signal: AbortSignal) => Promise<T>,
  put: (what: T) => Promise<void>,
  done: string,
): Promise<void> {
  const stopper = new AbortController();
  const what = await withProgress(
    w,
    label,
    () => stopper.abort(),
    () => fetched(stopper.signal),
  );
  if (what === null) return;
  try {
    await put(what);
    w.desk.say(done, 'good');
  } catch {
    w.desk.say('The browser did not give access to the clipboard. Write the file instead.', 'bad');
  }
}

export const EXPORT: readonly Command[] = [
  {
    id: 'save-file',
    title: 'Write the file',
    icon: Download,
    steps: ['export'],
    when: settled,
    run: (w) => void saveFile(w),
  },
  {
    id: 'copy-svg',
    title: 'Copy as SVG text',
    icon: Copy,
    steps: ['export'],
    when: settled,
    run: (w) =>
      void copy(
        w,
        'Writing the SVG',
        async (signal) => (await fetchExport(w.project.id, 'svg', queryAs(w, 'svg'), signal)).content.text(),
        (text) => navigator.clipboard.writeText(text),
        'The SVG text is on the clipboard.',
      ),
  },
  {
    id: 'copy-picture',
    title: 'Copy as a picture',
    icon: Image,
    steps: ['export'],
    when: settled,
    run: (w) =>
      void copy(
        w,
        'Writing the picture',
        async (signal) => (await fetchExport(w.project.id, 'png', queryAs(w, 'png'), signal)).content,
        (png) => navigator.clipboard.write([new ClipboardItem({ 'image/png': png })]),
        'The picture is on the clipboard.',
      ),
  },
];
