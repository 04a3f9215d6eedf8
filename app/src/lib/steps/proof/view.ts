import type { Workplace } from '$lib/desk/workplace.svelte';
import { keepFile } from '$lib/desk/writing';
import { fileName } from '$lib/file-name';

// What the bed shows, as an image to hand on.

/** Loaded when it is first wanted. */
async function imageNow(): Promise<Blob> {
  const { viewImage } = await import('$lib/bed/view-image');
  const bed = document.querySelector<HTMLElement>('[role=application]');
  if (!bed) throw new Error('There is no bed to take an image of.');
  return viewImage(bed);
}

export const saveView = (w: Workplace): Promise<boolean> =>
  keepFile(w, 'the view', () => {}, async () => ({ name: fileName(`${w.project.name} view`, 'png'), content: await imageNow() })); // prettier-ignore

export async function copyView({ desk }: Workplace): Promise<void> {
  try {
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': imageNow() })]);
    desk.say('The view is on the clipboard.', 'good');
  } catch {
    desk.say('The browser did not take the view onto its clipboard. Save it as a file instead.', 'bad');
  }
}
