import type { Drift } from './drift';

/** A drift without the entries of some segments: those that leave the picture on purpose. */
export function leaveOut(drift: Drift, segments: ReadonlySet<number>): Drift {
  if (segments.size === 0) return drift;
  const kept: number[] = [];
  drift.segment.forEach((s, i) => {
    if (!segments.has(s)) kept.push(i);
  });
  const pick = (v: Float64Array): Float64Array => Float64Array.from(kept, (i) => v[i]!);
  return {
    segment: Int32Array.from(kept, (i) => drift.segment[i]!),
    t: pick(drift.t),
    x: pick(drift.x),
    y: pick(drift.y),
    nx: pick(drift.nx),
    ny: pick(drift.ny),
    weight: pick(drift.weight),
    value: pick(drift.value),
    strength: pick(drift.strength),
    covered: Uint8Array.from(kept, (i) => drift.covered[i]!),
    nearCorner: Uint8Array.from(kept, (i) => drift.nearCorner[i]!),
  };
}
