// Long because what lies under the pointer is one order over handles, anchors, segments, insides and copies.

import {
  apply,
  axisMaps,
  boxHas,
  copiedShapes,
  growBox,
  invert,
  nearestOnPath,
  pathBounds,
  shapeBounds,
  shapeHas,
  wholePaths,
  type Affine,
  type Anchor,
  type CopiedShape,
  type HandleSide,
  type Path,
  type Point,
  type Shape,
} from '@mirrot/core';
import type { AnchorRef, Choice, HandleRef, SegmentRef } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';

/** Reach of a press in screen pixels, and how much larger for a finger. */
export const REACH = { handle: 7, anchor: 8, segment: 5 } as const;
export const TOUCH_REACH = 2;

/** Handles shorter than this on screen get a grip farther out, which moves them relatively. */
export const SHORT_HANDLE = 12;
export const GRIP_AT = 14;

/**
 * What lies under the pointer. Of a shape about an axis, `map` takes what was drawn to the part that was hit; left out
 * where that is the drawn part itself.
 */
export type Hit =
  | { readonly kind: 'handle'; readonly ref: HandleRef; readonly grip: Point }
  | { readonly kind: 'anchor'; readonly ref: AnchorRef; readonly at: Point; readonly map?: Affine }
  | {
      readonly kind: 'segment';
      readonly ref: SegmentRef;
      readonly t: number;
      readonly at: Point;
      readonly map?: Affine;
    }
  | { readonly kind: 'inside'; readonly shape: string };

export interface HitField {
  /** Shapes that can be hit, bottom first. */
  readonly shapes: readonly Shape[];
  readonly choice: Choice;
  /** Screen pixels per sheet pixel. */
  readonly scale: number;
  readonly reach: number;
  /** Shapes that are seen elsewhere too, since a group they stand in stands several times. */
  readonly copied?: readonly CopiedShape[];
  /** Whether a shape is pressed as part of a group: its line and anchors are out of reach then. */
  readonly inWhole?: (shape: string) => boolean;
}

const boxes = new WeakMap<readonly Shape[], Float64Array>();

/** The shapes' boxes one after the other, x0 y0 x1 y1: what a move of the pointer looks through first. */
function boxesOf(shapes: readonly Shape[]): Float64Array {
  let all = boxes.get(shapes);
  if (!all) {
    all = new Float64Array(4 * shapes.length);
    shapes.forEach((s, i) => {
      const { x0, y0, x1, y1 } = shapeBounds(s);
      all!.set([x0, y0, x1, y1], 4 * i);
    });
    boxes.set(shapes, all);
  }
  return all;
}

/** Places in the stack of shapes whose box comes within reach of a point. */
function* within(shapes: readonly Shape[], p: Point, reach: number): Generator<number> {
  const all = boxesOf(shapes);
  for (let i = 0; i < shapes.length; i++) {
    const k = 4 * i;
    const across = p.x >= all[k]! - reach && p.x <= all[k + 2]! + reach;
    if (across && p.y >= all[k + 1]! - reach && p.y <= all[k + 3]! + reach) yield i;
  }
}

/** Where a handle is taken, in sheet pixels: at its end, or on a grip 14 screen px out when it is short. */
export function handleGrip(anchor: Anchor, side: HandleSide, scale: number): Point | null {
  const h = anchor[side];
  if (!h) return null;
  const l = Math.hypot(h.x, h.y) * scale;
  const k = l >= SHORT_HANDLE || l === 0 ? 1 : GRIP_AT / l;
  return { x: anchor.x + h.x * k, y: anchor.y + h.y * k };
}

/** Handles shown: those of the chosen anchors and of the neighbours on either side of each. */
export function visibleHandles(shape: Shape, choice: Choice): HandleRef[] {
  const out = new Map<string, HandleRef>();
  for (const ref of choice.anchors) {
    if (ref.shape !== shape.id) continue;
    const path = shape.paths.find((p) => p.id === ref.path);
    if (!path) continue;
    const n = path.anchors.length;
    for (const step of [-1, 0, 1]) {
      let index = ref.index + step;
      if (path.closed) index = (index + n) % n;
      const anchor = path.anchors[index];
      if (!anchor) continue;
      for (const side of ['in', 'out'] as const)
        if (anchor[side])
          out.set(`${path.id} ${index} ${side}`, { shape: shape.id, path: path.id, index, side });
    }
  }
  return [...out.values()];
}

