import { withProgress } from '$lib/desk/progress';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { offerBodyTone } from '$lib/edits/toning';
import { measureWorker, proxy } from '$lib/workers/trace';

/** How long the pixels of a picture that is shown are waited for, and how often it is looked, milliseconds. */
const PIXELS_WITHIN_MS = 20_000;
const LOOKED_EACH_MS = 50;

/** Waits for the pixels of the traced picture, where they are on their way. */
async function pixelsFetched({ desk }: Workplace): Promise<void> {
  for (let waited = 0; waited < PIXELS_WITHIN_MS; waited += LOOKED_EACH_MS) {
    if (desk.picture.driftSettings || !desk.picture.traced?.shown) return;
    await new Promise((done) => setTimeout(done, LOOKED_EACH_MS));
  }
}

/** Looks for the body tone of what is chosen, or of all without a fill, away from the page. */
export const toneChosen = async (w: Workplace): Promise<void> =>
  void (await withProgress(w, 'Looking for body tones', measureWorker.end, async (tell) => {
    await pixelsFetched(w);
    await offerBodyTone(w.desk, ({ raster: { key, pixels } }, wishes) =>
      measureWorker.ask(key, pixels, (work) => work.tones(key, wishes, proxy(tell))),
    );
  }));

export { offerTone } from '$lib/edits/toning';
