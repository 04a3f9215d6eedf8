import { distance, type Point } from '../geometry/vector';
import { formBetween, acrossAt } from './field-form';
import { hillTop } from '../geometry/hill-top';
import type { FieldTiles } from './field-tiles';
import { barHalfWidth } from './weight';

/** What a straight line drawn over the picture crosses. */
export interface Crossed {
  /** Where it crosses edges, lengths from its beginning in picture pixels, in order. */
  readonly edges: readonly number[];
  /** Width of the stroke, or of what lies between the two edges about its middle, square to them; null where there are not two. */
  readonly width: number | null;
  /** The two edges it lies between, as they stand in `edges`. */
  readonly between: readonly [number, number] | null;
}

const STEP_PX = 0.25;
/** Slopes below which there is no edge, OKLab units per pixel, and the share of the strongest one it takes. */
const LEAST_SLOPE = 0.012;
const LEAST_SHARE_OF_STRONGEST = 0.3;

/**
 * The edges that a line crosses, read between pixels, and the width of what lies about its middle: of a stroke drawn over,
 * the stroke's.
 *
 * @param field an edge field
 * @param from picture pixels, as is `to`
 */
export function crossedEdges(field: FieldTiles, from: Point, to: Point): Crossed {
  const long = distance(from, to);
  const nothing: Crossed = { edges: [], width: null, between: null };
  if (!(long > 1)) return nothing;
  const { width, height } = field.raster;
  const u = { x: (to.x - from.x) / long, y: (to.y - from.y) / long };
  const count = Math.min(20_000, Math.floor(long / STEP_PX));
  const step = long / count;
  const at = (s: number): Point => ({ x: from.x + s * u.x, y: from.y + s * u.y });
  const strength = Float64Array.from({ length: count + 1 }, (_, k) => {
    const p = at(k * step);
    if (p.x < 0 || p.y < 0 || p.x > width || p.y > height) return 0;
    return Math.sqrt(Math.max(0, formBetween(field, p.x, p.y, u.x, u.y)));
  });
  const least = Math.max(
    LEAST_SLOPE,
    LEAST_SHARE_OF_STRONGEST * strength.reduce((a, b) => Math.max(a, b), 0),
  );
  // The top of a hill is told from a pixel either side of it.
  const wide = Math.max(1, Math.round(1 / step));
  const edges: number[] = [];
  for (let k = 1; k < count; k++) {
    const s = strength[k]!;
    if (s < least || s < strength[k - 1]! || s <= strength[k + 1]!) continue;
    const [a, b] = [strength[k - wide], strength[k + wide]];
    const off = a === undefined || b === undefined ? 0 : (hillTop(a, s, b) / 2) * wide * step;
    edges.push(k * step + Math.max(-1, Math.min(1, off)));
  }
  const middle = long / 2;
  const next = edges.findIndex((e) => e >= middle);
  const after = next > 0 ? next : edges.length > 1 ? (next === 0 ? 1 : edges.length - 1) : -1;
  if (after < 1) return { ...nothing, edges };
  const [first, second] = [edges[after - 1]!, edges[after]!];
  /** How square the line goes through an edge. */
  const square = (s: number): number => {
    const p = at(s);
    const x = Math.min(width - 1, Math.max(0, Math.floor(p.x)));
    const y = Math.min(height - 1, Math.max(0, Math.floor(p.y)));
    const { nx, ny } = acrossAt(field, x, y);
    return Math.abs(u.x * nx + u.y * ny);
  };
  const across = (second - first) * ((square(first) + square(second)) / 2);
  const found = 2 * barHalfWidth(across / 2, field.blur ** 2 + 0.5);
  return { edges, width: found, between: [after - 1, after] };
}
