import { cross, dot, negate, unit, type Point } from '../geometry/vector';
import { solveCyclic, solveTridiagonal } from '../geometry/tridiagonal';
import { withHandles, withoutMark } from './anchor';
import { anchorAt, segmentIsLine, tangentAt, type Path } from './path';
import type { Anchor } from './anchor';

// Flowing anchors: handles worked out from the neighbours by Hobby's method. A segment with a flowing anchor at either
// end is worked out as a whole, both its handles; the others are left alone.

const turn = (a: Point, b: Point): number => Math.atan2(cross(a, b), dot(a, b));

/** The longest handle Hobby's formula may give, in chords: a velocity of 4. */
const LONGEST_HANDLE = 4 / 3;

/**
 * Length of the handle at the end where the path makes the angle `theta` with the chord, in chords; `phi` is the angle
 * at the other end. Source: Hobby, "Smooth, easy to compute interpolating splines", Discrete & Computational Geometry 1
 * (1986), also The METAFONTbook (1986), chapter 14; tension 1. METAFONT caps the velocity at 4, which is three handles to
 * the chord, so that two directions that point away from each other give no endless handle (from memory).
 */
export function hobbyLength(theta: number, phi: number): number {
  const [st, ct, sp, cp] = [Math.sin(theta), Math.cos(theta), Math.sin(phi), Math.cos(phi)];
  const above = 2 + Math.SQRT2 * (st - sp / 16) * (sp - st / 16) * (ct - cp);
  const below = 3 * (1 + 0.5 * (Math.sqrt(5) - 1) * ct + 0.5 * (3 - Math.sqrt(5)) * cp);
  // At θ = φ = π nothing is left below.
  return above >= LONGEST_HANDLE * below ? LONGEST_HANDLE : above / below;
}

/** How a run begins or ends: in a direction that is given, or as it comes (Hobby's curl 1: like a circle's arc). */
type End = Point | null;

type Four = [Float64Array, Float64Array, Float64Array, Float64Array];

/**
 * Angles θ between each chord and the direction in which the curve leaves its first point, by Hobby's linear system
 * ("mock curvature" continuous at inner points).
 *
 * @param points of the run; first and last the same spot when `round`
 */
function angles(
  points: readonly Point[],
  start: End,
  end: End,
  round: boolean,
): { theta: Float64Array; psi: Float64Array } {
  const n = points.length - 1;
  // Long paths flow within a frame: chords, their lengths and turns are laid out by hand.
  const [x, y, d, psi] = [n, n, n, n + 1].map((size) => new Float64Array(size)) as Four;
  for (let k = 0; k < n; k++) {
    x[k] = points[k + 1]!.x - points[k]!.x;
    y[k] = points[k + 1]!.y - points[k]!.y;
    d[k] = Math.sqrt(x[k]! * x[k]! + y[k]! * y[k]!);
  }
  const turned = (i: number, k: number): number =>
    Math.atan2(x[i]! * y[k]! - y[i]! * x[k]!, x[i]! * x[k]! + y[i]! * y[k]!);
  for (let k = 1; k < n; k++) psi[k] = turned(k - 1, k);
  if (round) psi[0] = psi[n] = turned(n - 1, 0);
  const size = round ? n : n + 1;
  const [before, on, after, right] = [size, size, size, size].map((s) => new Float64Array(s)) as Four;
  for (let k = 0; k < size; k++) {
    const first = !round && k === 0;
    const last = !round && k === n;
    const direction = first ? start : last ? end : null;
    if (direction) {
      on[k] = 1;
      const c = first ? 0 : n - 1;
      right[k] = turn({ x: x[c]!, y: y[c]! }, direction);
    } else if (first || last) {
      on[k] = 1;
      (first ? after : before)[k] = 1;
      right[k] = first ? -psi[1]! : 0;
    } else {
      before[k] = 1 / d[(k - 1 + n) % n]!;
      after[k] = 1 / d[k % n]!;
      on[k] = 2 * before[k]! + 2 * after[k]!;
      right[k] = -2 * before[k]! * psi[k]! - after[k]! * psi[round ? (k + 1) % n : k + 1]!;
    }
  }
  const solved = (round ? solveCyclic : solveTridiagonal)({ before, on, after }, right);
  const theta = new Float64Array(n + 1);
  if (solved) theta.set(solved);
  if (round) theta[n] = theta[0]!;
  return { theta, psi };
}

/** A chord turned by an angle and made `k` times as long. */
const handle = (chord: Point, angle: number, k: number): Point => {
  const c = k * Math.cos(angle);
  const s = k * Math.sin(angle);
  return { x: chord.x * c - chord.y * s, y: chord.x * s + chord.y * c };
};

/** Whether any anchor of the path is flowing. */
export const flows = (path: Path): boolean => path.anchors.some((a) => a.kind === 'flowing');

/**
 * Works out the handles of all flowing segments anew. Anything else is left as it is; a path without flowing anchors
 * comes back itself.
 */
