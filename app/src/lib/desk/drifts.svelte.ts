import {
  determinant,
  driftFigures,
  flatHex,
  invert,
  leaveOut,
  meantSegments,
  meanScale,
  paletteOf,
  parseHex,
  pathInside,
  placedById,
  rgbToOklab,
  scaling,
  compose,
  shapesOf,
  transformPath,
  wholePaths,
  type Affine,
  type Art,
  type Drift,
  type DriftFigures,
  type Follow,
  type Light,
  type Path,
  type PlacedPicture,
  type Shape,
} from '@mirrot/core';
import { SvelteMap } from 'svelte/reactivity';
import { measureWorker, reachWorker, type TraceWish } from '$lib/workers/trace';
import { coverersAbove } from './covering';
import type { LoadedPicture } from './rasters';
import { workLoop } from './work-loop';

/** A path with its drift. Places and lengths are in pixels of the raster, `map` takes them to the sheet. */
export interface PathDrift {
  readonly path: Path;
  readonly drift: Drift;
  readonly follow: Follow;
  readonly map: Affine;
}

/** A shape's drift; lengths in picture pixels. */
export interface ShapeDrift {
  readonly shape: Shape;
  readonly key: string;
  readonly parts: readonly PathDrift[];
  /** Picture pixels that one pixel of the raster is wide. */
  readonly step: number;
  readonly spacing: number;
  readonly figures: DriftFigures;
  /** What hid the picture from it. */
  readonly coverers: readonly Shape[];
  /** It was not left out of drift; and by what colour its edge was told. */
  readonly measured: boolean;
  readonly own: string | null;
}

/** What shapes are measured by. */
export interface DriftSettings {
  readonly raster: LoadedPicture;
  readonly picture: PlacedPicture;
  /** Picture pixels to either side, and within which drift counts as on the edge. */
  readonly reach: number;
  readonly within: number;
  /** Bumps of the edge shorter than this are ignored, picture pixels. */
  readonly detail: number;
  /** A value each so many pixels of the raster: more than one while a press lasts. */
  readonly spacing: number;
  /** What shapes above cover is measured too. */
  readonly coveredToo: boolean;
  /** Where a blurred edge counts as being. */
  readonly light: Light;
}

/** What a shape's anchors cost. */
export interface ShapeEconomy {
  readonly shape: Shape;
  readonly key: string;
  readonly anchors: number;
  /** The fewest that hold the same edges. */
  readonly fewest: number;
  /** Anchors that could go, by path. */
  readonly spare: readonly { readonly path: string; readonly index: number }[];
  /** What hid the picture from it. */
  readonly coverers: readonly Shape[];
  /** It was not left out of drift; and by what colour its edge was told. */
  readonly measured: boolean;
  readonly own: string | null;
}

/** The drift of shapes from the picture, kept up to date away from the page. */
export interface Drifts {
  /** What is known of a shape, perhaps of how it was a moment ago. */
  of(shape: string): ShapeDrift | null;
  readonly all: DriftFigures | null;
  /** Of how many shapes that is. */
  readonly measuredShapes: number;
  /** What a shape's anchors cost, perhaps those of a moment ago; null where that is not known, or it has no edge. */
  economyOf(shape: string): ShapeEconomy | null;
  /** Measures what is not known yet of the shapes in sight, those named first. */
  measure(art: Art, by: DriftSettings, first: readonly string[]): void;
  /** Counts what anchors cost, once the hand rests. */
  count(): void;
}

/** Shapes measured in one go, so that the one in hand never waits long. */
const AT_ONCE = 12;

/** From pixels of the raster to the sheet. */
export const rasterMap = ({ picture, raster }: Pick<DriftSettings, 'picture' | 'raster'>): Affine =>
  compose(picture.placement, scaling(raster.step));

/** From pixels of the raster to a shape: where it lies, or lay before it was moved away. */
export const shapeMap = (shape: Pick<Shape, 'place'>, by: DriftSettings): Affine => {
  const away = shape.place && invert(shape.place);
  return away ? compose(away, rasterMap(by)) : rasterMap(by);
};

/** What hides the picture from a shape of a drawing, as it is measured. */
const coverersOf = (art: Art, shape: Shape, by: DriftSettings): readonly Shape[] =>
  by.coveredToo ? [] : coverersAbove(art, shape);

const isMeasured = (art: Art, shape: Shape): boolean => placedById(art, shape.id)?.measured ?? false;

