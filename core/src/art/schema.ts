import { z } from 'zod';
import { checkQuad } from '../geometry/square';
import type { Point } from '../geometry/vector';
import { FEWEST_PARTS, MOST_PARTS } from '../path/axis';
import { FEWEST_SIDES, FORM_KINDS, MOST_SIDES } from '../path/form';
import { ART_VERSION, DARKEST_GROUND, FARTHEST_COORDINATE, MOST_ASIDE, MOST_CHIPS, MOST_COLOURWAYS, MOST_COPIES, WIDEST_EDGE } from './limits'; // prettier-ignore
import { BLENDS, CHIP_ROLES, MOST_BLUR } from './paint-kinds';
import { paintSchema, shadowSchema, strokeSchema } from './paint-schema';
import { PICTURE_VIEWS } from './picture-view';
import {
  angle,
  coordinate,
  extent,
  hex,
  id,
  length,
  placementSchema,
  pointSchema,
  share,
  type DeepReadonly,
} from './scalars';
import { heldNameSchema, noteSchema } from './text-schema';
import { UNITS } from './units';

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

const standing = { id, name: heldNameSchema, shown: z.boolean(), locked: z.boolean() };
/** It follows no edge of the picture: drift and Settle leave it out, with all that stands in it. */
const measuring = { unmeasured: z.literal(true).optional() };

/** How the whole of a node is laid over what is beneath it. */
const covering = {
  opacity: share,
  /** Left out: normal. */
  blend: z.enum(BLENDS).optional(),
  /** Standard deviation of a Gaussian, sheet pixels; left out: none. */
  blur: length.max(MOST_BLUR).optional(),
  shadow: shadowSchema.optional(),
};

/** Most characters of a line of text. */
const MOST_LETTERS = 200;

/**
 * A line of text whose outlines the shape's paths are. Its line is the x axis, or a curve, before `placement` takes it to
 * the sheet.
 */
const letteringSchema = z.strictObject({
  text: heldNameSchema.max(MOST_LETTERS, `A line of text has ${MOST_LETTERS} characters at most.`),
  /** One that ships, or one of the project's own; its name, should it not be there any more. */
  font: z.strictObject({ id, name: heldNameSchema }),
  /** An em, sheet pixels before the placement. */
  size: length,
  /** Added after each character, em. */
  spacing: z.number().min(-1).max(10),
  placement: placementSchema,
  /** The curve that it stands on, from `start` (sheet pixels along it) on. */
  along: z
    .strictObject({ closed: z.boolean(), anchors: z.array(anchorSchema).min(2).max(2000), start: extent })
    .optional(),
});

/** Most lines that border an area. */
const MOST_BORDERING = 500;

const pouredSchema = z.strictObject({
  /** Shapes whose lines border it. */
  between: z.array(id).min(1).max(MOST_BORDERING),
  /** Gaps between ends of lines that are bridged, sheet pixels. */
  gap: extent,
});

export const shapeSchema = z.strictObject({
  ...standing,
  ...covering,
  ...measuring,
  type: z.literal('shape'),
  fill: paintSchema.nullable(),
  stroke: strokeSchema.nullable(),
  /** Fill and stroke that were taken off, to be put on again as they were. */
  aside: z.strictObject({ fill: paintSchema.optional(), stroke: strokeSchema.optional() }).optional(),
  /** The body tone that it was filled by: looked for anew when it shows more or less of the picture. */
  toned: hex.optional(),
  /** The first is the outline; further ones are holes or islands under the even-odd rule. */
  paths: z.array(pathSchema).min(1),
  /** With an axis, `paths` are what was drawn in one part; the others follow from it (`wholePaths`). */
  axis: axisSchema.optional(),
  /** What its drift follows; left out, it is found from the shape and the picture. */
  follow: z.enum(['edge', 'middle']).optional(),
  /** It leaves the picture on purpose: drift, Settle and hints leave it out, and findings too. */
  meant: z.literal(true).optional(),
  /** Takes it to where on the picture it is measured, when it was moved away for composition. */
  place: placementSchema.optional(),
  lettering: letteringSchema.optional(),
  /** The area between other shapes' lines that it fills: its outlines keep up with theirs. */
  poured: pouredSchema.optional(),
});

/** A picture as a part of the drawing, as it was placed, squared up and cropped: painted where it stands, and in files. */
export const pictureNodeSchema = z.strictObject({
  ...standing,
  ...covering,
  type: z.literal('picture'),
  /** Which of the document's pictures. */
  picture: id,
});

const copies = z.number().int().min(2).max(MOST_COPIES);

/** A group that stands several times: what is in it leads, the others follow it. */
const repeatSchema = z.discriminatedUnion('kind', [
  /** Along a line: from one to the next by (x, y), sheet pixels. */
  z.strictObject({ kind: z.literal('row'), count: copies, x: coordinate, y: coordinate }),
  /** Round a centre: from one to the next by an angle, radians, clockwise on screen. */
  z.strictObject({
    kind: z.literal('ring'),
    count: copies,
    x: coordinate,
    y: coordinate,
    angle,
    /** They are carried round without being turned. */
    upright: z.literal(true).optional(),
    /** Every n-th of them is left out. */
    without: z.number().int().min(2).max(MOST_COPIES).optional(),
  }),
]);

