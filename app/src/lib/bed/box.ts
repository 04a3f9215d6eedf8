import {
  about,
  apply,
  boxHas,
  compose,
  growBox,
  invert,
  mappedCorners,
  mapChosen,
  rotation,
  scaling,
  seenBox,
  subtract,
  type Affine,
  type Box,
  type PlacedPicture,
  type Point,
  type Recipe,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { toBed } from '$lib/desk/view';
import { pictureRecipe } from '$lib/desk/placing';
import type { BedPointer, Grip } from './behaviour';
import { whenFetched } from '$lib/desk/when-fetched';
import { centreAt } from './snapping';

/** Reach of a box's corner, and of the zone beyond it that turns, in screen pixels. */
const CORNER_REACH = 8;
const TURN_REACH = 26;
const TURN_STEP = Math.PI / 12;
/** The least a side may become, in sheet pixels. */
const LEAST = 0.01;

/** A box as its corners lie on the sheet: a frame's unit square after `map`. */
export interface Frame {
  readonly map: Affine;
}

export interface BoxGrip {
  readonly frame: Frame;
  /** Corner in the frame: (0, 0) to (1, 1). */
  readonly corner: Point;
  readonly turning: boolean;
}

export const frameOfBox = (box: Box): Frame => ({
  map: [Math.max(box.x1 - box.x0, LEAST), 0, 0, Math.max(box.y1 - box.y0, LEAST), box.x0, box.y0],
});

export const frameOfPicture = (p: PlacedPicture): Frame => {
  const { x0, y0, x1, y1 } = seenBox(p);
  return { map: compose(p.placement, [x1 - x0, 0, 0, y1 - y0, x0, y0]) };
};

export const frameCorners = (frame: Frame): Point[] => mappedCorners(1, 1, frame.map);

const UNIT_CORNERS: readonly Point[] = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];

/** The frame that has handles now: of an unlocked picture in Mount, of chosen shapes in Refine. */
export function currentFrame(desk: Desk): Frame | null {
  if (desk.step === 'mount') {
    const picture = desk.picture.traced;
    return picture && picture.shown && !picture.locked ? frameOfPicture(picture) : null;
  }
  const box = desk.step === 'refine' && desk.choice.level === 'shape' ? desk.choosing.box : null;
  return box ? frameOfBox(box) : null;
}

/** The corner, or turning zone outside one, that a pointer is on. */
export function boxGripAt(desk: Desk, p: BedPointer): BoxGrip | null {
  const frame = currentFrame(desk);
  const back = frame && invert(frame.map);
  if (!frame || !back) return null;
  const inside = boxHas(growBox({ x0: 0, y0: 0, x1: 1, y1: 1 }, 1e-9), apply(back, p.sheet));
  const wide = p.type === 'touch' ? 2 : 1;
  let found: (BoxGrip & { distance: number }) | null = null;
  frameCorners(frame).forEach((c, i) => {
    const at = toBed(desk.looking.view, c);
    const distance = Math.hypot(at.x - p.screen.x, at.y - p.screen.y);
    const turning = distance > CORNER_REACH * wide;
    if ((turning && (inside || distance > TURN_REACH * wide)) || (found && found.distance <= distance))
      return;
    found = { frame, corner: UNIT_CORNERS[i]!, turning, distance };
  });
  return found;
}

/** What a corner's drag does to the sheet: scales about the opposite corner, or turns about a centre. */
function mapFor(
  grip: BoxGrip,
  start: Point,
  to: Point,
  centre: Point,
  free: boolean,
  stepped: boolean,
): Affine {
  const { map } = grip.frame;
  if (grip.turning) {
    const a = subtract(start, centre);
    const b = subtract(to, centre);
    let angle = Math.atan2(b.y, b.x) - Math.atan2(a.y, a.x);
    if (stepped) angle = Math.round(angle / TURN_STEP) * TURN_STEP;
    return about(rotation(angle), centre);
  }
  const back = invert(map)!;
  const fixed: Point = { x: 1 - grip.corner.x, y: 1 - grip.corner.y };
  // The pointer may have taken the corner a little off: it keeps that distance.
  const target = subtract(apply(back, to), subtract(apply(back, start), grip.corner));
  let sx = (target.x - fixed.x) / (grip.corner.x - fixed.x);
  let sy = (target.y - fixed.y) / (grip.corner.y - fixed.y);
  if (!free) {
    // Nearest point on the diagonal, measured as it lies on the sheet.
    const width = Math.hypot(map[0], map[1]);
    const height = Math.hypot(map[2], map[3]);
    sx = sy = (sx * width * width + sy * height * height) / (width * width + height * height);
  }
  const least = (side: number): number => LEAST / Math.max(side, LEAST);
  sx = Math.max(sx, least(Math.hypot(map[0], map[1])));
  sy = Math.max(sy, least(Math.hypot(map[2], map[3])));
  return compose(map, compose(about(scaling(sx, sy), fixed), back));
}

/** Sets the point that numbers count from and boxes turn about. */
export function turnAbout(desk: Desk, p: BedPointer): void {
  desk.choosing.turnCentre = centreAt(desk, p.sheet).at;
  desk.pointing.task = null;
}

/** Sets the centre that copies of what is chosen stand round. What makes them comes when it is wanted. */
export function ringRound(desk: Desk, p: BedPointer): void {
  desk.pointing.task = null;
  const { at } = centreAt(desk, p.sheet);
  whenFetched(desk, import('$lib/edits/repeating'), ({ ringAbout }) => ringAbout(desk, at));
}

/** Takes a corner. Pictures keep their proportion unless Shift is held, shapes only with Shift. */
export function gripBox(desk: Desk, grip: BoxGrip, start: BedPointer): Grip {
  const picture = desk.step === 'mount' ? desk.picture.traced : null;
  const shapes = picture ? [] : desk.chosenShapes;
  const what = picture ? 'the picture' : shapes.length > 1 ? `${shapes.length} shapes` : 'the shape';
  const gesture = desk.gesture(`${grip.turning ? 'Turn' : 'Scale'} ${what}`);
  const centre = (!picture && desk.choosing.turnCentre) || apply(grip.frame.map, { x: 0.5, y: 0.5 });
  const recipe = (map: Affine): Recipe =>
    picture
      ? pictureRecipe(picture, { placement: compose(map, picture.placement) }, desk.picture.follow)
      : mapChosen(shapes, desk.choice.nodes, map);
  return {
    drag: (p) =>
      gesture.show(recipe(mapFor(grip, start.sheet, p.sheet, centre, picture ? p.shift : !p.shift, p.shift))),
    release: () => gesture.keep(),
    cancel: () => gesture.drop(),
  };
}
