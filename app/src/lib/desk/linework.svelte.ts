import { boxHas, pathBounds, polygonOf, insideEvenOdd, shapesOf, wholePaths, type Art, type Enclosed, type LinePieces, type Path, type Point, type Shape } from '@mirrot/core'; // prettier-ignore

/** Lines in sight, one by one, each with the shape it is of. */
export interface Lines {
  readonly shapes: readonly Shape[];
  readonly paths: readonly Path[];
  /** Of which shape, by line. */
  readonly owners: readonly string[];
}

/** A shape's lines, whole, as paths like any other. */
export const plainLines = (shape: Shape): Path[] =>
  wholePaths(shape).map((path) => ({ ...path, form: undefined }));

export function linesOf(shapes: readonly Shape[]): Lines {
  const all = shapes.flatMap((shape) => plainLines(shape).map((path) => ({ path, owner: shape.id })));
  return { shapes, paths: all.map(({ path }) => path), owners: all.map(({ owner }) => owner) };
}

/** Shapes whose lines can enclose areas: all in sight, those left out that fill one. */
export const shapesEnclosing = (art: Art): Shape[] =>
  shapesOf(art).flatMap(({ shape, shown }) => (shown && !shape.poured ? [shape] : []));

export const sameShapes = (a: readonly Shape[], b: readonly Shape[]): boolean =>
  a.length === b.length && a.every((shape, i) => shape === b[i]);

/** What the lines of the drawing make with each other: areas to pour into, pieces to weed. Worked out in a worker. */
export class Linework {
  /** Areas, and which lines they were found between. */
  areas: { readonly lines: Lines; readonly gap: number; readonly enclosed: Enclosed } | null =
    $state.raw(null);
  /** Pieces of lines between crossings. */
  pieces: { readonly lines: Lines; readonly found: LinePieces } | null = $state.raw(null);
  /** The swipe that is being drawn, sheet pixels, and the pieces it goes across. */
  swipe: readonly Point[] = $state.raw([]);
  gone: ReadonlySet<number> = $state.raw(new Set());

  readonly #drawing: { readonly kept: Art };

  constructor(drawing: { readonly kept: Art }) {
    this.#drawing = drawing;
  }

  /** Areas of the drawing as it is; null while they are not known. */
  readonly known = $derived.by(() => {
    const { areas } = this;
    return areas && sameShapes(areas.lines.shapes, shapesEnclosing(this.#drawing.kept)) ? areas : null;
  });

  /** The number of the area at a point; null outside all of them, or while they are not known. */
  areaAt(p: Point): number | null {
    const at = this.known?.enclosed.areas.findIndex(
      ({ paths }) => boxHas(pathBounds(paths[0]!), p) && insideEvenOdd(paths.map(polygonOf), p),
    );
    return at === undefined || at < 0 ? null : at;
  }
}
