import {
  cubicPoint,
  formatHex,
  formatLength,
  meanScale,
  pathCubics,
  plainStroke,
  styleShapes,
  together,
  type Path,
  type Shape,
  type StrokeWeight,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { shapeMap, wishesOf, type DriftSettings } from '$lib/desk/drifts.svelte';
import { samplePicture } from '$lib/desk/rasters';

/** Measures the stroke under paths, somewhere. */
export type Weigher = (
  by: DriftSettings,
  paths: readonly Path[],
) => Promise<readonly (StrokeWeight | null)[] | null>;

/** Colour of the picture's stroke under a shape; graphite where there is none to be had. */
function colourUnder(desk: Desk, shape: Shape): string {
  const [first] = pathCubics(shape.paths[0]!);
  const rgb =
    first && samplePicture(desk.picture.inks.raster, desk.picture.traced, cubicPoint(first, 0.5), 0);
  return rgb ? formatHex(rgb) : '#22252b';
}

/** Gives the shapes in hand the line weight that the picture's stroke has under them, as one step. */
export async function weigh(desk: Desk, run: Weigher): Promise<void> {
  const by = desk.picture.driftSettings;
  const shapes = desk.choosing.receivedShapes;
  if (!by || shapes.length === 0)
    return desk.say('Choose a path that lies on a drawn stroke of the picture.', 'bad');
  const { art } = desk;
  const wishes = shapes.flatMap((shape) =>
    wishesOf(shape, by, desk.art).map((w) => ({ shape, path: w.path })),
  );
  const found = await run(
    by,
    wishes.map((w) => w.path),
  );
  if (!found || desk.art !== art) return;
  const weighed = shapes.flatMap((shape) => {
    const own = found.filter((_, i) => wishes[i]!.shape === shape).flatMap((w) => w?.width ?? []);
    if (own.length === 0) return [];
    const width = own.toSorted((a, b) => a - b)[own.length >> 1]! * meanScale(shapeMap(shape, by));
    return [{ shape, width }];
  });
  const tooThin = found.some((w) => w?.width === null);
  if (weighed.length === 0)
    return desk.say(
      tooThin
        ? 'The stroke is too thin to tell: the picture’s blur hides how wide it is. Nothing was changed.'
        : 'No stroke of the picture lies under it. Nothing was changed.',
      'bad',
    );
  desk.change(
    'Measure weight',
    together(
      ...weighed.map(({ shape, width }) =>
        styleShapes([shape.id], {
          stroke: shape.stroke
            ? { ...shape.stroke, width }
            : plainStroke({ hex: colourUnder(desk, shape) }, width),
        }),
      ),
    ),
    { choice: desk.choice },
  );
  const widths = weighed.map((w) => formatLength(w.width, desk.art.sheet.unit));
  const missed = shapes.length - weighed.length;
  desk.say(
    `${widths.length === 1 ? `The stroke is ${widths[0]} wide.` : `${widths.length} strokes measured.`}${missed > 0 ? ` None lies under ${missed} others${tooThin ? ', or it is too thin to tell' : ''}.` : ''}`,
    'good',
  );
}
