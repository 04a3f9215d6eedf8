import { compose, IDENTITY, rotation, scaling, translation, type Affine } from '../../../geometry/affine';
import { PX_PER } from '../../../art/units';

// Values of attributes and properties, as SVG 2 and the CSS modules it cites have them.

const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi;

/** All numbers of a text, in order. */
export const numbersOf = (text: string | undefined): number[] =>
  (text?.match(NUMBER) ?? []).map(Number).filter(Number.isFinite);

/** Sheet pixels to a unit. Em and ex are those of the text size when none is set, 16 px (CSS Fonts 4, "medium"). */
const UNIT_PX: Readonly<Record<string, number>> = {
  '': 1,
  ...PX_PER,
  pt: 96 / 72,
  pc: 16,
  q: 96 / 25.4 / 4,
  em: 16,
  rem: 16,
  ex: 8,
};

/**
 * A length in user units; null where it is none.
 *
 * @param whole what a percentage is of
 */
export function lengthOf(text: string | undefined, whole: number): number | null {
  const found = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text ?? '');
  if (!found) return null;
  const [value, unit] = [Number(found[1]), found[2]!.toLowerCase()];
  if (!Number.isFinite(value)) return null;
  if (unit === '%') return (value * whole) / 100;
  const px = UNIT_PX[unit];
  return px === undefined ? null : value * px;
}

/** A share from 0 to 1, given as a number or a percentage. */
export function shareOf(text: string | undefined, otherwise: number): number {
  const value = lengthOf(text, 1);
  return value === null ? otherwise : Math.min(1, Math.max(0, value));
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** The functions of a transform list (SVG 2, section 8.5). */
const TRANSFORMS: Readonly<Record<string, (v: readonly number[]) => Affine>> = {
  matrix: ([a = 1, b = 0, c = 0, d = 1, e = 0, f = 0]) => [a, b, c, d, e, f],
  translate: ([x = 0, y = 0]) => translation(x, y),
  translatex: ([x = 0]) => translation(x, 0),
  translatey: ([y = 0]) => translation(0, y),
  scale: ([x = 1, y = x]) => scaling(x, y),
  scalex: ([x = 1]) => scaling(x, 1),
  scaley: ([y = 1]) => scaling(1, y),
  rotate: ([turn = 0, x = 0, y = 0]) =>
    compose(translation(x, y), compose(rotation(radians(turn)), translation(-x, -y))),
  skewx: ([turn = 0]) => [1, 0, Math.tan(radians(turn)), 1, 0, 0],
  skewy: ([turn = 0]) => [1, Math.tan(radians(turn)), 0, 1, 0, 0],
};

/** Degrees to a unit of angle. */
const UNIT_DEGREES: Readonly<Record<string, number>> = { grad: 0.9, rad: 180 / Math.PI, turn: 360 };

/** Arguments of a transform function: lengths in user units, angles in degrees. */
const transformArguments = (text: string): number[] =>
  [
    ...text.matchAll(/([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*(grad|rad|turn|deg|px|mm|cm|in|pt|pc)?/gi),
  ].map(
    ([, value, unit = '']) =>
      Number(value) * (UNIT_DEGREES[unit.toLowerCase()] ?? UNIT_PX[unit.toLowerCase()] ?? 1),
  );

/** A transform list; null where a function of it is not known. */
export function transformOf(text: string | undefined): Affine | null {
  let map: Affine = IDENTITY;
  if (!text || text.trim() === 'none') return map;
  for (const [, name, values] of text.matchAll(/([a-z]+)\s*\(([^)]*)\)/gi)) {
    const made = TRANSFORMS[name!.toLowerCase()]?.(transformArguments(values!));
    if (!made) return null;
    map = compose(map, made);
  }
  return map.every(Number.isFinite) ? map : null;
}

/** Where in its room the content of a viewport lies: 0, ½ or 1 of what is left over. */
const ALIGN: Readonly<Record<string, number>> = { Min: 0, Mid: 0.5, Max: 1 };

/** The part of the plane that an element shows. */
export interface Viewport {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The box that `viewBox` names; null where it names none, or one without an area. */
export function viewBoxOf(text: string | undefined): Viewport | null {
  const [x, y, width, height] = numbersOf(text);
  return height !== undefined && width! > 0 && height > 0 ? { x: x!, y: y!, width: width!, height } : null;
}

/** The map from the inside of a viewport to the outside (SVG 2, section 8.2, with `preserveAspectRatio`). */
export function viewportMap(inner: Viewport, outer: Viewport, ratio = ''): Affine {
  const found = /^\s*(?:defer\s+)?(none|x(Min|Mid|Max)Y(Min|Mid|Max))(?:\s+(meet|slice))?/.exec(ratio);
  let [sx, sy] = [outer.width / inner.width, outer.height / inner.height];
  if (found?.[1] === 'none') return [sx, 0, 0, sy, outer.x - inner.x * sx, outer.y - inner.y * sy];
  sx = sy = found?.[4] === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const [ax, ay] = [ALIGN[found?.[2] ?? 'Mid']!, ALIGN[found?.[3] ?? 'Mid']!];
  const x = outer.x - inner.x * sx + ax * (outer.width - inner.width * sx);
  const y = outer.y - inner.y * sy + ay * (outer.height - inner.height * sy);
  return [sx, 0, 0, sy, x, y];
}
