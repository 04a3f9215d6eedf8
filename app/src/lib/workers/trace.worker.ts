import {
  barAt,
  bodyTone,
  coveredShare,
  crossedEdges,
  EDGE_BLUR,
  edgeTiles,
  fieldFor,
  fieldTiles,
  FINEST_BLUR,
  fitGradient,
  halved,
  halvedAbout,
  likelyFollow,
  lineBlur,
  measureDrift,
  measureEconomy,
  measureWeight,
  ownColour,
  reach,
  reachLevel,
  reachMemory,
  settle,
  warmTile,
  type Bar,
  type FieldTiles,
  type Follow,
  type Oklab,
  type Point,
  type Raster,
  type ReachField,
  type BodyTone,
  type Settled,
} from '@mirrot/core';
import * as Comlink from 'comlink';
import { pause } from './pause';
import type { ReachAnswer, ReachWish, Traced, TraceWish, TraceWork } from './trace';

// Measures paths against the picture away from the page.

/** Little blur, so that thin strokes keep their width; the widest stroke looked for, in pixels. */
const WEIGHT_BLUR = 1.2;
const WEIGHT_REACH = 60;

/** Anchors are counted by places so far apart along a path, pixels. */
const ECONOMY_SPACING_PX = 2;

/** Settle looks at the picture halved so many times, too. */
const SETTLE_LEVELS = [1, 2] as const;

/** How often it is told how far the work is. */
const TOLD_EACH_MS = 50;

let seen: { key: string; raster: Raster } | null = null;
let fields = new Map<string, FieldTiles>();
/** The picture made smaller by halves, where something is looked for from far off. */
let smaller: Raster[] = [];
let memory = reachMemory();

function field(kind: FieldTiles['kind'], blur: number): FieldTiles {
  // Strokes of nearly one width share a field.
  const near = kind === 'line' ? Number(blur.toFixed(1)) : blur;
  const name = `${kind} ${near}`;
  let tiles = fields.get(name);
  if (!tiles) fields.set(name, (tiles = tilesFor(seen!.raster, kind, near)));
  return tiles;
}
/** Edges are followed by a field that fits how soft the picture is. */
const tilesFor = (raster: Raster, kind: FieldTiles['kind'], blur: number): FieldTiles =>
  kind === 'edge' && blur === EDGE_BLUR ? edgeTiles(raster) : fieldTiles(raster, kind, blur);

/** The picture halved so many times. */
function smallerPicture(level: number): Raster {
  while (smaller.length <= level) smaller.push(halved(smaller.at(-1)!));
  return smaller[level]!;
}
/** A field of the picture halved so many times. */
function smallerField(level: number, kind: FieldTiles['kind'], blur: number): FieldTiles {
  const name = `${kind} ${blur.toFixed(1)} of ${level}`;
  let tiles = fields.get(name);
  if (!tiles) fields.set(name, (tiles = tilesFor(smallerPicture(level), kind, kind === 'line' ? Math.max(1, blur / 2 ** level) : blur))); // prettier-ignore
  return tiles;
}
/** The field something is measured by, and the width of its stroke when that matters. */
function by(follow: Follow, width: number | null): { field: FieldTiles; stroke: number | undefined } {
  const { kind, blur, stroke } = fieldFor(follow, width);
  return { field: field(kind, blur), stroke };
}

const followOf = ({ path, follow, width, reach }: TraceWish): Follow =>
  follow ?? likelyFollow(path, field('line', lineBlur(width)), reach);

/** The colour by which a path's own edge is told: its shape's, or while that has none the one it shows of the picture. */
function ownOf({ path, own, flip, covers }: TraceWish, follow: Follow): { readonly own?: Oklab } {
  const shown = own ?? (follow === 'edge' && !flip ? ownColour(path, seen!.raster, covers) : null);
  return shown ? { own: shown } : {};
}

/** Drift of a path, and what it follows. */
function traced(wish: TraceWish): Traced {
  const follow = followOf(wish);
  const { field: tiles, stroke } = by(follow, wish.width);
  return { follow, drift: measureDrift(wish.path, tiles, { ...wish, stroke, ...ownOf(wish, follow) }) };
}

/** Strokes wider than this are areas, screen pixels. */
const WIDEST_STROKE_ON_SCREEN = 24;
let strokeKnown: { readonly key: string; readonly stroke: Bar | null } | null = null;
/** The thin stroke at a place of the picture, looked for by pixels about as large as those of the screen. */
function strokeAt({ x, y }: Point, shown: number, near: number): Bar | null {
  const level = reachLevel(shown, 0);
  const ratio = 2 ** level;
  const key = `${seen!.key} ${x} ${y} ${shown}`;
  if (strokeKnown?.key !== key) {
    const found = barAt(smallerPicture(level), { x: x / ratio, y: y / ratio }, (WIDEST_STROKE_ON_SCREEN * shown) / ratio, near / ratio); // prettier-ignore
    strokeKnown = { key, stroke: found && { at: { x: found.at.x * ratio, y: found.at.y * ratio }, width: found.width * ratio } }; // prettier-ignore
  }
  return strokeKnown.stroke;
}

