import type { Oklab } from '../colour/oklab';
import { turnAt, type Path } from '../path/path';
import { pulledBy, toPlaces, type Found } from './drift-places';
import type { Light } from './edge-profile';
import { clearanceAt } from './corner-clearance';
import { coveredPlaces, type Cover } from './covers';
import { strangeness } from './own-side';
import { unlikeness } from './unlikeness';
import { withoutBumps } from './without-bumps';
import { hillTop } from '../geometry/hill-top';
import type { FieldTiles } from './field-tiles';
import { leastStrength } from './noise';
import { chainsOf, type Station } from './stations';
import { profiles, smoothRows, rectifyPolarity, track } from './drift-track';

/** What drift follows: the border between two areas, or the middle of a drawn stroke. */
export type Follow = 'edge' | 'middle';

export interface DriftOptions {
  /** How far to either side the edge is looked for, in picture pixels. */
  readonly reach: number;
  /** Along the path a value each so many pixels; 1 when left out. */
  readonly spacing?: number;
  /**
   * Width of the drawn stroke whose middle is followed, by an edge field: both its borders are looked for, half a width to
   * either side, so that unlike ground on both sides pulls nothing (as it does a bend, Steger 1998).
   */
  readonly stroke?: number;
  /** Bumps of the edge shorter than this along the path are ignored, picture pixels; none when left out. */
  readonly detail?: number;
  /** Where a blurred edge counts as being; as it looks when left out. */
  readonly light?: Light;
  /** The shape's colour as the picture has it: of two edges that which has it on its inner side is the shape's. */
  readonly own?: Oklab;
  /** The other side counts as positive: holes, and pictures that lie mirrored. */
  readonly flip?: boolean;
  /** Its corners lie only about where the picture's are, as while it is settled: more of their sides is left out. */
  readonly cornersSought?: boolean;
  /** What lies over the path, in picture pixels: where it is covered the picture shows something else, and nothing is measured. */
  readonly covers?: readonly Cover[];
}

/**
 * Drift along a path: one entry for each pixel or so of its length, in order. Sides: positive away from the fill of a
 * closed path, to the left (as seen on screen) along an open one. All in picture pixels.
 */
export interface Drift {
  readonly segment: Int32Array;
  /** Parameter on the segment. */
  readonly t: Float64Array;
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Unit normal to the positive side. */
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  /** Length of the path that the entry stands for. */
  readonly weight: Float64Array;
  /** Distance to the edge; NaN where there is none to speak of. */
  readonly value: Float64Array;
  /** How strong the edge is there, in the field's unit. */
  readonly strength: Float64Array;
  /** 1 where something lies over it; 0 elsewhere. */
  readonly covered: Uint8Array;
  /** 1 where an edge is in sight, but so near to a corner that nothing is said of it; 0 elsewhere. */
  readonly nearCorner: Uint8Array;
}

/** Steps in which the normal is looked along, pixels; where the path is looked at in few places, longer ones do. */
const NORMAL_STEP_PX = 0.5;
const LONG_STEP = 1;
const FEW = 1.5;
/** Shorter tracks than this are chance, pixels. */
const SHORTEST = 9;

/**
 * How far a path lies from the picture's edge: along it, at a pixel's spacing, the field is looked at along the normal, one
 * consistent track is taken through all of it, and its peak is read between the steps by a parabola. Near corners, where a
 * blurred edge is round, where nothing stands out from the grain, and where something lies over the path, there is no value.
 *
 * @param path in picture pixels
 * @throws RangeError for a reach of 0 or less
 */