/** How what a shape clips ends at the shape's outline, where that is not a sharp cut. */
const edgeSchema = z.strictObject({
  /** How far the cut lies outside the outline, sheet pixels; below 0 inside. */
  by: z.number().min(-WIDEST_EDGE).max(WIDEST_EDGE),
  /** How soft the cut is: standard deviation of a Gaussian, sheet pixels; 0 for sharp. */
  soft: extent.max(MOST_BLUR),
  /** The shadow that stays on one side: what is darker there than the ground, as see-through black. */
  shadow: z
    .strictObject({
      /** The side it lies on, radians clockwise on screen from the right. */
      side: angle,
      /** How far from the outline it fades out, sheet pixels. */
      reach: length.max(WIDEST_EDGE),
      /** Lightness of the ground it falls on, as sRGB shows it: luma from 0 to 1. What is as light is clear. */
      ground: z.number().min(DARKEST_GROUND).max(1),
    })
    .optional(),
});

const groupFields = z.strictObject({
  ...standing,
  ...covering,
  ...measuring,
  type: z.literal('group'),
  /** One of its own shapes: the others are seen only inside its outline. It is painted itself, whole. */
  clip: id.optional(),
  edge: edgeSchema.optional(),
  repeat: repeatSchema.optional(),
});

/** That groups stand in groups is the one thing that is not read off the schemas. */
interface GroupData extends z.infer<typeof groupFields> {
  children: NodeData[];
}
type NodeData = z.infer<typeof shapeSchema> | z.infer<typeof pictureNodeSchema> | GroupData;

const nodeSchema: z.ZodType<NodeData> = z.lazy(() =>
  z.discriminatedUnion('type', [shapeSchema, groupSchema, pictureNodeSchema]),
);

export const groupSchema = groupFields.extend({ children: z.array(nodeSchema) });

export const layerSchema = z.strictObject({
  ...standing,
  ...covering,
  ...measuring,
  type: z.literal('layer'),
  /** Tracing ink fixed for this layer, or null to choose it against the picture. */
  ink: hex.nullable(),
  children: z.array(nodeSchema),
});

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
  /** It lies above the drawing, not beneath it. */
  above: z.literal(true).optional(),
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

const chipSchema = z.strictObject({ id, name: noteSchema, hex, role: z.enum(CHIP_ROLES).optional() });

/** A recolouring of the palette: colours of chips by their ids. A chip that it does not name keeps its own. */
const colourwaySchema = z.strictObject({ id, name: heldNameSchema, hexes: z.record(id, hex) });

/** A sheet's width or height, sheet pixels: a hundredth at least, so that what is drawn on it can be seen at all. */
const sheetLength = z.number().min(0.01).max(FARTHEST_COORDINATE);

/** A finding that is left as it is: known by its key, with the reason. */
const asideSchema = z.strictObject({ id: heldNameSchema, reason: noteSchema });

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
  chips: z.array(chipSchema).max(MOST_CHIPS),
  colourways: z.array(colourwaySchema).max(MOST_COLOURWAYS),
  guides: z.strictObject({ locked: z.boolean(), lines: z.array(guideSchema).max(200) }),
  grid: gridSchema,
  /** The axis about which new paths are drawn. */
  axis: axisSchema.nullable(),
  /** What the proof found and a hand left as it is. */
  aside: z.array(asideSchema).max(MOST_ASIDE, `${MOST_ASIDE} findings can be put aside.`),
});

export type Lettering = DeepReadonly<z.infer<typeof letteringSchema>>;
export type Poured = DeepReadonly<z.infer<typeof pouredSchema>>;
export type Repeat = DeepReadonly<z.infer<typeof repeatSchema>>;
export type Sheet = DeepReadonly<z.infer<typeof sheetSchema>>;
export type PlacedPicture = DeepReadonly<z.infer<typeof pictureSchema>>;
export type Guide = DeepReadonly<z.infer<typeof guideSchema>>;
export type Grid = DeepReadonly<z.infer<typeof gridSchema>>;
export type Chip = DeepReadonly<z.infer<typeof chipSchema>>;
export type Colourway = DeepReadonly<z.infer<typeof colourwaySchema>>;
// Interfaces, so that messages of the compiler name them.
export interface Shape extends DeepReadonly<z.infer<typeof shapeSchema>> {}
export interface PictureNode extends DeepReadonly<z.infer<typeof pictureNodeSchema>> {}
export interface Group extends DeepReadonly<z.infer<typeof groupSchema>> {}
/** How a cutout ends at its outline. */
export type CutEdge = NonNullable<Group['edge']>;
export interface Layer extends DeepReadonly<z.infer<typeof layerSchema>> {}
export interface Art extends DeepReadonly<z.infer<typeof artFields>> {}
/** What can stand in a layer or a group. */
export type ArtNode = Shape | Group | PictureNode;
