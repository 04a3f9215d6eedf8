import {
  boxHas,
  formatHex,
  growBox,
  hexAt,
  isGradient,
  meanScale,
  nearestOnPath,
  pathBounds,
  seenPaint,
  shapeHas,
  shapesOf,
  wholePaths,
  type Colour,
  type Paint,
  type Path,
  type Point,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { samplePicture } from '$lib/desk/rasters';
import type { BedPointer, Grip } from './behaviour';
import { applySample } from '$lib/edits/painting';
import { gripBrush } from './brush';
import { gradientGrip } from './gradient-grip';
import { fieldOf, hitTest } from './hit';
import { gripChoosing } from './refine';
import { chooseShapes } from '$lib/desk/choice';

/** Colour of the picture at a point; a disc of `radius` sheet pixels, 0 for one pixel. Null where there is none. */
export function pictureColour(desk: Desk, at: Point, radius = 0): Colour | null {
  const rgb = samplePicture(desk.picture.inks.raster, desk.picture.traced, at, radius);
  return rgb && { hex: formatHex(rgb) };
}

/** A press this near to an outline is on its line, screen pixels. */
const LINE_REACH_PX = 3;

/**
 * Paint of the topmost shape in sight at a point, those that receive the colour left out: of its line on the line, else of its
 * fill. Its chip where it has one, of a gradient the colour there.
 */
function drawingColour(desk: Desk, at: Point): Colour | null {
  if (desk.looking.seen.fills < 1) return null;
  const out = desk.choosing.receivers;
  const taken = (paint: Paint): Colour =>
    isGradient(paint) ? { hex: hexAt(seenPaint(paint, desk.colouring.palette), at) } : paint;
  for (const { shape, shown } of [...shapesOf(desk.art)].reverse()) {
    if (!shown || out.includes(shape.id)) continue;
    if (shape.stroke) {
      const reach = Math.max(shape.stroke.width / 2, LINE_REACH_PX / desk.looking.view.scale);
      const near = (path: Path): boolean =>
        boxHas(growBox(pathBounds(path), reach), at) &&
        (nearestOnPath(path, at)?.distance ?? Infinity) <= reach;
      if (wholePaths(shape).some(near)) return taken(shape.stroke.paint);
    }
    if (shape.fill && shapeHas(shape, at)) return taken(shape.fill);
  }
  return null;
}

/** Sheet pixels of the radius that a click samples by; 0 for one pixel. */
export const sampledRadius = (desk: Desk): number =>
  desk.colouring.sampling === 'disc' && desk.picture.traced
    ? desk.colouring.discRadius * meanScale(desk.picture.traced.placement)
    : 0;

/** The disc that is being drawn, or that a click here would sample, in sheet pixels; null where none is. */
export function discShown(desk: Desk): { readonly at: Point; readonly radius: number } | null {
  if (desk.pointing.disc) return desk.pointing.disc;
  const at = desk.pointing.cross ?? desk.pointing.pointer;
  return at && desk.colouring.sampling === 'disc' ? { at, radius: sampledRadius(desk) } : null;
}

/** A press that samples: a click takes the drawing's fill or line, else the picture's pixel (or disc), a drag draws a disc. */
export function gripSample(desk: Desk, start: BedPointer): Grip {
  const take = (colour: Colour | null): void => {
    desk.pointing.disc = null;
    if (colour) applySample(desk, colour);
    else desk.say('There is no picture here to take a colour from. Nothing was changed.', 'bad');
  };
  const radiusTo = (p: BedPointer): number =>
    Math.hypot(p.sheet.x - start.sheet.x, p.sheet.y - start.sheet.y);
  const perPixel = desk.picture.traced ? meanScale(desk.picture.traced.placement) : 1;
  return {
    drag: (p) => (desk.pointing.disc = { at: start.sheet, radius: radiusTo(p) }),
    release(p) {
      desk.colouring.discRadius = clampRadius(radiusTo(p) / perPixel);
      take(pictureColour(desk, start.sheet, radiusTo(p)));
    },
    click: () =>
      take(drawingColour(desk, start.sheet) ?? pictureColour(desk, start.sheet, sampledRadius(desk))),
    cancel: () => (desk.pointing.disc = null),
  };
}

/** Radius of a disc that is sampled, picture pixels. */
export const MOST_RADIUS = 60;
const clampRadius = (radius: number): number => Math.min(MOST_RADIUS, Math.max(1, Math.round(radius)));

/** The wheel while a disc is to be sampled: a wider or narrower one. False where it means something else. */
export function wheelDisc(desk: Desk, turned: number): boolean {
  const { colouring } = desk;
  if (colouring.sampling !== 'disc' || turned === 0) return false;
  colouring.discRadius = clampRadius(
    colouring.discRadius * (turned < 0 ? 1.15 : 1 / 1.15) - Math.sign(turned) * 0.5,
  );
  return true;
}

/** A press in Colour, Proof and Export: it chooses; in Colour, while sampling is on, it samples. */
export function pressChoose(desk: Desk, p: BedPointer): Grip {
  desk.choosing.justEnded = null;
  if (desk.step === 'colour') {
    if (desk.colouring.sampling) return gripSample(desk, p);
    if (desk.colouring.brush) return gripBrush(desk, p);
    const grip = gradientGrip.at(desk, p);
    if (grip) return grip;
  }
  const hit = hitTest(fieldOf(desk, p), p.sheet);
  if (hit && hit.kind !== 'inside') {
    const { shape } = hit.ref;
    return { click: () => desk.choose(chooseShapes([shape])) };
  }
  return gripChoosing(desk, hit, p);
}
