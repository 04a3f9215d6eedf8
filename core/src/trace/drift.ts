import { cubicCurvature, cubicDerivative, cubicPoint, cubicTangent, type Cubic } from '../geometry/cubic';
import { unit, type Point } from '../geometry/vector';
import { pathArea, pathCubics, type Path } from '../path/path';
import { withoutBumps } from './detail';
import { formsAlong, hillTop, type FieldTiles } from './field';

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
  /** The other side counts as positive: holes, and pictures that lie mirrored. */
  readonly flip?: boolean;
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
}

/** Steps in which the normal is looked along, pixels; where the path is looked at in few places, longer ones do. */
const STEP = 0.5;
const LONG_STEP = 1;
const FEW = 1.5;
/** Slopes, and bends, below which there is nothing to speak of, in OKLab units per pixel (squared). */
const LEAST: Readonly<Record<FieldTiles['kind'], number>> = { edge: 0.006, line: 0.0025 };
/** A track counts where it is this many times as strong as the quiet quarter of what is seen about the path. */
const ABOVE_NOISE = 5;
/** An anchor where the line turns by more than this is a corner: the track begins anew. */
export const CORNER = Math.cos((25 * Math.PI) / 180);
/** Shorter tracks than this are chance, pixels. */
const SHORTEST = 9;

interface Station {
  readonly segment: number;
  readonly t: number;
  readonly at: Point;
  readonly n: Point;
  readonly weight: number;
  /** Curvature, positive where the path bends away from the positive side. */
  readonly bend: number;
}

/** Places along a cubic at even lengths, about so many pixels apart, in the middles of their stretches. */
function evenly(c: Cubic, spacing: number): { t: number; weight: number }[] {
  const rough = Math.hypot(c[1].x - c[0].x, c[1].y - c[0].y) + Math.hypot(c[2].x - c[1].x, c[2].y - c[1].y) + Math.hypot(c[3].x - c[2].x, c[3].y - c[2].y); // prettier-ignore
  const fine = Math.max(8, Math.min(4000, Math.ceil(rough / 2)));
  const upTo = new Float64Array(fine + 1);
  let before = c[0];
  for (let k = 1; k <= fine; k++) {
    const p = cubicPoint(c, k / fine);
    upTo[k] = upTo[k - 1]! + Math.hypot(p.x - before.x, p.y - before.y);
    before = p;
  }
  const long = upTo[fine]!;
  if (!(long > 0)) return [];
  const count = Math.max(1, Math.round(long / spacing));
  const out: { t: number; weight: number }[] = [];
  let k = 0;
  for (let i = 0; i < count; i++) {
    const s = ((i + 0.5) * long) / count;
    while (k + 1 < fine && upTo[k + 1]! < s) k++;
    const stretch = upTo[k + 1]! - upTo[k]!;
    out.push({ t: (k + (stretch > 0 ? (s - upTo[k]!) / stretch : 0)) / fine, weight: long / count });
  }
  return out;
}

/** Stations in chains between the path's corners; a ring without a corner is one chain that runs on into itself. */
function chainsOf(path: Path, flip: boolean, spacing: number): { chains: Station[][]; ring: boolean } {
  const cubics = pathCubics(path);
  const left = (path.closed && pathArea(path) < 0 ? -1 : 1) * (flip ? -1 : 1);
  const ends = cubics.map((c) => [unit(cubicTangent(c, 0)), unit(cubicTangent(c, 1))] as const);
  const isCorner = (before: number, after: number): boolean => {
    const [a, b] = [ends[before]?.[1], ends[after]?.[0]];
    return !a || !b || a.x * b.x + a.y * b.y < CORNER;
  };
  const chains: Station[][] = [];
  let chain: Station[] = [];
  cubics.forEach((c, segment) => {
    if (segment > 0 && isCorner(segment - 1, segment)) {
      chains.push(chain);
      chain = [];
    }
    for (const { t, weight } of evenly(c, spacing)) {
      const d = unit(cubicDerivative(c, t)) ?? unit(cubicTangent(c, t));
      if (!d) continue;
      const bend = left * cubicCurvature(c, t);
      chain.push({ segment, t, at: cubicPoint(c, t), n: { x: d.y * left, y: -d.x * left }, weight, bend });
    }
  });
  chains.push(chain);
  const closes = path.closed && cubics.length > 0 && !isCorner(cubics.length - 1, 0);
  if (closes && chains.length > 1) {
    // The last chain goes on as the first.
    const last = chains.pop()!;
    chains[0] = [...last, ...chains[0]!];
  }
  return { chains: chains.filter((q) => q.length > 0), ring: closes && chains.length === 1 };
}

