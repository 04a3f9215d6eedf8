import { applyLinear, apply, rotation, compose, translation, type Affine } from '../geometry/affine';
import { CIRCLE_HANDLE } from '../geometry/cubic';
import { distance, snapAngle, subtract, type Point } from '../geometry/vector';
import { withMarksOf, type Anchor } from './anchor';
import type { Path } from './path';

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

const still = (x: number, y: number): Anchor => ({ x, y, kind: 'corner', in: null, out: null });
const soft = (x: number, y: number, arriving: Point | null, leaving: Point | null): Anchor => ({
  x,
  y,
  kind: 'smooth',
  in: arriving,
  out: leaving,
});

/** Anchors about the origin, unturned. */
const LAID: Readonly<Record<FormKind, (form: Form) => Anchor[]>> = {
  line: ({ width }) => [still(-width / 2, 0), still(width / 2, 0)],
  polygon: ({ width, sides }) =>
    Array.from({ length: sides }, (_, i) => {
      const a = (i / sides) * 2 * Math.PI - Math.PI / 2;
      return still((width / 2) * Math.cos(a), (width / 2) * Math.sin(a));
    }),
  ellipse({ width, height }) {
    const [rx, ry] = [width / 2, height / 2];
    const [kx, ky] = [rx * CIRCLE_HANDLE, ry * CIRCLE_HANDLE];
    return [
      soft(rx, 0, { x: 0, y: -ky }, { x: 0, y: ky }),
      soft(0, ry, { x: kx, y: 0 }, { x: -kx, y: 0 }),
      soft(-rx, 0, { x: 0, y: ky }, { x: 0, y: -ky }),
      soft(0, -ry, { x: -kx, y: 0 }, { x: kx, y: 0 }),
    ];
  },
  box(form) {
    const { width, height } = form;
    const radii = fittedRadii(form);
    // Each corner with the way in which the outline arrives there, clockwise from the top left.
    const corners = [
      [-width / 2, -height / 2, 0, -1],
      [width / 2, -height / 2, 1, 0],
      [width / 2, height / 2, 0, 1],
      [-width / 2, height / 2, -1, 0],
    ] as const;
    const out: Anchor[] = [];
    corners.forEach(([x, y, ux, uy], i) => {
      const r = radii[i]!;
      if (r === 0) return void out.push(still(x, y));
      const k = r * CIRCLE_HANDLE;
      // Leaving direction: the arriving one turned clockwise.
      const [vx, vy] = [-uy, ux];
      out.push(
        soft(x - ux * r, y - uy * r, null, { x: ux * k, y: uy * k }),
        soft(x + vx * r, y + vy * r, { x: -vx * k, y: -vy * k }, null),
      );
    });
    // Where two arcs use a side up, their ends are one anchor.
    return out.reduceRight<Anchor[]>((kept, a, i) => {
      const next = kept[0] ?? out[0]!;
      const one = a.out === null && next.in === null && a.kind === 'smooth' && next.kind === 'smooth';
      if (!one || distance(a, next) > 1e-9 * (width + height)) return [a, ...kept];
      if (i === out.length - 1) {
        out[0] = { ...next, in: a.in };
        return kept;
      }
      return [{ ...next, in: a.in }, ...kept.slice(1)];
    }, []);
  },
};

/** The path a form draws. Its anchors run clockwise on screen; a line is open. */
export function formPath(form: Form, id: string): Path {
  const place = compose(translation(form.x, form.y), rotation(form.angle));
  const turned = (h: Point | null): Point | null => h && applyLinear(place, h);
  return {
    id,
    closed: form.kind !== 'line',
    form,
    anchors: LAID[form.kind](form).map((a) => ({
      ...a,
      ...apply(place, a),
      in: turned(a.in),
      out: turned(a.out),
    })),
  };
}

/** The path drawn anew as another form; anchors that stay in number keep their marks. */
export function redrawForm(path: Path, form: Form): Path {
  const drawn = formPath(form, path.id);
  if (drawn.anchors.length !== path.anchors.length) return drawn;
  return { ...drawn, anchors: drawn.anchors.map((a, i) => withMarksOf(a, path.anchors[i]!)) };
}

/** Whether the path still is what its form draws, to a millionth of its size. */
export function fitsForm(path: Path): boolean {
  const { form } = path;
  if (!form) return false;
  const drawn = formPath(form, path.id);
  const within = 1e-6 * Math.max(form.width, form.height, 1e-3);
  const near = (a: Point | null, b: Point | null): boolean =>
    a === null || b === null ? a === b : distance(a, b) <= within;
  return (
    drawn.closed === path.closed &&
    drawn.anchors.length === path.anchors.length &&
    drawn.anchors.every((a, i) => {
      const b = path.anchors[i]!;
      return near(a, b) && near(a.in, b.in) && near(a.out, b.out) && a.kind === b.kind;
    })
  );
}

/** The path as its anchors alone, whatever it was drawn as. */
export function withoutForm(path: Path): Path {
  if (!path.form) return path;
  const { form: _gone, ...rest } = path;
  return rest;
}

/** The path without a form it no longer has; itself otherwise. Its anchors stay as they are. */
export function keepForm(path: Path): Path {
  if (!path.form || fitsForm(path)) return path;
  return withoutForm(path);
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

/** How a form is drawn by a drag. */
export interface FormDrag {
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
