import Copy from '@lucide/svelte/icons/copy';
import Download from '@lucide/svelte/icons/download';
import Image from '@lucide/svelte/icons/image';
import PenLine from '@lucide/svelte/icons/pen-line';
import { fetchExport, ServerError } from '$lib/desk/api';
import { chosenNodes } from '$lib/desk/choice';
import type { Command } from '$lib/desk/command';
import { isOfDrawing } from '$lib/desk/exporting';
import { withProgress } from '$lib/desk/progress';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { keepFile, type MadeFile } from '$lib/desk/writing';
import { fileWorker } from '$lib/workers/files';
import { queryAs, queryOf } from './asking';
import { canBeMadeHere, isAway, isMadeHere, nameOf } from './kinds';

/** Writes the file: of lines here, any other on the server, or here while that is away. */
async function saveFile(w: Workplace): Promise<void> {
  const out = w.exporting;
  const stopper = new AbortController();
  const makeHere = async (): Promise<MadeFile> => (await import('./here')).makeHere(w);
  const make = async (): Promise<MadeFile> => {
    if (isMadeHere(out) || (isAway(w.saving.state) && canBeMadeHere(out))) return makeHere();
    try {
      return await fetchExport(w.project.id, out.format, queryOf(w), stopper.signal);
    } catch (error) {
      if (error instanceof ServerError && error.status === 0 && canBeMadeHere(out)) return makeHere();
      throw error;
    }
  };
  const end = (): void => {
    stopper.abort();
    fileWorker.end();
  };
  if (await keepFile(w, `the ${nameOf(out.format)} file`, end, make)) w.lastFile = nameOf(out.format);
}

/** Most things that are asked for one by one: their ids stand in the address of the file. A group is one. */
export const MOST_CHOSEN = 500;

/** What is to be written is there, and not too much. */
function isThere({ desk, exporting: { area, format } }: Workplace): boolean {
  if (area !== 'chosen' || !isOfDrawing(format)) return true;
  const chosen = chosenNodes(desk.choice, desk.art).length;
  return chosen > 0 && chosen <= MOST_CHOSEN;
}
/** The server has all of it, or it can be made without. */
const canBeWritten = ({ saving: { state }, exporting }: Workplace): boolean =>
  state === 'kept' || isMadeHere(exporting) || (isAway(state) && canBeMadeHere(exporting));
/** All is on the server, too. */
const settled = (w: Workplace): boolean => w.saving.state === 'kept' && isThere(w);

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
    when: (w) => isThere(w) && canBeWritten(w),
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