export function deriveFlow(path: Path): Path {
  if (!flows(path)) return path;
  const n = path.anchors.length;
  const flowing = (i: number | null): boolean => i !== null && path.anchors[i]!.kind === 'flowing';
  const leaves = new Array<Point | null>(n).fill(null);
  const arrives = new Array<Point | null>(n).fill(null);
  const count = path.closed && n > 1 ? n : n - 1;
  const inFlow = (segment: number): boolean => flowing(segment) || flowing((segment + 1) % n);
  /** Direction a run must have at an end that does not flow: that of what lies on its other side, when it is smooth. */
  const given = (i: number, side: 'in' | 'out'): End => {
    const a = path.anchors[i]!;
    if (a.kind !== 'smooth') return null;
    const other = side === 'out' ? 'in' : 'out';
    const handle = a[other];
    // Away from the other side's handle; the run travels into it at its end.
    if (handle) return unit(side === 'out' ? negate(handle) : handle);
    const beyond = anchorAt(path, i, side === 'out' ? -1 : 1);
    const segment = side === 'out' ? beyond : i;
    if (beyond === null || segment === null || !segmentIsLine(path, segment) || inFlow(segment)) return null;
    return tangentAt(path, i, other);
  };
  const lay = (indices: readonly number[], round: boolean): void => {
    // Anchors on one spot have no direction between them: they part the run.
    const points = indices.map((i) => path.anchors[i]!);
    const first = indices[0]!;
    const last = indices[indices.length - 1]!;
    const { theta, psi } = angles(
      points,
      round || flowing(first) ? null : given(first, 'out'),
      round || flowing(last) ? null : given(last, 'in'),
      round,
    );
    for (let k = 0; k + 1 < indices.length; k++) {
      const chord = { x: points[k + 1]!.x - points[k]!.x, y: points[k + 1]!.y - points[k]!.y };
      const leaving = theta[k]!;
      const arriving = -psi[k + 1]! - theta[k + 1]!;
      leaves[indices[k]!] = handle(chord, leaving, hobbyLength(leaving, arriving));
      arrives[indices[k + 1]!] = handle(chord, -arriving, -hobbyLength(arriving, leaving));
    }
  };
  const apart = (segment: number): boolean => {
    const a = path.anchors[segment]!;
    const b = path.anchors[(segment + 1) % n]!;
    return a.x !== b.x || a.y !== b.y;
  };
  const usable = new Array<boolean>(count);
  for (let s = 0; s < count; s++) usable[s] = inFlow(s) && apart(s);
  if (path.closed && n > 1 && usable.every(Boolean) && path.anchors.every((a) => a.kind === 'flowing')) {
    lay([...path.anchors.keys(), 0], true);
  } else {
    for (let s = 0; s < count; s++) {
      const before = path.closed ? (s - 1 + count) % count : s - 1;
      const goesOn = before >= 0 && usable[before] && flowing(s) && before !== s;
      if (!usable[s] || goesOn) continue;
      const run = [s];
      let i = s;
      do {
        i = (i + 1) % n;
        run.push(i);
      } while (flowing(i) && i < (path.closed ? n : n - 1) && usable[i] && run.length <= n);
      lay(run, false);
    }
  }
  const anchors = path.anchors.map((a, i): Anchor => {
    const arriving = arrives[i];
    const leaving = leaves[i];
    if (!arriving && !leaving) return a;
    return withHandles(a, a.kind, arriving ?? a.in, leaving ?? a.out);
  });
  return { ...path, anchors };
}

/** Flowing anchors made smooth where they stand; nothing moves. */
export const freezeFlow = (path: Path): Path =>
  flows(path)
    ? {
        ...path,
        anchors: path.anchors.map((a) => (a.kind === 'flowing' ? { ...a, kind: 'smooth' as const } : a)),
      }
    : path;

/** Anchors at the ends of a segment that flow, made smooth: a handle between them is touched. */
export function freezeSegment(path: Path, segment: number): Path {
  const ends = [segment, (segment + 1) % path.anchors.length];
  if (!ends.some((i) => path.anchors[i]?.kind === 'flowing')) return path;
  return {
    ...path,
    anchors: path.anchors.map((a, i) =>
      ends.includes(i) && a.kind === 'flowing' ? { ...a, kind: 'smooth' as const } : a,
    ),
  };
}

export interface FlowOptions {
  /** Anchors at which the line turns by more than this stay as they are, radians. */
  readonly sharpest: number;
  /** Anchors to make flowing, by index; all when left out. */
  readonly only?: readonly number[];
}

/** Turn below which neighbouring straight segments count as one straight run, radians. */
const STRAIGHT = 0.03;

/**
 * Makes anchors flow, except where the line turns more sharply than asked; straight runs (two or more straight
 * segments in one line) stay straight, and what joins them leaves in their direction.
 *
 * @returns the path with its flow worked out, itself where nothing can flow; ends of an open path stay as they are
 */
export function flowAll(path: Path, { sharpest, only }: FlowOptions): Path {
  const n = path.anchors.length;
  const at = path.anchors;
  const ring = path.closed && n > 1;
  // The turn at each anchor; where there is none, more than any.
  const bends = new Float64Array(n).fill(Infinity);
  const straight = new Uint8Array(n);
  for (let i = 0; i < n && n > 2; i++) {
    if (!ring && (i === 0 || i === n - 1)) continue;
    const [p, a, q] = [at[(i - 1 + n) % n]!, at[i]!, at[(i + 1) % n]!];
    const [ax, ay, bx, by] = [a.x - p.x, a.y - p.y, q.x - a.x, q.y - a.y];
    bends[i] = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
    const lines = p.out === null && a.in === null && a.out === null && q.in === null;
    if (bends[i]! <= STRAIGHT && lines) straight[i] = 1;
  }
  const asked = only && new Set(only);
  let changed = false;
  const anchors = at.map((a, i): Anchor => {
    if (!(bends[i]! <= sharpest) || straight[i] || (asked && !asked.has(i))) return a;
    // An end of a straight run is smooth: its direction is the run's.
    const before = straight[(i - 1 + n) % n] === 1;
    const after = straight[(i + 1) % n] === 1;
    if ((before && after) || (!before && !after && a.kind === 'flowing')) return a;
    changed = true;
    if (before) return { ...a, kind: 'smooth', in: null };
    if (after) return { ...a, kind: 'smooth', out: null };
    return withHandles(withoutMark(a, 'equal'), 'flowing', a.in, a.out);
  });
  if (!changed) return path;
  return deriveFlow({ ...path, anchors });
}