/**
 * Strength of the field along the normal of every station: offsets −reach … reach by steps, one row a station. Of a
 * stroke the geometric mean of its borders' strengths, `beside` to either side.
 */
function profiles(
  stations: readonly Station[],
  field: FieldTiles,
  half: number,
  step: number,
  beside: number,
): Float32Array {
  const wide = 2 * half + 1;
  const out = new Float32Array(stations.length * wide);
  const other = new Float32Array(beside > 0 ? wide : 0);
  stations.forEach(({ at, n }, i) => {
    const from = i * wide;
    formsAlong(field, at, n, -half * step - beside, step, wide, out, from);
    if (field.kind === 'line') return;
    if (beside > 0) formsAlong(field, at, n, -half * step + beside, step, wide, other);
    for (let k = 0; k < wide; k++) {
      const v = out[from + k]!;
      const strong = beside > 0 ? Math.sqrt(Math.max(0, v * other[k]!)) : v;
      out[from + k] = Math.sqrt(Math.max(0, strong));
    }
  });
  return out;
}

/** Of a line field: bright strokes bend down, dark ones up; the whole path follows whichever is stronger. */
function towards(rows: Float32Array[], wide: number): void {
  let [bright, dark] = [0, 0];
  for (const row of rows)
    for (let i = 0; i < row.length; i += wide) {
      let [low, high] = [0, 0];
      for (let k = 0; k < wide; k++) {
        low = Math.min(low, row[i + k]!);
        high = Math.max(high, row[i + k]!);
      }
      bright -= low;
      dark += high;
    }
  const sign = bright > dark ? -1 : 1;
  for (const row of rows) for (let i = 0; i < row.length; i++) row[i] = Math.max(0, sign * row[i]!);
}

/** Weights of a station's two neighbours to either side and of itself, by which grain matters less. */
const CALM = [1, 4, 6, 4, 1] as const;

function smoothed(rows: Float32Array, count: number, wide: number, ring: boolean): Float32Array {
  const out = new Float32Array(rows.length);
  for (let i = 0; i < count; i++) {
    const to = i * wide;
    // Beyond an end there is nothing to count.
    const [from, weight] = [
      [0, 0, 0, 0, 0],
      [0, 0, 0, 0, 0],
    ];
    let sum = 0;
    for (let w = 0; w < 5; w++) {
      const j = ring ? (i + w - 2 + count) % count : i + w - 2;
      if (j < 0 || j >= count) continue;
      sum += CALM[w]!;
      from[w] = j * wide;
      weight[w] = CALM[w]!;
    }
    const [a, b, c, d, e] = from as Five;
    const [va, vb, vc, vd, ve] = weight.map((v) => v / sum) as Five;
    for (let k = 0; k < wide; k++)
      out[to + k] = va * rows[a + k]! + vb * rows[b + k]! + vc * rows[c + k]! + vd * rows[d + k]! + ve * rows[e + k]!; // prettier-ignore
  }
  return out;
}
type Five = [number, number, number, number, number];

/** Cost of leaving the track or coming back to it, of moving aside by a pixel, and of lying far off. */
const SWITCH = 1.2;
const ASIDE = 0.12;
const FAR = 0.12;
/** Pixels that a track may move aside along each pixel. */
const MOST_ASIDE = 1;

/** A ring's track goes on so far beyond its seam either way, so that it is one there too, pixels. */
const LAP = 160;

/**
 * The best track through the profiles: at each station an offset or "no edge". Dynamic programming over all of them
 * (Bellman 1957), so that the track does not hop to a neighbouring edge. A ring is begun before its seam and ended beyond.
 */
