import {
  boxesMeet,
  compose,
  coveringOutlines,
  coversPicture,
  pictureOutline,
  scaling,
  toneShapes,
  type FittedGradient,
  formatHex,
  hexesApart,
  invert,
  mapPaint,
  paintShapes,
  shapeBounds,
  shapesOf,
  together,
  transformPath,
  wholePaths,
  type Affine,
  type Box,
  type BodyTone,
  type Path,
  type Shape,
  type ToneWish,
} from '@mirrot/core';
import { noPicture } from './no-picture';
import type { Desk } from '$lib/desk/desk.svelte';
import { keptToPalette } from './painting';
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

/**
 * Shapes that are toned: those chosen, else all in reach that are closed and have no fill. Of several that are chosen those
 * whose fill was set by hand stay as they are, unless all are.
 */
function shapesToTone(desk: Desk): { readonly shapes: readonly Shape[]; readonly byHand: number } {
  const { receivedShapes, inReach } = desk.choosing;
  if (receivedShapes.length === 0)
    return {
      // A fill that was taken off is a colour all the same.
      shapes: inReach.filter(
        (shape) => !shape.fill && !shape.aside?.fill && !shape.stroke && isClosed(shape),
      ),
      byHand: 0,
    };
  const free = receivedShapes.filter((shape) => shape.fill === null || shape.toned);
  if (free.length === 0) return { shapes: receivedShapes, byHand: 0 };
  return { shapes: free, byHand: receivedShapes.length - free.length };
}

