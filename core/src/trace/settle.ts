import { scaling } from '../geometry/affine';
import { toRadians } from '../geometry/angle';
import { nearestParabola } from '../geometry/parabola';
import { length, scale, subtract, unit, type Point } from '../geometry/vector';
import type { Anchor } from '../path/anchor';
import { setAnchorKind } from '../path/handle';
import { meantSegments } from '../path/meant';
import { transformPath } from '../path/path-map';
import { segmentCount, segmentIsLine, turnAt, withAnchor, type Path } from '../path/path';
import { pathLength } from '../path/path-measure';
import { measureDrift, type Drift, type DriftOptions } from './drift';
import type { FieldTiles } from './field-tiles';
import { driftFigures, type DriftFigures } from './figures';
import { leaveOut } from './leave-out';
import { unfolded } from './settle-folds';
import { freedoms } from './settle-freedoms';
import { MOST_RESIDUALS, settleStep, STEPS_TO_ONE_TRACK, targetsOn } from './settle-step';

export interface SettleOptions extends Omit<DriftOptions, 'spacing' | 'cornersSought'> {
  /** Anchors may move; else only handles do. True when left out. */
  readonly anchors?: boolean;
  /** Segments that may change; all when left out. Those meant so never do. */
  readonly only?: readonly number[];
  /** Drift within this counts as on the edge in the figures, picture pixels; 1 when left out. */
  readonly tolerance?: number;
  /** `before` and `after` are measured at this spacing, picture pixels; 1 when left out. */
  readonly figureSpacing?: number;
  /** Fields of the same picture made smaller by halves, half, a quarter and so on: from farther off the edge is found in those. */
  readonly coarser?: readonly FieldTiles[];
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
const BOW_PX = 1.4;
/** It bows evenly: the parabola nearest to it lies no farther off it than this, or than a share of the bow; root mean square. */
const BOWED_OFF_PX = 0.4;
const BOWED_OFF_SHARE = 0.15;
/** What counts as better, picture pixels: a hair less is chance. */
const BETTER = 0.03;
/** A round that leaves more than this of what the best one left is the last, unless that is still far off. */
const SETTLED = 0.96;
/** What lies farther off than this after settling, all of it, is looked for in smaller pictures too; picture pixels. */
const FAR_OFF_PX = 0.3;

/** A corner that turns by less than this is a joint: its sides stay in line. */
const JOINT = toRadians(8);

/** Joints as smooth anchors, so that no kink comes of them; their kind is given back at the end. */
function jointed(path: Path): Path {
  let next = path;
  path.anchors.forEach((a, i) => {
    if (a.kind !== 'corner' || (!a.in && !a.out)) return;
    const turn = turnAt(path, i);
    if (turn !== null && turn < JOINT) next = setAnchorKind(next, i, 'smooth');
  });
  return next;
}
const withKinds = (path: Path, of: Path): Path => ({
  ...path,
  anchors: path.anchors.map((a, i) => ({ ...a, kind: of.anchors[i]!.kind })),
});

/** Whether the edge along a straight segment bows from it; where it jumps it is two edges. */
function edgeBows(drift: Drift, segment: number): boolean {
  let places = 0;
  const rows: { s: number; p: Point }[] = [];
  for (let i = 0; i < drift.segment.length; i++) {
    if (drift.segment[i] !== segment) continue;
    places++;
    if (!Number.isNaN(drift.value[i]!)) rows.push({ s: drift.t[i]! - 0.5, p: { x: drift.value[i]!, y: 0 } });
  }
  if (rows.length < 0.5 * places || rows.length < 4 || !rows.some(({ s }) => Math.abs(s) > 0.25))
    return false;
  const { at, slope, bend } = nearestParabola(rows).curve;
  const bow = Math.abs(bend.x) / 4;
  const off = rows.reduce((sum, { s, p }) => sum + (p.x - at.x - slope.x * s - bend.x * s * s) ** 2, 0);
  return bow >= BOW_PX && Math.sqrt(off / rows.length) <= Math.max(BOWED_OFF_PX, BOWED_OFF_SHARE * bow);
}

/** Straight segments whose edge bows get handles on their thirds, which leave the line as it is. */
function bent(path: Path, drift: Drift, only: ReadonlySet<number> | null): Path {
  let next = path;
  for (let s = 0; s < segmentCount(path); s++) {
    if (!segmentIsLine(path, s) || (only && !only.has(s))) continue;
    if (!edgeBows(drift, s)) continue;
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

/** Drift that counts for what has no edge in reach, in reaches: a round that brings more into reach is no worse for it. */
const UNSEEN_IN_REACHES = 0.5;
/** Drift that counts for what is near corners, where nothing is said, pixels: an edge is off there by as much as blur rounds it. */
const NEAR_CORNER_PX = 1;

/** How far all of a line that is open to sight lies from its edge, what has none in reach among it. */
function meanOfAll(
  { mean, measured, covered, nearCorners, length: whole }: DriftFigures,
  reach: number,
): number {
  const open = whole - covered;
  if (!(open > 0)) return 0;
  const ofSeen = measured > 0 ? mean * measured : 0;
  const unseen = Math.max(0, open - measured - nearCorners);
  return (ofSeen + NEAR_CORNER_PX * nearCorners + UNSEEN_IN_REACHES * reach * unseen) / open;
}

interface Rounds {
  readonly path: Path;
  readonly figures: DriftFigures;
}

/** Rounds of tracking and stepping in one field; the best of them. */
function settledIn(
  field: FieldTiles,
  from: Path,
  { where, anchors, chosen, meant, tolerance }: Work,
): Rounds {
  // As many places as are looked at.
  const spacing = Math.max(
    1,
    Math.min(4, pathLength(from) / (MOST_RESIDUALS * Math.max(1, segmentCount(from)))),
  );
  const measure = (p: Path): Drift =>
    leaveOut(measureDrift(p, field, { ...where, spacing, cornersSought: true }), meant);
  const figuresOf = (drift: Drift): DriftFigures => driftFigures([drift], tolerance);
  const first = measure(from);
  const start: Path = jointed(bent(from, first, chosen));
  let current = start;
  let best: Rounds = { path: from, figures: figuresOf(first) };
  for (let round = 0; round < ROUNDS; round++) {
    const drift = current === from ? first : measure(current);
    const figures = figuresOf(drift);
    const [now, least] = [meanOfAll(figures, where.reach), meanOfAll(best.figures, where.reach)];
    if (round > 0 && now < least) {
      best = { path: withKinds(current, from), figures };
      if (now > SETTLED * least && now < FAR_OFF_PX) break;
    }
    if (round === ROUNDS - 1) break;
    if (round === 2) current = bent(current, drift, chosen);
    const rows = targetsOn(current, drift, chosen);
    const free = freedoms(current, anchors, chosen);
    let next = current;
    for (let k = 0; k < STEPS_TO_ONE_TRACK; k++) {
      const stepped = unfolded(settleStep(next, free, rows), next, start);
      if (stepped === next) break;
      next = stepped;
    }
    if (next === current) break;
    current = next;
  }
  return best;
}

interface Work {
  readonly where: Omit<DriftOptions, 'spacing'>;
  readonly anchors: boolean;
  readonly chosen: ReadonlySet<number> | null;
  readonly meant: ReadonlySet<number>;
  readonly tolerance: number;
}

/** In a picture made smaller a path is looked about for within so many of its pixels at most, and at least. */
const COARSE_REACH = { most: 12, least: 6 } as const;

/** A path settled in a smaller picture, from farther off. */
function settledCoarsely(field: FieldTiles, ratio: number, from: Path, work: Work): Path {
  const small = (p: Path): Path => transformPath(p, scaling(1 / ratio));
  const { where } = work;
  const reach = Math.min(COARSE_REACH.most, Math.max(COARSE_REACH.least, where.reach));
  const { path } = settledIn(field, small(from), {
    ...work,
    where: {
      ...where,
      reach,
      detail: (where.detail ?? 0) / ratio,
      covers: (where.covers ?? []).map((cover) => cover.map(small)),
    },
    tolerance: work.tolerance / ratio,
  });
  return withKinds(transformPath(path, scaling(ratio)), from);
}

/**
 * Moves handles, and anchors if they may, of a path onto the picture's edge, by damped least squares to the tracked edge,
 * which is tracked anew each round. Kinds, count and order of anchors stay; smooth and equal handles stay so; corners go to
 * where the two edges meet, since near a corner nothing is asked of the curve; where there is no edge the curve stays. A
 * straight segment whose edge bows gets handles. A path that lies far off is settled in smaller pictures first, from coarse
 * to fine, as far as that brings all of it nearer. No round that folds a segment is taken.
 *
 * @param path in picture pixels
 * @returns the path with its figures before and after; all of the line together never lies farther off than it did
 */
export function settle(
  path: Path,
  field: FieldTiles,
  { anchors = true, only, tolerance = 1, figureSpacing, coarser = [], ...where }: SettleOptions,
): Settled {
  const meant = meantSegments(path);
  const every = Array.from({ length: segmentCount(path) }, (_, s) => s);
  const chosen = only || meant.size > 0 ? new Set((only ?? every).filter((s) => !meant.has(s))) : null;
  const { form: _form, ...plain } = path;
  const work: Work = { where, anchors, chosen, meant, tolerance };
  // Figures are of what may move.
  const leftOut = only ? new Set(every.filter((s) => !chosen!.has(s))) : meant;
  const figuresAt = (p: Path): DriftFigures =>
    driftFigures([leaveOut(measureDrift(p, field, { ...where, spacing: figureSpacing ?? 1 }), leftOut)], tolerance); // prettier-ignore
  if (segmentCount(path) === 0) {
    const none = driftFigures([], tolerance);
    return { path, before: none, after: none };
  }
  let done = settledIn(field, plain, work);
  const isFar = meanOfAll(done.figures, where.reach) > FAR_OFF_PX;
  if (isFar && coarser.length > 0) {
    let from: Path = plain;
    for (let level = coarser.length; level > 0; level--)
      from = settledCoarsely(coarser[level - 1]!, 2 ** level, from, work);
    const far = settledIn(field, from, work);
    if (meanOfAll(far.figures, where.reach) < meanOfAll(done.figures, where.reach)) done = far;
  }
  const before = figuresAt(path);
  const nothing: Settled = { path, before, after: before };
  if (done.path === plain) return nothing;
  const after = figuresAt(done.path);
  const better = meanOfAll(after, where.reach) < meanOfAll(before, where.reach) - BETTER;
  return better ? { path: withKinds(done.path, path), before, after } : nothing;
}