/** What a path lies on: as is wished, or else as it is where the path begins. */
function boundTo(
  wish: ReachWish,
): Pick<ReachAnswer, 'follow' | 'onStroke'> & { readonly width: number | null } {
  const { follow, width, start, pointer, shown, options } = wish;
  if (width !== null || (start && follow === 'edge')) return { follow: follow ?? 'edge', width, onStroke: false }; // prettier-ignore
  const stroke = strokeAt(start?.at ?? pointer, shown, options.near);
  return { follow: follow ?? (stroke ? 'middle' : 'edge'), width: stroke?.width ?? null, onStroke: stroke !== null }; // prettier-ignore
}

/** Soft pictures are halved so many times at most. */
const MOST_HALVINGS = 2;
/** The picture as the next segment is looked for in it: by pixels about as large as those of the screen. */
function reachField({ shown, start, pointer }: ReachWish, follow: Follow, width: number | null): ReachField {
  const { kind, blur } =
    follow === 'edge' ? fieldFor('edge', null) : { kind: 'line' as const, blur: lineBlur(width) };
  const far = start ? Math.max(Math.abs(pointer.x - start.at.x), Math.abs(pointer.y - start.at.y)) : 0;
  const level = reachLevel(shown, far);
  /** As it is in the picture halved so many times, looked at with so much blur. */
  const seenWith = (by: number, halvings: number): Pick<ReachField, 'fine' | 'coarse' | 'ratio'> => {
    const fine = halvings === 0 ? field(kind, by) : smallerField(halvings, kind, by);
    const coarse = level > halvings ? smallerField(level, kind, by) : fine;
    return { fine, coarse, ratio: 2 ** Math.max(0, level - halvings) };
  };
  const halvedTo = (halvings: number): ReachField => ({
    ...seenWith(blur, halvings),
    ...(kind === 'edge' && {
      finest: () => seenWith(FINEST_BLUR, halvings),
      ...(halvings < MOST_HALVINGS && { halved: () => halvedTo(halvings + 1) }),
    }),
  });
  return halvedTo(0);
}

/** How far about the pointer the picture is looked at beforehand, while nothing is asked, pixels. */
const AHEAD = 260;
let turn = 0;
async function warmAbout(field: ReachField, { x, y }: Point): Promise<void> {
  const { fine, coarse, ratio } = field;
  const finest = field.finest?.();
  const mine = ++turn;
  const rest = async (): Promise<boolean> => (await pause(), turn === mine);
  while (await rest()) {
    if (warmTile(coarse, { x: x / ratio, y: y / ratio }, AHEAD)) continue;
    if (warmTile(fine, { x, y }, AHEAD)) continue;
    if (finest && warmTile(finest.coarse, { x: x / ratio, y: y / ratio }, AHEAD)) continue;
    // Where the picture is soft it is looked at halved.
    const half = halvedAbout(field, { x, y });
    return half ? warmAbout(half, { x: x / 2, y: y / 2 }) : undefined;
  }
}

const work: TraceWork = {
  see(key, raster) {
    seen = { key, raster };
    fields = new Map();
    smaller = [raster];
    memory = reachMemory();
    turn++;
  },
  async reach(key, wish) {
    if (seen?.key !== key) return null;
    const { follow, width, onStroke } = boundTo(wish);
    const where = reachField(wish, follow, width);
    const found = reach(where, wish.start, wish.pointer, wish.options, memory);
    void warmAbout(where, wish.pointer);
    return found ? { ...found, follow, onStroke } : memory.open ? 'later' : null;
  },
  async drift(key, wishes) {
    return seen?.key === key ? wishes.map(traced) : null;
  },
  async economy(key, wishes, tolerance) {
    if (seen?.key !== key) return null;
    return wishes.map((wish) => measureEconomy(wish.path, traced({ ...wish, spacing: ECONOMY_SPACING_PX }).drift, tolerance)); // prettier-ignore
  },
  async across(key, from, to) {
    return seen?.key === key ? crossedEdges(field('edge', WEIGHT_BLUR), from, to) : null;
  },
  async weigh(key, paths) {
    if (seen?.key !== key) return null;
    return paths.map((path) => measureWeight(path, field('edge', WEIGHT_BLUR), WEIGHT_REACH));
  },
  async tones(key, wishes, progress) {
    const out: (BodyTone | null)[] = [];
    let told = performance.now();
    for (const wish of wishes) {
      if (seen?.key !== key) return null;
      out.push(bodyTone(seen.raster, wish));
      if (performance.now() - told < TOLD_EACH_MS) continue;
      progress?.(out.length / wishes.length);
      await pause();
      told = performance.now();
    }
    return out;
  },
  async gradients(key, wishes) {
    if (seen?.key !== key) return null;
    const { raster } = seen;
    return wishes.map((wish) => fitGradient(raster, wish));
  },
  async bare(key, area, covers) {
    const covered = seen?.key === key ? coveredShare(area, covers, seen.raster) : null;
    return covered === null ? null : 1 - covered;
  },
  async settle(key, wishes, progress) {
    const out: Settled[] = [];
    for (const wish of wishes) {
      if (seen?.key !== key) return null;
      const follow = followOf(wish);
      const { field: tiles, stroke } = by(follow, wish.width);
      // What lies far off is looked for from farther away; a stroke's middle is not seen there.
      const levels = tiles.kind === 'edge' && !stroke ? SETTLE_LEVELS : [];
      const coarser = levels.map((level) => smallerField(level, 'edge', EDGE_BLUR));
      out.push(settle(wish.path, tiles, { ...wish.options, ...ownOf(wish, follow), stroke, coarser }));
      progress?.(out.length / wishes.length);
      await pause();
    }
    return out;
  },
};
Comlink.expose(work);
