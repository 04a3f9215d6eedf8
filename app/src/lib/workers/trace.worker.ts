import {
  fieldFor,
  fieldTiles,
  likelyFollow,
  lineBlur,
  measureDrift,
  measureWeight,
  settle,
  type FieldTiles,
  type Follow,
  type Raster,
  type Settled,
} from '@mirrot/core';
import * as Comlink from 'comlink';
import { pause } from './pause';
import type { TraceWish, TraceWork } from './trace';

// Measures paths against the picture away from the page.

/** Little blur, so that thin strokes keep their width; the widest stroke looked for, in pixels. */
const WEIGHT_BLUR = 1.2;
const WEIGHT_REACH = 60;

let seen: { key: string; raster: Raster } | null = null;
let fields = new Map<string, FieldTiles>();

function field(kind: FieldTiles['kind'], blur: number): FieldTiles {
  const name = `${kind} ${blur.toFixed(1)}`;
  let tiles = fields.get(name);
  if (!tiles) fields.set(name, (tiles = fieldTiles(seen!.raster, kind, Number(blur.toFixed(1)))));
  return tiles;
}
/** The field something is measured by, and the width of its stroke when that matters. */
function by(follow: Follow, width: number | null): { field: FieldTiles; stroke: number | undefined } {
  const { kind, blur, stroke } = fieldFor(follow, width);
  return { field: field(kind, blur), stroke };
}

const followOf = ({ path, follow, width, reach }: TraceWish): Follow =>
  follow ?? likelyFollow(path, field('line', lineBlur(width)), reach);

const work: TraceWork = {
  see(key, raster) {
    seen = { key, raster };
    fields = new Map();
  },
  async drift(key, wishes) {
    if (seen?.key !== key) return null;
    return wishes.map((wish) => {
      const follow = followOf(wish);
      const { field: tiles, stroke } = by(follow, wish.width);
      return { follow, drift: measureDrift(wish.path, tiles, { ...wish, stroke }) };
    });
  },
  async weigh(key, paths) {
    if (seen?.key !== key) return null;
    return paths.map((path) => measureWeight(path, field('edge', WEIGHT_BLUR), WEIGHT_REACH));
  },
  async settle(key, wishes, progress) {
    const out: Settled[] = [];
    for (const wish of wishes) {
      if (seen?.key !== key) return null;
      const { field: tiles, stroke } = by(followOf(wish), wish.width);
      out.push(settle(wish.path, tiles, { ...wish.options, stroke }));
      progress?.(out.length / wishes.length);
      await pause();
    }
    return out;
  },
};
Comlink.expose(work);