function track(
  rows: Float32Array,
  count: number,
  half: number,
  step: number,
  threshold: number,
  ring: boolean,
  spacing: number,
): Int32Array {
  const wide = 2 * half + 1;
  const none = wide;
  const aside = Math.ceil((MOST_ASIDE * spacing) / step);
  const lap = ring ? Math.min(count >> 1, Math.ceil(LAP / spacing)) : 0;
  const total = count + 2 * lap;
  /** Of each station the cost so far at every offset, and at "no edge"; before the first one all cost nothing. */
  const each = wide + 1;
  const costs = new Float64Array((total + 1) * each);
  const far = Float64Array.from({ length: wide }, (_, k) => (FAR * Math.abs(k - half)) / half);
  const twice = 2 * threshold;
  // Room beyond both ends, where nothing can come from.
  let near = new Float64Array(wide + 2 * aside).fill(Infinity);
  let nearer = near.slice();
  for (let i = 0; i < total; i++) {
    const row = ((i + count - lap) % count) * wide;
    const before = i * each;
    const here = before + each;
    let best = Infinity;
    for (let k = 0; k < wide; k++) {
      const c = costs[before + k]!;
      near[aside + k] = c;
      best = Math.min(best, c);
    }
    // The least within reach aside: within one step, then three, and so on, each from the one before.
    for (let reached = 0; reached < aside;) {
      const s = Math.min(reached + 1, aside - reached);
      const toll = s * step * ASIDE;
      for (let k = aside; k < aside + wide; k++)
        nearer[k] = Math.min(near[k]!, Math.min(near[k - s]!, near[k + s]!) + toll);
      [near, nearer] = [nearer, near];
      reached += s;
    }
    const stays = costs[before + none]!;
    const comes = stays + SWITCH;
    for (let k = 0; k < wide; k++) {
      const s = rows[row + k]!;
      costs[here + k] = Math.min(near[aside + k]!, comes) - s / (s + twice) + far[k]!;
    }
    costs[here + none] = Math.min(stays, best + SWITCH) - 1 / 3;
  }
  /** The cheapest offset from `low` to `high` to have come from, `toll` a step away from `k`; "no edge" where `least` is less. */
  const cameFrom = (
    at: number,
    low: number,
    high: number,
    k: number,
    toll: number,
    least: number,
  ): number => {
    let from = none;
    for (let m = low; m <= high; m++) {
      const c = costs[at + m]! + toll * Math.abs(m - k);
      if (c < least) [least, from] = [c, m];
    }
    return from;
  };
  let k = cameFrom(total * each, 0, wide - 1, 0, 0, costs[total * each + none]!);
  const out = new Int32Array(count);
  for (let i = total - 1; i >= 0; i--) {
    if (i >= lap && i < lap + count) out[(i + count - lap) % count] = k === none ? -1 : k;
    const before = i * each;
    const stays = costs[before + none]!;
    k =
      k === none
        ? cameFrom(before, 0, wide - 1, 0, 0, stays - SWITCH)
        : cameFrom(
            before,
            Math.max(0, k - aside),
            Math.min(wide - 1, k + aside),
            k,
            step * ASIDE,
            stays + SWITCH,
          );
  }
  return out;
}

/**
 * How far a path lies from the picture's edge: along it, at a pixel's spacing, the field is looked at along the normal, one
 * consistent track is taken through all of it, and its peak is read between the steps by a parabola. Near corners, where a
 * blurred edge is round, and where nothing stands out from the grain, there is no value.
 *
 * @param path in picture pixels
 * @throws RangeError for a reach of 0 or less
 */
