import { emptyArt } from '../art/blank';
import { outputOf, type OutputRange } from '../art/output';
import { plainStroke } from '../art/paint';
import type { Art, Layer, Shape } from '../art/schema';
import { PX_PER } from '../art/units';
import { outlinesOf, type OutlinedShape } from '../formats/outlines';
import { growBox, type Box } from '../geometry/bounds';
import { compose, scaling, translation } from '../geometry/affine';
import { combine } from '../path/combine';
import type { Path } from '../path/path';
import { transformPath } from '../path/path-map';
import { seenLines } from '../path/seen-lines';
import { strokeToShape, widen } from '../path/stroke-to-shape';
import { thinOut } from '../path/thin';
import { cornerMarks, MARK_ROOM_PX } from './marks';

// A drawing made ready for machines that follow lines: no fills, every line a hairline, and what is asked for besides.

/** What a machine does along the lines of a layer. */
export type LineUse = 'draw' | 'score' | 'cut';

/** What is done to the lines of a drawing before they are written. Lengths in sheet pixels. */
export interface LineWork {
  /** Only what is seen: pieces under other areas go, and what lies on each other is drawn once. */
  readonly seen: boolean;
  /** A stroke is the outline of what it paints; else its middle line. */
  readonly weighted: boolean;
  /** Areas are grown by so much, so that a blade beside them leaves them whole; 0 for none. */
  readonly bladeMargin: number;
  /** Anchors go where the line stays as near as this; 0 for none. */
  readonly thinned: number;
  /** Marks to lay the sheet by, outside of what is written. */
  readonly marks: boolean;
  /** Left for right. */
  readonly mirrored: boolean;
  /** Layers by id: what is done along their lines, or that they are left out; those not named have a pen each. */
  readonly uses: Readonly<Record<string, LineUse | 'none'>>;
}

/** Lines with nothing done to them. */
export const PLAIN_LINES: LineWork = {
  seen: false,
  weighted: false,
  bladeMargin: 0,
  thinned: 0,
  marks: false,
  mirrored: false,
  uses: {},
};

/** A drawing of hairlines whose sheet is just what is written, and its anchors before and after it was thinned out. */
export interface LinedArt {
  readonly art: Art;
  readonly anchors: { readonly before: number; readonly after: number };
  /** The part of the sheet it came from that is written, sheet pixels. */
  readonly written: Box;
}

/** Width of a hairline, sheet pixels: a tenth of a millimetre. */
const HAIRLINE_PX = PX_PER.mm / 10;
/** How joins go round corners of areas that are grown: as the blade goes round them. */
const GROWN_JOINS = { joins: 'round', miterLimit: 4 } as const;
/** Layers by use, in the order in which they are done: what is cut through lies firm no longer (common practice, no source). */
const USE_LAYERS: readonly (readonly [LineUse, string])[] = [
  ['draw', 'Draw'],
  ['score', 'Score'],
  ['cut', 'Cut'],
];
const MARKS_LAYER = 'Marks';

type IdOf = (n: number) => string;

const countAnchors = (shapes: readonly OutlinedShape[]): number =>
  shapes.reduce((sum, { paths }) => sum + paths.reduce((n, { anchors }) => n + anchors.length, 0), 0);

/** A shape with its stroke as an area; where it is filled, one area with that. */
function withWeight(shape: OutlinedShape, idOf: IdOf): OutlinedShape {
  const { stroke, fill, paths } = shape;
  if (!stroke || !(stroke.width > 0)) return shape;
  const painted = strokeToShape(paths, stroke, idOf).flat();
  return {
    ...shape,
    paths: fill === null ? painted : combine([paths, painted], 'add', idOf),
    fill: fill ?? stroke.hex,
    stroke: null,
  };
}

function grown(shape: OutlinedShape, by: number, idOf: IdOf): OutlinedShape {
  return shape.fill === null ? shape : { ...shape, paths: widen(shape.paths, by, GROWN_JOINS, idOf).flat() };
}

function onlySeen(shapes: readonly OutlinedShape[], idOf: IdOf): OutlinedShape[] {
  const seen = seenLines(
    shapes.map(({ paths, fill }) => ({ paths, hides: fill !== null })),
    idOf,
  );
  return shapes.map((shape, i) => ({ ...shape, paths: seen[i]! }));
}

const thinned = (shape: OutlinedShape, tolerance: number): OutlinedShape => ({
  ...shape,
  paths: shape.paths.map((path) => thinOut(path, { tolerance }).path),
});

