import Copy from '@lucide/svelte/icons/copy';
import Download from '@lucide/svelte/icons/download';
import { fetchSvgText } from '$lib/desk/api';
import type { Command } from '$lib/desk/command';
import { saveFile as download } from '$lib/ui/files';
import type { Workplace } from '$lib/desk/workplace.svelte';

/** Address of the file the export panel describes. */
export function exportUrl(w: Workplace): string {
  const { format, area, ground, ppi, picture } = w.exporting;
  const query = new URLSearchParams({ area, ground, picture: picture ? '1' : '0' });
  if (format === 'png') query.set('ppi', String(ppi));
  return `/api/projects/${w.project.id}/export.${format}?${query}`;
}

/** Address of what the file shows, small; `state` is different whenever the drawing is. */
export function previewUrl(w: Workplace, state: number): string {
  const { area, ground, picture } = w.exporting;
  const query = new URLSearchParams({
    area,
    ground,
    picture: picture ? '1' : '0',
    width: '460',
    of: String(state),
  });
  return `/api/projects/${w.project.id}/export.png?${query}`;
}

/** Fetches the file and hands it to the browser to keep. */
async function saveFile(w: Workplace): Promise<void> {
  const { format } = w.exporting;
  const stopper = new AbortController();
  const slow = setTimeout(
    () =>
      (w.progress = {
        text: `Writing the ${format.toUpperCase()}`,
        share: null,
        stop: () => stopper.abort(),
      }),
    300,
  );
  try {
    const response = await fetch(exportUrl(w), { signal: stopper.signal });
    if (!response.ok) throw new Error((await response.json()).error.message);
    const name = decodeURIComponent(
      /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('content-disposition') ?? '')?.[1] ??
        `drawing.${format}`,
    );
    download(name, await response.blob());
    w.lastFile = format;
    w.desk.say(`${name} was written.`, 'good');
  } catch (error) {
    if (!stopper.signal.aborted)
      w.desk.say(
        error instanceof Error && error.message ? error.message : 'The file could not be written.',
        'bad',
      );
  } finally {
    clearTimeout(slow);
    w.progress = null;
  }
}

const settled = (w: Workplace): boolean => w.saving.state === 'kept';

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
    async run(w) {
      const { area, ground } = w.exporting;
      let text: string;
      try {
        text = await fetchSvgText(w.project.id, { area, ground });
      } catch (error) {
        return w.desk.say(error instanceof Error ? error.message : String(error), 'bad');
      }
      try {
        await navigator.clipboard.writeText(text);
        w.desk.say('The SVG text is on the clipboard.', 'good');
      } catch {
        w.desk.say('The browser did not give access to the clipboard. Write the file instead.', 'bad');
      }
    },
  },
];