export function measureDrift(
  path: Path,
  field: FieldTiles,
  {
    reach,
    flip = false,
    spacing = 1,
    stroke = 0,
    detail = 0,
    covers = [],
    cornersSought = false,
    light: wanted = 'looks',
    own,
  }: DriftOptions,
): Drift {
  if (!(reach > 0)) throw new RangeError(`Drift needs a reach above 0; it was ${reach}.`);
  // Of a stroke's two borders and of lines what one side is tells nothing.
  const light = field.kind === 'edge' && stroke === 0 ? wanted : null;
  const step = spacing > FEW ? LONG_STEP : NORMAL_STEP_PX;
  const half = Math.max(2, Math.min(80, Math.round(reach / step)));
  const wide = 2 * half + 1;
  const whole = chainsOf(path, flip, spacing);
  const { pieces, ring, hidden } = inSight(whole, path, covers);
  const chains = pieces.map(({ stations }) => stations);
  const raw = chains.map((c) => profiles(c, field, half, step, stroke / 2));
  if (field.kind === 'line') rectifyPolarity(raw, wide);
  const rows = raw.map((r, i) => smoothRows(r, chains[i]!.length, wide, ring));
  const { width, height } = field.raster;
  const pixel = Math.round(1 / step);
  const unlikeAt = own && light ? unlikeness(field.raster, own) : null;
  const tracked = chains.map((stations, c) => {
    const row = rows[c]!;
    const thresholds = thresholdsAlong(stations, field, ring);
    const strange = unlikeAt && strangeness(stations, row, field, half, step, thresholds, unlikeAt, ring);
    const ks = track(row, stations.length, half, step, thresholds, ring, spacing, strange?.cost ?? null);
    return stations.map((station, i): Picked => {
      let k = ks[i]!;
      const inside =
        station.at.x >= 0 && station.at.y >= 0 && station.at.x <= width && station.at.y <= height;
      if (k < 0 || !inside) return { station, value: NaN, strength: 0, reversed: false };
      const s = (m: number): number => row[i * wide + m]!;
      // Up to the top of the hill the track runs along.
      while (k > 0 && s(k - 1) > s(k)) k--;
      while (k + 1 < wide && s(k + 1) > s(k)) k++;
      if (k === 0 || k === wide - 1 || s(k) < thresholds[i]!) return { station, value: NaN, strength: s(k), reversed: false }; // prettier-ignore
      // Told at the top of the hill, whose shoulder may be what was tracked.
      const reversed = strange?.reversed[i * wide + k] === 1;
      // Far up it is another edge's, and this one its shoulder: the picture's own pixels tell them apart.
      const shoulder =
        light !== null && Math.abs(k - ks[i]!) * step > SHOULDER_PX && s(ks[i]!) >= thresholds[i]!;
      if (shoulder) return { station, value: (ks[i]! - half) * step, strength: s(ks[i]!), reversed };
      const off = hillTop(s(Math.max(0, k - pixel)), s(k), s(Math.min(wide - 1, k + pixel))) / 2;
      return { station, value: (k - half) * step + off, strength: s(k), reversed };
    });
  });
  dropReversed(tracked.flat());
  const values: Picked[] = [];
  tracked.forEach((found, c) => {
    let soft = field.blur;
    if (light) soft = toPlaces(found, field.raster, { light, spacing, ring });
    else if (field.kind === 'edge')
      for (const f of found) f.value += pulledBy(field.blur ** 2 + PIXEL_VARIANCE, f.station.bend);
    if (!ring) dropNearCorners(found, soft, cornersSought, pieces[c]!);
    dropSteep(found, ring);
    dropShort(found, ring);
    if (detail > 0)
      withoutBumps(
        found.map((f) => f.value),
        detail,
        spacing,
        ring,
      ).forEach((v, i) => (found[i]!.value = v));
    values.push(...found);
  });
  for (const station of hidden) values.push({ station, value: NaN, strength: 0, reversed: false });
  const covered = new Set(hidden);
  values.sort((a, b) => a.station.segment - b.station.segment || a.station.t - b.station.t);
  const n = values.length;
  const drift = {
    segment: new Int32Array(n), t: new Float64Array(n), x: new Float64Array(n), y: new Float64Array(n),
    nx: new Float64Array(n), ny: new Float64Array(n), weight: new Float64Array(n), value: new Float64Array(n), strength: new Float64Array(n), covered: new Uint8Array(n), nearCorner: new Uint8Array(n),
  }; // prettier-ignore
  values.forEach(({ station, value, strength, nearCorner }, i) => {
    drift.segment[i] = station.segment;
    drift.t[i] = station.t;
    drift.x[i] = station.at.x;
    drift.y[i] = station.at.y;
    drift.nx[i] = station.n.x;
    drift.ny[i] = station.n.y;
    drift.weight[i] = station.weight;
    drift.value[i] = value;
    drift.strength[i] = strength;
    drift.covered[i] = covered.has(station) ? 1 : 0;
    drift.nearCorner[i] = nearCorner ? 1 : 0;
  });
  return drift;
}

/** An edge as it was picked across a station. */
interface Picked extends Found {
  strength: number;
  /** The shape's colour lies on its outer side. */
  readonly reversed: boolean;
  /** An edge was seen there, so near to a corner that its value was taken away. */
  nearCorner?: boolean;
}

/** Where a larger share of what is seen is reversed the colour is not the picture's: then it tells nothing. */
const REVERSED_AT_MOST = 0.25;
/** Takes away where the edge bounds something else: the shape's colour goes on beyond the path, or a hole lies within. */
function dropReversed(found: readonly Picked[]): void {
  const seen = found.filter(({ value }) => !Number.isNaN(value));
  const long = (list: readonly Picked[]): number =>
    list.reduce((sum, { station }) => sum + station.weight, 0);
  const wrong = seen.filter(({ reversed }) => reversed);
  if (long(wrong) <= REVERSED_AT_MOST * long(seen)) for (const f of wrong) f.value = NaN;
}

