import type { PlacedPicture } from '@mirrot/core';
import { pictureWorker, proxy, type PictureWish } from '$lib/workers/picture';
import { SvelteMap } from 'svelte/reactivity';
import { pictureUrl } from './api';
import { withProgress, type ProgressPlace } from './progress';

/** Addresses of what is shown of a picture: soon, and in full when near. */
export interface Hrefs {
  readonly work: string;
  readonly full: string;
}

/** Pictures that are straightened or seen by a view: made in the worker, kept while they are in use. */
export interface Seeing {
  /** What to show of a picture now: what it was until what it shall be is there. Null while there is nothing yet. */
  hrefs(p: PlacedPicture): Hrefs | null;
  /** Boundaries of its tone steps, once known. */
  bounds(p: PlacedPicture): readonly number[] | null;
  /** Makes what is not there yet; `full` also in the picture's own pixels. */
  want(p: PlacedPicture, full: boolean): Promise<void>;
  /** Gives back what was made of all other pictures. */
  keepOnly(pictures: readonly PlacedPicture[]): void;
}

/** A picture as a part of the drawing: straightened and cropped, without what it is seen by. */
export const asPainted = (p: PlacedPicture): PlacedPicture =>
  p.view === 'plain' && p.wash === 0 ? p : { ...p, id: `${p.id} painted`, view: 'plain', wash: 0 };

const isPlain = (p: PlacedPicture): boolean => p.square === null && p.view === 'plain';

/** How finely a picture is worked on: as the bed shows it whole, as the server's working copy, in all its pixels. */
type Fineness = 'screen' | 'work' | 'full';

/** Longest side at which a first answer is made, pixels. */
const SCREEN = 1100;

/** What a wish for a picture is. */
export const wishFor = (p: PlacedPicture, size: Fineness): PictureWish => ({
  for: `${p.id} ${size}`,
  url: pictureUrl(p.source, size === 'full' ? 'full' : 'work'),
  longest: size === 'screen' ? SCREEN : null,
  width: p.width,
  square: p.square,
  view: p.view,
  tones: p.tones,
});

const keyOf = ({ source, square, view, tones }: PlacedPicture): string =>
  JSON.stringify([source, square, view, view === 'tones' ? tones : null]);

/** Milliseconds after which what was shown before is given back. */
const GIVEN_BACK_AFTER_MS = 2000;

/** Longest side of the server's working copy. */
const WORK = 2048;

/** Pictures of more pixels than this are worked on in their working copy only: the page would run short of memory. */
const MOST_WORKED = 40_000_000;

/** @param place shows what takes longer than 300 ms */
export function createSeeing(place: ProgressPlace): Seeing {
  const made = new SvelteMap<
    string,
    { key: string; href: string; bounds: readonly number[] | null; at: number }
  >();
  let count = 0;
  const asked = new Map<string, string>();

  async function make(p: PlacedPicture, size: Fineness, key: string): Promise<void> {
    const slot = `${p.id} ${size}`;
    if (asked.get(slot) === key) return;
    asked.set(slot, key);
    const stop = (): void => {
      void pictureWorker.ask((work) => work.stop(slot)).catch(() => {});
      asked.delete(slot);
    };
    const shown = await withProgress(place, `Looking closely at ${p.name}`, stop, (tell) =>
      pictureWorker.ask((work) => work.show(wishFor(p, size), proxy(tell))),
    );
    if (asked.get(slot) !== key) return;
    if (!shown) return void asked.delete(slot);
    giveBack(slot);
    made.set(slot, { key, href: URL.createObjectURL(shown.blob), bounds: shown.bounds, at: ++count });
  }
  /** Gives back what is shown no more, once the page has had the time to show another. */
  function giveBack(slot: string): void {
    const before = made.get(slot);
    if (before) setTimeout(() => URL.revokeObjectURL(before.href), GIVEN_BACK_AFTER_MS);
    made.delete(slot);
  }

  /** The best there is of a picture as it shall be seen; else what came last. */
  function best(p: PlacedPicture) {
    const key = keyOf(p);
    const there = (['work', 'screen'] as const).flatMap((size) => made.get(`${p.id} ${size}`) ?? []);
    return there.find((m) => m.key === key) ?? there.sort((a, b) => b.at - a.at)[0] ?? null;
  }

  return {
    hrefs(p) {
      if (isPlain(p)) return { work: pictureUrl(p.source, 'work'), full: pictureUrl(p.source, 'full') };
      const now = best(p);
      const full = made.get(`${p.id} full`);
      return now && { work: now.href, full: full && full.key === now.key ? full.href : now.href };
    },
    bounds: (p) => (p.view === 'tones' ? (best(p)?.bounds ?? null) : null),
    keepOnly(pictures) {
      const kept = new Set(pictures.flatMap((p) => [p.id, asPainted(p).id]));
      for (const slot of [...made.keys()])
        if (!kept.has(slot.slice(0, slot.lastIndexOf(' ')))) {
          giveBack(slot);
          asked.delete(slot);
        }
    },
    async want(p, full) {
      if (isPlain(p)) return;
      const key = keyOf(p);
      const worth = Math.max(p.width, p.height) > WORK && p.width * p.height <= MOST_WORKED;
      const sizes: Fineness[] = ['screen', 'work', ...(full && worth ? (['full'] as const) : [])];
      for (const size of sizes) {
        await make(p, size, key);
        if (made.get(`${p.id} ${size}`)?.key !== key) return;
      }
    },
  };
}
