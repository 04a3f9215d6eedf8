import { toRadians } from '../geometry/angle';
import type { Cubic } from '../geometry/cubic';
import type { Point } from '../geometry/vector';

/**
 * An SVG elliptical arc as cubics of at most a quarter turn each.
 * Source: W3C SVG 2, appendix "Implementation notes", elliptical arc conversion to centre parameterisation
 * and out-of-range radii.
 *
 * @param rotation turn of the ellipse's x axis, in degrees as in path data
 * @returns one straight cubic when a radius is 0; none when the ends coincide
 */
export function arcCubics(
  from: Point,
  radiusX: number,
  radiusY: number,
  rotation: number,
  large: boolean,
  sweep: boolean,
  to: Point,
): Cubic[] {
  if (from.x === to.x && from.y === to.y) return [];
  let rx = Math.abs(radiusX);
  let ry = Math.abs(radiusY);
  if (rx === 0 || ry === 0) return [[from, from, to, to]];
  const phi = toRadians(rotation);
  const cos = Math.cos(phi);
  const sin = Math.sin(phi);
  const dx = (from.x - to.x) / 2;
  const dy = (from.y - to.y) / 2;
  const x1 = cos * dx + sin * dy;
  const y1 = -sin * dx + cos * dy;
  const lambda = (x1 * x1) / (rx * rx) + (y1 * y1) / (ry * ry);
  if (lambda > 1) {
    rx *= Math.sqrt(lambda);
    ry *= Math.sqrt(lambda);
  }
  const over = rx * rx * ry * ry - rx * rx * y1 * y1 - ry * ry * x1 * x1;
  const under = rx * rx * y1 * y1 + ry * ry * x1 * x1;
  const k = (large === sweep ? -1 : 1) * Math.sqrt(Math.max(0, over / under));
  const cx1 = (k * rx * y1) / ry;
  const cy1 = (-k * ry * x1) / rx;
  const cx = cos * cx1 - sin * cy1 + (from.x + to.x) / 2;
  const cy = sin * cx1 + cos * cy1 + (from.y + to.y) / 2;
  const start = Math.atan2((y1 - cy1) / ry, (x1 - cx1) / rx);
  let turn = Math.atan2((-y1 - cy1) / ry, (-x1 - cx1) / rx) - start;
  if (sweep && turn < 0) turn += 2 * Math.PI;
  if (!sweep && turn > 0) turn -= 2 * Math.PI;
  const cubics = ellipseArc(
    { x: cx, y: cy },
    { x: cos * rx, y: sin * rx },
    { x: -sin * ry, y: cos * ry },
    start,
    turn,
  );
  // The ends are the very points asked for.
  return cubics.map(([a, b, c, d], i) => [i === 0 ? from : a, b, c, i === cubics.length - 1 ? to : d]);
}

/**
 * An arc of an ellipse as cubics of at most a quarter turn each.
 *
 * @param across, down from the centre to where the angle is 0, and to where it is a quarter turn
 * @param start, turn radians, from `across` towards `down`
 */
export function ellipseArc(centre: Point, across: Point, down: Point, start: number, turn: number): Cubic[] {
  const pieces = Math.max(1, Math.ceil(Math.abs(turn) / (Math.PI / 2) - 1e-9));
  const step = turn / pieces;
  const reach = (4 / 3) * Math.tan(step / 4);
  const place = (x: number, y: number): Point => ({
    x: centre.x + across.x * x + down.x * y,
    y: centre.y + across.y * x + down.y * y,
  });
  return Array.from({ length: pieces }, (_, i): Cubic => {
    const a = start + i * step;
    const b = a + step;
    const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
    return [
      place(ca, sa),
      place(ca - reach * sa, sa + reach * ca),
      place(cb + reach * sb, sb - reach * cb),
      place(cb, sb),
    ];
  });
}