/** The colour by which a shape's own edge is told from others beside it: as it was sampled, or is filled; hex. */
const ownHex = ({ chips }: Art, { fill, toned }: Shape): string | null =>
  fill ? (toned ?? flatHex(fill, paletteOf(chips))) : null;

/** Whether a shape was measured as it is to be: by the same colour, or left out. */
const isAlike = (known: Pick<ShapeDrift, 'measured' | 'own'>, art: Art, shape: Shape): boolean =>
  known.measured === isMeasured(art, shape) && known.own === ownHex(art, shape);

/** How a shape's paths are measured in a drawing: as they lie on the raster. None of a shape that is left out of drift. */
export function wishesOf(shape: Shape, by: DriftSettings, art: Art): TraceWish[] {
  if (!isMeasured(art, shape)) return [];
  const map = shapeMap(shape, by);
  const back = invert(map);
  if (!back) return [];
  const { step } = by.raster;
  const covers = coverersOf(art, shape, by).map((cover) =>
    wholePaths(cover).map((path) => transformPath({ ...path, form: undefined }, back)),
  );
  const hex = ownHex(art, shape);
  const own = hex === null ? null : rgbToOklab(parseHex(hex));
  return shape.paths.map((path, k) => {
    const hole =
      path.closed &&
      shape.paths.filter((o, m) => m !== k && o.closed && pathInside(path, o)).length % 2 === 1;
    return {
      path: transformPath({ ...path, form: undefined }, back),
      reach: by.reach / step,
      detail: by.detail / step,
      spacing: by.spacing,
      covers,
      light: by.light,
      ...(own && path.closed && { own }),
      flip: path.closed ? hole : determinant(map) < 0,
      follow: shape.follow ?? (shape.fill ? 'edge' : shape.stroke ? 'middle' : null),
      width: shape.stroke ? shape.stroke.width * meanScale(back) : null,
    };
  });
}

/** What a shape's drift depends on besides the shape. */
const keyOf = ({ raster, picture, reach, detail, coveredToo, light }: DriftSettings): string =>
  `${raster.key} ${picture.placement.join(' ')} ${reach.toFixed(2)} ${detail} ${coveredToo} ${light}`;

const alike = (a: readonly Shape[], b: readonly Shape[]): boolean =>
  a === b || (a.length === b.length && a.every((shape, i) => shape === b[i]));

const scaled = (drift: Drift, step: number): Drift =>
  step === 1
    ? drift
    : { ...drift, value: drift.value.map((v) => v * step), weight: drift.weight.map((w) => w * step) };

