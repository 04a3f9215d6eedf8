import {
  about,
  apply,
  compose,
  paintShapes,
  rotation,
  scaling,
  translation,
  type Affine,
  type Gradient,
  type Point,
  type Recipe,
} from '@mirrot/core';
import type { Gesture } from '$lib/desk/changes';
import type { Desk } from '$lib/desk/desk.svelte';
import { toBed } from '$lib/desk/view';
import { currentGradient, FIRST_WEIGHT, ordered, withoutStop, withStop } from '$lib/edits/painting';
import type { BedPointer, Grip } from './behaviour';
import { gradientGrip } from './gradient-grip';

// A gradient lies on the bed as a string from its start to its end, its stops hanging beside it like tags. Of a radial one
// the string is the radius, and a ring shows how far it goes.

/** How far a tag hangs off the string, half its side, and how near a press has to be to each part, screen pixels. */
export const TAG_HANGS_PX = 19;
export const TAG_HALF_PX = 8;
const TAG_REACH_PX = 12;
const END_REACH_PX = 9;
const STRING_REACH_PX = 6;
/** A tag dragged farther off the string than this is gone, screen pixels. */
const OFF_PX = 56;
/** The shortest string that can be dragged, screen pixels. */
const SHORTEST_PX = 4;
const TURN_STEP = Math.PI / 4;

/** Parts of the string in bed pixels. */
export interface GradientString {
  readonly gradient: Gradient;
  readonly start: Point;
  readonly end: Point;
  /** Where the ring crosses its second axis; null for a linear one. */
  readonly side: Point | null;
  /** Middles of the tags, in the order of the stops, and where each hangs from. */
  readonly tags: readonly { readonly at: Point; readonly knot: Point }[];
}

/** The string of the gradient that receives colours; null where none is shown. */
export function gradientString(desk: Desk): GradientString | null {
  if (desk.step !== 'colour' || desk.pointing.held.has('q') || desk.pointing.held.has('shift+q')) return null;
  const gradient = desk.choosing.receivers.length > 0 ? currentGradient(desk) : null;
  if (!gradient) return null;
  const on = (x: number, y: number): Point => toBed(desk.looking.view, apply(gradient.placement, { x, y }));
  const [start, end] = [on(0, 0), on(1, 0)];
  const long = Math.hypot(end.x - start.x, end.y - start.y) || 1;
  let hang = { x: -(end.y - start.y) / long, y: (end.x - start.x) / long };
  // Tags hang down where they can.
  if (hang.y < 0 || (hang.y === 0 && hang.x < 0)) hang = { x: -hang.x, y: -hang.y };
  const tags = gradient.stops.map(({ at }) => {
    const knot = { x: start.x + at * (end.x - start.x), y: start.y + at * (end.y - start.y) };
    return { knot, at: { x: knot.x + TAG_HANGS_PX * hang.x, y: knot.y + TAG_HANGS_PX * hang.y } };
  });
  return { gradient, start, end, side: gradient.kind === 'radial' ? on(0, 1) : null, tags };
}

/** What a press on the string takes hold of. */
export type StringPart =
  | { readonly kind: 'tag'; readonly index: number }
  | { readonly kind: 'start' | 'end' | 'side' }
  | { readonly kind: 'string'; readonly at: number };

const far = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Where along the string a point is, 0 to 1, and how far off it. */
function alongString({ start, end }: GradientString, p: Point): { at: number; off: number } {
  const [dx, dy] = [end.x - start.x, end.y - start.y];
  const long2 = dx * dx + dy * dy || 1;
  const at = Math.min(1, Math.max(0, ((p.x - start.x) * dx + (p.y - start.y) * dy) / long2));
  return { at, off: far(p, { x: start.x + at * dx, y: start.y + at * dy }) };
}

export function stringPartAt(string: GradientString, p: Point): StringPart | null {
  const tag = string.tags.findLastIndex(({ at }) => far(at, p) <= TAG_REACH_PX);
  if (tag >= 0) return { kind: 'tag', index: tag };
  if (far(string.end, p) <= END_REACH_PX) return { kind: 'end' };
  if (far(string.start, p) <= END_REACH_PX) return { kind: 'start' };
  if (string.side && far(string.side, p) <= END_REACH_PX) return { kind: 'side' };
  const { at, off } = alongString(string, p);
  return off <= STRING_REACH_PX ? { kind: 'string', at } : null;
}

