import { z } from 'zod';
import { affineMove, pictureMove } from '../art/follow-picture';
import { paintedLeaves, paintList } from '../art/paint-list';
import type { DeepReadonly } from '../art/scalars';
import { pathSchema, type Art, type PlacedPicture } from '../art/schema';
import { nameSchema, noteSchema } from '../art/text-schema';
import { tracedPicture } from '../art/tree';
import { MirrotError } from '../error';
import { IDENTITY } from '../geometry/affine';
import type { Path } from '../path/path';
import { transformPath } from '../path/path-map';
import { projectPath } from '../path/project';

/** Lines of what to do, at most, and how long one is, characters. */
const MOST_LINES = 3;
const LONGEST_LINE = 90;
const LINES_WANTED = `Say what to do in 1 to ${MOST_LINES} lines.`;
const MINUTES_WANTED = 'Say how long it takes in whole minutes, 1 to 60.';
/** Shapes and anchors a truth has at most: what is measured by it takes well under a second then. */
export const MOST_SHAPES = 200;
const MOST_ANCHORS = 4000;

/** A shape of the true drawing. */
const truthShapeSchema = z.strictObject({
  name: nameSchema,
  /** Outlines, or the middles of strokes; pixels of the picture. */
  paths: z.array(pathSchema).min(1),
  /** The colour it is filled with, where that is part of the exercise. */
  fill: z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .nullable(),
});

/** A picture to be traced whose true outline is known, and what is to be done. */
export const exerciseSchema = z
  .strictObject({
    id: z.string().regex(/^[\w-]{1,64}$/),
    title: nameSchema,
    /** How long it takes, minutes. */
    minutes: z.number(MINUTES_WANTED).int(MINUTES_WANTED).min(1, MINUTES_WANTED).max(60, MINUTES_WANTED),
    /** What to do, in plain words. */
    todo: z
      .array(
        noteSchema.refine(
          (line) => line.length > 0 && line.length <= LONGEST_LINE,
          `A line of what to do has 1 to ${LONGEST_LINE} characters.`,
        ),
      )
      .min(1, LINES_WANTED)
      .max(MOST_LINES, LINES_WANTED),
    /** What helps and may be used, in plain words. */
    aids: z.array(noteSchema).max(6),
    truth: z.array(truthShapeSchema).min(1).max(MOST_SHAPES),
  })
  .refine(
    ({ truth }) =>
      truth.flatMap(({ paths }) => paths).reduce((n, p) => n + p.anchors.length, 0) <= MOST_ANCHORS,
    `The true drawing of an exercise has ${MOST_ANCHORS} anchors at most.`,
  )
  .refine(
    ({ truth }) => truth.every(({ paths }) => paths.every((p) => p.anchors.length >= 2)),
    'Each line of an exercise’s true drawing needs two anchors or more.',
  );

export type Exercise = DeepReadonly<z.infer<typeof exerciseSchema>>;
export type TruthShape = Exercise['truth'][number];

/** Paths drawn on the sheet as they lie in a picture: in its own pixels, before it was placed or squared up. */
export const pathsInPicture = (paths: readonly Path[], picture: PlacedPicture): Path[] =>
  movedPaths(paths, picture, asItCame(picture));

/** Paths in a picture's own pixels as they lie on the sheet: the way back from `pathsInPicture`. */
export const pathsOnSheet = (paths: readonly Path[], picture: PlacedPicture): Path[] =>
  movedPaths(paths, asItCame(picture), picture);

const asItCame = (picture: PlacedPicture): PlacedPicture => ({
  ...picture,
  placement: IDENTITY,
  square: null,
});

/** Paths taken along with a picture. */
function movedPaths(paths: readonly Path[], from: PlacedPicture, to: PlacedPicture): Path[] {
  const affine = affineMove(from, to);
  if (affine) return paths.map((path) => transformPath(path, affine));
  const move = pictureMove(from, to);
  return paths.map((path) => (move ? projectPath(path, move).path : path));
}

/**
 * The true drawing of an exercise as a finished drawing has it: every shape that is in sight and paints something, its parts about
 * an axis too, in pixels of the picture that was traced.
 *
 * @throws MirrotError where nothing is drawn that could be traced, or there is no picture
 */
export function truthOf(art: Art): TruthShape[] {
  const picture = tracedPicture(art);
  if (!picture)
    throw new MirrotError('no-picture', 'An exercise needs a picture to be traced. Nothing was made.');
  const leaves = paintedLeaves(paintList(art)).map(({ part }) => part);
  const shapes = leaves.flatMap((part) => (part.type === 'shape' ? [part] : []));
  const truth = shapes
    .map(({ name, paths, fill }) => ({
      name,
      paths: pathsInPicture(
        paths.filter((p) => p.anchors.length >= 2 && (p.closed || fill === null)),
        picture,
      ),
      fill: fill?.kind === 'flat' ? fill.hex : null,
    }))
    .filter(({ paths }) => paths.length > 0);
  if (truth.length === 0)
    throw new MirrotError(
      'no-truth',
      'An exercise needs a finished drawing: a closed shape, or a line without a fill. Nothing was made.',
    );
  return truth;
}
