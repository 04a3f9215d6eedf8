import {
  boxesMeet,
  formatHex,
  invert,
  paintShapes,
  shapeBounds,
  shapesOf,
  together,
  transformPath,
  wholePaths,
  type Affine,
  type BodyTone,
  type Path,
  type Shape,
  type ToneWish,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { shapeMap, type DriftSettings } from '$lib/desk/drifts.svelte';

// Body tone: what shapes truly show of the picture, offered as their fills.

/** Finds tones, somewhere; null when it was stopped. */
export type Toner = (
  by: DriftSettings,
  wishes: readonly ToneWish[],
) => Promise<readonly (BodyTone | null)[] | null>;

/** A stroke's weight that shapes would get; fills ask for none. */
const NO_WEIGHT = 1;

const isClosed = (shape: Shape): boolean => shape.paths.every((path) => path.closed);

/** Whether a shape hides the picture beneath it: filled, or closed and still without its fill. Lettering and what is meant so lie on no picture. */
const covers = (shape: Shape): boolean =>
  !shape.meant && (shape.fill !== null || (shape.stroke === null && isClosed(shape)));

/** Shapes that are toned: those chosen, else all in reach that are closed and have no fill. */
const shapesToTone = (desk: Desk): readonly Shape[] => {
  const { receivedShapes, inReach } = desk.choosing;
  if (receivedShapes.length > 0) return receivedShapes;
  return inReach.filter((shape) => shape.fill === null && shape.stroke === null && isClosed(shape));
};

/** What each shape shows of the picture, in pixels of its raster. Shapes that cannot be laid on it are left out. */
function wishesFor(
  desk: Desk,
  shapes: readonly Shape[],
  by: DriftSettings,
): { shape: Shape; wish: ToneWish }[] {
  const placed = shapesOf(desk.art).filter(({ shown }) => shown);
  const at = new Map(placed.map(({ shape }, i) => [shape.id, i]));
  const boxes = placed.map(({ shape }) => shapeBounds(shape));
  const onRaster = (shape: Shape, map: Affine): readonly Path[] =>
    wholePaths(shape).map((path) => transformPath({ ...path, form: undefined }, map));
  return shapes.flatMap((shape) => {
    const own = at.get(shape.id);
    const back = invert(shapeMap(shape, by));
    if (own === undefined || !back) return [];
    const above = placed
      .slice(own + 1)
      .filter((other, k) => covers(other.shape) && boxesMeet(boxes[own]!, boxes[own + 1 + k]!));
    return [
      {
        shape,
        wish: {
          outlines: onRaster(shape, back),
          covers: above.map((other) => onRaster(other.shape, back)),
          trim: desk.habits.toneTrim,
        },
      },
    ];
  });
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Offers a colour for one shape of which the tone is known. */
export function offerTone(desk: Desk, shape: Shape, hex: string, what: string, from = ''): void {
  desk.makeOffer({
    from: 'body-tone',
    text: `${what} of ${shape.name}: ${hex.toUpperCase()}${from}`,
    label: 'Body tone',
    recipe: paintShapes([shape.id], 'fill', { hex }, NO_WEIGHT),
    preview: true,
    after: { choice: desk.choice },
  });
}

/**
 * Offers their body tone as the fill of the chosen shapes, or of all that have none. Says of which there is none, since they are
 * covered or lie beside the picture.
 */
export async function offerBodyTone(desk: Desk, run: Toner): Promise<void> {
  desk.leaveOffer();
  const by = desk.picture.driftSettings;
  if (!by) return desk.say('There is no picture in sight to take a tone from. Nothing was changed.', 'bad');
  const shapes = shapesToTone(desk);
  if (shapes.length === 0)
    return desk.say('Every closed shape has its fill. Choose shapes to look for theirs anew.');
  const { art } = desk;
  const asked = wishesFor(desk, shapes, by);
  const found = await run(
    by,
    asked.map(({ wish }) => wish),
  );
  // Another edit meanwhile: the answer is of a drawing that is no more.
  if (!found || desk.art !== art) return;
  const toned = asked.flatMap(({ shape }, i) => (found[i] ? [{ shape, tone: found[i] }] : []));
  const without = shapes.length - toned.length;
  const [only, ...others] = toned;
  desk.colouring.tone = only && shapes.length === 1 ? { shape: only.shape, tone: only.tone } : null;
  if (!only)
    return desk.say(
      shapes.length === 1
        ? `${shapes[0]!.name} shows nothing of the picture: it is covered, or lies beside it. Nothing was changed.`
        : 'None of these shapes shows anything of the picture: they are covered, or lie beside it. Nothing was changed.',
      'bad',
      { label: 'Disc', run: () => void (desk.colouring.sampling = 'disc') },
    );
  if (shapes.length === 1) {
    const from = only.tone.open < 0.995 ? `, from the ${percent(only.tone.open)} of it in sight` : '';
    return offerTone(desk, only.shape, formatHex(only.tone.body), 'Body tone', from);
  }
  const stay = without > 0 ? `; ${without} covered or beside the picture stay as they are` : '';
  desk.makeOffer({
    from: 'body-tone',
    text: `Body tone of ${toned.length} ${others.length > 0 ? 'shapes' : 'shape'}${stay}`,
    label: 'Body tone',
    recipe: together(
      ...toned.map(({ shape, tone }) =>
        paintShapes([shape.id], 'fill', { hex: formatHex(tone.body) }, NO_WEIGHT),
      ),
    ),
    preview: true,
    after: { choice: desk.choice },
  });
}
