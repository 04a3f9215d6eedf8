import { apply, applyLinear, compose, rotation, translation } from '../geometry/affine';
import { CIRCLE_HANDLE } from '../geometry/cubic';
import { distance, type Point } from '../geometry/vector';
import { withMarksOf, type Anchor } from './anchor';
import type { Form, FormKind } from './form';
import { fittedRadii } from './form';
import type { Path } from './path';

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