/** @param fail hears, in a sentence, when nothing can be measured any more */
export function createDrifts(fail: (text: string) => void = () => {}): Drifts {
  const known = new SvelteMap<string, ShapeDrift>();
  let all: DriftFigures | null = $state.raw(null);
  let measuredShapes = $state(0);
  let wanted: { art: Art; by: DriftSettings; first: readonly string[] } | null = null;
  /** The drawing that was summed up last. */
  let summed: Art | null = null;

  function next(): Shape[] {
    if (!wanted) return [];
    const { art, by, first } = wanted;
    const key = keyOf(by);
    const fresh = (s: Shape): boolean => {
      const k = known.get(s.id);
      if (k?.shape !== s || k.key !== key || k.spacing > by.spacing || !isAlike(k, art, s)) return false; // prettier-ignore
      // While a press lasts only what is in hand is looked at for what covers it: the rest when it is let go.
      const isLookedAt = by.spacing <= 1 || first.includes(s.id);
      return !isLookedAt || alike(k.coverers, coverersOf(art, s, by));
    };
    const shapes = shapesOf(art)
      .filter((p) => p.shown)
      .map((p) => p.shape);
    const urgent = shapes.filter((s) => first.includes(s.id) && !fresh(s));
    if (urgent.length > 0) return urgent.slice(0, AT_ONCE);
    const list: Shape[] = [];
    for (const s of shapes) {
      if (!fresh(s)) list.push(s);
      if (list.length >= AT_ONCE) break;
    }
    return list;
  }

  async function measureSome(shapes: readonly Shape[], by: DriftSettings, art: Art): Promise<void> {
    const key = keyOf(by);
    const wishes = shapes.map((s) => wishesOf(s, by, art));
    const { key: seen, pixels } = by.raster;
    const traced = await measureWorker.ask(seen, pixels, (work) => work.drift(seen, wishes.flat()));
    // The worker was ended for something else, has died, or has another picture by now: asked again.
    if (!traced) return;
    let at = 0;
    shapes.forEach((shape, i) => {
      const map = shapeMap(shape, by);
      const parts = wishes[i]!.map((_, k): PathDrift => {
        const { drift, follow } = traced[at++]!;
        const path = shape.paths[k]!;
        return { path, drift: leaveOut(scaled(drift, by.raster.step), meantSegments(path)), follow, map };
      });
      const figures = driftFigures(
        parts.map((p) => p.drift),
        by.within,
      );
      const coverers = coverersOf(art, shape, by);
      known.set(shape.id, {
        shape,
        key,
        parts,
        step: by.raster.step,
        spacing: by.spacing,
        figures,
        coverers,
        measured: isMeasured(art, shape),
        own: ownHex(art, shape),
      });
    });
    if (next().length === 0) sumUp();
  }
  const measureAll = workLoop(() => {
    const shapes = next();
    return wanted && shapes.length > 0 ? measureSome(shapes, wanted.by, wanted.art) : null;
  });

  const counted = new SvelteMap<string, ShapeEconomy>();
  /** The hand rests: nothing was measured anew since counting was asked for. */
  let resting = false;
  /** Shapes whose anchors are counted in this way are not counted again. */
  const economyKey = (by: DriftSettings): string => `${keyOf(by)} ${by.within}`;
  function nextToCount(): Shape | null {
    if (!wanted) return null;
    const { art, by, first } = wanted;
    const key = economyKey(by);
    const stale = (s: Shape): boolean => {
      const c = counted.get(s.id);
      return c?.shape !== s || c.key !== key || !isAlike(c, art, s) || !alike(c.coverers, coverersOf(art, s, by)); // prettier-ignore
    };
    const shapes = shapesOf(art).flatMap((p) => (p.shown ? [p.shape] : []));
    return shapes.find((s) => first.includes(s.id) && stale(s)) ?? shapes.find(stale) ?? null;
  }
  async function countOne(shape: Shape, by: DriftSettings, art: Art): Promise<void> {
    const { key: seen, pixels, step } = by.raster;
    const found = await reachWorker.ask(seen, pixels, (work) =>
      work.economy(seen, wishesOf(shape, by, art), by.within / step),
    );
    // The worker has died, or has another picture: counted at the next rest of the hand.
    if (!found) return void (resting = false);
    const { paths } = shape;
    counted.set(shape.id, {
      shape,
      key: economyKey(by),
      coverers: coverersOf(art, shape, by),
      measured: isMeasured(art, shape),
      own: ownHex(art, shape),
      anchors: found.reduce((n, e) => n + (e?.anchors ?? 0), 0),
      fewest: found.reduce((n, e) => n + (e?.fewest ?? 0), 0),
      spare: found.flatMap((e, k) => (e?.spare ?? []).map((index) => ({ path: paths[k]!.id, index }))),
    });
  }
  const countAll = workLoop(() => {
    const shape = resting ? nextToCount() : null;
    return wanted && shape ? countOne(shape, wanted.by, wanted.art) : null;
  });
  function sumUp(): void {
    if (!wanted) return;
    summed = wanted.art;
    const shown = shapesOf(wanted.art).flatMap((p) => (p.shown ? (known.get(p.shape.id) ?? []) : []));
    measuredShapes = shown.filter((s) => s.figures.measured > 0).length;
    all = driftFigures(
      shown.flatMap((s) => s.parts.map((p) => p.drift)),
      wanted.by.within,
    );
  }

  return {
    of: (shape) => known.get(shape) ?? null,
    get all() {
      return all;
    },
    get measuredShapes() {
      return measuredShapes;
    },
    economyOf: (shape) => {
      const known = counted.get(shape);
      return known && known.anchors > 0 ? known : null;
    },
    count() {
      resting = true;
      // Drift says it when its worker stops; anchors are counted with the next rest of the hand.
      void countAll().catch(() => {});
    },
    measure(art, by, first) {
      resting = false;
      const tolerance = wanted?.by.within;
      wanted = { art, by, first };
      if (tolerance !== undefined && tolerance !== by.within) {
        for (const [id, k] of known)
          known.set(id, {
            ...k,
            figures: driftFigures(
              k.parts.map((p) => p.drift),
              by.within,
            ),
          });
        sumUp();
      }
      // What only went, or was hidden, leaves nothing to measure but another sum.
      if (summed && summed !== art && next().length === 0) sumUp();
      measureAll().catch((error) => fail(error instanceof Error ? error.message : String(error)));
    },
  };
}
