import {
  formatHex,
  hexAt,
  isGradient,
  meanScale,
  paintShapes,
  seenPaint,
  shapeHas,
  shapesOf,
  type Colour,
  type Point,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { samplePicture } from '$lib/desk/rasters';
import type { BedPointer, Grip } from './behaviour';
import { fieldOf } from './hit';
import { hitTest } from './hit';
import { gripChoosing } from './refine';
import { chooseShapes } from '$lib/desk/choice';

/** Stroke weight, in sheet pixels, that a shape gets with its first stroke colour. */
export const FIRST_WEIGHT = 2;

/** Gives a colour to what receives colours now: chosen shapes, the path just drawn, or the next path. */
export function applyColour(desk: Desk, colour: Colour): void {
  const { receivers } = desk.choosing;
  const { receiving } = desk.colouring;
  if (receivers.length > 0)
    desk.change(`Colour the ${receiving}`, paintShapes(receivers, receiving, colour, FIRST_WEIGHT));
  else if (receiving === 'fill') desk.colouring.nextFill = colour;
}

/** Colour of the picture at a point; a disc of `radius` sheet pixels, 0 for one pixel. Null where there is none. */
export function pictureColour(desk: Desk, at: Point, radius = 0): Colour | null {
  const rgb = samplePicture(desk.picture.inks.raster, desk.picture.traced, at, radius);
  return rgb && { hex: formatHex(rgb) };
}

/**
 * Fill of the topmost filled shape in sight at a point, those that receive the colour left out: its chip where it has
 * one, of a gradient the colour there.
 */
function drawingColour(desk: Desk, at: Point): Colour | null {
  if (desk.looking.seen.fills < 1) return null;
  const out = desk.choosing.receivers;
  for (const { shape, shown } of [...shapesOf(desk.art)].reverse())
    if (shown && shape.fill && !out.includes(shape.id) && shapeHas(shape, at))
      return isGradient(shape.fill)
        ? { hex: hexAt(seenPaint(shape.fill, desk.colouring.palette), at) }
        : shape.fill;
  return null;
}

/** A press that samples: a click takes the drawing's fill or the picture's pixel (or disc), a drag draws a disc. */
export function gripSample(desk: Desk, start: BedPointer): Grip {
  const take = (colour: Colour | null): void => {
    desk.pointing.disc = null;
    if (colour) applyColour(desk, colour);
    else desk.say('There is no picture here to take a colour from.', 'bad');
  };
  const radiusTo = (p: BedPointer): number =>
    Math.hypot(p.sheet.x - start.sheet.x, p.sheet.y - start.sheet.y);
  const perPixel = desk.picture.traced ? meanScale(desk.picture.traced.placement) : 1;
  return {
    drag: (p) => (desk.pointing.disc = { at: start.sheet, radius: radiusTo(p) }),
    release(p) {
      desk.colouring.discRadius = Math.max(1, Math.round(radiusTo(p) / perPixel));
      take(pictureColour(desk, start.sheet, radiusTo(p)));
    },
    click() {
      const radius = desk.colouring.sampling === 'disc' ? desk.colouring.discRadius * perPixel : 0;
      take(drawingColour(desk, start.sheet) ?? pictureColour(desk, start.sheet, radius));
    },
    cancel: () => (desk.pointing.disc = null),
  };
}

/** A press in Colour, Proof and Export: it chooses; in Colour, while sampling is on, it samples. */
export function pressChoose(desk: Desk, p: BedPointer): Grip {
  desk.choosing.justEnded = null;
  if (desk.step === 'colour' && desk.colouring.sampling) return gripSample(desk, p);
  const hit = hitTest(fieldOf(desk, p), p.sheet);
  if (hit && hit.kind !== 'inside') {
    const { shape } = hit.ref;
    return { click: () => desk.choose(chooseShapes([shape])) };
  }
  return gripChoosing(desk, hit, p);
}
