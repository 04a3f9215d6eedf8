import type { Drift } from './drift';

export interface DriftFigures {
  /** Length that has an edge, what something lies over, what is near corners, and the path's whole length. */
  readonly measured: number;
  readonly covered: number;
  readonly nearCorners: number;
  readonly length: number;
  /** Mean size, weighted by length; NaN where nothing is measured, as are the other figures. */
  readonly mean: number;
  /** The size that 95 % of the measured length stays within. */
  readonly p95: number;
  /** The largest, signed. */
  readonly worst: number;
  /** Share of the measured length within the tolerance. */
  readonly within: number;
}

/** Figures of drifts together: of a path, a shape, all. `only` keeps to one segment of a single drift. */
export function driftFigures(drifts: readonly Drift[], tolerance: number, only?: number): DriftFigures {
  let [measured, covered, nearCorners, length, sum, inside, worst] = [0, 0, 0, 0, 0, 0, 0];
  const counts = (d: Drift, i: number): boolean => only === undefined || d.segment[i] === only;
  for (const d of drifts)
    for (let i = 0; i < d.value.length; i++) {
      if (!counts(d, i)) continue;
      const weight = d.weight[i]!;
      length += weight;
      covered += d.covered[i]! * weight;
      nearCorners += d.nearCorner[i]! * weight;
      const v = d.value[i]!;
      if (Number.isNaN(v)) continue;
      const size = Math.abs(v);
      measured += weight;
      sum += size * weight;
      if (size <= tolerance) inside += weight;
      if (size > Math.abs(worst)) worst = v;
    }
  if (measured === 0)
    return { measured, covered, nearCorners, length, mean: NaN, p95: NaN, worst: NaN, within: NaN };
  // The size that nearly all stay within: shared out into bins, so that only the one it falls into is put in order.
  const binOf = (size: number): number => Math.floor(size * ((BINS - 1) / (Math.abs(worst) || 1)));
  const each = (told: (size: number, weight: number) => void): void => {
    for (const d of drifts)
      for (let i = 0; i < d.value.length; i++)
        if (counts(d, i) && !Number.isNaN(d.value[i]!)) told(Math.abs(d.value[i]!), d.weight[i]!);
  };
  const bins = new Float64Array(BINS);
  each((size, weight) => (bins[binOf(size)]! += weight));
  const enough = P95_SHARE * measured - 1e-9;
  let [upTo, bin] = [0, 0];
  while (bin < BINS - 1 && upTo + bins[bin]! < enough) upTo += bins[bin++]!;
  const inBin: { size: number; weight: number }[] = [];
  each((size, weight) => {
    if (binOf(size) === bin) inBin.push({ size, weight });
  });
  inBin.sort((a, b) => a.size - b.size);
  const p95 = inBin.find((s) => (upTo += s.weight) >= enough)?.size ?? inBin.at(-1)?.size ?? NaN;
  return {
    measured,
    covered,
    nearCorners,
    length,
    mean: sum / measured,
    p95,
    worst,
    within: inside / measured,
  };
}

/** Share of the measured length that `p95` tells of, and bins in which it is looked for. */
const P95_SHARE = 0.95;
const BINS = 256;
