import { MirrotError } from '../error';
import { boxOfPoints } from '../geometry/bounds';
import type { Cubic } from '../geometry/cubic';
import { cross, distance, dot, length, mix, subtract, type Point } from '../geometry/vector';
import { arcCubics } from './arc';
import { pathCubics, segmentIsLine, type Path } from './path';
import type { Anchor } from './anchor';

/** How many numbers each command of path data takes (W3C SVG 2, chapter Paths). */
const ARGUMENTS: Readonly<Record<string, number>> = {
  M: 2, L: 2, H: 1, V: 1, C: 6, S: 4, Q: 4, T: 2, A: 7, Z: 0,
}; // prettier-ignore

interface Command {
  readonly letter: string;
  readonly relative: boolean;
  readonly values: readonly number[];
}

const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/y;
const SEPARATOR = /[\s,]*/y;

function refuse(at: number, what: string): never {
  throw new MirrotError('path-data', `Path data is wrong at character ${at + 1}: ${what}.`);
}

/** Splits path data into commands, repeated arguments made explicit (after M follow L). */
function readCommands(data: string): Command[] {
  const commands: Command[] = [];
  let at = 0;
  const skip = (): void => {
    SEPARATOR.lastIndex = at;
    at += SEPARATOR.exec(data)![0].length;
  };
  const number = (flag: boolean): number => {
    skip();
    if (flag) {
      const c = data[at];
      if (c !== '0' && c !== '1') refuse(at, 'an arc flag must be 0 or 1');
      at++;
      return Number(c);
    }
    NUMBER.lastIndex = at;
    const found = NUMBER.exec(data);
    if (!found) refuse(at, 'a number was expected');
    at += found[0].length;
    const value = Number(found[0]);
    if (!Number.isFinite(value)) refuse(at, 'a number is too large');
    return value;
  };
  skip();
  while (at < data.length) {
    const letter = data[at]!;
    const upper = letter.toUpperCase();
    const count = ARGUMENTS[upper];
    if (count === undefined) refuse(at, `"${letter}" is not a command`);
    if (commands.length === 0 && upper !== 'M') refuse(at, 'it must begin with a move (M)');
    at++;
    let name = upper;
    do {
      const values = Array.from({ length: count }, (_, i) => number(name === 'A' && (i === 3 || i === 4)));
      commands.push({ letter: name, relative: letter !== upper, values });
      if (name === 'M') name = 'L';
      skip();
    } while (count > 0 && at < data.length && /[\d+\-.]/.test(data[at]!));
  }
  return commands;
}

/** Files are written to a thousandth: each coordinate of a handle's ends may be off by so much, in the path's unit. */
const ROUNDING = 0.0005;
/** Rounded so, ends of a ring lie within this of each other. */
const RING_GAP = 3 * ROUNDING;

/**
 * Whether two handles lie in one line, on opposite sides, to a thousandth of a radian.
 *
 * @param rounding how far off each coordinate of an end may be; short handles turn by more when they are rounded
 */
export function inLine(arriving: Point, leaving: Point, rounding = 0): boolean {
  const [a, b] = [length(arriving), length(leaving)];
  const within = 1e-3 * a * b + 2 * rounding * (a + b);
  return (
    a > 0 && b > 0 && dot(arriving, leaving) < -0.9 * a * b && Math.abs(cross(arriving, leaving)) <= within
  );
}

/** How near the last point of a ring lies to its first to be the same one: rounding, on a drawing large enough for it. */
const ringGap = (points: readonly Point[]): number => {
  const box = boxOfPoints(points);
  return Math.max(1e-9, Math.min(RING_GAP, 1e-3 * Math.max(box.x1 - box.x0, box.y1 - box.y0)));
};

interface Drawing {
  anchors: { x: number; y: number; in: Point | null; out: Point | null }[];
  closed: boolean;
}

/**
 * Reads SVG path data. Quadratics and arcs become cubics; a close command joins a last anchor that lies on the first.
 *
 * @param data the `d` attribute
 * @param idOf names the nth path, from 0
 * @returns paths in the unit of the data, in order; moves without a line after them are left out
 * @throws MirrotError `path-data` naming the character where the data breaks the grammar
 */