const hairlined = (shape: OutlinedShape, id: string, paths: readonly Path[]): Shape => ({
  id,
  type: 'shape',
  name: shape.name,
  shown: true,
  locked: false,
  opacity: 1,
  fill: null,
  stroke: plainStroke({ hex: (shape.stroke?.hex ?? shape.fill)! }, HAIRLINE_PX),
  paths,
});

const layerOf = (id: string, name: string, children: readonly Shape[]): Layer => ({
  id,
  type: 'layer',
  name,
  shown: true,
  locked: false,
  opacity: 1,
  ink: null,
  children,
});

/** The lines on the layers they stood on, then by what is done along them, in the order in which that is done. */
function layersFor(
  shapes: readonly OutlinedShape[],
  uses: LineWork['uses'],
  hairline: (shape: OutlinedShape) => Shape,
): Layer[] {
  const own = new Map<string, { readonly name: string; readonly children: Shape[] }>();
  const used = new Map(USE_LAYERS.map(([use, name]) => [use as string, { name, children: [] as Shape[] }]));
  for (const shape of shapes) {
    const { id, name } = shape.layer;
    const use = uses[id];
    if (!use && !own.has(id)) own.set(id, { name, children: [] });
    (use ? used.get(use) : own.get(id))?.children.push(hairline(shape));
  }
  return [...own, ...[...used].map(([use, layer]) => [`use-${use}`, layer] as const)]
    .filter(([, { children }]) => children.length > 0)
    .map(([id, { name, children }]) => layerOf(id, name, children));
}

/**
 * A drawing as hairlines, made ready for a pen or a knife (see `LineWork`): every line of it, those of areas their outlines,
 * in the colour it had. The sheet it stands on is what is written, and no more.
 *
 * @param range what of the drawing is wanted; its scale is left to whoever writes it
 */
export function linedArt(art: Art, range: OutputRange = {}, work: LineWork = PLAIN_LINES): LinedArt {
  const { list, box } = outputOf(art, range);
  let made = 0;
  const idOf: IdOf = () => `line-${++made}`;
  let shapes = outlinesOf(list).filter(({ layer }) => work.uses[layer.id] !== 'none');
  if (work.weighted) shapes = shapes.map((shape) => withWeight(shape, idOf));
  if (work.bladeMargin > 0) shapes = shapes.map((shape) => grown(shape, work.bladeMargin, idOf));
  if (work.seen) shapes = onlySeen(shapes, idOf);
  const before = countAnchors(shapes);
  if (work.thinned > 0) shapes = shapes.map((shape) => thinned(shape, work.thinned));
  const after = countAnchors(shapes);

  // A sheet stays as large as it is; a drawing takes in what it was grown by.
  const within = range.area === 'drawing' ? growBox(box, work.bladeMargin) : box;
  const shown = work.marks ? growBox(within, MARK_ROOM_PX) : within;
  const [width, height] = [shown.x1 - shown.x0, shown.y1 - shown.y0];
  const toSheet = translation(-shown.x0, -shown.y0);
  const map = work.mirrored ? compose(translation(width, 0), compose(scaling(-1, 1), toSheet)) : toSheet;
  // What several copies of a shape paint have one id: as shapes they each need their own.
  const ids = new Map<string, number>();
  const hairline = (shape: OutlinedShape): Shape => {
    const n = (ids.get(shape.id) ?? 0) + 1;
    ids.set(shape.id, n);
    const id = n === 1 ? shape.id : `${shape.id}-${n}`;
    return hairlined(shape, id, shape.paths.map((path) => transformPath(path, map))); // prettier-ignore
  };
  const layers = layersFor(
    shapes.filter(({ paths }) => paths.length > 0),
    work.uses,
    hairline,
  );
  if (work.marks && layers.length > 0) {
    const paths = cornerMarks(within, idOf);
    const marks: OutlinedShape = { id: 'marks', name: MARKS_LAYER, layer: { id: 'marks', name: MARKS_LAYER }, paths, fill: null, stroke: { ...plainStroke({ hex: '#000000' }, HAIRLINE_PX), hex: '#000000' } }; // prettier-ignore
    layers.unshift(layerOf('marks-layer', MARKS_LAYER, [hairline(marks)]));
  }
  const { unit } = art.sheet;
  const lined = { ...emptyArt({ width, height, unit }, 'lines'), layers };
  return {
    art: { ...lined, sheet: { ...lined.sheet, ppi: art.sheet.ppi } },
    anchors: { before, after },
    written: shown,
  };
}
