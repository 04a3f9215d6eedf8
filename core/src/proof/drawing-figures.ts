import { coloursIn, hexOf, paletteOf } from '../art/paint';
import type { Art, Shape } from '../art/schema';
import { copiedShapes } from '../art/repeat';
import { shapesOf, wholePaths } from '../art/tree';
import { meanScale } from '../geometry/affine';
import { pathLength } from '../path/path-measure';

/** A drawing in figures: of what is in sight of it. */
export interface DrawingFigures {
  /** Shapes and paths as they were drawn: what follows about an axis, or as a copy, is not counted. */
  readonly shapes: number;
  readonly open: number;
  readonly closed: number;
  readonly anchors: number;
  readonly anchorsOf: readonly { readonly shape: Shape; readonly anchors: number }[];
  /** Colours of fills and strokes, each once; hex, in the order in which they are painted. */
  readonly colours: readonly string[];
  /** What a pen or knife goes along, sheet pixels: all lines, those about an axis and copies too. */
  readonly length: number;
}

/** The figures of a drawing. */
export function drawingFigures(art: Art): DrawingFigures {
  const palette = paletteOf(art.chips);
  const shown = shapesOf(art).flatMap(({ shape, shown }) => (shown ? [shape] : []));
  const paths = shown.flatMap((shape) => shape.paths);
  const lengthOf = (shape: Shape): number =>
    wholePaths(shape).reduce((sum, path) => sum + pathLength(path), 0);
  const copies = copiedShapes(art).reduce(
    (sum, { shape, maps }) => sum + maps.reduce((n, map) => n + meanScale(map), 0) * lengthOf(shape),
    0,
  );
  const closed = paths.filter((path) => path.closed).length;
  const anchorsOf = shown.map((shape) => ({
    shape,
    anchors: shape.paths.reduce((sum, path) => sum + path.anchors.length, 0),
  }));
  const paints = shown.flatMap(({ fill, stroke }) => [fill, stroke?.paint ?? null]);
  const colours = paints.flatMap((paint) => (paint ? coloursIn(paint).map((c) => hexOf(c, palette)) : []));
  return {
    shapes: shown.length,
    open: paths.length - closed,
    closed,
    anchors: anchorsOf.reduce((sum, { anchors }) => sum + anchors, 0),
    anchorsOf,
    colours: [...new Set(colours)],
    length: copies + shown.reduce((sum, shape) => sum + lengthOf(shape), 0),
  };
}
