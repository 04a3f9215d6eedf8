import { toRadians } from '../geometry/angle';
import { cubicDerivative, cubicPoint, isStraight, lineCubic, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { negate, subtract, type Point } from '../geometry/vector';
import { fitCubic } from './fit';
import { freezeFlow } from './flow';
import { unmeant } from './meant';
import { segmentCount, segmentCubic, segmentIsLine, tangentAt, type Path } from './path';
import type { Anchor } from './anchor';

export interface ThinOptions {
  /** How far the line may go from where it was, either way, in the path's unit. */
  readonly tolerance: number;
  /** Anchors that may go, by index; any when left out. */
  readonly only?: readonly number[];
  /** Anchors at which the line turns by more than this stay, radians; 12° when left out. */
  readonly sharpest?: number;
}

export interface Thinned {
  readonly path: Path;
  /** Anchors that went, by their index before. */
  readonly removed: readonly number[];
  /** The farthest that the line went, measured densely both ways, and where. */
  readonly worst: { readonly distance: number; readonly at: Point };
}

const CORNER = toRadians(12);
/** Rounds of refinement in a trial: enough to tell whether one curve can hold a stretch. */
const TRIAL = 6;

const turnOf = (path: Path, i: number): number => {
  const [a, b] = [tangentAt(path, i, 'in'), tangentAt(path, i, 'out')];
  return a && b ? Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y)) : Infinity;
};

/** Points along cubics, the first one's beginning and every end included. */
const sampled = (cubics: readonly Cubic[], each: number): Point[] => [
  cubics[0]![0],
  ...cubics.flatMap((c) => Array.from({ length: each }, (_, k) => cubicPoint(c, (k + 1) / each))),
];

/** At most 48 of the points, evenly taken, the first and last among them: enough to fit one cubic to. */
function thinned(points: readonly Point[]): readonly Point[] {
  const step = (points.length - 1) / 47;
  return step <= 1 ? points : Array.from({ length: 48 }, (_, k) => points[Math.round(k * step)]!);
}

interface Stretch {
  readonly cubic: Cubic;
  readonly worst: number;
  readonly at: Point;
}

/** Nearest distance from `p` to any of the cubics, those about `at` asked first; whatever is within `enough` will do. */
function nearRun(run: readonly Cubic[], p: Point, at: number, enough: number): number {
  let near = Infinity;
  for (let off = 0; off < run.length && near > enough; off++)
    for (const i of off === 0 ? [at] : [at - off, at + off]) {
      const c = run[i];
      if (c) near = Math.min(near, nearestOnCubic(c, p).distance);
    }
  return near;
}

/** The farthest that `cubic` and the stretch it stands for lie apart, either way, measured densely. */
function apart(cubic: Cubic, run: readonly Cubic[]): { worst: number; at: Point } {
  let worst = 0;
  let at = cubic[0];
  for (const p of sampled(run, Math.max(5, Math.min(24, Math.ceil(96 / run.length))))) {
    const n = nearestOnCubic(cubic, p);
    if (n.distance > worst) [worst, at] = [n.distance, n.point];
  }
  for (let k = 1; k < 32; k++) {
    const p = cubicPoint(cubic, k / 32);
    const near = nearRun(run, p, Math.floor((k / 32) * run.length), worst);
    if (near > worst) [worst, at] = [near, p];
  }
  return { worst, at };
}

/**
 * Whether a cubic holds a stretch within a tolerance, told as quickly as can be: the foot of each point is followed along
 * the curve by Newton's method, which gives no less than its distance; only where that is too much is the nearest point
 * looked for.
 */
function holds(cubic: Cubic, run: readonly Cubic[], tolerance: number): boolean {
  const points = sampled(run, Math.max(2, Math.min(12, Math.ceil(48 / run.length))));
  const far = (p: Point): boolean => nearestOnCubic(cubic, p).distance > tolerance;
  if ([0.5, 0.25, 0.75].some((k) => far(points[Math.round(k * (points.length - 1))]!))) return false;
  let t = 0;
  for (let i = 0; i < points.length; i++) {
    const p = points[i]!;
    t = Math.max(t, i / points.length - 0.1);
    let off = subtract(cubicPoint(cubic, t), p);
    for (let round = 0; round < 3; round++) {
      const d = cubicDerivative(cubic, t);
      const size = d.x * d.x + d.y * d.y;
      if (size === 0) break;
      t = Math.min(1, Math.max(0, t - (off.x * d.x + off.y * d.y) / size));
      off = subtract(cubicPoint(cubic, t), p);
    }
    if (off.x * off.x + off.y * off.y > tolerance * tolerance && far(p)) return false;
  }
  for (let k = 1; k < 12; k++) {
    const p = cubicPoint(cubic, k / 12);
    if (nearRun(run, p, Math.floor((k / 12) * run.length), tolerance) > tolerance) return false;
  }
  return true;
}

/** Indices from one anchor up to another, that one left out. */
function runBetween(from: number, to: number, n: number): number[] {
  const out: number[] = [];
  for (let i = from; out.length === 0 || i !== to; i = (i + 1) % n) out.push(i);
  return out;
}

/** Segments from anchor `from` on. */
const segmentsFrom = (path: Path, from: number, count: number): Cubic[] =>
  Array.from({ length: count }, (_, k) => segmentCubic(path, (from + k) % path.anchors.length));