/** What each shape shows of the picture, in pixels of its raster. Shapes that cannot be laid on it are left out. */
export function wishesFor(
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
      .filter((other, k) => coversPicture(other.shape) && boxesMeet(boxes[own]!, boxes[own + 1 + k]!));
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

/** What the tone in the middle is called. */
const BODY_TONE = 'Body tone';

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Offers a colour for one shape of which the tone is known. */
export function offerTone(desk: Desk, shape: Shape, hex: string, what: string, from = ''): void {
  const { colour, says } = keptToPalette(desk, hex);
  desk.makeOffer({
    from: 'body-tone',
    text: `${what} of ${shape.name}: ${says || hex.toUpperCase()}${from}`,
    label: 'Body tone',
    // Only the body tone itself is looked for anew when the shape shows something else.
    recipe:
      what === BODY_TONE
        ? toneShapes([{ id: shape.id, tone: hex, colour }])
        : paintShapes([shape.id], 'fill', colour, NO_WEIGHT),
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
  if (!by) return desk.say(noPicture(desk, 'to take a tone from'), 'bad');
  const { shapes, byHand } = shapesToTone(desk);
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
    return offerTone(desk, only.shape, formatHex(only.tone.body), BODY_TONE, from);
  }
  const stay = [
    without > 0 ? `${without} covered or beside the picture` : '',
    byHand > 0 ? `${byHand} with colours set by hand` : '',
  ].filter(Boolean);
  offerTones(
    desk,
    toned,
    `Body tone of ${toned.length} ${others.length > 0 ? 'shapes' : 'shape'}${stay.length > 0 ? `; ${stay.join(' and ')} stay as they are` : ''}`,
  );
}

interface Toned {
  readonly shape: Shape;
  readonly tone: BodyTone;
}

function offerTones(desk: Desk, toned: readonly Toned[], text: string): void {
  const tones = toned.map(({ shape, tone }) => ({
    id: shape.id,
    tone: formatHex(tone.body),
    colour: keptToPalette(desk, formatHex(tone.body)).colour,
  }));
  desk.makeOffer({
    from: 'body-tone',
    text,
    label: 'Body tone',
    recipe: toneShapes(tones),
    preview: true,
    after: { choice: desk.choice },
  });
}

/** A body tone this far from the one that was taken is another one, ΔE (CIEDE2000). */
const OTHER_TONE = 1.5;

/** What is known of stale tones, of the shapes as they stood then. */
interface Watched {
  readonly by: string;
  readonly placed: ReadonlyMap<string, Shape>;
  readonly stale: ReadonlySet<string>;
}
const watched = new WeakMap<Desk, Watched>();
/** Tones that are looked for anew at once: no more than a worker does in a second or so. */
const MOST_WATCHED = 400;

/** Boxes of all that came, went, changed or moved in the stack between two states. */
function changedBoxes(before: ReadonlyMap<string, Shape>, now: ReadonlyMap<string, Shape>): Box[] {
  const boxes: Box[] = [];
  const changed = (shape: Shape | undefined): void => void (shape && boxes.push(shapeBounds(shape)));
  for (const [id, shape] of before) if (now.get(id) !== shape) changed(shape);
  for (const [id, shape] of now) if (before.get(id) !== shape) changed(shape);
  const order = [...before.keys()].filter((id) => now.has(id));
  [...now.keys()]
    .filter((id) => before.has(id))
    .forEach((id, i) => {
      if (order[i] !== id) changed(now.get(id));
    });
  return boxes;
}

/**
 * Shapes whose body tone differs from what they show of the picture now; null where that is not known. Only those are looked at
 * that may have changed since it was asked last.
 */
export async function staleTones(desk: Desk, run: Toner): Promise<string[] | null> {
  const by = desk.picture.driftSettings;
  if (!by) return null;
  const { kept } = desk.drawing;
  const placed = new Map(shapesOf(kept).flatMap(({ shape, shown }) => (shown ? [[shape.id, shape] as const] : []))); // prettier-ignore
  const key = `${by.raster.key} ${desk.habits.toneTrim} ${by.picture.placement.join(' ')}`;
  const known = watched.get(desk);
  const last = known?.by === key ? known : null;
  const boxes = last && changedBoxes(last.placed, placed);
  const asked = [...placed.values()]
    .filter((shape) => {
      if (!shape.toned || !shape.fill) return false;
      const own = shapeBounds(shape);
      return !boxes || boxes.some((box) => boxesMeet(box, own));
    })
    .slice(0, MOST_WATCHED);
  const wishes = asked.length > 0 ? wishesFor(desk, asked, by) : [];
  const found = wishes.length > 0 ? await run(by, wishes.map(({ wish }) => wish)) : []; // prettier-ignore
  if (!found || desk.drawing.kept !== kept) return null;
  const stale = new Set(
    [...(last?.stale ?? [])].filter((id) => placed.get(id)?.fill && placed.get(id)?.toned),
  );
  wishes.forEach(({ shape }, i) => {
    const tone = found[i];
    if (tone && hexesApart(formatHex(tone.body), shape.toned!) > OTHER_TONE) stale.add(shape.id);
    else stale.delete(shape.id);
  });
  watched.set(desk, { by: key, placed, stale });
  return [...stale];
}

/** Offers the body tones of shapes anew that have one already. */
export async function offerAgain(desk: Desk, ids: readonly string[], run: Toner): Promise<void> {
  desk.leaveOffer();
  const by = desk.picture.driftSettings;
  const shapes = ids.flatMap((id) => desk.shapeOf(id) ?? []).filter((shape) => shape.toned);
  if (!by || shapes.length === 0) return;
  const { art } = desk;
  const asked = wishesFor(desk, shapes, by);
  const found = await run(by, asked.map(({ wish }) => wish)); // prettier-ignore
  if (!found || desk.art !== art) return;
  const toned = asked.flatMap(({ shape }, i) => (found[i] ? [{ shape, tone: found[i] }] : []));
  if (toned.length === 0) return desk.say('None of these shapes shows anything of the picture any more. Nothing was changed.', 'bad'); // prettier-ignore
  offerTones(
    desk,
    toned,
    `Body tone of ${toned.length} ${toned.length === 1 ? 'shape' : 'shapes'}, looked for anew`,
  );
}

/** Fits gradients, somewhere; null when it was stopped. */
export type GradientFitter = (
  by: DriftSettings,
  wishes: readonly ToneWish[],
) => Promise<readonly (FittedGradient | null)[] | null>;

/** Offers gradients as the fills of the chosen shapes that come nearest to what each shows of the picture, and says how near. */
export async function offerGradient(desk: Desk, run: GradientFitter): Promise<void> {
  desk.leaveOffer();
  const by = desk.picture.driftSettings;
  if (!by) return desk.say(noPicture(desk, 'to take a gradient from'), 'bad');
  const shapes = desk.choosing.receivedShapes;
  if (shapes.length === 0) return desk.say('Choose the shapes that get a gradient from the picture.');
  const { art } = desk;
  const asked = wishesFor(desk, shapes, by);
  const found = await run(by, asked.map(({ wish }) => wish)); // prettier-ignore
  if (!found || desk.art !== art) return;
  const fitted = asked.flatMap(({ shape }, i) => (found[i] ? [{ shape, fit: found[i] }] : []));
  const [first] = fitted;
  if (!first)
    return desk.say('Too little of it is open on the picture to fit a gradient: it is covered, small, or lies beside it. Nothing was changed.', 'bad'); // prettier-ignore
  const mean = (of: (f: FittedGradient) => number): string =>
    (fitted.reduce((sum, { fit }) => sum + of(fit), 0) / fitted.length).toFixed(1);
  const named = fitted.length === 1 ? first.shape.name : `${fitted.length} shapes`;
  desk.makeOffer({
    from: 'body-tone',
    text: `Gradient from the picture for ${named}: ΔE ${mean((f) => f.deltaE)} from it; one colour would be ΔE ${mean((f) => f.flatDeltaE)}`,
    label: 'Gradient from the picture',
    recipe: together(
      ...fitted.map(({ shape, fit }) =>
        paintShapes([shape.id], 'fill', mapPaint(fit.gradient, shapeMap(shape, by)), NO_WEIGHT),
      ),
    ),
    preview: true,
    after: { choice: desk.choice },
  });
}

/** Share of the picture that no shape covers, somewhere. */
export type BareFinder = (
  by: DriftSettings,
  area: readonly Path[],
  covers: readonly (readonly Path[])[],
) => Promise<number | null>;

/** The share of the traced picture, within its crop, that no shape covers; null where that is not known. */
export async function bareShare(desk: Desk, run: BareFinder): Promise<number | null> {
  const by = desk.picture.driftSettings;
  if (!by) return null;
  const k = by.raster.step;
  const area = transformPath(pictureOutline(by.picture), scaling(1 / k, 1 / k));
  const back = invert(compose(by.picture.placement, scaling(k, k)));
  if (!back) return null;
  const covers = coveringOutlines(desk.drawing.kept).map((paths) =>
    paths.map((path) => transformPath({ ...path, form: undefined }, back)),
  );
  return run(by, [area], covers);
}
