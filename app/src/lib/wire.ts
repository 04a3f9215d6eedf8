import {
  FARTHEST_COORDINATE,
  fitName,
  nameSchema,
  noteSchema,
  toPx,
  UNITS,
  type Art,
  type Growth,
  type Noted,
  type SvgReading,
} from '@mirrot/core';
import { z } from 'zod';
import { STEPS } from './desk/steps';
import { MOST_PATCHES } from './limits';

// What goes over the wire: requests as schemas, answers as types. Used by both ends.

const size = z.number().positive('A sheet needs a width and a height above 0.');
/** The smallest side a sheet may have, sheet pixels. */
const LEAST_SHEET = 0.01;

/** A sheet as people give it: sizes in its unit. */
export const sheetRequest = z
  .strictObject({ width: size, height: size, unit: z.enum(UNITS) })
  .refine(
    (s) => Math.max(toPx(s.width, s.unit), toPx(s.height, s.unit)) <= FARTHEST_COORDINATE,
    'The sheet is too large.',
  )
  .refine(
    (s) => Math.min(toPx(s.width, s.unit), toPx(s.height, s.unit)) >= LEAST_SHEET,
    'The sheet is too small to be seen.',
  );

export const newProjectRequest = z.strictObject({ name: nameSchema, sheet: sheetRequest });
/** The word of a folder; empty for none. */
const folderName = z.string().trim().max(60, 'The word of a folder has 60 characters at most.').pipe(noteSchema); // prettier-ignore
export const patchProjectRequest = z
  .strictObject({ name: nameSchema, folder: folderName, deleted: z.literal(false) })
  .partial()
  .refine(
    (r) => Object.keys(r).length > 0,
    'Say what to change: a name, a folder, or deleted: false to bring it back.',
  );

const patch = z.strictObject({
  op: z.enum(['add', 'replace', 'remove']),
  path: z
    .string()
    .max(1000)
    .regex(/^(\/(?!__proto__$|__proto__\/|constructor\/|prototype\/)[^/]*)*$/),
  value: z.unknown().optional(),
});

const anchorRef = z.strictObject({ shape: z.string(), path: z.string(), index: z.number().int() });

const choiceSchema = z.strictObject({
  level: z.enum(['shape', 'path']),
  shapes: z.array(z.string()),
  nodes: z.array(z.string()).default([]),
  anchors: z.array(anchorRef),
  handle: anchorRef.extend({ side: z.enum(['in', 'out']) }).nullable(),
  segment: z.strictObject({ shape: z.string(), path: z.string(), segment: z.number().int() }).nullable(),
});

/** What the desk looked at beside a step. */
export const contextSchema = z.strictObject({
  choice: choiceSchema,
  live: z.strictObject({ shape: z.string(), path: z.string() }).nullable(),
});

const stepNoteSchema = z.discriminatedUnion('did', [
  z.strictObject({ did: z.literal('undo') }),
  z.strictObject({
    did: z.enum(['step', 'more', 'redo']),
    label: z.string().max(1000),
    inverse: z.array(patch),
    before: contextSchema,
    after: contextSchema,
  }),
]);

/** A change as the journal keeps it, from outside. */
export const journalEntry = z.strictObject({
  patches: z.array(patch).max(MOST_PATCHES * 10),
  note: stepNoteSchema.nullable(),
});

/**
 * Changes in the order they were made, each a JSON Patch (RFC 6902). `base` is the revision they build on. `batch`
 * names the request, so that one sent twice, because its answer was lost, is carried out once. `notes` say, one for each
 * change, what it was to the history.
 */
export const changesRequest = z
  .strictObject({
    base: z.number().int().nonnegative(),
    /** Of the document as the page knows it: patches of another version do not fit. */
    version: z.number().int().optional(),
    changes: z
      .array(z.union([z.array(patch), patch.transform((p) => [p])]))
      .min(1)
      .max(MOST_PATCHES),
    batch: z.string().min(1).max(64).optional(),
    notes: z.array(stepNoteSchema.nullable()).max(MOST_PATCHES).optional(),
  })
  .refine(
    ({ changes }) => changes.reduce((n, patches) => n + patches.length, 0) <= MOST_PATCHES,
    `A request has ${MOST_PATCHES} patches at most: send more in several.`,
  );

