import { cubicLength } from '../geometry/cubic';
import { solveDamped } from '../geometry/least-squares';
import { add, dot, length, scale, subtract, unit, type Point } from '../geometry/vector';
import { lineDirection, setAnchorKind } from '../path/handle';
import { flows, deriveFlow } from '../path/flow';
import { meantSegments } from '../path/meant';
import {
  anchorAt,
  pathLength,
  segmentCount,
  segmentCubic,
  segmentIsLine,
  tangentAt,
  withAnchor,
  type Anchor,
  type HandleSide,
  type Path,
} from '../path/path';
import { measureDrift, type Drift, type DriftOptions } from './drift';
import { leaveOut } from './detail';
import type { FieldTiles } from './field';
import { driftFigures, type DriftFigures } from './figures';
import { CORNER } from './stations';

export interface SettleOptions extends Omit<DriftOptions, 'spacing'> {
  /** Anchors may move; else only handles do. True when left out. */
  readonly anchors?: boolean;
  /** Segments that may change; all when left out. Those meant so never do. */
  readonly only?: readonly number[];
  /** Drift within this counts as on the edge in the figures, picture pixels; 1 when left out. */
  readonly tolerance?: number;
  /** The figures are told by drift at this spacing, picture pixels; by as few places as it works with when left out. */
  readonly told?: number;
}

export interface Settled {
  /** The path settled; the very one given where settling cannot help. */
  readonly path: Path;
  readonly before: DriftFigures;
  readonly after: DriftFigures;
}

/** Times that the edge is tracked, and steps towards one track. */
const ROUNDS = 6;
const STEPS = 2;
/** Residuals that a segment gives at most. */
const EACH = 24;
/** Weight of staying where there is no edge, and of not sliding along it. */
const STAY = 0.05;
const HOLD = 0.02;
/** A straight segment is bent when its edge bows by more than this from the line, picture pixels. */
const BOW = 0.8;
/** What counts as better, picture pixels: a hair less is chance. */
const BETTER = 0.03;

/** A corner that turns by less than this is a joint: its sides stay in line. */
const JOINT = Math.cos((8 * Math.PI) / 180);

/** Joints as smooth anchors, so that no kink comes of them; their kind is given back at the end. */
function jointed(path: Path): Path {
  let next = path;
  path.anchors.forEach((a, i) => {
    if (a.kind !== 'corner' || (!a.in && !a.out)) return;
    const [before, after] = [tangentAt(path, i, 'in'), tangentAt(path, i, 'out')];
    if (before && after && dot(before, after) > JOINT) next = setAnchorKind(next, i, 'smooth');
  });
  return next;
}
const withKinds = (path: Path, of: Path): Path => ({
  ...path,
  anchors: path.anchors.map((a, i) => ({ ...a, kind: of.anchors[i]!.kind })),
});

/** One number that may change: how it changes the path, and which segments follow. */
interface Freedom {
  readonly segments: readonly number[];
  move(path: Path, by: number): Path;
}

const isCorner = (path: Path, i: number): boolean => {
  const [a, b] = [tangentAt(path, i, 'in'), tangentAt(path, i, 'out')];
  return a !== null && b !== null && dot(a, b) < CORNER;
};

/** Segments on either side of anchor `i`. */
const beside = (path: Path, i: number): number[] => {
  const before = anchorAt(path, i, -1);
  return [...(before === null ? [] : [before]), ...(anchorAt(path, i, 1) === null ? [] : [i])];
};

/** Handles of smooth anchors beside straight segments turn with those. */
function inLine(path: Path, indices: readonly number[]): Path {
  let next = path;
  for (const i of indices) {
    const a = next.anchors[i]!;
    if (a.kind !== 'smooth') continue;
    for (const side of ['in', 'out'] as const) {
      const h = a[side];
      const along = h && lineDirection(next, i, side);
      if (h && along) next = withAnchor(next, i, { ...a, [side]: scale(along, length(h)) });
    }
  }
  return next;
}