export function parsePathData(data: string, idOf: (n: number) => string = (n) => `path-${n + 1}`): Path[] {
  const drawings: Drawing[] = [];
  let drawing: Drawing | null = null;
  let start: Point = { x: 0, y: 0 };
  let at: Point = start;
  let lastCubic: Point | null = null;
  let lastQuadratic: Point | null = null;

  const begin = (): Drawing => {
    if (!drawing) {
      drawing = { anchors: [{ ...start, in: null, out: null }], closed: false };
      drawings.push(drawing);
    }
    return drawing;
  };
  const line = (to: Point): void => {
    begin().anchors.push({ ...to, in: null, out: null });
    at = to;
  };
  const curve = ([, c1, c2, to]: Cubic): void => {
    const { anchors } = begin();
    const from = anchors[anchors.length - 1]!;
    const handle = (c: Point, a: Point): Point | null => (c.x === a.x && c.y === a.y ? null : subtract(c, a));
    from.out = handle(c1, from);
    anchors.push({ ...to, in: handle(c2, to), out: null });
    at = to;
  };

  for (const { letter, relative, values } of readCommands(data)) {
    const origin: Point = relative ? at : { x: 0, y: 0 };
    const p = (i: number): Point => ({ x: origin.x + values[i]!, y: origin.y + values[i + 1]! });
    let cubic: Point | null = null;
    let quadratic: Point | null = null;
    switch (letter) {
      case 'M':
        start = at = p(0);
        drawing = null;
        break;
      case 'L':
        line(p(0));
        break;
      case 'H':
        line({ x: origin.x + values[0]!, y: at.y });
        break;
      case 'V':
        line({ x: at.x, y: origin.y + values[0]! });
        break;
      case 'C':
        cubic = p(2);
        curve([at, p(0), cubic, p(4)]);
        break;
      case 'S':
        cubic = p(0);
        curve([at, lastCubic ? mix(lastCubic, at, 2) : at, cubic, p(2)]);
        break;
      case 'Q':
      case 'T': {
        quadratic = letter === 'Q' ? p(0) : lastQuadratic ? mix(lastQuadratic, at, 2) : at;
        const to = p(letter === 'Q' ? 2 : 0);
        curve([at, mix(at, quadratic, 2 / 3), mix(to, quadratic, 2 / 3), to]);
        break;
      }
      case 'A': {
        const [rx, ry, turn, large, sweep] = values as [number, number, number, number, number];
        const to = p(5);
        if (rx === 0 || ry === 0) line(to);
        else arcCubics(at, rx, ry, turn, large === 1, sweep === 1, to).forEach(curve);
        break;
      }
      default:
        begin().closed = true;
        drawing = null;
        at = start;
    }
    lastCubic = cubic;
    lastQuadratic = quadratic;
  }
  return drawings
    .filter((d) => d.anchors.length > 1 || d.closed)
    .map(({ anchors, closed }, n): Path => {
      const first = anchors[0]!;
      const last = anchors[anchors.length - 1]!;
      if (closed && anchors.length > 2 && distance(first, last) < ringGap(anchors)) {
        first.in = last.in;
        anchors.pop();
      }
      return {
        id: idOf(n),
        closed,
        anchors: anchors.map((a): Anchor => ({
          ...a,
          kind: a.in && a.out && inLine(a.in, a.out, ROUNDING) ? 'smooth' : 'corner',
        })),
      };
    });
}

/**
 * Writes paths as SVG path data, as short as absolute or relative commands, H, V and S make it.
 * Every point is rounded on its own, so errors do not add up along the path.
 *
 * @param decimals digits after the point, in the path's unit
 * @returns the `d` attribute; empty for no paths; every point within half a unit of the last digit
 */
export function formatPathData(paths: readonly Path[], decimals = 3): string {
  const unit = 10 ** decimals;
  const whole = (v: number): number => Math.round(v * unit);
  // Numbers are handled as whole multiples of the last digit, so that differences are exact.
  const text = (v: number): string => {
    if (v === 0) return '0';
    let short = String(v / unit);
    // Only the tiniest and the hugest are written with an exponent.
    if (short.includes('e')) short = (v / unit).toFixed(decimals).replace(/(\.\d*?)0+$/, '$1');
    if (short.startsWith('0.')) return short.slice(1);
    return short.startsWith('-0.') ? `-${short.slice(2)}` : short;
  };
  let out = '';
  let lastLetter = '';
  let x = 0;
  let y = 0;
  const join = (values: readonly number[]): string => {
    let s = '';
    let dotted = false;
    for (const v of values) {
      const t = text(v);
      const glued = s === '' || t.startsWith('-') || (dotted && t.startsWith('.'));
      s += glued ? t : ` ${t}`;
      dotted = t.includes('.');
    }
    return s;
  };
  const write = (letter: string, absolute: readonly number[]): void => {
    const isX = (i: number): boolean => (letter === 'H' ? true : letter === 'V' ? false : i % 2 === 0);
    const relative = absolute.map((v, i) => v - (isX(i) ? x : y));
    const command = (name: string, body: string): string => {
      const goesOn =
        name === lastLetter || (name === 'L' && lastLetter === 'M') || (name === 'l' && lastLetter === 'm');
      return !goesOn ? name + body : body.startsWith('-') ? body : ` ${body}`;
    };
    const small = letter.toLowerCase();
    const [there, onward] = [command(letter, join(absolute)), command(small, join(relative))];
    const shorter = onward.length < there.length;
    out += shorter ? onward : there;
    lastLetter = shorter ? small : letter;
    if (letter === 'H') x = absolute[0]!;
    else if (letter === 'V') y = absolute[0]!;
    else {
      x = absolute[absolute.length - 2]!;
      y = absolute[absolute.length - 1]!;
    }
  };
  for (const path of paths) {
    const first = path.anchors[0];
    if (!first) continue;
    const startX = whole(first.x);
    const startY = whole(first.y);
    write('M', [startX, startY]);
    let mirrored: readonly [number, number] | null = null;
    pathCubics(path).forEach((c, i) => {
      const [x1, y1] = [whole(c[1].x), whole(c[1].y)];
      const [x2, y2] = [whole(c[2].x), whole(c[2].y)];
      const [x3, y3] = [whole(c[3].x), whole(c[3].y)];
      const closing = path.closed && i === path.anchors.length - 1;
      if (segmentIsLine(path, i)) {
        mirrored = null;
        if (closing) return;
        if (y3 === y) write('H', [x3]);
        else if (x3 === x) write('V', [y3]);
        else write('L', [x3, y3]);
        return;
      }
      const [mx, my] = mirrored ?? [x, y];
      if (x1 === mx && y1 === my) write('S', [x2, y2, x3, y3]);
      else write('C', [x1, y1, x2, y2, x3, y3]);
      mirrored = [2 * x3 - x2, 2 * y3 - y2];
    });
    if (path.closed) {
      out += 'Z';
      lastLetter = 'Z';
      x = startX;
      y = startY;
    }
  }
  return out;
}