export const exportQuery = z.object({
  area: z.enum(['sheet', 'drawing']).default('sheet'),
  ppi: z.coerce.number().min(1).max(2400).optional(),
  width: z.coerce.number().int().min(1).max(20_000).optional(),
  ground: z
    .union(
      [z.literal('clear'), z.string().regex(/^#[0-9a-f]{6}$/i)],
      'The ground is "clear" or six hex digits after "#".',
    )
    .optional(),
  picture: z.enum(['0', '1']).default('0'),
  /** Room left about the drawing, sheet pixels. */
  margin: z.coerce.number().min(0).max(10_000).default(0),
  /** Times as large as on the sheet. */
  scale: z.coerce.number().min(0.001).max(1000).default(1),
  /** Ids of nodes, by commas: no more than these. */
  only: z.string().max(100_000).optional(),
  /** An SVG without ids, names and groups that do nothing. */
  plain: z.enum(['0', '1']).default('0'),
  /** Every line a hairline, without fills; files of lines are so anyhow. */
  hairlines: z.enum(['0', '1']).default('0'),
  /** Of lines: only what is seen; strokes as outlines; marks at the corners; left for right. */
  seen: z.enum(['0', '1']).default('0'),
  weighted: z.enum(['0', '1']).default('0'),
  marks: z.enum(['0', '1']).default('0'),
  mirrored: z.enum(['0', '1']).default('0'),
  /** Room for the blade about areas, and how near lines stay that are thinned out, sheet pixels. */
  blade: z.coerce.number().min(0).max(1000).default(0),
  thinned: z.coerce.number().min(0).max(1000).default(0),
  /** Layers and what is done along their lines: "id:cut", by commas. */
  uses: z
    .string()
    .max(20_000)
    .regex(
      /^[^:,]+:(draw|score|cut|none)(,[^:,]+:(draw|score|cut|none))*$/,
      'Uses are layers with draw, score, cut or none, as in "id:cut", by commas.',
    ) // prettier-ignore
    .optional(),
  /** Of HP-GL: the strokes in their order, or with a short way between them. */
  order: z.enum(['kept', 'short']).default('kept'),
  /** Of HP-GL: what lies inside comes first; how far a knife's middle is led ahead, millimetres. */
  inner: z.enum(['0', '1']).default('0'),
  /** Strokes that begin so near the end of the last go on without a lift, millimetres. */
  join: z.coerce.number().min(0).max(10).default(0),
  lead: z.coerce.number().min(0).max(10).default(0),
  /** One file, or a zip file with one for each layer or each shape. */
  each: z.enum(['one', 'layer', 'shape']).default('one'),
  /** Of pixels: a zip file with one as wide as each of these, pixels, by commas. */
  widths: z
    .string()
    .regex(/^[1-9]\d{0,4}(,[1-9]\d{0,4}){0,19}$/, 'Widths are whole pixels with commas between; 20 at most.')
    .optional(),
  /** A group that is a cutout: it alone, as PNG, at its picture's own resolution. */
  cutout: z.string().max(64).optional(),
});

/** What several projects are written as: bundles, or the sheet of each. */
export const SEVERAL_KINDS = ['zip', 'svg', 'png', 'pdf'] as const;
export type SeveralKind = (typeof SEVERAL_KINDS)[number];
export const severalQuery = z.object({
  /** Ids of projects, by commas. */
  of: z
    .string()
    .regex(/^[\w-]+(,[\w-]+){0,99}$/, 'Say which projects, by their ids with commas between; 100 at most.'),
  as: z.enum(SEVERAL_KINDS).default('zip'),
});

export type ExportQuery = z.infer<typeof exportQuery>;

export const largerRequest = z.strictObject({ factor: z.number().min(1).max(8) });

/** Where someone left the desk of a project: it opens there again. */
export const leftRequest = z.strictObject({
  step: z.enum(STEPS),
  /** The point of the sheet in the middle of the bed, sheet pixels, and bed pixels for one of them. */
  middle: z.strictObject({ x: z.number(), y: z.number() }),
  scale: z.number().positive(),
  choice: choiceSchema,
  /** Mean drift of the drawing, picture pixels; null where it was not measured in this visit. */
  drift: z.number().nonnegative().nullable(),
});
export type LeftRequest = z.infer<typeof leftRequest>;

export type SheetRequest = z.infer<typeof sheetRequest>;
export type ChangesRequest = z.input<typeof changesRequest>;

export interface ProjectAnswer {
  readonly id: string;
  readonly name: string;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly revision: number;
  readonly sheet: SheetRequest;
  readonly shapes: number;
  /** Shapes that have a fill or a stroke. */
  readonly painted: number;
  readonly anchors: number;
  /** The word of the folder it stands in; empty for none. */
  readonly folder: string;
  /** When its desk was last left; null when it never was. */
  readonly openedAt: string | null;
  /** Mean drift as it was last measured, picture pixels; null when it never was. */
  readonly drift: number | null;
  /** The title of the exercise that is practised in it; null where none is. */
  readonly practised: string | null;
}

/** A project as its desk opens it. */
export interface OpenedAnswer extends ProjectAnswer {
  readonly left: LeftRequest | null;
}

/** A deleted project that can still be brought back. */
export interface BinAnswer extends ProjectAnswer {
  readonly deletedAt: string;
  /** When it is cleared away for good. */
  readonly goneAt: string;
}

export interface PictureAnswer {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** Pixels per inch as the file says, or null when it does not. */
  readonly ppi: number | null;
  readonly format: string;
}

export interface ArtAnswer {
  readonly revision: number;
  readonly art: Art;
}

/** What a report proves a drawing for. */
const reportUse = z.enum(['screen', 'print', 'cutter', 'pen']).default('screen');
export type ReportUse = z.infer<typeof reportUse>;
export const reportQuery = z.object({ use: reportUse });
export const reportsQuery = z.object({
  /** Ids of projects, by commas. */
  of: z
    .string()
    .regex(
      /^[\w-]+(,[\w-]+){0,99}$/,
      'A report is of one to a hundred projects, their ids parted by commas.',
    ),
  use: reportUse,
});

/** Something that the proof found, in words; `aside` is why it was left as it is. */
export interface ReportedFinding {
  readonly what: string;
  readonly where: string;
  readonly amount: string;
  readonly aside: string | null;
}

/** What is told of a project to a client or a teacher. */
export interface ReportAnswer {
  readonly id: string;
  readonly name: string;
  /** The sheet's size in words, and its width to its height. */
  readonly sheet: string;
  readonly ratio: number;
  /** There is a picture to be seen. */
  readonly pictured: boolean;
  readonly figures: readonly (readonly [what: string, value: string])[];
  readonly areas: readonly { readonly hex: string; readonly name: string; readonly share: number }[];
  readonly left: readonly ReportedFinding[];
  readonly aside: readonly ReportedFinding[];
}

/** How a project's drawing grew: the revision and the document it began with, and the changes since. */
export interface GrowthAnswer extends Growth {
  readonly revision: number;
}

/** What is asked of a replay as moving pictures. */
export const replayQuery = z.object({
  width: z.coerce.number().int().min(80).max(1200).default(480),
  seconds: z.coerce.number().min(1).max(60).default(10),
  picture: z.enum(['0', '1']).default('0'),
});

/** The newest changes of a project, oldest first; the last one made the revision. */
export interface JournalAnswer {
  readonly revision: number;
  readonly changes: readonly Noted<z.infer<typeof contextSchema>>[];
}

export interface ErrorAnswer {
  readonly error: { readonly code: string; readonly message: string; readonly revision?: number };
}

/** A font file of a project. */
export interface FontAnswer {
  readonly id: string;
  readonly name: string;
}

export interface CopyAnswer {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  /** Kept by the server, before something large was done or once a working hour. */
  readonly byItself: boolean;
  readonly revision: number;
  readonly createdAt: string;
}

export const newCopyRequest = z.strictObject({ name: nameSchema, note: noteSchema.optional() });
export const patchCopyRequest = z
  .strictObject({ name: nameSchema, note: noteSchema })
  .partial()
  .refine((r) => Object.keys(r).length > 0, 'Say what to change: a name or a note.');

/** What a project made of another has of it; its sheet always. The drawing takes all of the others along. */
export const AGAIN_PARTS = ['layers', 'palette', 'pictures', 'drawing'] as const;
export const againRequest = z.strictObject({
  name: nameSchema,
  /** A kept copy of it; left out, it is as it is now. */
  copy: z.string().optional(),
  keep: z.array(z.enum(AGAIN_PARTS)).max(AGAIN_PARTS.length),
});
export type AgainRequest = z.infer<typeof againRequest>;

/** A picture's name from its file's, made fit to keep. */
export const pictureName = z.string().transform((name) => fitName(name, 'Picture'));

export const importName = nameSchema;

/** A project made of a file, and what of the file was not read. */
export interface ImportAnswer {
  readonly project: ProjectAnswer;
  /** All that were made, this one first: a zip file may hold several. */
  readonly projects: readonly ProjectAnswer[];
  readonly left: SvgReading['left'];
}

export interface ShippedAnswer {
  readonly file: string;
  readonly name: string;
}