const turned = (h: Point, by: number): Point => {
  const [c, s] = [Math.cos(by), Math.sin(by)];
  return { x: c * h.x - s * h.y, y: s * h.x + c * h.y };
};
const stretched = (h: Point, by: number): Point => {
  const l = length(h);
  return l > 0 ? scale(h, Math.max(0.05, l + by) / l) : h;
};

/** All that may change: anchors' places, and handles as their kind lets them. */
function freedoms(path: Path, anchors: boolean, only: ReadonlySet<number> | null): Freedom[] {
  const out: Freedom[] = [];
  const all = Array.from({ length: segmentCount(path) }, (_, s) => s);
  const flowing = flows(path);
  path.anchors.forEach((a, i) => {
    const near = beside(path, i);
    if (only && !near.some((s) => only.has(s))) return;
    const inner = !only || near.every((s) => only.has(s));
    const touched = flowing ? all : [...new Set([...near, ...near.flatMap((s) => [...beside(path, s), ...beside(path, (s + 1) % path.anchors.length)])])]; // prettier-ignore
    const change = (segments: readonly number[], to: (now: Anchor, by: number) => Anchor): void => {
      out.push({
        segments,
        move(p, by) {
          const next = withAnchor(p, i, to(p.anchors[i]!, by));
          if (flowing) return deriveFlow(next);
          const n = p.anchors.length;
          return inLine(next, [i, (i + 1) % n, (i - 1 + n) % n]);
        },
      });
    };
    if (anchors && inner && a.shared === undefined) {
      change(touched, (now, by) => ({ ...now, x: now.x + by }));
      change(touched, (now, by) => ({ ...now, y: now.y + by }));
    }
    if (a.kind === 'flowing') return;
    const both = a.in && a.out;
    if (a.kind === 'smooth') {
      if (both) {
        // An angle counts as the way its longer handle's end goes.
        const reach = Math.max(length(a.in!), length(a.out!), 1);
        change(near, (now, by) => ({ ...now, in: now.in && turned(now.in, by / reach), out: now.out && turned(now.out, by / reach) })); // prettier-ignore
      }
      if (both && a.equal)
        change(near, (now, by) => ({ ...now, in: now.in && stretched(now.in, by), out: now.out && stretched(now.out, by) })); // prettier-ignore
      else
        for (const side of ['in', 'out'] as const)
          if (a[side]) change(near, (now, by) => ({ ...now, [side]: now[side] && stretched(now[side], by) }));
      // A lone handle that no straight segment holds may turn.
      const lone: HandleSide | null = both ? null : a.in ? 'in' : a.out ? 'out' : null;
      if (lone && !lineDirection(path, i, lone)) {
        const reach = Math.max(length(a[lone]!), 1);
        change(near, (now, by) => ({ ...now, [lone]: now[lone] && turned(now[lone], by / reach) }));
      }
      return;
    }
    for (const side of ['in', 'out'] as const) {
      if (!a[side]) continue;
      change(near, (now, by) => ({ ...now, [side]: now[side] && { x: now[side].x + by, y: now[side].y } }));
      change(near, (now, by) => ({ ...now, [side]: now[side] && { x: now[side].x, y: now[side].y + by } }));
    }
  });
  return out;
}

interface Residual {
  readonly segment: number;
  readonly t: number;
  readonly n: Point;
  readonly target: Point;
  readonly weight: number;
}