/** The map that turns and scales about a point so that one point comes to another; null where that is no map. */
function swing(centre: Point, from: Point, to: Point): Affine | null {
  const [a, b] = [
    { x: from.x - centre.x, y: from.y - centre.y },
    { x: to.x - centre.x, y: to.y - centre.y },
  ];
  const [long, wanted] = [Math.hypot(a.x, a.y), Math.hypot(b.x, b.y)];
  if (!(long > 0 && wanted > 0)) return null;
  const turn = Math.atan2(b.y, b.x) - Math.atan2(a.y, a.x);
  return about(compose(rotation(turn), scaling(wanted / long, wanted / long)), centre);
}

/** A point in steps of 45° about another. */
function stepped(centre: Point, p: Point): Point {
  const angle = Math.round(Math.atan2(p.y - centre.y, p.x - centre.x) / TURN_STEP) * TURN_STEP;
  const long = far(p, centre);
  return { x: centre.x + long * Math.cos(angle), y: centre.y + long * Math.sin(angle) };
}

/** Where the string's plane is after one of its ends is dragged to a point of the sheet. */
function dragged(
  gradient: Gradient,
  part: 'start' | 'end' | 'side',
  to: Point,
  shift: boolean,
  shortest: number,
): Affine {
  const { placement } = gradient;
  const [start, end] = [apply(placement, { x: 0, y: 0 }), apply(placement, { x: 1, y: 0 })];
  if (part === 'start' && gradient.kind === 'radial')
    return compose(translation(to.x - start.x, to.y - start.y), placement);
  if (part === 'side') {
    // The second axis stays at right angles to the first.
    const [ux, uy] = [end.x - start.x, end.y - start.y];
    const long = Math.hypot(ux, uy) || 1;
    const reach = ((to.x - start.x) * -uy + (to.y - start.y) * ux) / long;
    const wide = Math.abs(reach) < shortest ? Math.sign(reach || 1) * shortest : reach;
    return [ux, uy, (-uy / long) * wide, (ux / long) * wide, start.x, start.y];
  }
  const [fixed, moved] = part === 'end' ? [start, end] : [end, start];
  const goal = shift ? stepped(fixed, to) : to;
  const map = far(goal, fixed) < shortest ? null : swing(fixed, moved, goal);
  return map ? compose(map, placement) : placement;
}

/** A press on the gradient's string; null beside it. */
function gripGradient(desk: Desk, p: BedPointer): Grip | null {
  const string = gradientString(desk);
  const part = string && stringPartAt(string, p.screen);
  if (!string || !part) return null;
  const { receiving } = desk.colouring;
  const [id] = desk.choosing.receivers;
  // It is the first one's string; what else is chosen has gradients of its own.
  const painted = (gradient: Gradient): Recipe => paintShapes([id!], receiving, gradient, FIRST_WEIGHT);
  let gesture: Gesture | null = null;
  const show = (gradient: Gradient): void => {
    gesture ??= desk.gesture(
      part.kind === 'tag' || part.kind === 'string' ? 'Move a stop' : 'Place the gradient',
    );
    gesture.show(painted(gradient));
  };
  const keep = (): void => gesture?.keep();
  const cancel = (): void => gesture?.drop();
  if (part.kind !== 'tag' && part.kind !== 'string') {
    const shortest = SHORTEST_PX / desk.looking.view.scale;
    return {
      drag(q) {
        const placement = dragged(string.gradient, part.kind, q.sheet, q.shift, shortest);
        show({ ...string.gradient, placement });
      },
      release: keep,
      click: () => void (desk.colouring.stop = part.kind === 'end' ? string.gradient.stops.length - 1 : 0),
      cancel,
    };
  }
  const added = part.kind === 'string' ? withStop(desk, string.gradient, part.at) : null;
  const from = added ?? { gradient: string.gradient, at: (part as { index: number }).index };
  const add = (): void => {
    if (!added) return;
    desk.change('Add a stop', painted(added.gradient));
  };
  return {
    drag(q) {
      const { at, off } = alongString(string, q.screen);
      if (off > OFF_PX && from.gradient.stops.length > 2) {
        desk.colouring.stop = 0;
        return show(withoutStop(from.gradient, from.at));
      }
      const moved = ordered(from.gradient.stops.map((s, i) => (i === from.at ? { ...s, at } : s)), from.at); // prettier-ignore
      desk.colouring.stop = moved.at;
      show({ ...from.gradient, stops: moved.stops });
    },
    release: keep,
    click() {
      add();
      desk.colouring.stop = from.at;
    },
    cancel,
  };
}

gradientGrip.at = gripGradient;
