import { fetchReplay } from '$lib/desk/api';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { keepFile } from '$lib/desk/writing';

/** Widths that moving pictures are written in, pixels. */
export const FILM_WIDTHS = [240, 480, 720, 960] as const;

/** What is asked of moving pictures of a drawing's growth. */
export interface FilmAsked {
  readonly width: number;
  readonly seconds: number;
  readonly picture: boolean;
}

/** Has the server write how the drawing grew as moving pictures, and keeps the file. */
export function writeFilm(
  w: Workplace,
  kind: 'webp' | 'gif',
  { width, seconds, picture }: FilmAsked,
): Promise<boolean> {
  // prettier-ignore
  const stopper = new AbortController();
  const query = { width: String(width), seconds: String(seconds), picture: picture ? '1' : '0' };
  return keepFile(w, 'the replay', () => stopper.abort(), () => fetchReplay(w.project.id, kind, query, stopper.signal)); // prettier-ignore
}