/** Where the curve should be: on the track where there is one, where it is where there is none; nothing near corners. */
function wanted(path: Path, drift: Drift, blur: number, only: ReadonlySet<number> | null): Residual[] {
  const lengths = Array.from({ length: segmentCount(path) }, (_, s) => cubicLength(segmentCubic(path, s)));
  const rows: Residual[] = [];
  const strong = [...drift.strength].sort((a, b) => a - b)[Math.floor(drift.strength.length / 2)] ?? 0;
  let i = 0;
  while (i < drift.segment.length) {
    const segment = drift.segment[i]!;
    let end = i;
    while (end < drift.segment.length && drift.segment[end] === segment) end++;
    const count = end - i;
    const step = Math.max(1, count / EACH);
    const [from, to] = [segment, (segment + 1) % path.anchors.length];
    const far = 3 * blur;
    const [cornerAtStart, cornerAtEnd] = [isCorner(path, from), isCorner(path, to)];
    for (let f = 0; f < count && (!only || only.has(segment)); f += step) {
      const k = i + Math.floor(f);
      const s = ((k - i + 0.5) / count) * lengths[segment]!;
      if ((cornerAtStart && s < far) || (cornerAtEnd && lengths[segment]! - s < far)) continue;
      const v = drift.value[k]!;
      const on = !Number.isNaN(v);
      const n = { x: drift.nx[k]!, y: drift.ny[k]! };
      const at = { x: drift.x[k]!, y: drift.y[k]! };
      rows.push({
        segment,
        t: drift.t[k]!,
        n,
        target: on ? add(at, scale(n, v)) : at,
        weight: on ? drift.strength[k]! / (drift.strength[k]! + 0.3 * strong + 1e-9) : STAY,
      });
    }
    i = end;
  }
  return rows;
}

/** One damped Gauss–Newton step towards the targets, along the normals (Marquardt 1963); the path itself where none helps. */
function step(path: Path, free: readonly Freedom[], rows: readonly Residual[]): Path {
  const bySegment = new Map<number, number[]>();
  rows.forEach((r, i) => {
    const list = bySegment.get(r.segment);
    if (list) list.push(i);
    else bySegment.set(r.segment, [i]);
  });
  const every = [...bySegment.keys()];
  /** How far the curve lies from the targets on some segments, along the normals. */
  const offs = (p: Path, segments: readonly number[], told: (i: number, off: number) => void): void => {
    for (const s of segments) {
      const list = bySegment.get(s);
      if (!list) continue;
      const [a, b, c, d] = segmentCubic(p, s);
      for (const i of list) {
        const { t, n, target } = rows[i]!;
        const u = 1 - t;
        const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
        const x = w0 * a.x + w1 * b.x + w2 * c.x + w3 * d.x - target.x;
        const y = w0 * a.y + w1 * b.y + w2 * c.y + w3 * d.y - target.y;
        told(i, n.x * x + n.y * y);
      }
    }
  };
  const cost = (p: Path): number => {
    let sum = 0;
    offs(p, every, (i, off) => (sum += rows[i]!.weight * off * off));
    return sum;
  };
  const H = 0.01;
  const here = new Float64Array(rows.length);
  offs(path, every, (i, off) => (here[i] = off));
  // How each residual changes with each freedom: few do, since a freedom moves two segments or so.
  const system = rows.map(({ weight }, i) => ({
    at: [] as number[],
    by: [] as number[],
    weight,
    right: -here[i]!,
  }));
  free.forEach((f, j) => {
    offs(f.move(path, H), f.segments, (i, off) => {
      const d = (off - here[i]!) / H;
      if (d === 0) return;
      system[i]!.at.push(j);
      system[i]!.by.push(d);
    });
  });
  const least = cost(path);
  for (let damping = 1e-3; damping < 1e4; damping *= 12) {
    // A step farther than a handle is long would fold the curve over.
    const by = solveDamped(system, free.length, damping, HOLD).map((b) => Math.max(-12, Math.min(12, b)));
    const next = free.reduce((p, f, j) => f.move(p, by[j]!), path);
    if (cost(next) < least) return next;
  }
  return path;
}

