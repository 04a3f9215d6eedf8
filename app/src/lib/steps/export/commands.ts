import Copy from '@lucide/svelte/icons/copy';
import Download from '@lucide/svelte/icons/download';
import Image from '@lucide/svelte/icons/image';
import PenLine from '@lucide/svelte/icons/pen-line';
import type { FileKind, OutputRange } from '@mirrot/core';
import { exportUrl, fetchExport } from '$lib/desk/api';
import { chosenNodes } from '$lib/desk/choice';
import type { Command } from '$lib/desk/command';
import { withProgress } from '$lib/desk/progress';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { holdsLines, isOfLines, linesWish, rangeOf, type Exporting } from '$lib/desk/exporting';
import { keepFile, writeFile } from '$lib/desk/writing';
import { fileName } from '$lib/file-name';
import type { LinesWish } from '$lib/workers/files';
import { holdsPictures, isPixels, nameOf } from './kinds';

/** What of the drawing goes into the file, and how large it comes out. */
export const rangeNow = ({ desk, exporting }: Workplace): OutputRange =>
  rangeOf(exporting, desk.choice, desk.drawing.kept);

/** What is wished of the lines now; null where the drawing is written as it is painted. */
export const linesNow = (w: Workplace): LinesWish | null => linesWish(w.exporting, rangeNow(w));

/** What is asked of the lines of a file of some kind. (HP-GL is made in the page.) */
function lineQuery(out: Exporting, format: FileKind): Record<string, string> {
  if (!holdsLines({ ...out, format })) return {};
  const { seen, weighted, bladeMargin, thinned, marks, mirrored, uses } = out.lines;
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
    ...lineQuery(w.exporting, format),
    ...(isPixels(format) ? { ppi: String(ppi) } : {}),
  };
}

/** What the panel asks of the file. */
export const queryOf = (w: Workplace): Record<string, string> => queryAs(w, w.exporting.format);

/** Width of the preview, pixels. */
const PREVIEW_PX = 460;

/** Address of the drawing as the file has it, small; another one whenever the server has another drawing. */
export function previewUrl(w: Workplace): string {
  const { ppi: _ppi, scale: _scale, plain: _plain, ...query } = queryOf(w);
  const of = String(w.saving.revision);
  return exportUrl(w.project.id, 'png', { ...query, width: String(PREVIEW_PX), of });
}

async function saveFile(w: Workplace): Promise<void> {
  const { format } = w.exporting;
  // What the bench plays is what is written.
  const wish = linesNow(w);
  if (wish?.kind === 'plot') {
    const made = await w.lineMaking.make(w, w.desk.drawing.kept, wish);
    if (!made?.plot) return w.desk.say(w.lineMaking.trouble ?? 'The file was not written.', 'bad');
    keepFile(w, fileName(w.project.name, 'plt'), new Blob([made.plot.text]));
    w.lastFile = nameOf(format);
  } else if (await writeFile(w, `the ${nameOf(format)} file`, format, queryOf(w)))
    w.lastFile = nameOf(format);
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

/** The file is made here, and what is chosen is there. */
const madeHere = (w: Workplace): boolean =>
  w.exporting.format === 'plt' && (w.exporting.area !== 'chosen' || chosenNodes(w.desk.choice, w.desk.art).length > 0); // prettier-ignore

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
    when: (w) => madeHere(w) || settled(w),
    run: (w) => void saveFile(w),
  },
  {
    id: 'bench',
    title: 'Bench',
    icon: PenLine,
    steps: ['export'],
    on: (w) => w.benchShown,
    says: (w) => (w.benchShown ? 'Back to the bed' : 'Play the HP-GL file on the bench'),
    run(w) {
      w.benchShown = !w.benchShown;
      if (w.benchShown) w.exporting.format = 'plt';
    },
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
