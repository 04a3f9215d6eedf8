import { pointText } from '$lib/desk/view';
import { negate, tangentAt, type Path, type Point } from '@mirrot/core';

// Marks in bed pixels: they stand beside the line, with room at the anchor itself; form tells the kind.

/** Length of a mark on screen, and its distance from the line. */
const LENGTH = 11;
const CLEAR = 5.5;
const SHORTER = 7;
/** Ticks that close rails, and how far apart doubled marks stand. */
const TICK = 3;
const DOUBLED = 3.5;
/** Below this angle of turn, in radians, a corner counts as lying in a straight run. */
const STRAIGHT = 0.04;

const at = (p: Point, u: Point, k: number): Point => ({ x: p.x + u.x * k, y: p.y + u.y * k });
const normal = (u: Point): Point => ({ x: -u.y, y: u.x });

/** Two short rails, one each side of the line, along its tangent; ticks close their ends when handles are equal. */
function rails(p: Point, tangent: Point, length: number, k: number, farther: number, closed = false): string {
  const n = normal(tangent);
  return [1, -1]
    .map((side) => {
      const middle = at(p, n, side * (CLEAR * k + farther));
      const ends = [-1, 1].map((end) => at(middle, tangent, (end * length * k) / 2)) as [Point, Point];
      const tick = (q: Point): string => `M${pointText(q)}L${pointText(at(q, n, side * TICK * k))}`;
      return `M${pointText(ends[0])}L${pointText(ends[1])}${closed ? ends.map(tick).join('') : ''}`;
    })
    .join('');
}

/** Two rails that bow outward, away from the line. */
function bows(p: Point, tangent: Point, k: number, farther: number): string {
  const n = normal(tangent);
  return [1, -1]
    .map((side) => {
      const middle = at(p, n, side * (CLEAR * k + farther));
      const top = at(p, n, side * ((CLEAR + 5) * k + farther));
      return `M${pointText(at(middle, tangent, (-LENGTH * k) / 2))}Q${pointText(top)} ${pointText(at(middle, tangent, (LENGTH * k) / 2))}`;
    })
    .join('');
}

/** A chevron on the outer side of the angle, opened 90°, turned to its bisector. */
function chevron(p: Point, outward: Point, k: number, farther: number): string {
  const tip = at(p, outward, (CLEAR + 4.5) * k + farther);
  const arm = (turn: number): Point => {
    const c = Math.cos(turn);
    const s = Math.sin(turn);
    const back = negate(outward);
    return at(tip, { x: back.x * c - back.y * s, y: back.x * s + back.y * c }, 0.72 * LENGTH * k);
  };
  return `M${pointText(arm(Math.PI / 4))}L${pointText(tip)}L${pointText(arm(-Math.PI / 4))}`;
}

/**
 * Outline of an anchor's mark as SVG path data in bed pixels.
 *
 * @param p where the anchor lies on the bed
 * @param k size, 1 at rest
 */
export function anchorMark(path: Path, index: number, p: Point, k = 1): string {
  const one = singleMark(path, index, p, k);
  if (path.anchors[index]!.shared === undefined) return one;
  // Shared with a neighbour: the same once more, farther out.
  return one + singleMark(path, index, p, k, DOUBLED * k);
}

function singleMark(path: Path, index: number, p: Point, k: number, farther = 0): string {
  const arriving = tangentAt(path, index, 'in');
  const leaving = tangentAt(path, index, 'out');
  const tangent = leaving ?? arriving;
  if (!tangent) return chevron(p, { x: 0, y: -1 }, k, farther);
  // At the end of an open path, or beside another anchor on the same spot, there is one direction only.
  if (!arriving || !leaving) {
    if (path.anchors[index]!.kind === 'smooth')
      return rails(p, tangent, LENGTH, k, farther, path.anchors[index]!.equal);
    if (path.anchors[index]!.kind === 'flowing') return bows(p, tangent, k, farther);
    // The outer side lies beyond the line.
    return chevron(p, arriving ?? negate(tangent), k, farther);
  }
  const turn = Math.atan2(
    arriving.x * leaving.y - arriving.y * leaving.x,
    arriving.x * leaving.x + arriving.y * leaving.y,
  );
  if (path.anchors[index]!.kind === 'smooth')
    return rails(p, tangent, LENGTH, k, farther, path.anchors[index]!.equal);
  if (path.anchors[index]!.kind === 'flowing') return bows(p, tangent, k, farther);
  if (Math.abs(turn) < STRAIGHT) return rails(p, tangent, SHORTER, k, farther);
  const out = { x: arriving.x - leaving.x, y: arriving.y - leaving.y };
  const l = Math.hypot(out.x, out.y);
  return chevron(p, { x: out.x / l, y: out.y / l }, k, farther);
}

/** A handle's hairline and the crossbar at its end, in bed pixels. */
export function handleMark(anchor: Point, end: Point): { readonly line: string; readonly bar: string } {
  const l = Math.hypot(end.x - anchor.x, end.y - anchor.y) || 1;
  const u = { x: (end.x - anchor.x) / l, y: (end.y - anchor.y) / l };
  const n = normal(u);
  const from = at(anchor, u, Math.min(CLEAR, l));
  return {
    line: `M${pointText(from)}L${pointText(end)}`,
    bar: `M${pointText(at(end, n, -4.5))}L${pointText(at(end, n, 4.5))}`,
  };
}
