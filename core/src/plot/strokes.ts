import { PX_PER } from '../art/units';
import type { Box } from '../geometry/bounds';
import { flattenCubic } from '../geometry/flatten';
import type { Point } from '../geometry/vector';
import type { PenStroke } from '../path/pen-stroke';
import { pathCubics, segmentIsLine, type Path } from '../path/path';

/** Lines to be drawn or cut, on the layer whose pen draws them. */
export interface PlotLines {
  readonly layer: { readonly id: string };
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
 * @param box the part of the plane that is shown, sheet pixels: its lower left corner is the strokes' origin
 * @param how.tolerance how far the strokes may leave the curves, millimetres, above 0
 * @param how.scale how many times as large as on the sheet
 */
export function plotStrokes(
  lines: readonly PlotLines[],
  box: Box,
  { tolerance, scale = 1 }: { readonly tolerance: number; readonly scale?: number },
): PenStroke[] {
  const mm = scale / PX_PER.mm;
  const pens = new Map<string, number>();
  const strokes: PenStroke[] = [];
  for (const { layer, paths } of lines) {
    if (!pens.has(layer.id)) pens.set(layer.id, pens.size + 1);
    for (const path of paths) {
      const points = pointsOf(path, tolerance / mm).map(({ x, y }) => ({
        x: (x - box.x0) * mm,
        y: (box.y1 - y) * mm,
      }));
      const [first, last] = [points[0], points.at(-1)];
      const meets = path.closed && points.length > 2 && first!.x === last!.x && first!.y === last!.y;
      if (points.length >= 2)
        strokes.push({
          pen: pens.get(layer.id)!,
          closed: path.closed,
          points: meets ? points.slice(0, -1) : points,
        });
    }
  }
  return strokes;
}
