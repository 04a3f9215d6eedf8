import type { Art } from '../art/schema';
import { PX_PER } from '../art/units';
import { flattenCubic } from '../geometry/flatten';
import type { Point } from '../geometry/vector';
import { pathCubics, segmentIsLine, type Path } from '../path/path';

/** One stretch that a pen draws, or a knife cuts, without being lifted. */
export interface PlotStroke {
  /** Number of the pen, from 1. */
  readonly pen: number;
  /** It ends where it begins; that point is not said twice. */
  readonly closed: boolean;
  /** Millimetres from the lower left corner of the sheet, y upward. Two at least. */
  readonly points: readonly Point[];
}

/** Lines to be drawn or cut, on the layer whose pen draws them. */
export interface PlotLines {
  readonly layer: string;
  readonly paths: readonly Path[];
}

/** The corner points of a path, sheet pixels: straight segments as they are, curves within a tolerance. */
function pointsOf(path: Path, tolerance: number): Point[] {
  const cubics = pathCubics(path);
  const points: Point[] = cubics.length > 0 ? [cubics[0]![0]] : [];
  cubics.forEach((cubic, i) => {
    if (segmentIsLine(path, i)) points.push(cubic[3]);
    else points.push(...flattenCubic(cubic, tolerance));
  });
  return points.filter((p, i) => i === 0 || p.x !== points[i - 1]!.x || p.y !== points[i - 1]!.y);
}

/**
 * A drawing's lines as strokes of a plotter, in their order: a pen for each layer, in the order the layers come.
 *
 * @param tolerance how far the strokes may leave the curves, millimetres, above 0
 */
export function plotStrokes(
  lines: readonly PlotLines[],
  sheet: Pick<Art['sheet'], 'height'>,
  tolerance: number,
): PlotStroke[] {
  const pens = new Map<string, number>();
  const strokes: PlotStroke[] = [];
  for (const { layer, paths } of lines) {
    if (!pens.has(layer)) pens.set(layer, pens.size + 1);
    for (const path of paths) {
      const points = pointsOf(path, tolerance * PX_PER.mm).map(({ x, y }) => ({
        x: x / PX_PER.mm,
        y: (sheet.height - y) / PX_PER.mm,
      }));
      const [first, last] = [points[0], points.at(-1)];
      const meets = path.closed && points.length > 2 && first!.x === last!.x && first!.y === last!.y;
      if (points.length >= 2)
        strokes.push({
          pen: pens.get(layer)!,
          closed: path.closed,
          points: meets ? points.slice(0, -1) : points,
        });
    }
  }
  return strokes;
}
