import { apply, shapesOf, type Art, type DriftedPlace, type MeasuredPath } from '@mirrot/core';
import type { Drifts } from './drifts.svelte';

/**
 * What is known of how far the drawing's lines lie from the picture: their places beyond a distance. What was measured of a
 * shape as it was before its last change is left out.
 *
 * @param beyond picture pixels
 */
export const measuredPaths = (drifts: Pick<Drifts, 'of'>, art: Art, beyond: number): MeasuredPath[] =>
  shapesOf(art).flatMap(({ shape, shown }) => {
    const known = shown ? drifts.of(shape.id) : null;
    if (known?.shape !== shape) return [];
    return known.parts.flatMap(({ path, drift, map }): MeasuredPath[] => {
      const places: DriftedPlace[] = [];
      let along = 0;
      drift.value.forEach((value, i) => {
        const weight = drift.weight[i]!;
        along += weight;
        if (!(Math.abs(value) > beyond)) return;
        const at = apply(map, { x: drift.x[i]!, y: drift.y[i]! });
        places.push({ at, drift: value, weight, along, segment: drift.segment[i]! });
      });
      return places.length === 0 ? [] : [{ shape: shape.id, path: path.id, places }];
    });
  });