const apart = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

interface Ranked<T> {
  readonly hit: T;
  readonly distance: number;
  readonly chosen: boolean;
  readonly rank: number;
}

/** The nearest, then the chosen, then the topmost; distances within a screen pixel count as equal. */
function best<T>(found: readonly Ranked<T>[], scale: number): T | null {
  if (found.length === 0) return null;
  const nearest = Math.min(...found.map((f) => f.distance));
  const close = found.filter((f) => (f.distance - nearest) * scale <= 1);
  const pool = close.some((f) => f.chosen) ? close.filter((f) => f.chosen) : close;
  return pool.reduce((a, b) => (b.rank > a.rank ? b : a)).hit;
}

export function hitHandle(field: HitField, p: Point): Extract<Hit, { kind: 'handle' }> | null {
  const found: Ranked<Extract<Hit, { kind: 'handle' }>>[] = [];
  const reach = (REACH.handle * field.reach) / field.scale;
  if (field.choice.anchors.length === 0) return null;
  const chosenShapes = new Set(field.choice.anchors.map((a) => a.shape));
  field.shapes.forEach((shape, rank) => {
    if (!chosenShapes.has(shape.id)) return;
    for (const ref of visibleHandles(shape, field.choice)) {
      const anchor = shape.paths.find((q) => q.id === ref.path)!.anchors[ref.index]!;
      const grip = handleGrip(anchor, ref.side, field.scale)!;
      const distance = apart(grip, p);
      const chosen = field.choice.anchors.some((a) => a.path === ref.path && a.index === ref.index);
      if (distance <= reach) found.push({ hit: { kind: 'handle', ref, grip }, distance, chosen, rank });
    }
  });
  return best(found, field.scale);
}

/** A path near a point: the shape's place in the stack, and the point as it lies to what was drawn. */
interface Near {
  readonly shape: Shape;
  readonly path: Path;
  readonly rank: number;
  readonly p: Point;
  readonly map?: Affine;
}

/** Paths whose line comes within `reach` sheet pixels' box of the point, in any of their parts about an axis. */
function* near(field: HitField, p: Point, reach: number): Generator<Near> {
  for (const rank of within(field.shapes, p, reach)) {
    const shape = field.shapes[rank]!;
    for (const path of shape.paths)
      if (boxHas(growBox(pathBounds(path), reach), p)) yield { shape, path, rank, p };
    if (shape.axis)
      for (const map of axisMaps(shape.axis).slice(1)) {
        const q = apply(invert(map)!, p);
        for (const path of shape.paths)
          if (boxHas(growBox(pathBounds(path), reach), q)) yield { shape, path, rank, p: q, map };
      }
  }
}

const inPart = (map: Affine | undefined, p: Point): { at: Point; map?: Affine } =>
  map ? { at: apply(map, p), map } : { at: { x: p.x, y: p.y } };

export function hitAnchor(field: HitField, p: Point): Extract<Hit, { kind: 'anchor' }> | null {
  const found: Ranked<Extract<Hit, { kind: 'anchor' }>>[] = [];
  const reach = (REACH.anchor * field.reach) / field.scale;
  for (const { shape, path, rank, p: q, map } of near(field, p, reach))
    path.anchors.forEach((a, index) => {
      const distance = apart(a, q);
      if (distance > reach) return;
      const ref = { shape: shape.id, path: path.id, index };
      const chosen = field.choice.shapes.includes(shape.id);
      found.push({ hit: { kind: 'anchor', ref, ...inPart(map, a) }, distance, chosen, rank });
    });
  return best(found, field.scale);
}

export function hitSegment(field: HitField, p: Point): Extract<Hit, { kind: 'segment' }> | null {
  const found: Ranked<Extract<Hit, { kind: 'segment' }>>[] = [];
  const reach = (REACH.segment * field.reach) / field.scale;
  for (const { shape, path, rank, p: q, map } of near(field, p, reach)) {
    const n = nearestOnPath(path, q, reach);
    if (!n) continue;
    const t = Math.min(1 - 1e-6, Math.max(1e-6, n.t));
    const ref = { shape: shape.id, path: path.id, segment: n.segment };
    const chosen = field.choice.shapes.includes(shape.id);
    found.push({
      hit: { kind: 'segment', ref, t, ...inPart(map, n.point) },
      distance: n.distance,
      chosen,
      rank,
    });
  }
  return best(found, field.scale);
}

