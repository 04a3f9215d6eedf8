import { z } from 'zod';
import type { Affine } from '../geometry/affine';
import { checkQuad } from '../geometry/square';
import type { Point } from '../geometry/vector';
import { FEWEST_PARTS, MOST_PARTS, type Axis } from '../path/axis';
import { FEWEST_SIDES, FORM_KINDS, MOST_SIDES } from '../path/form';
import type { Path } from '../path/path';
import { PLAIN_GRID, PLAIN_PICTURE } from './migrate';
import { heldNameSchema, noteSchema } from './text';
import { UNITS } from './units';

/** Version of the document that this code writes. */
export const ART_VERSION = 5;

/** Coordinates lie within this many sheet pixels (over 250 m); beyond it the numbers stop being exact enough to draw. */
export const FARTHEST_COORDINATE = 1e6;

const coordinate = z.number().min(-FARTHEST_COORDINATE).max(FARTHEST_COORDINATE);
const length = z.number().positive().max(FARTHEST_COORDINATE);
const id = z
  .string()
  .min(1)
  .max(64)
  .regex(/^[\w-]+$/);
const hex = z.string().regex(/^#[0-9a-f]{6}$/);

const pointSchema = z.strictObject({ x: coordinate, y: coordinate });

export const anchorSchema = z.strictObject({
  x: coordinate,
  y: coordinate,
  kind: z.enum(['corner', 'smooth', 'flowing']),
  in: pointSchema.nullable(),
  out: pointSchema.nullable(),
  equal: z.literal(true).optional(),
  protected: z.literal(true).optional(),
  meant: z.literal(true).optional(),
  shared: id.optional(),
});

/** A map of the plane that can be undone. */
const placementSchema = z
  .tuple([coordinate, coordinate, coordinate, coordinate, coordinate, coordinate])
  .refine(([a, b, c, d]) => a * d - b * c !== 0, 'A placement must not flatten what it places.');

const angle = z.number().min(-7).max(7);
const extent = z.number().min(0).max(FARTHEST_COORDINATE);

const formSchema = z.strictObject({
  kind: z.enum(FORM_KINDS),
  x: coordinate,
  y: coordinate,
  width: extent,
  height: extent,
  angle,
  radii: z.tuple([extent, extent, extent, extent]),
  sides: z.number().int().min(FEWEST_SIDES).max(MOST_SIDES),
});

/** What is drawn on one side, or in one of N parts, appears on the other, or in all. */
const axisSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('mirror'), x: coordinate, y: coordinate, angle }),
  z.strictObject({
    kind: z.literal('turn'),
    x: coordinate,
    y: coordinate,
    parts: z.number().int().min(FEWEST_PARTS).max(MOST_PARTS),
  }),
]);

export const pathSchema = z.strictObject({
  id,
  closed: z.boolean(),
  anchors: z.array(anchorSchema).min(1),
  form: formSchema.optional(),
});

export const fillSchema = z.strictObject({ kind: z.literal('flat'), hex });
export const strokeSchema = z.strictObject({ hex, width: length.max(10_000) });

const standing = { id, name: heldNameSchema, shown: z.boolean(), locked: z.boolean() };

export const shapeSchema = z.strictObject({
  ...standing,
  type: z.literal('shape'),
  opacity: z.number().min(0).max(1),
  fill: fillSchema.nullable(),
  stroke: strokeSchema.nullable(),
  paths: z.array(pathSchema).min(1),
  axis: axisSchema.optional(),
  /** What its drift follows; left out, it is found from the shape and the picture. */
  follow: z.enum(['edge', 'middle']).optional(),
  /** It leaves the picture on purpose. */
  meant: z.literal(true).optional(),
  /** Takes it to where on the picture it is measured, when it was moved away for composition. */
  place: placementSchema.optional(),
});

