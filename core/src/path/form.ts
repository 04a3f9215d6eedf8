import { apply, applyLinear, type Affine } from '../geometry/affine';

export const FORM_KINDS = ['box', 'ellipse', 'polygon', 'line'] as const;
export type FormKind = (typeof FORM_KINDS)[number];

/**
 * What a path is as long as none of its anchors is edited: numbers in place of anchors. `x`, `y` is the centre, `width`
 * and `height` are its sides before it is turned by `angle` (radians, clockwise on screen). A polygon is regular: its
 * anchors lie on the circle of diameter `width`, the first one straight up. A line has no height.
 */
export interface Form {
  readonly kind: FormKind;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly angle: number;
  /** Of a box's corners, clockwise from the top left. */
  readonly radii: readonly [number, number, number, number];
  /** Of a polygon. */
  readonly sides: number;
}

export const FEWEST_SIDES = 3;
export const MOST_SIDES = 60;

export const plainForm = (kind: FormKind, given: Partial<Form> = {}): Form => ({
  kind,
  x: 0,
  y: 0,
  width: 0,
  height: 0,
  angle: 0,
  radii: [0, 0, 0, 0],
  sides: 6,
  ...given,
});

/**
 * The radii a box can have: where two together are longer than their side, all are made smaller alike
 * (CSS Backgrounds and Borders 3, 4.5 "Corner overlap").
 */
export function fittedRadii({ width, height, radii }: Form): [number, number, number, number] {
  const [a, b, c, d] = radii.map((r) => Math.max(0, r)) as [number, number, number, number];
  const room = (side: number, both: number): number => (both > side ? side / both : 1);
  const k = Math.min(room(width, a + b), room(height, b + c), room(width, c + d), room(height, d + a));
  return [a * k, b * k, c * k, d * k];
}

/**
 * The form after a map; null where the map makes something of it that no form is (a sheared box, a polygon stretched
 * one way, a rounded corner that is no circle any more).
 */
export function mapForm(form: Form, map: Affine): Form | null {
  const across = applyLinear(map, { x: Math.cos(form.angle), y: Math.sin(form.angle) });
  const down = applyLinear(map, { x: -Math.sin(form.angle), y: Math.cos(form.angle) });
  const [sx, sy] = [Math.hypot(across.x, across.y), Math.hypot(down.x, down.y)];
  if (!(sx > 0 && sy > 0)) return null;
  const square = Math.abs(across.x * down.x + across.y * down.y) <= 1e-9 * sx * sy;
  const even = Math.abs(sx - sy) <= 1e-9 * Math.max(sx, sy);
  const needsEven = form.kind === 'polygon' || form.radii.some((r) => r > 0);
  if (form.kind !== 'line' && (!square || (needsEven && !even))) return null;
  const mirrored = across.x * down.y - across.y * down.x < 0;
  const [a, b, c, d] = form.radii.map((r) => r * sx) as [number, number, number, number];
  return {
    ...form,
    ...apply(map, form),
    width: form.width * sx,
    height: form.height * sy,
    // A mirrored polygon stands on the vertex that pointed up; the rest are their own mirror image across.
    angle: Math.atan2(across.y, across.x) + (mirrored && form.kind === 'polygon' ? Math.PI : 0),
    radii: mirrored ? [d, c, b, a] : [a, b, c, d],
  };
}
