import { formsAlong } from './field-form';
import type { FieldTiles } from './field-tiles';
import type { Station } from './stations';

/**
 * Strength of the field along the normal of every station: offsets −reach … reach by steps, one row a station. Of a
 * stroke the geometric mean of its borders' strengths, `beside` to either side.
 */
export function profiles(
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
export function rectifyPolarity(rows: Float32Array[], wide: number): void {
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

export function smoothRows(rows: Float32Array, count: number, wide: number, ring: boolean): Float32Array {
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

/** Cost of what has another colour than the shape's own on its inner side, at most. */
const STRANGE = 0.5;
/** Cost of leaving the track or coming back to it, of moving aside by a pixel, and of lying far off. */
const SWITCH = 1.2;
const ASIDE = 0.12;
const FAR = 0.25;
/** Pixels that a track may move aside along each pixel. */
const MOST_ASIDE = 1;

/** A ring's track goes on so far beyond its seam either way, so that it is one there too, pixels. */
const LAP = 160;

/**
 * The best track through the profiles: at each station an offset or "no edge". Dynamic programming over all of them
 * (Bellman 1957), so that the track does not hop to a neighbouring edge. A ring is begun before its seam and ended beyond.
 */
export function track(
  rows: Float32Array,
  count: number,
  half: number,
  step: number,
  thresholds: Float64Array,
  ring: boolean,
  spacing: number,
  strange: Float32Array | null = null,
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
  // Room beyond both ends, where nothing can come from.
  let near = new Float64Array(wide + 2 * aside).fill(Infinity);
  let nearer = near.slice();
  for (let i = 0; i < total; i++) {
    const station = (i + count - lap) % count;
    const row = station * wide;
    const twice = 2 * thresholds[station]!;
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
      const by = strange ? STRANGE * strange[row + k]! : 0;
      costs[here + k] = Math.min(near[aside + k]!, comes) - s / (s + twice) + far[k]! + by;
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
