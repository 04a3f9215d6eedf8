import { chooseInk, INKS, wholePaths, type PlacedPicture, type Shape } from '@mirrot/core';
import { SvelteMap } from 'svelte/reactivity';
import { pixelsKey, type LoadedPicture } from './rasters';

/** Tracing inks of shapes. They belong to the desk, not to the art. */
export interface Inks {
  /** Pixels of the traced picture's working copy, with how many picture pixels one of them is. */
  raster: LoadedPicture | null;
  /** The ink a shape's paths are shown in. */
  of(shape: Shape, layerInk: string | null): string;
  /** Chooses the ink of a shape against the picture; an ink in use stays unless another is far clearer. */
  choose(shape: Shape, picture: PlacedPicture | null): void;
  /** Chooses inks for all shapes, some at a time, so that the page stays free. */
  chooseAll(shapes: readonly Shape[], picture: PlacedPicture | null): () => void;
}

const AT_ONCE = 40;

export function createInks(): Inks {
  const chosen = new SvelteMap<string, string>();
  let raster: Inks['raster'] = $state.raw(null);
  const inks: Inks = {
    get raster() {
      return raster;
    },
    set raster(value) {
      raster = value;
    },
    of: (shape, layerInk) => layerInk ?? chosen.get(shape.id) ?? INKS[1].hex,
    choose(shape, picture) {
      if (!raster || !picture || raster.key !== pixelsKey(picture)) return;
      const [a, b, c, d, e, f] = picture.placement;
      const k = raster.step;
      const placement = [a * k, b * k, c * k, d * k, e, f] as const;
      const ink = chooseInk(
        wholePaths(shape),
        raster.pixels,
        placement,
        picture.wash,
        chosen.get(shape.id) ?? null,
      );
      if (ink !== chosen.get(shape.id)) chosen.set(shape.id, ink);
    },
    chooseAll(shapes, picture) {
      let next = 0;
      let timer: ReturnType<typeof setTimeout> | null = null;
      const some = (): void => {
        for (const shape of shapes.slice(next, next + AT_ONCE)) inks.choose(shape, picture);
        next += AT_ONCE;
        timer = next < shapes.length ? setTimeout(some, 4) : null;
      };
      some();
      return () => timer && clearTimeout(timer);
    },
  };
  return inks;
}
