import { apply, compose, rotation, translation } from '../geometry/affine';
import { snapAngle, subtract, type Point } from '../geometry/vector';
import type { Form, FormKind } from './form';
import { fittedRadii, plainForm } from './form';

/** How a form is drawn by a drag. */
interface FormDrag {
  /** Sides alike; a line in steps of 45°. */
  readonly equal: boolean;
  /** The drag begins in the middle, not at a corner. */
  readonly centred: boolean;
  readonly sides: number;
  /** Of a box's corners. */
  readonly radius: number;
}

/** The form that a drag from one point to another draws. A polygon is as large as fits both ways. */
export function dragForm(kind: FormKind, from: Point, to: Point, drag: FormDrag): Form {
  let d = subtract(to, from);
  if (kind === 'line') {
    if (drag.equal) d = snapAngle(d, Math.PI / 4);
    const middle = drag.centred ? from : { x: from.x + d.x / 2, y: from.y + d.y / 2 };
    const width = Math.hypot(d.x, d.y) * (drag.centred ? 2 : 1);
    return plainForm(kind, { x: middle.x, y: middle.y, width, angle: Math.atan2(d.y, d.x) });
  }
  const [ax, ay] = [Math.abs(d.x), Math.abs(d.y)];
  if (drag.equal || kind === 'polygon') {
    const side = drag.equal ? Math.max(ax, ay) : Math.min(ax, ay);
    d = { x: (d.x < 0 ? -1 : 1) * side, y: (d.y < 0 ? -1 : 1) * side };
  }
  const k = drag.centred ? 2 : 1;
  return plainForm(kind, {
    x: drag.centred ? from.x : from.x + d.x / 2,
    y: drag.centred ? from.y : from.y + d.y / 2,
    width: Math.abs(d.x) * k,
    height: Math.abs(d.y) * k,
    sides: drag.sides,
    ...(kind === 'box' && { radii: [drag.radius, drag.radius, drag.radius, drag.radius] as const }),
  });
}

/** Where a box's rounding is taken hold of: on the diagonal of corner `i`, at its radius but `least` from it at least. */
export function radiusGrip(form: Form, i: number, least: number): Point {
  const r = Math.max(fittedRadii(form)[i]!, Math.min(least, form.width / 2, form.height / 2));
  const [sx, sy] = [i === 0 || i === 3 ? -1 : 1, i < 2 ? -1 : 1];
  const local = { x: sx * (form.width / 2 - r), y: sy * (form.height / 2 - r) };
  return apply(compose(translation(form.x, form.y), rotation(form.angle)), local);
}

/** How far a point lies inside corner `i` of a box, along its diagonal, as a radius. */
export function radiusAt(form: Form, i: number, p: Point): number {
  const [sx, sy] = [i === 0 || i === 3 ? -1 : 1, i < 2 ? -1 : 1];
  const d = subtract(p, form);
  const [c, s] = [Math.cos(form.angle), Math.sin(form.angle)];
  const local = { x: c * d.x + s * d.y, y: -s * d.x + c * d.y };
  return (form.width / 2 - sx * local.x + form.height / 2 - sy * local.y) / 2;
}
