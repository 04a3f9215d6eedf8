import {
  about,
  apply,
  artOfDraft,
  compose,
  followPicture,
  meanScale,
  PX_PER,
  rotation,
  scaling,
  seenBox,
  setPicture,
  shownCorners,
  translation,
  type Affine,
  type PlacedPicture,
  type Point,
  type Recipe,
  toDegrees,
  toRadians,
} from '@mirrot/core';
import type { Desk } from './desk.svelte';
import type { Rule } from './task';

// How a picture is placed, by hand or by numbers. What was traced on it goes along when that is wanted.

/**
 * A recipe that changes a picture, and takes along what was traced on it.
 *
 * @param picture as it was when the values were worked out
 */
export const pictureRecipe =
  (picture: PlacedPicture, values: Partial<Omit<PlacedPicture, 'id'>>, follow: boolean): Recipe =>
  (draft) => {
    setPicture(picture.id, values)(draft);
    if (follow) followPicture(artOfDraft(draft), picture, { ...picture, ...values }).recipe(draft);
  };

/** Changes the traced picture as one step. */
export function placePicture(desk: Desk, label: string, values: Partial<Omit<PlacedPicture, 'id'>>): boolean {
  const picture = desk.picture.traced;
  return picture !== null && desk.change(label, pictureRecipe(picture, values, desk.picture.follow));
}

/** A recipe that moves a picture by a map of the sheet, and takes along what was traced on it. */
export const moveRecipe = (picture: PlacedPicture, map: Affine, follow: boolean): Recipe =>
  pictureRecipe(picture, { placement: compose(map, picture.placement) }, follow);

/** Moves the traced picture by a map of the sheet. */
export const movePicture = (desk: Desk, label: string, map: Affine): boolean =>
  desk.picture.traced !== null &&
  placePicture(desk, label, { placement: compose(map, desk.picture.traced.placement) });

/** The middle of what is shown of a picture, on the sheet. */
export function pictureCentre(p: PlacedPicture): Point {
  const { x0, y0, x1, y1 } = seenBox(p);
  return apply(p.placement, { x: (x0 + x1) / 2, y: (y0 + y1) / 2 });
}

export const pictureCorner = (p: PlacedPicture): Point => shownCorners(p)[0]!;

/** How a picture lies, in numbers: size on the sheet in sheet pixels, turn in degrees, percent of a sheet pixel a pixel. */
export function placementNumbers(p: PlacedPicture): {
  readonly width: number;
  readonly height: number;
  readonly degrees: number;
  readonly percent: number;
} {
  const [a, b, c, d] = p.placement;
  const { x0, y0, x1, y1 } = seenBox(p);
  return {
    width: Math.hypot(a, b) * (x1 - x0),
    height: Math.hypot(c, d) * (y1 - y0),
    degrees: toDegrees(Math.atan2(b, a)),
    percent: meanScale(p.placement) * 100,
  };
}

/** Scales the traced picture in proportion about its middle. */
export const scalePicture = (desk: Desk, label: string, k: number): boolean =>
  desk.picture.traced !== null &&
  movePicture(desk, label, about(scaling(k), pictureCentre(desk.picture.traced)));

/** A turn about the middle of a picture, or another centre. */
export const turnOf = (picture: PlacedPicture, degrees: number, centre = pictureCentre(picture)): Affine =>
  about(rotation(toRadians(degrees)), centre);

export const turnPicture = (desk: Desk, label: string, degrees: number, centre?: Point): boolean =>
  desk.picture.traced !== null && movePicture(desk, label, turnOf(desk.picture.traced, degrees, centre));

/** Mirrors the picture where it lies, across or up and down. */
export const flipPicture = (desk: Desk, across: boolean): boolean =>
  desk.picture.traced !== null &&
  movePicture(
    desk,
    'Flip the picture',
    about(across ? scaling(-1, 1) : scaling(1, -1), pictureCentre(desk.picture.traced)),
  );

/** Scales the picture so that it has as many pixels to the inch as the sheet is meant for. */
export const actualPixels = (desk: Desk): boolean =>
  desk.picture.traced !== null &&
  scalePicture(
    desk,
    'Actual pixels',
    PX_PER.in / desk.art.sheet.ppi / meanScale(desk.picture.traced.placement),
  );

/** The turn, in degrees, that brings a direction on the sheet to the nearest of level and upright. */
export function turnToLevel(direction: Point): number {
  const degrees = toDegrees(Math.atan2(direction.y, direction.x));
  return 90 * Math.round(degrees / 90) - degrees;
}

/** Turns the picture so that a line drawn over it stands level or upright; says so when there is no line. */
export function levelBy(desk: Desk, { from, to }: Rule): void {
  const way = { x: to.x - from.x, y: to.y - from.y };
  if (Math.hypot(way.x, way.y) * desk.looking.view.scale < 8) {
    desk.say('That line is too short to level by. Draw one along an edge. Nothing was changed.', 'bad');
    return;
  }
  const degrees = turnToLevel(way);
  desk.pointing.task = null;
  desk.leaveOffer();
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  if (turnPicture(desk, 'Level the picture', degrees, middle))
    desk.say(`Turned by ${degrees.toFixed(1)}°.`, 'good');
}

/** The turn that a level found in the picture's own pixels means on the sheet, degrees. */
export function turnOnSheet(p: PlacedPicture, degrees: number): number {
  // The edge lies at −degrees in the picture.
  const angle = toRadians(-degrees);
  const [a, b, c, d] = p.placement;
  const [x, y] = [Math.cos(angle), Math.sin(angle)];
  return turnToLevel({ x: a * x + c * y, y: b * x + d * y });
}

/** Scales the picture so that a line over it is as long as it really is. Refuses nothing and less with a sentence. */
export function realSize(desk: Desk, { from, to }: Rule, length: number): boolean {
  const now = Math.hypot(to.x - from.x, to.y - from.y);
  if (!(length > 0) || !(now > 0)) {
    desk.say('A real size must be above 0. Nothing was changed.', 'bad');
    return false;
  }
  return movePicture(desk, 'Real size', about(scaling(length / now), from));
}

/** Moves the picture so that a point of the sheet comes to the sheet's centre or corner. */
export function originAt(desk: Desk, at: Point): void {
  const { width, height } = desk.art.sheet;
  const to = desk.picture.originTo === 'centre' ? { x: width / 2, y: height / 2 } : { x: 0, y: 0 };
  desk.pointing.task = null;
  if (movePicture(desk, 'Set the origin', translation(to.x - at.x, to.y - at.y)))
    desk.say(`That point lies on the sheet’s ${desk.picture.originTo} now.`, 'good');
}