export const groupSchema = z.strictObject({
  ...standing,
  type: z.literal('group'),
  opacity: z.number().min(0).max(1),
  get children(): z.ZodArray<z.ZodType<ShapeNode>> {
    return z.array(nodeSchema);
  },
});

const nodeSchema: z.ZodType<ShapeNode> = z.lazy(() =>
  z.discriminatedUnion('type', [shapeSchema, groupSchema]),
) as z.ZodType<ShapeNode>;

export const layerSchema = z.strictObject({
  ...standing,
  type: z.literal('layer'),
  ink: hex.nullable(),
  children: z.array(nodeSchema),
});

/** How a picture is shown to see by; the pixels stay what they are. */
export const PICTURE_VIEWS = ['plain', 'grey', 'tones', 'edges', 'lines'] as const;
export type PictureView = (typeof PICTURE_VIEWS)[number];

/** Most pixels of a picture that is seen straight on. */
const MOST_STRAIGHT_PIXELS = 100_000_000;

function isQuad(corners: readonly Point[]): boolean {
  try {
    checkQuad(corners);
    return true;
  } catch {
    return false;
  }
}

/**
 * A picture as it lies on the sheet. `width` and `height` are its own pixels. With `square` set, what lies within the
 * four corners (own pixels, clockwise from the top left) is seen straight on, as many pixels as `square` says.
 * `placement` takes the pixels that are seen to sheet pixels; `crop` is in those too.
 */
export const pictureSchema = z.strictObject({
  id,
  source: id,
  name: heldNameSchema,
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  placement: placementSchema,
  shown: z.boolean(),
  locked: z.boolean(),
  wash: z.number().min(0).max(100),
  square: z
    .strictObject({
      corners: z.tuple([pointSchema, pointSchema, pointSchema, pointSchema]),
      width: z.number().int().positive().max(20_000),
      height: z.number().int().positive().max(20_000),
    })
    .refine(
      ({ width, height }) => width * height <= MOST_STRAIGHT_PIXELS,
      'The straight picture is too large.',
    )
    .refine(({ corners }) => isQuad(corners), 'The corners of what is squared up fold over or lie in a line.')
    .nullable(),
  crop: z
    .strictObject({ x0: coordinate, y0: coordinate, x1: coordinate, y1: coordinate })
    .refine((c) => c.x1 > c.x0 && c.y1 > c.y0, 'A crop needs an area.')
    .nullable(),
  view: z.enum(PICTURE_VIEWS),
  tones: z.strictObject({
    count: z.number().int().min(2).max(9),
    bounds: z.array(z.number().min(0).max(255)).max(8).nullable(),
    smooth: z.number().int().min(0).max(20),
  }),
  veil: z.boolean(),
  credit: z.strictObject({
    source: noteSchema,
    author: noteSchema,
    licence: noteSchema,
    address: noteSchema,
  }),
});

/** A line to check against and snap to: a point on it and its direction, radians. */
const guideSchema = z.strictObject({ id, x: coordinate, y: coordinate, angle });

/** Lines across the sheet, from its top left corner, `step` sheet pixels apart. */
const gridSchema = z.strictObject({ shown: z.boolean(), step: z.number().min(0.01).max(10_000), hex });

const chipSchema = z.strictObject({ id, name: noteSchema, hex });

/** A sheet's width or height, sheet pixels: a hundredth at least, so that what is drawn on it can be seen at all. */
const sheetLength = z.number().min(0.01).max(FARTHEST_COORDINATE);

const sheetSchema = z.strictObject({
  width: sheetLength,
  height: sheetLength,
  unit: z.enum(UNITS),
  ground: hex.nullable(),
  /** Pixels to the inch it is meant to be printed at. */
  ppi: z.number().min(1).max(4800),
});

/**
 * The document, each part by itself; `artSchema` also looks at what they are to each other. Lengths are sheet pixels (1/96 inch), y down; handles relative to their anchor;
 * colours "#rrggbb". Layers, groups and shapes are listed bottom first, as they are painted.
 */
