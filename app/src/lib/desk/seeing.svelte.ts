import type { PlacedPicture } from '@mirrot/core';
import { pictureWork, proxy, type PictureWish } from '$lib/workers/picture';
import { SvelteMap } from 'svelte/reactivity';
import { pictureUrl } from './api';
import type { Progress } from './progress';

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
  want(p: PlacedPicture, full: boolean): void;
}

const isPlain = (p: PlacedPicture): boolean => p.square === null && p.view === 'plain';

/** What a wish for a picture is, in one of the sizes the server keeps. */
export const wishFor = (p: PlacedPicture, size: 'work' | 'full'): PictureWish => ({
  for: `${p.id} ${size}`,
  url: pictureUrl(p.source, size),
  width: p.width,
  square: p.square,
  view: p.view,
  tones: p.tones,
});

const keyOf = ({ source, square, view, tones }: PlacedPicture): string =>
  JSON.stringify([source, square, view, view === 'tones' ? tones : null]);

/** Longest side of the server's working copy. */
const WORK = 2048;

/** @param tell hears of what takes longer than 300 ms */
export function createSeeing(tell: (progress: Progress | null) => void): Seeing {
  const made = new SvelteMap<string, { key: string; href: string; bounds: readonly number[] | null }>();
  const asked = new Map<string, string>();

  async function make(p: PlacedPicture, size: 'work' | 'full', key: string): Promise<void> {
    const slot = `${p.id} ${size}`;
    if (asked.get(slot) === key) return;
    asked.set(slot, key);
    let share: number | null = null;
    const stop = (): void => {
      void pictureWork().stop(slot);
      asked.delete(slot);
      tell(null);
    };
    const slow = setTimeout(() => tell({ text: `Looking closely at ${p.name}`, share, stop }), 300);
    try {
      const heard = proxy((s: number) => {
        share = s;
      });
      const shown = await pictureWork().show(wishFor(p, size), heard);
      if (!shown || asked.get(slot) !== key) return;
      const before = made.get(slot);
      made.set(slot, { key, href: URL.createObjectURL(shown.blob), bounds: shown.bounds });
      if (before) setTimeout(() => URL.revokeObjectURL(before.href), 2000);
    } catch {
      asked.delete(slot);
    } finally {
      clearTimeout(slow);
      if (asked.get(slot) === key) tell(null);
    }
  }

  return {
    hrefs(p) {
      if (isPlain(p)) return { work: pictureUrl(p.source, 'work'), full: pictureUrl(p.source, 'full') };
      const work = made.get(`${p.id} work`);
      if (!work) return null;
      const full = made.get(`${p.id} full`);
      return { work: work.href, full: full && full.key === work.key ? full.href : work.href };
    },
    bounds: (p) => (p.view === 'tones' ? (made.get(`${p.id} work`)?.bounds ?? null) : null),
    want(p, full) {
      if (isPlain(p)) return;
      const key = keyOf(p);
      void make(p, 'work', key).then(() => {
        if (full && Math.max(p.width, p.height) > WORK && made.get(`${p.id} work`)?.key === key)
          void make(p, 'full', key);
      });
    },
  };
}
