import { add, scale } from '../geometry/vector';
import type { Raster } from '../picture/raster';
import { nearestParabola } from '../geometry/parabola';
import { MOST_MOVED_PX, placesAcross, type Light } from './edge-profile';
import type { Station } from './stations';

/** Where the edge lies from a station along its normal, pixels; NaN where there is none. */
export interface Found {
  readonly station: Station;
  value: number;
}

/**
 * A Gaussian pulls a bent edge towards the centre it bends about, by half its variance over the radius; the path stands for
 * the edge in how it bends.
 */
export function pulledBy(variance: number, bend: number): number {
  const tightest = 1 / (4 * Math.sqrt(variance));
  return (variance * Math.max(-tightest, Math.min(tightest, bend))) / 2;
}

/** Places so far apart are read across, pixels. */
const READ_APART_PX = 2;

/** Tracks are calmed over so many pixels to either side before they are looked at again. */
const CALMED_PX = 10;
/** Values farther apart than this belong to two edges, pixels. */
const ASIDE_PX = 1.5;

/** Each value the mean of those about it that follow it without a jump, as far to one side as to the other. */
function evenedAlong(found: readonly { value: number }[], reach: number): number[] {
  const far = Math.round(reach);
  return found.map(({ value }, i) => {
    let [sum, count] = [value, 1];
    for (let k = 1; k <= far; k++) {
      const [a, b] = [found[i - k], found[i + k]];
      if (!a || !b || Math.abs(a.value + b.value - 2 * value) > 2 * ASIDE_PX) break;
      sum += a.value + b.value;
      count += 2;
    }
    return sum / count;
  });
}

/** What is so grainy that rows calm each other over more than this is evened along after it is read, too, pixels. */
const GRAINY_PX = 4;
/** It is evened over so many of those to either side: a parabola over 5 deviations is as calm as a mean over 2 of them. */
const EVENED_IN_CALMS = 2.5;

/** Each value on the parabola nearest to those about it that follow without a jump: what bends along the path stays. */
function onParabolas(found: readonly { value: number }[], reach: number): number[] {
  const far = Math.round(reach);
  return found.map(({ value }, i) => {
    const rows = [{ s: 0, p: { x: value, y: 0 } }];
    for (const way of [-1, 1])
      for (let k = 1; k <= far; k++) {
        const [one, next] = [found[i + way * (k - 1)]!, found[i + way * k]];
        if (!next || Math.abs(next.value - one.value) > ASIDE_PX) break;
        rows.push({ s: way * k, p: { x: next.value, y: 0 } });
      }
    return nearestParabola(rows).curve.at.x;
  });
}

/**
 * Values told by the field moved to where the light has the edge; those that see none there, as the nearest before them.
 *
 * @returns how softly they were read: standard deviation, pixels
 */
export function toPlaces(
  found: readonly Found[],
  raster: Raster,
  { light, spacing, ring }: { light: Light; spacing: number; ring: boolean },
): number {
  const known = found.filter(({ value }) => !Number.isNaN(value));
  evenedAlong(known, CALMED_PX / spacing).forEach((value, i) => (known[i]!.value = value));
  const every = spacing < READ_APART_PX ? Math.round(READ_APART_PX / spacing) : 1;
  const read = known.filter((_, i) => i % every === 0);
  const whole = ring && known.length === found.length && known.length % every === 0;
  const across = placesAcross(
    raster,
    read.map(({ station: { at, n }, value }) => ({ at: add(at, scale(n, value)), n })),
    light,
    { spacing: every * spacing, ring: whole },
  );
  /** Where the edge lies is told evenly between the places that are read; NaN where either is not seen. */
  const edgeAt = (k: number): number => read[k]!.value + across.off[k]!;
  const off = known.map((f, i) => {
    const [k, t] = [Math.floor(i / every), (i % every) / every];
    const next = whole ? (k + 1) % read.length : Math.min(read.length - 1, k + 1);
    return t === 0 ? across.off[k]! : edgeAt(k) + t * (edgeAt(next) - edgeAt(k)) - f.value;
  });
  let by = off.find((v) => Math.abs(v) <= MOST_MOVED_PX) ?? 0;
  known.forEach((f, i) => {
    const seen = Math.abs(off[i]!) <= MOST_MOVED_PX;
    if (seen) by = off[i]!;
    // What lenses do to a bend shows in the picture: it is so as it looks.
    f.value +=
      by +
      (seen && light === 'true' ? pulledBy(across.blur[Math.floor(i / every)]! ** 2, f.station.bend) : 0);
  });
  if (across.calm > GRAINY_PX) {
    const even = onParabolas(known, (EVENED_IN_CALMS * across.calm) / spacing);
    known.forEach((f, i) => (f.value = even[i]!));
  }
  return across.soft;
}
