import Flatbush from 'flatbush';
import type { Point } from '../geometry/vector';
import type { PenStroke } from '../path/pen-stroke';

/** A stretch drawn once more where the pen was already. */
export interface Doubled {
  /** Which stroke, by number, draws it again. */
  readonly stroke: number;
  /** Millimetres, in order. Two at least. */
  readonly points: readonly Point[];
  readonly length: number;
}

/** Pieces that differ in direction by a sine of less run along each other: 10°. */
const ALONG_SINE = Math.sin(Math.PI / 18);
/** Shorter stretches are crossings, or where a branch leaves a stem: so many times the width of the line. */
const LEAST_WIDTHS = 5;

interface Piece {
  readonly stroke: number;
  readonly a: Point;
  readonly b: Point;
  readonly length: number;
}

/** Where pieces lie along `own`, as shares of it from and to, within a distance. */
function overlap(own: Piece, other: Piece, near: number): readonly [number, number] | null {
  const way = { x: (own.b.x - own.a.x) / own.length, y: (own.b.y - own.a.y) / own.length };
  const sine = (way.x * (other.b.y - other.a.y) - way.y * (other.b.x - other.a.x)) / other.length;
  if (Math.abs(sine) > ALONG_SINE) return null;
  const along = (p: Point): number => way.x * (p.x - own.a.x) + way.y * (p.y - own.a.y);
  const off = (p: Point): number => way.x * (p.y - own.a.y) - way.y * (p.x - own.a.x);
  const [s, t] = [along(other.a), along(other.b)];
  const [from, to] = [Math.max(0, Math.min(s, t)), Math.min(own.length, Math.max(s, t))];
  if (!(to > from) || t === s) return null;
  const offAt = (v: number): number => off(other.a) + ((off(other.b) - off(other.a)) * (v - s)) / (t - s);
  if (Math.abs(offAt((from + to) / 2)) > near) return null;
  return [from / own.length, to / own.length];
}

/** Shares that meet become one. */
function united(shares: readonly (readonly [number, number])[]): (readonly [number, number])[] {
  const out: [number, number][] = [];
  for (const [from, to] of [...shares].sort((a, b) => a[0] - b[0])) {
    const last = out.at(-1);
    if (last && from <= last[1] + 1e-9) last[1] = Math.max(last[1], to);
    else out.push([from, to]);
  }
  return out;
}

/**
 * What strokes draw where something was drawn already, by an earlier stroke or earlier in the same one.
 *
 * @param width of the line that is left, millimetres, above 0: what lies within it in the same direction is drawn twice
 */
export function doubledStretches(strokes: readonly PenStroke[], width: number): Doubled[] {
  const pieces: Piece[] = [];
  strokes.forEach(({ points, closed }, stroke) => {
    const all = closed ? [...points, points[0]!] : points;
    for (let i = 1; i < all.length; i++) {
      const [a, b] = [all[i - 1]!, all[i]!];
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      if (length > 0) pieces.push({ stroke, a, b, length });
    }
  });
  if (pieces.length === 0) return [];
  const tree = new Flatbush(pieces.length);
  for (const { a, b } of pieces) tree.add(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y)); // prettier-ignore
  tree.finish();
  const found: Doubled[] = [];
  let run: { readonly stroke: number; readonly points: Point[]; length: number } | null = null;
  const end = (): void => {
    if (run && run.length >= LEAST_WIDTHS * width) found.push(run);
    run = null;
  };
  pieces.forEach((own, i) => {
    const { a, b } = own;
    const earlier = tree.search(
      Math.min(a.x, b.x) - width,
      Math.min(a.y, b.y) - width,
      Math.max(a.x, b.x) + width,
      Math.max(a.y, b.y) + width,
      (k) => k < i,
    );
    const shares = united(earlier.flatMap((k) => { const s = overlap(own, pieces[k]!, width); return s ? [s] : []; })); // prettier-ignore
    const at = (share: number): Point => ({ x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) });
    if (run && (run.stroke !== own.stroke || shares[0]?.[0] !== 0)) end();
    for (const [from, to] of shares) {
      if (run && from > 0) end();
      run ??= { stroke: own.stroke, points: [at(from)], length: 0 };
      run.points.push(at(to));
      run.length += (to - from) * own.length;
      if (to < 1) end();
    }
  });
  end();
  return found;
}
