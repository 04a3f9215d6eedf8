import { MirrotError } from '../error';
import { cross, distance, dot, subtract } from '../geometry/vector';
import type { Anchor } from './anchor';
import { arrange } from './arrangement';
import type { Rounds } from './stretch';
import { borderPieces } from './combine';
import type { Path } from './path';
import { dashCount, MOST_DASHES, strokePieces, type StrokeOutline } from './stroke-pieces';

// Strokes as shapes, and shapes grown or shrunk: both are what a stroke's pieces cover, together or with the shape.

/** How far an outline may lie from the true one: sheet pixels, and no more than a share of the distance. */
const MOST_OFF_PX = 0.02;
const MOST_OFF_SHARE = 0.004;

const toleranceOf = (radius: number): number => Math.min(MOST_OFF_PX, MOST_OFF_SHARE * radius);

/**
 * The outline of what a stroke paints: ends, joins, miter limit and dashes as SVG 2 says (section 13.5).
 *
 * @param paths lines in sheet pixels
 * @returns pieces that hang together, each its outline first, then its holes; none for a stroke that paints nothing
 * @throws MirrotError `dashes` where there would be more of them than can be worked with
 */
export function strokeToShape(
  paths: readonly Path[],
  stroke: StrokeOutline,
  idOf: (n: number) => string,
): Path[][] {
  if (!(stroke.width > 0)) return [];
  if (dashCount(paths, stroke) > MOST_DASHES)
    throw new MirrotError('dashes', `This line has more than ${MOST_DASHES} dashes. Make them longer first. Nothing was changed.`); // prettier-ignore
  const pieces = strokePieces(paths, stroke, toleranceOf(stroke.width / 2));
  return borderPieces(arrange([pieces]), (round) => (round.get(0) ?? 0) > 0, idOf).map(withoutIdleAnchors);
}

/** An anchor so near the line between its neighbours, as a share of their distance, does nothing. */
const IDLE_SHARE = 1e-9;

/** Paths without the anchors that stand in a straight run: where pieces lay beside each other they had to be. */
const withoutIdleAnchors = (paths: readonly Path[]): Path[] =>
  paths.map((path) => {
    const kept: Anchor[] = [];
    const { anchors } = path;
    anchors.forEach((a, i) => {
      const before = kept.at(-1) ?? anchors.at(-1)!;
      const after = anchors[(i + 1) % anchors.length]!;
      const straight = !before.out && !a.in && !a.out && !after.in;
      const [to, on] = [subtract(a, before), subtract(after, a)];
      const idle =
        straight && dot(to, on) > 0 && Math.abs(cross(to, on)) <= IDLE_SHARE * distance(before, after) ** 2;
      if (!idle) kept.push(a);
    });
    return { ...path, anchors: kept };
  });

/** How what is widened goes round corners. */
export type WidenJoins = Pick<StrokeOutline, 'joins' | 'miterLimit'>;

/**
 * Paths grown or shrunk by a distance: where it is above 0 everything within it of the inside, where it is below only what is
 * farther than it from the edge. Open paths have no inside: they become a band as wide as the distance to both sides.
 *
 * @param paths in sheet pixels, inside by the even-odd rule
 * @param by sheet pixels
 * @returns pieces that hang together, each its outline first, then its holes; none where nothing is left
 */
export function widen(
  paths: readonly Path[],
  by: number,
  joins: WidenJoins,
  idOf: (n: number) => string,
): Path[][] {
  if (by === 0) return paths.map((path) => [path]);
  const radius = Math.abs(by);
  const round = joins.joins === 'round';
  const stroke: StrokeOutline = { width: 2 * radius, ends: round ? 'round' : 'butt', ...joins };
  const closed = paths.filter((path) => path.closed);
  const band = strokePieces(by > 0 ? paths : closed, stroke, toleranceOf(radius));
  const isIn = (round: Rounds): boolean => {
    const [own, beside] = [(round.get(0) ?? 0) % 2 !== 0, round.has(1)];
    return by > 0 ? own || beside : own && !beside;
  };
  return borderPieces(arrange([closed, band]), isIn, idOf).map(withoutIdleAnchors);
}