export function measureDrift(
  path: Path,
  field: FieldTiles,
  { reach, flip = false, spacing = 1, stroke = 0, detail = 0 }: DriftOptions,
): Drift {
  if (!(reach > 0)) throw new RangeError(`Drift needs a reach above 0; it was ${reach}.`);
  const step = spacing > FEW ? LONG_STEP : STEP;
  const half = Math.max(2, Math.min(80, Math.round(reach / step)));
  const wide = 2 * half + 1;
  const { chains, ring } = chainsOf(path, flip, spacing);
  const raw = chains.map((c) => profiles(c, field, half, step, stroke / 2));
  if (field.kind === 'line') towards(raw, wide);
  const rows = raw.map((r, i) => smoothed(r, chains[i]!.length, wide, ring));
  const values: { station: Station; value: number; strength: number }[] = [];
  const { width, height } = field.raster;
  // A Gaussian pulls a bent edge towards the centre it bends about, by half its variance over the radius (a pixel's own
  // extent adds to the variance); the path stands for the edge in how it bends.
  const variance = field.kind === 'edge' ? field.blur ** 2 + 0.25 : 0;
  const tightest = 1 / (4 * field.blur);
  const pulled = (bend: number): number => (variance * Math.max(-tightest, Math.min(tightest, bend))) / 2;
  const pixel = Math.round(1 / step);
  chains.forEach((stations, c) => {
    const row = rows[c]!;
    const threshold = thresholdOf(row, wide, field, reach);
    const ks = track(row, stations.length, half, step, threshold, ring, spacing);
    const found = stations.map((station, i) => {
      let k = ks[i]!;
      const inside =
        station.at.x >= 0 && station.at.y >= 0 && station.at.x <= width && station.at.y <= height;
      if (k < 0 || !inside) return { station, value: NaN, strength: 0 };
      const s = (m: number): number => row[i * wide + m]!;
      // Up to the top of the hill the track runs along.
      while (k > 0 && s(k - 1) > s(k)) k--;
      while (k + 1 < wide && s(k + 1) > s(k)) k++;
      if (k === 0 || k === wide - 1 || s(k) < threshold) return { station, value: NaN, strength: s(k) };
      const off = hillTop(s(Math.max(0, k - pixel)), s(k), s(Math.min(wide - 1, k + pixel))) / 2;
      return { station, value: (k - half) * step + off + pulled(station.bend), strength: s(k) };
    });
    if (!ring)
      quietEnds(
        found,
        2.5 * field.blur,
        path.closed || chains.length > 1,
        c === 0,
        c === chains.length - 1,
        path.closed,
      );
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
  values.sort((a, b) => a.station.segment - b.station.segment || a.station.t - b.station.t);
  const n = values.length;
  const drift = {
    segment: new Int32Array(n), t: new Float64Array(n), x: new Float64Array(n), y: new Float64Array(n),
    nx: new Float64Array(n), ny: new Float64Array(n), weight: new Float64Array(n), value: new Float64Array(n), strength: new Float64Array(n),
  }; // prettier-ignore
  values.forEach(({ station, value, strength }, i) => {
    drift.segment[i] = station.segment;
    drift.t[i] = station.t;
    drift.x[i] = station.at.x;
    drift.y[i] = station.at.y;
    drift.nx[i] = station.n.x;
    drift.ny[i] = station.n.y;
    drift.weight[i] = station.weight;
    drift.value[i] = value;
    drift.strength[i] = strength;
  });
  return drift;
}

/**
 * How strong a track must be: well above the grain, which the quiet quarter of what is seen shows. Where the field is so
 * soft that no quiet ground lies in reach, a third of the usual hill is asked for instead.
 */
function thresholdOf(row: Float32Array, wide: number, { kind, blur }: FieldTiles, reach: number): number {
  // A stroke's bend falls with the square of the blur it takes to see it.
  const least = kind === 'line' ? LEAST.line * Math.min(1, (2.5 / blur) ** 2) : LEAST.edge;
  const grain = ABOVE_NOISE * quiet(row, wide);
  if (reach >= 4 * blur) return Math.max(least, grain);
  const tops: number[] = [];
  for (let i = 0; i < row.length; i += wide) tops.push(Math.max(...row.subarray(i, i + wide)));
  tops.sort((a, b) => a - b);
  return Math.max(least, Math.min(grain, 0.35 * (tops[tops.length >> 1] ?? 0)));
}

/** Values looked at for what is quiet, about so many. */
const LOOKED = 800;
/** The strength below which the quiet quarter of what is seen lies. */
function quiet(row: Float32Array, wide: number): number {
  let step = Math.max(1, Math.ceil(row.length / LOOKED));
  // Every offset has its turn.
  while (step > 1 && (wide % step === 0 || step % wide === 0)) step++;
  const some = Float32Array.from({ length: Math.floor(row.length / step) }, (_, i) => row[i * step]!).sort();
  return some[Math.floor(some.length / 4)] ?? 0;
}

/** Takes the values near a chain's ends away where those are corners. */
function quietEnds(
  found: { station: Station; value: number }[],
  within: number,
  corners: boolean,
  first: boolean,
  last: boolean,
  closed: boolean,
): void {
  if (!corners) return;
  const clear = (list: typeof found): void => {
    let gone = 0;
    for (const f of list) {
      if (gone >= within) return;
      gone += f.station.weight;
      f.value = NaN;
    }
  };
  if (closed || !first) clear(found);
  if (closed || !last) clear([...found].reverse());
}

/** A track that goes aside faster than this crosses the path: it is another edge. */
const STEEPEST = 0.55;
/** Takes away where the track runs across the path instead of along it. */
function dropSteep(found: { station: Station; value: number }[], ring: boolean): void {
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
function dropShort(found: { station: Station; value: number }[], ring: boolean): void {
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

export interface DriftFigures {
  /** Length that has an edge, and the path's whole length. */
  readonly measured: number;
  readonly length: number;
  /** Mean size, weighted by length; NaN where nothing is measured, as are the other figures. */
  readonly mean: number;
  /** The size that 95 % of the measured length stays within. */
  readonly most: number;
  /** The largest, signed. */
  readonly worst: number;
  /** Share of the measured length within the tolerance. */
  readonly within: number;
}

/** Figures of drifts together: of a path, a shape, all. `only` keeps to one segment of a single drift. */
export function driftFigures(drifts: readonly Drift[], tolerance: number, only?: number): DriftFigures {
  let [measured, length, sum, inside, worst] = [0, 0, 0, 0, 0];
  const counts = (d: Drift, i: number): boolean => only === undefined || d.segment[i] === only;
  for (const d of drifts)
    for (let i = 0; i < d.value.length; i++) {
      if (!counts(d, i)) continue;
      const weight = d.weight[i]!;
      length += weight;
      const v = d.value[i]!;
      if (Number.isNaN(v)) continue;
      const size = Math.abs(v);
      measured += weight;
      sum += size * weight;
      if (size <= tolerance) inside += weight;
      if (size > Math.abs(worst)) worst = v;
    }
  if (measured === 0) return { measured, length, mean: NaN, most: NaN, worst: NaN, within: NaN };
  // The size that nearly all stay within: shared out into bins, so that only the one it falls into is put in order.
  const binOf = (size: number): number => Math.floor(size * ((BINS - 1) / (Math.abs(worst) || 1)));
  const each = (told: (size: number, weight: number) => void): void => {
    for (const d of drifts)
      for (let i = 0; i < d.value.length; i++)
        if (counts(d, i) && !Number.isNaN(d.value[i]!)) told(Math.abs(d.value[i]!), d.weight[i]!);
  };
  const bins = new Float64Array(BINS);
  each((size, weight) => (bins[binOf(size)]! += weight));
  const enough = MOST * measured - 1e-9;
  let [upTo, bin] = [0, 0];
  while (bin < BINS - 1 && upTo + bins[bin]! < enough) upTo += bins[bin++]!;
  const inBin: { size: number; weight: number }[] = [];
  each((size, weight) => {
    if (binOf(size) === bin) inBin.push({ size, weight });
  });
  inBin.sort((a, b) => a.size - b.size);
  const most = inBin.find((s) => (upTo += s.weight) >= enough)?.size ?? inBin.at(-1)?.size ?? NaN;
  return { measured, length, mean: sum / measured, most, worst, within: inside / measured };
}

/** Share of the measured length that `most` tells of, and bins in which it is looked for. */
const MOST = 0.95;
const BINS = 256;