/** Straight segments whose edge bows get handles on their thirds, which leave the line as it is. */
function bent(path: Path, drift: Drift, only: ReadonlySet<number> | null): Path {
  let next = path;
  for (let s = 0; s < segmentCount(path); s++) {
    if (!segmentIsLine(path, s) || (only && !only.has(s))) continue;
    let [n, sum, ends, middle, inMiddle, atEnds] = [0, 0, 0, 0, 0, 0];
    for (let i = 0; i < drift.segment.length; i++) {
      if (drift.segment[i] !== s) continue;
      sum++;
      const v = drift.value[i]!;
      if (Number.isNaN(v)) continue;
      n++;
      const t = drift.t[i]!;
      if (t > 0.35 && t < 0.65) {
        middle += v;
        inMiddle++;
      } else if (t < 0.25 || t > 0.75) {
        ends += v;
        atEnds++;
      }
    }
    if (n < 0.5 * sum || inMiddle === 0 || atEnds === 0) continue;
    if (Math.abs(middle / inMiddle - ends / atEnds) < BOW) continue;
    const [i, j] = [s, (s + 1) % path.anchors.length];
    const [a, b] = [next.anchors[i]!, next.anchors[j]!];
    if (a.kind === 'flowing' || b.kind === 'flowing') continue;
    const third = scale(subtract(b, a), 1 / 3);
    /** A smooth anchor's new handle lies in line with its other one. */
    const handle = (at: Anchor, other: Point | null, way: Point): Point => {
      const along = at.kind === 'smooth' && other ? unit(scale(other, -1)) : null;
      return along ? scale(along, length(way)) : way;
    };
    next = withAnchor(next, i, { ...a, out: handle(a, a.in, third) });
    next = withAnchor(next, j, { ...next.anchors[j]!, in: handle(b, b.out, scale(third, -1)) });
  }
  return next;
}

/**
 * Moves handles, and anchors if they may, of a path onto the picture's edge, by damped least squares to the tracked edge,
 * which is tracked anew each round. Kinds, count and order of anchors stay; smooth and equal handles stay so; corners go to
 * where the two edges meet, since near a corner nothing is asked of the curve; where there is no edge the curve stays. A
 * straight segment whose edge bows gets handles.
 *
 * @param path in picture pixels
 * @returns the path with its figures before and after; the mean never becomes worse, nor is less of the path measured
 */
export function settle(
  path: Path,
  field: FieldTiles,
  { anchors = true, only, tolerance = 1, told, ...where }: SettleOptions,
): Settled {
  const meant = meantSegments(path);
  const every = Array.from({ length: segmentCount(path) }, (_, s) => s);
  const chosen = only || meant.size > 0 ? new Set((only ?? every).filter((s) => !meant.has(s))) : null;
  const { form: _form, ...plain } = path;
  // As many places as are looked at.
  const spacing = Math.max(1, Math.min(4, pathLength(path) / (EACH * Math.max(1, segmentCount(path)))));
  const measure = (p: Path, by = spacing): Drift =>
    leaveOut(measureDrift(p, field, { ...where, spacing: by }), meant);
  const figures = (drift: Drift): DriftFigures => driftFigures([drift], tolerance);
  const first = measure(path);
  const before = figures(first);
  const nothing: Settled = { path, before, after: before };
  if (!(before.measured > 0) || segmentCount(path) === 0) return nothing;
  let current: Path = jointed(bent(plain, first, chosen));
  let best = nothing;
  for (let round = 0; round < ROUNDS; round++) {
    const drift = current === plain ? first : measure(current);
    const after = figures(drift);
    if (round > 0 && after.measured >= 0.9 * before.measured && after.mean < best.after.mean) {
      const settledEnough = after.mean > 0.96 * best.after.mean;
      best = { path: withKinds(current, path), before, after };
      if (settledEnough) break;
    }
    if (round === ROUNDS - 1) break;
    if (round === 2) current = bent(current, drift, chosen);
    const rows = wanted(current, drift, field.blur, chosen);
    const free = freedoms(current, anchors, chosen);
    let next = current;
    for (let k = 0; k < STEPS; k++) {
      const stepped = step(next, free, rows);
      if (stepped === next) break;
      next = stepped;
    }
    if (next === current) break;
    current = next;
  }
  const better = (s: Settled): boolean => s.after.mean < s.before.mean - BETTER;
  if (!told || !better(best)) return better(best) ? best : nothing;
  const [was, is] = [figures(measure(path, told)), figures(measure(best.path, told))];
  const seen: Settled = { path: best.path, before: was, after: is };
  return better(seen) ? seen : { path, before: was, after: was };
}