/** How strong a track must be at each station: what the ground there asks, evened out so that tiles leave no step. */
function thresholdsAlong(stations: readonly Station[], field: FieldTiles, ring: boolean): Float64Array {
  const n = stations.length;
  const least = Float64Array.from(stations, ({ at }) => leastStrength(field, at));
  const far = Math.min(n - 1, Math.round(EVENED_PX / Math.max(1e-9, stations[0]!.weight)));
  const upTo = new Float64Array(n + 1);
  least.forEach((v, i) => (upTo[i + 1] = upTo[i]! + v));
  return least.map((_, i) => {
    const [from, to] = [i - far, i + far + 1];
    const inside = upTo[Math.min(n, to)]! - upTo[Math.max(0, from)]!;
    if (!ring || 2 * far + 1 >= n) return inside / (Math.min(n, to) - Math.max(0, from));
    const before = from < 0 ? upTo[n]! - upTo[n + from]! : 0;
    const after = to > n ? upTo[to - n]! : 0;
    return (inside + before + after) / (to - from);
  });
}
/** Along so much of the path to either side, pixels. */
const EVENED_PX = 64;
/** A pixel's own extent adds to the field's variance. */
const PIXEL_VARIANCE = 0.25;
/** An edge's shoulder is no part of it farther than this from its top, pixels. */
const SHOULDER_PX = 2;

/** Stations that follow each other in sight. */
interface Piece {
  readonly stations: Station[];
  /**
   * How sharply the line turns before it and after it, radians: at a corner, or not at all where a cover parts it; null where an
   * open path begins or ends and the line is whole.
   */
  readonly turnBefore: number | null;
  readonly turnAfter: number | null;
}

/** Chains without what is covered: parted there, so that no track runs on beneath. */
function inSight(
  { chains, ring }: ReturnType<typeof chainsOf>,
  path: Path,
  covers: readonly Cover[],
): { readonly pieces: Piece[]; readonly ring: boolean; readonly hidden: Station[] } {
  const isCovered = coveredPlaces(path, covers);
  const hidden: Station[] = [];
  const pieces = chains.flatMap((chain): Piece[] => {
    const runs: Station[][] = [[]];
    for (const station of chain) {
      if (!isCovered(station.at)) runs.at(-1)!.push(station);
      else {
        hidden.push(station);
        runs.push([]);
      }
    }
    // A ring that is parted somewhere runs on from its end into its beginning.
    if (ring && runs.length > 1) runs[0] = [...runs.pop()!, ...runs[0]!];
    const [first, last] = [chain[0], chain.at(-1)];
    return runs
      .filter((stations) => stations.length > 0)
      .map((stations) => ({
        stations,
        turnBefore: stations[0] === first ? turnAt(path, first!.segment) : 0,
        turnAfter: stations.at(-1) === last ? turnAt(path, (last!.segment + 1) % path.anchors.length) : 0,
      }));
  });
  return { pieces, ring: ring && hidden.length === 0, hidden };
}

/** Takes the values near a piece's ends away where it goes on: a blurred edge is round at corners, and another's at covers. */
function dropNearCorners(
  found: readonly Picked[],
  soft: number,
  cornersSought: boolean,
  { turnBefore, turnAfter }: Piece,
): void {
  const clear = (list: typeof found, turn: number | null): void => {
    if (turn === null) return;
    const within = clearanceAt(turn, soft, cornersSought ? 'sought' : 'known');
    let gone = 0;
    for (const f of list) {
      if (gone >= within) return;
      gone += f.station.weight;
      f.nearCorner = !Number.isNaN(f.value);
      f.value = NaN;
    }
  };
  clear(found, turnBefore);
  clear([...found].reverse(), turnAfter);
}

/** A track that goes aside faster than this crosses the path: it is another edge. */
const STEEPEST = 0.55;
/** Takes away where the track runs across the path instead of along it. */
function dropSteep(found: readonly Found[], ring: boolean): void {
  const n = found.length;
  const at = (i: number) => found[ring ? (i + n) % n : Math.max(0, Math.min(n - 1, i))]!;
  const steep = found.map(({ value }, i) => {
    if (Number.isNaN(value)) return false;
    const [before, after] = [at(i - 2), at(i + 2)];
    const [from, to] = [Number.isNaN(before.value) ? value : before.value, Number.isNaN(after.value) ? value : after.value]; // prettier-ignore
    const steps = (Number.isNaN(before.value) ? 0 : 2) + (Number.isNaN(after.value) ? 0 : 2);
    return steps > 0 && Math.abs(to - from) > STEEPEST * steps * at(i).station.weight;
  });
  steep.forEach((s, i) => {
    if (s) found[i]!.value = NaN;
  });
}

/** Takes away tracks too short to be more than chance. */
function dropShort(found: readonly Found[], ring: boolean): void {
  const n = found.length;
  for (let i = 0; i < n;) {
    if (Number.isNaN(found[i]!.value)) {
      i++;
      continue;
    }
    let end = i;
    let long = 0;
    while (end < n && !Number.isNaN(found[end]!.value)) long += found[end++]!.station.weight;
    const open = ring && (i === 0 || end === n);
    if (long < SHORTEST && !open) for (let k = i; k < end; k++) found[k]!.value = NaN;
    i = end;
  }
}
