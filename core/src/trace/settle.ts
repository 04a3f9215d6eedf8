import { toRadians } from '../geometry/angle';
import { dot, length, scale, subtract, unit, type Point } from '../geometry/vector';
import type { Anchor } from '../path/anchor';
import { setAnchorKind } from '../path/handle';
import { meantSegments } from '../path/meant';
import { segmentCount, segmentIsLine, tangentAt, withAnchor, type Path } from '../path/path';
import { pathLength } from '../path/path-measure';
import { measureDrift, type Drift, type DriftOptions } from './drift';
import type { FieldTiles } from './field-tiles';
import { driftFigures, type DriftFigures } from './figures';
import { leaveOut } from './leave-out';
import { freedoms } from './settle-freedoms';
import { MOST_RESIDUALS, settleStep, STEPS_TO_ONE_TRACK, targetsOn } from './settle-step';

export interface SettleOptions extends Omit<DriftOptions, 'spacing'> {
  /** Anchors may move; else only handles do. True when left out. */
  readonly anchors?: boolean;
  /** Segments that may change; all when left out. Those meant so never do. */
  readonly only?: readonly number[];
  /** Drift within this counts as on the edge in the figures, picture pixels; 1 when left out. */
  readonly tolerance?: number;
  /** `before` and `after` are measured at this spacing, picture pixels; by as few places as it works with when left out. */
  readonly figureSpacing?: number;
}

export interface Settled {
  /** The path settled; the very one given where settling cannot help. */
  readonly path: Path;
  readonly before: DriftFigures;
  readonly after: DriftFigures;
}

/** Times that the edge is tracked, and steps towards one track. */
const ROUNDS = 6;
/** A straight segment is bent when its edge bows by more than this from the line, picture pixels. */
const BOW = 0.8;
/** What counts as better, picture pixels: a hair less is chance. */
const BETTER = 0.03;

/** A corner that turns by less than this is a joint: its sides stay in line. */
const JOINT = Math.cos(toRadians(8));

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
  { anchors = true, only, tolerance = 1, figureSpacing, ...where }: SettleOptions,
): Settled {
  const meant = meantSegments(path);
  const every = Array.from({ length: segmentCount(path) }, (_, s) => s);
  const chosen = only || meant.size > 0 ? new Set((only ?? every).filter((s) => !meant.has(s))) : null;
  const { form: _form, ...plain } = path;
  // As many places as are looked at.
  const spacing = Math.max(
    1,
    Math.min(4, pathLength(path) / (MOST_RESIDUALS * Math.max(1, segmentCount(path)))),
  );
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
    const rows = targetsOn(current, drift, chosen);
    const free = freedoms(current, anchors, chosen);
    let next = current;
    for (let k = 0; k < STEPS_TO_ONE_TRACK; k++) {
      const stepped = settleStep(next, free, rows);
      if (stepped === next) break;
      next = stepped;
    }
    if (next === current) break;
    current = next;
  }
  const better = (s: Settled): boolean => s.after.mean < s.before.mean - BETTER;
  if (!figureSpacing || !better(best)) return better(best) ? best : nothing;
  const [was, is] = [figures(measure(path, figureSpacing)), figures(measure(best.path, figureSpacing))];
  const seen: Settled = { path: best.path, before: was, after: is };
  return better(seen) ? seen : { path, before: was, after: was };
}
