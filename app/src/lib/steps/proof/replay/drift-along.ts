import { driftFigures, leaveOut, meantSegments, shapesOf, type Art, type Drift } from '@mirrot/core';
import { wishesOf, type DriftSettings } from '$lib/desk/drifts.svelte';
import { measureWorker } from '$lib/workers/trace';

// How far the drawing was from its picture while it grew.

/** Moments that are measured. */
const MOMENTS = 16;

/** Mean drift at a moment, picture pixels; NaN where nothing had an edge. */
export interface DriftMoment {
  readonly changes: number;
  readonly mean: number;
}

/**
 * Measures the drawing at moments of its growth, against the picture as it lies now. What did not change from one to the next
 * is measured once.
 *
 * @param tell hears the share that is done; @param isStopped is asked between moments
 * @returns null where it was stopped
 */
export async function driftAlong(
  artAt: (changes: number) => Promise<Art | null>,
  count: number,
  by: DriftSettings,
  tell: (share: number) => void,
  isStopped: () => boolean,
): Promise<DriftMoment[] | null> {
  const known = new Map<string, readonly Drift[]>();
  const { key, pixels, step } = by.raster;
  const moments: DriftMoment[] = [];
  for (let k = 0; k < MOMENTS; k++) {
    const changes = Math.round(((k + 1) * count) / MOMENTS);
    if (moments.at(-1)?.changes === changes) continue;
    const art = await artAt(changes);
    if (!art || isStopped()) return null;
    const drifts: Drift[] = [];
    for (const { shape, shown } of shapesOf(art)) {
      if (!shown) continue;
      const wishes = wishesOf(shape, by, art);
      const of = JSON.stringify(wishes);
      if (!known.has(of)) {
        const traced = await measureWorker.ask(key, pixels, (work) => work.drift(key, wishes));
        if (!traced || isStopped()) return null;
        known.set(of, traced.map(({ drift }, i) => leaveOut({ ...drift, value: drift.value.map((v) => v * step) }, meantSegments(shape.paths[i]!)))); // prettier-ignore
      }
      drifts.push(...known.get(of)!);
    }
    moments.push({ changes, mean: driftFigures(drifts, by.within).mean });
    tell((k + 1) / MOMENTS);
  }
  return moments;
}