/** One cubic in place of the segments from anchor `from` on, or null when none holds them within the tolerance. */
function stretch(path: Path, from: number, count: number, tolerance: number): Cubic | null {
  const n = path.anchors.length;
  const run = segmentsFrom(path, from, count);
  const [start, end] = [run[0]![0], run[count - 1]![3]];
  if (run.every((_, k) => segmentIsLine(path, (from + k) % n))) {
    const line = lineCubic(start, end);
    return holds(line, run, tolerance) ? line : null;
  }
  const leave = tangentAt(path, from, 'out');
  const arrive = tangentAt(path, (from + count) % n, 'in');
  const points = thinned(sampled(run, Math.max(1, Math.ceil(32 / count))));
  for (const rounds of [0, TRIAL]) {
    const cubic = fitCubic(points, leave, arrive && negate(arrive), rounds);
    if (holds(cubic, run, tolerance)) return cubic;
  }
  return null;
}

/**
 * Takes out every anchor that can go within a tolerance. Corners, ends and protected anchors stay where they are; between
 * two of them, from one anchor the longest stretch is taken that a single cubic can hold, leaving and arriving in the old
 * directions (fitted after Schneider 1990), found by doubling and halving. No point of the old line is farther than the
 * tolerance from the new one, nor the other way round.
 *
 * @throws RangeError for a tolerance below 0 or an anchor that does not exist
 */
export function thinOut(path: Path, { tolerance, only, sharpest = CORNER }: ThinOptions): Thinned {
  const n = path.anchors.length;
  if (!(tolerance >= 0)) throw new RangeError(`A tolerance is 0 or more; it was ${tolerance}.`);
  const free = only && new Set(only);
  for (const i of only ?? [])
    if (!path.anchors[i]) throw new RangeError(`The path has ${n} anchors; there is no anchor ${i}.`);
  const still = freezeFlow(path);
  const segments = segmentCount(still);
  const nothing: Thinned = {
    path,
    removed: [],
    worst: { distance: 0, at: { x: path.anchors[0]?.x ?? 0, y: path.anchors[0]?.y ?? 0 } },
  };
  if (segments < 2) return nothing;
  const stays = still.anchors.map(
    (a, i) =>
      (!path.closed && (i === 0 || i === n - 1)) ||
      (free !== undefined && !free.has(i)) ||
      a.shared !== undefined ||
      a.protected === true ||
      turnOf(still, i) > sharpest,
  );
  // A ring without a corner begins where it is.
  const first = path.closed ? Math.max(0, stays.indexOf(true)) : 0;
  if (path.closed) stays[first] = true;
  // On a ring two anchors at least stay: one alone has no direction to go round in.
  const least = path.closed && stays.filter(Boolean).length === 1 ? Math.floor(n / 2) : Infinity;

  const kept: number[] = [];
  const taken: Stretch[] = [];
  let guess = 2;
  let at = 0;
  while (at < segments) {
    const from = (first + at) % n;
    // As far as the next anchor that stays.
    let most = 1;
    while (at + most < segments && !stays[(first + at + most) % n]) most++;
    most = Math.min(most, least);
    let good = 1;
    let held: Cubic | null = null;
    let bad = most + 1;
    // The next stretch is likely to be about as long as the last one.
    for (let count = Math.min(most, guess); count > good && count < bad;) {
      const s = stretch(still, from, count, tolerance);
      if (s) [good, held] = [count, s];
      else bad = count;
      count = bad > most ? Math.min(most, good * 2) : Math.floor((good + bad) / 2);
    }
    guess = Math.max(2, good);
    let measured = held && apart(held, segmentsFrom(still, from, good));
    // Measured more densely it may be a hair too far: then a shorter stretch.
    while (measured && measured.worst > tolerance) {
      good--;
      held = good > 1 ? stretch(still, from, good, tolerance) : null;
      measured = held && apart(held, segmentsFrom(still, from, good));
      if (!held && good > 1) measured = { worst: Infinity, at: still.anchors[from]! };
    }
    kept.push(from);
    taken.push(
      held && measured
        ? { cubic: held, ...measured }
        : { cubic: segmentCubic(still, from), worst: 0, at: still.anchors[from]! },
    );
    if (!held) good = 1;
    at += good;
  }
  if (!path.closed) kept.push(n - 1);
  if (kept.length === n) return nothing;

  const handle = (to: Point, anchor: Point): Point | null => {
    const h = subtract(to, anchor);
    return h.x === 0 && h.y === 0 ? null : h;
  };
  const anchors: Anchor[] = kept.map((i) => ({ ...still.anchors[i]! }));
  taken.forEach(({ cubic }, k) => {
    const next = (k + 1) % kept.length;
    const stood = (kept[k]! + 1) % n === kept[next];
    if (stood) return;
    const all = runBetween(kept[k]!, kept[next]!, n).every((i) => still.anchors[i]!.meant);
    if (!all) anchors[k] = unmeant(anchors[k]!);
    const straight = isStraight(cubic, 1e-9);
    anchors[k] = { ...anchors[k]!, out: straight ? null : handle(cubic[1], cubic[0]) };
    anchors[next] = { ...anchors[next]!, in: straight ? null : handle(cubic[2], cubic[3]) };
  });
  const left = new Set(kept);
  const worst = taken.reduce((a, b) => (b.worst > a.worst ? b : a));
  return {
    path: { ...still, anchors },
    removed: still.anchors.flatMap((_, i) => (left.has(i) ? [] : [i])),
    worst: { distance: worst.worst, at: worst.at },
  };
}

/** Anchors that `thinOut` would take out, by index. */
export const spareAnchors = (path: Path, options: ThinOptions): readonly number[] =>
  thinOut(path, options).removed;
