import {
  combineAll,
  enclosedAreas,
  linePieces,
  strokeToShape,
  thinOut,
  widen,
  type Path,
} from '@mirrot/core';
import * as Comlink from 'comlink';
import { pause } from './pause';
import type { OutlineWish, PathWork } from './paths';

// Thins and combines paths, and finds what they enclose, away from the page. A newer wish stops the older between two paths.

/** Names within one answer; the page gives its own. */
const idOf = (n: number): string => `p${n}`;
let newest = 0;
/** Does what is wished one by one, unless something newer is wished meanwhile. */
async function oneByOne<Wish, Made>(
  wishes: readonly Wish[],
  make: (wish: Wish) => Made,
  progress?: (share: number) => void,
): Promise<Made[] | null> {
  const number = ++newest;
  const out: Made[] = [];
  for (const wish of wishes) {
    out.push(make(wish));
    progress?.(out.length / wishes.length);
    await pause();
    if (number !== newest) return null;
  }
  return out;
}

const outlineOf = (wish: OutlineWish): Path[][] =>
  wish.kind === 'stroke'
    ? strokeToShape(wish.paths, wish.stroke, idOf)
    : widen(wish.paths, wish.by, wish.joins, idOf);

const work: PathWork = {
  thin: (wishes, progress) => oneByOne(wishes, ({ path, options }) => thinOut(path, options), progress),
  outline: (wishes, progress) => oneByOne(wishes, outlineOf, progress),
  combine: async (shapes, lines) => combineAll(shapes, idOf, lines),
  enclosed: async (lines, gap) => enclosedAreas(lines, idOf, gap),
  pieces: async (lines) => linePieces(lines),
};
Comlink.expose(work);
