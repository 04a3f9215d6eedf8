import Copy from '@lucide/svelte/icons/copy';
import Download from '@lucide/svelte/icons/download';
import { exportUrl, fetchExport } from '$lib/desk/api';
import type { Command } from '$lib/desk/command';
import { withProgress } from '$lib/desk/progress';
import { saveFile as download } from '$lib/ui/files';
import type { Workplace } from '$lib/desk/workplace.svelte';

/** What the panel asks of any file, and of one of pixels. */
export function queryOf({ exporting }: Workplace): Record<string, string> {
  const { format, area, ground, ppi, picture } = exporting;
  const query = { area, ground, picture: picture ? '1' : '0' };
  return format === 'png' ? { ...query, ppi: String(ppi) } : query;
}

/** Width of the preview, pixels. */
const PREVIEW_PX = 460;

/** Address of the drawing as the file has it, small; another one whenever the server has another drawing. */
export function previewUrl(w: Workplace): string {
  const { ppi: _ppi, ...query } = queryOf(w);
  const of = String(w.saving.revision);
  return exportUrl(w.project.id, 'png', { ...query, width: String(PREVIEW_PX), of });
}

/** Fetches the file and hands it to the browser to keep. */
async function saveFile(w: Workplace): Promise<void> {
  const { format } = w.exporting;
  const query = queryOf(w);
  const stopper = new AbortController();
  const file = await withProgress(
    w,
    `Writing the ${format.toUpperCase()}`,
    () => stopper.abort(),
    () => fetchExport(w.project.id, format, query, stopper.signal),
  );
  if (!file) return;
  download(file.name, file.content);
  w.lastFile = format;
  w.desk.say(`${file.name} was written.`, 'good');
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
      const stopper = new AbortController();
      const text = await withProgress(
        w,
        'Writing the SVG',
        () => stopper.abort(),
        async () => {
          const { area, ground } = w.exporting;
          const file = await fetchExport(w.project.id, 'svg', { area, ground }, stopper.signal);
          return file.content.text();
        },
      );
      if (text === null) return;
      try {
        await navigator.clipboard.writeText(text);
        w.desk.say('The SVG text is on the clipboard.', 'good');
      } catch {
        w.desk.say('The browser did not give access to the clipboard. Write the file instead.', 'bad');
      }
    },
  },
];
