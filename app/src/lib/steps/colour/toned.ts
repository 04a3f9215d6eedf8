import type { PictureColour, PlacedPicture } from '@mirrot/core';
import { withProgress } from '$lib/desk/progress';
import { wishFor } from '$lib/desk/seeing.svelte';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { offerDeal } from '$lib/edits/dealing';
import {
  bareShare,
  offerGradient,
  offerAgain,
  offerBodyTone,
  staleTones,
  type Toner,
} from '$lib/edits/toning';
import { pictureWorker } from '$lib/workers/picture';
import { measureWorker, proxy } from '$lib/workers/trace';

// What works by the picture's colours, away from the page: body tones, gradients, palettes, dealing.

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

const toner =
  (tell?: (share: number) => void): Toner =>
  ({ raster: { key, pixels } }, wishes) =>
    measureWorker.ask(key, pixels, (work) => work.tones(key, wishes, tell && proxy(tell)));

const byTones = async (w: Workplace, text: string, run: (tone: Toner) => Promise<unknown>): Promise<void> =>
  void (await withProgress(w, text, measureWorker.end, async (tell) => {
    await pixelsFetched(w);
    await run(toner(tell));
  }));

/** Looks for the body tone of what is chosen, or of all without a fill. */
export const toneChosen = (w: Workplace): Promise<void> =>
  byTones(w, 'Looking for body tones', (tone) => offerBodyTone(w.desk, tone));

/** Looks for body tones anew, of shapes that have them already. */
export const toneAgain = (w: Workplace, ids: readonly string[]): Promise<void> =>
  byTones(w, 'Looking for body tones', (tone) => offerAgain(w.desk, ids, tone));

/** Notes which body tones differ from what their shapes show now. Quietly: nothing is said, nothing is offered. */
export async function findStale({ desk }: Workplace): Promise<void> {
  const found = await staleTones(desk, toner()).catch(() => null);
  if (found) desk.colouring.stale = found;
}

/** Notes how much of the picture no shape covers. */
export async function findBare({ desk }: Workplace): Promise<void> {
  desk.picture.bare = await bareShare(desk, ({ raster: { key, pixels } }, area, covers) =>
    measureWorker.ask(key, pixels, (work) => work.bare(key, area, covers)),
  ).catch(() => null);
}

export const dealRange = (w: Workplace, name: string, range: readonly string[]): Promise<void> =>
  byTones(w, 'Dealing the range', (tone) => offerDeal(w.desk, name, range, tone));

export const gradientFromPicture = async (w: Workplace): Promise<void> =>
  void (await withProgress(w, 'Fitting a gradient', measureWorker.end, async () => {
    await pixelsFetched(w);
    await offerGradient(w.desk, ({ raster: { key, pixels } }, wishes) =>
      measureWorker.ask(key, pixels, (work) => work.gradients(key, wishes)),
    );
  }));

/** Colours that stand for a picture, the largest first. */
const paletteOfPicture = (w: Workplace, picture: PlacedPicture, count: number): Promise<readonly PictureColour[] | null> =>
  withProgress(w, 'Looking for the picture’s colours', () => pictureWorker.end(), () =>
    pictureWorker.ask((work) => work.palette({ ...wishFor(picture, 'work'), for: `${picture.id} palette` }, count, picture.crop)),
  ); // prettier-ignore

export async function pickPalette(w: Workplace, count: number): Promise<void> {
  const picture = w.desk.picture.traced;
  const found = picture && (await paletteOfPicture(w, picture, count));
  if (found) w.desk.colouring.found = found;
}

export async function coloursOfPicture(
  w: Workplace,
  picture: PlacedPicture,
  count: number,
): Promise<readonly string[] | null> {
  const found = await paletteOfPicture(w, picture, count);
  return found && found.map(({ hex }) => hex);
}

export { offerTone } from '$lib/edits/toning';