export const artFields = z.strictObject({
  version: z.literal(ART_VERSION),
  sheet: sheetSchema,
  pictures: z.array(pictureSchema).max(100),
  traced: id.nullable(),
  layers: z.array(layerSchema).min(1),
  chips: z.array(chipSchema).max(1000),
  guides: z.strictObject({ locked: z.boolean(), lines: z.array(guideSchema).max(200) }),
  grid: gridSchema,
  /** The axis about which new paths are drawn. */
  axis: axisSchema.nullable(),
});

type DeepReadonly<T> = T extends object ? { readonly [K in keyof T]: DeepReadonly<T[K]> } : T;

export type Fill = DeepReadonly<z.infer<typeof fillSchema>>;
export type Stroke = DeepReadonly<z.infer<typeof strokeSchema>>;
export type Sheet = DeepReadonly<z.infer<typeof sheetSchema>>;
export type PlacedPicture = DeepReadonly<z.infer<typeof pictureSchema>>;
export type Guide = DeepReadonly<z.infer<typeof guideSchema>>;
export type Grid = DeepReadonly<z.infer<typeof gridSchema>>;
export type Chip = DeepReadonly<z.infer<typeof chipSchema>>;

interface Standing {
  readonly id: string;
  readonly name: string;
  readonly shown: boolean;
  readonly locked: boolean;
}
export interface Shape extends Standing {
  readonly type: 'shape';
  readonly opacity: number;
  readonly fill: Fill | null;
  readonly stroke: Stroke | null;
  /** The first is the outline; further ones are holes or islands under the even-odd rule. */
  readonly paths: readonly Path[];
  /** With an axis, `paths` are what was drawn in one part; the others follow from it (`wholePaths`). */
  readonly axis?: Axis;
  /** What its drift follows; left out, it is found from the shape and the picture. */
  readonly follow?: 'edge' | 'middle';
  /** It leaves the picture on purpose: drift, Settle and hints leave it out. */
  readonly meant?: true;
  /** Takes it to where on the picture it is measured, when it was moved away for composition. */
  readonly place?: Affine;
}
export interface Group extends Standing {
  readonly type: 'group';
  readonly opacity: number;
  readonly children: readonly ShapeNode[];
}
export type ShapeNode = Shape | Group;
export interface Layer extends Standing {
  readonly type: 'layer';
  /** Tracing ink fixed for this layer, or null to choose it against the picture. */
  readonly ink: string | null;
  readonly children: readonly ShapeNode[];
}
export interface Art {
  readonly version: typeof ART_VERSION;
  readonly sheet: Sheet;
  readonly pictures: readonly PlacedPicture[];
  readonly traced: string | null;
  readonly layers: readonly Layer[];
  readonly chips: readonly Chip[];
  readonly guides: { readonly locked: boolean; readonly lines: readonly Guide[] };
  readonly grid: Grid;
  readonly axis: Axis | null;
}

/** A picture just placed: what is not given is as it comes. */
export const placedPicture = (
  given: Pick<PlacedPicture, 'id' | 'source' | 'name' | 'width' | 'height' | 'placement'> &
    Partial<PlacedPicture>,
): PlacedPicture => ({ shown: true, locked: true, wash: 0, ...PLAIN_PICTURE, ...given });

/** A document with an empty layer and nothing on it. Sizes in sheet pixels. */
export const emptyArt = (sheet: Omit<Sheet, 'ground' | 'ppi'>, layerId: string): Art => ({
  version: ART_VERSION,
  sheet: { ...sheet, ground: null, ppi: 300 },
  pictures: [],
  traced: null,
  layers: [
    { id: layerId, type: 'layer', name: 'Drawing', shown: true, locked: false, ink: null, children: [] },
  ],
  chips: [],
  guides: { locked: false, lines: [] },
  grid: PLAIN_GRID,
  axis: null,
});
