import { compose, scaling, setPicture, type PlacedPicture } from '@mirrot/core';
import type { PictureAnswer } from '$lib/wire';
import { enlargePicture } from './api';
import { sentenceOf, type Workplace } from './workplace.svelte';

// A picture made larger, for those with too few pixels.

/** Puts a version twice as large in the traced picture's place; nothing moves. */
export async function enlargeTraced(workplace: Workplace): Promise<void> {
  const { desk } = workplace;
  const p = desk.picture.traced;
  if (!p) return;
  workplace.progress = {
    text: `Making ${p.name} larger`,
    share: null,
    stop: () => (workplace.progress = null),
  };
  const progress = workplace.progress;
  try {
    const made = await enlargePicture(workplace.project.id, p.source, 2);
    if (workplace.progress !== progress || desk.picture.traced !== p) return;
    desk.change('Make the picture larger', setPicture(p.id, enlarged(p, made)));
    desk.say(`The picture has ${made.width} × ${made.height} px now. It is smoother, not sharper.`, 'good');
  } catch (error) {
    desk.say(sentenceOf(error, 'The picture could not be made larger. Nothing was changed.'), 'bad');
  } finally {
    if (workplace.progress === progress) workplace.progress = null;
  }
}

/** What of a picture changes when it is replaced by a larger version of itself, so that nothing is seen to move. */
export function enlarged(
  p: PlacedPicture,
  { id: source, width, height }: Pick<PictureAnswer, 'id' | 'width' | 'height'>,
): Partial<PlacedPicture> {
  const k = width / p.width;
  const { square, crop } = p;
  return {
    source,
    width,
    height,
    placement: compose(p.placement, scaling(1 / k)),
    square: square && {
      corners: square.corners.map((c) => ({ x: c.x * k, y: c.y * k })) as unknown as typeof square.corners,
      width: Math.round(square.width * k),
      height: Math.round(square.height * k),
    },
    crop: crop && { x0: crop.x0 * k, y0: crop.y0 * k, x1: crop.x1 * k, y1: crop.y1 * k },
  };
}