/** The topmost shape whose inside holds the point: closed shapes, and open ones that have a fill. */
export function hitInside(field: HitField, p: Point): Extract<Hit, { kind: 'inside' }> | null {
  for (const i of [...within(field.shapes, p, 0)].reverse()) {
    const shape = field.shapes[i]!;
    const closed = shape.fill !== null || wholePaths(shape).some((q) => q.closed);
    if (closed && boxHas(shapeBounds(shape), p) && shapeHas(shape, p))
      return { kind: 'inside', shape: shape.id };
  }
  return null;
}

/** The shape whose copy lies under a point, by its line or its inside: what leads is pressed by any of its copies. */
function hitCopy(field: HitField, p: Point): string | null {
  let best: { readonly shape: string; readonly rank: number } | null = null;
  for (const { shape, maps } of field.copied ?? []) {
    const rank = field.shapes.indexOf(shape);
    if (rank < 0 || (best && best.rank > rank)) continue;
    const alone: HitField = { ...field, shapes: [shape] };
    const hit = maps.some((map) => {
      const q = apply(invert(map)!, p);
      return hitSegment(alone, q) !== null || hitInside(alone, q) !== null;
    });
    if (hit) best = { shape: shape.id, rank };
  }
  return best?.shape ?? null;
}

/** The topmost of a shape's inside and a copy under a point. */
function hitWhole(field: HitField, p: Point): Extract<Hit, { kind: 'inside' }> | null {
  const inside = hitInside(field, p);
  const copy = field.copied && field.copied.length > 0 ? hitCopy(field, p) : null;
  if (copy === null) return inside;
  const rank = (id: string): number => field.shapes.findIndex((shape) => shape.id === id);
  return inside && rank(inside.shape) > rank(copy) ? inside : { kind: 'inside', shape: copy };
}

/** Who gets a press: visible handles, then anchors, then segments, then insides. */
export function hitTest(field: HitField, p: Point): Hit | null {
  const handle = hitHandle(field, p);
  if (handle) return handle;
  const line = hitAnchor(field, p) ?? hitSegment(field, p);
  if (!line) return hitWhole(field, p);
  const { shape } = line.ref;
  return field.inWhole?.(shape) ? { kind: 'inside', shape } : line;
}

/** Ends of open paths within an anchor's reach: where a path can begin, end or be joined. */
export function hitEnd(
  field: HitField,
  p: Point,
  except: string | null,
): { readonly ref: AnchorRef; readonly at: Point; readonly end: 'start' | 'end' } | null {
  const reach = (REACH.anchor * field.reach) / field.scale;
  for (let i = field.shapes.length - 1; i >= 0; i--) {
    const shape = field.shapes[i]!;
    // What is drawn about an axis goes on or joins only once it is released.
    if (shape.axis) continue;
    for (const path of shape.paths) {
      if (path.closed || path.id === except) continue;
      for (const end of ['start', 'end'] as const) {
        const index = end === 'start' ? 0 : path.anchors.length - 1;
        const a = path.anchors[index]!;
        if (apart(a, p) <= reach)
          return { ref: { shape: shape.id, path: path.id, index }, at: { x: a.x, y: a.y }, end };
      }
    }
  }
  return null;
}

/** Ends of open paths within `reach` sheet pixels of a point, where their rings are shown. */
export const nearEnds = (field: HitField, p: Point, reach: number, except: string | null): Point[] =>
  field.shapes.flatMap((shape) =>
    (shape.axis ? [] : shape.paths).flatMap((path) => {
      if (path.closed || path.id === except || path.anchors.length < 2) return [];
      return [path.anchors[0]!, path.anchors.at(-1)!].filter((a) => apart(a, p) <= reach);
    }),
  );

const reachOf = (p: { readonly type: 'mouse' | 'pen' | 'touch' }): number =>
  p.type === 'touch' ? TOUCH_REACH : 1;

/** All that a pointer can hit on a desk. */
export const fieldOf = (desk: Desk, p: { readonly type: 'mouse' | 'pen' | 'touch' }): HitField => ({
  shapes: desk.choosing.inReach,
  copied: copiedShapes(desk.art),
  choice: desk.choice,
  scale: desk.looking.view.scale,
  reach: reachOf(p),
  inWhole: (shape) => desk.choosing.wholeOf(shape) !== shape,
});
