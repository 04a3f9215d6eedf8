import { MirrotError } from '../../error';
import type { PenStroke } from '../../path/pen-stroke';

// Source: Hewlett-Packard, HP 7475A Graphics Plotter Interfacing and Programming Manual (1983): IN, SP, PU, PD, PA and the
// plotter unit; from memory, and as hp2xx draws it (in the tests).

/** Plotter units to a millimetre: one is 0.025 mm. */
export const UNITS_PER_MM = 40;
/** Largest coordinate that plotters of HP-GL take, plotter units (over 200 m). */
const FARTHEST = 2 ** 23 - 1;
/** Points in one command: plotters hold a command before they carry it out. */
const POINTS_AT_ONCE = 64;

/**
 * Strokes as HP-GL, in their order, a pen put down once for each.
 *
 * @throws MirrotError `nothing` without strokes; `too-far` where a plotter cannot count that far
 */
export function writeHpgl(strokes: readonly PenStroke[]): string {
  if (strokes.length === 0)
    throw new MirrotError(
      'nothing',
      'There is no line to draw or cut. Show a shape that has a fill or a stroke.',
    );
  const units = (v: number): number => {
    const n = Math.round(v * UNITS_PER_MM);
    if (Math.abs(n) > FARTHEST)
      throw new MirrotError(
        'too-far',
        'The drawing reaches farther than plotters count, over 200 m. Make it smaller.',
      );
    return n;
  };
  const out = ['IN;'];
  let pen = 0;
  for (const stroke of strokes) {
    if (stroke.pen !== pen) out.push(`SP${(pen = stroke.pen)};`);
    const all = (stroke.closed ? [...stroke.points, stroke.points[0]!] : stroke.points).map(
      ({ x, y }) => `${units(x)},${units(y)}`,
    );
    // Points that are the same to a plotter are one.
    const points = all.filter((p, i) => i === 0 || p !== all[i - 1]);
    out.push(`PU${points[0]!};`);
    if (points.length === 1) points.push(points[0]!);
    for (let i = 1; i < points.length; i += POINTS_AT_ONCE)
      out.push(`PD${points.slice(i, i + POINTS_AT_ONCE).join(',')};`);
    out.push('PU;');
  }
  out.push('SP0;', '');
  return out.join('\n');
}
