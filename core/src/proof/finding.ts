import type { Recipe } from '../art/change';
import type { Art, Shape } from '../art/schema';
import { shapesOf, wholePaths } from '../art/tree';
import { EMPTY_BOX, uniteBoxes, type Box } from '../geometry/bounds';
import type { Point } from '../geometry/vector';
import { pathBounds } from '../path/path-measure';
import type { Path } from '../path/path';

/** What the proof looks for, in the order in which it is told. */
export const FINDING_KINDS = [
  'open-fill',
  'near-ends',
  'pokes-out',
  'gap',
  'kink',
  'long-handle',
  'crossed-handles',
  'missing-anchor',
  'spare-anchor',
  'self-crossing',
  'doubled',
  'crowded',
  'tiny',
  'sliver',
  'hidden',
  'ground-patch',
  'off-sheet',
  'near-colours',
  'off-palette',
  'near-weights',
  'near-level',
  'drifted',
  'uncovered',
  'picture-shown',
] as const;
export type FindingKind = (typeof FINDING_KINDS)[number];

/** Something that is probably not meant. */
export interface Finding {
  readonly kind: FindingKind;
  /** The same for as long as the thing stays where it is: what was put aside is known by it. */
  readonly key: string;
  /** Shapes that it is about, by id; the one that would be mended first. None where it is about the palette. */
  readonly shapes: readonly string[];
  /** Where, sheet pixels; null where it has no place. */
  readonly at: Point | null;
  /** How much: sheet pixels, degrees, anchors, ΔE or lines, as its kind has it. */
  readonly amount: number;
  /** Which path of the first shape, and which of its anchors or segments, where it is about one. */
  readonly path?: string;
  readonly index?: number;
}

/** How much is too much. Lengths in sheet pixels. */
export interface Tolerances {
  /** Ends nearer than this were meant to meet. */
  readonly gap: number;
  /** An anchor that can go with the line moving less than this is spare. */
  readonly spare: number;
  /** Handles that are out of line by less, degrees, were meant to be in line. */
  readonly kink: number;
  /** Shapes no larger than this either way are crumbs. */
  readonly tiny: number;
  /** Colours nearer than this, ΔE, were meant to be one. */
  readonly colour: number;
  /** Lines that are off level or upright by less, degrees, were meant to be so. */
  readonly level: number;
  /** Lines whose weights differ by less, share of the heavier one, were meant to be alike. */
  readonly weight: number;
  /** More anchors to the centimetre than this choke the machine that follows them. */
  readonly anchorsPerCm: number;
  /** How far a line may leave the picture's edge, picture pixels. */
  readonly drift: number;
}

/** Common practice, no source: what is seen on a screen, in print, felt by a blade, and drawn by a pen. */
export const TOLERANCES: Readonly<Record<'screen' | 'print' | 'cutter' | 'pen', Tolerances>> = {
  screen: {
    gap: 1,
    spare: 0.1,
    kink: 6,
    tiny: 1,
    colour: 1,
    level: 1,
    weight: 0.1,
    anchorsPerCm: Infinity,
    drift: 2,
  },
  print: {
    gap: 0.5,
    spare: 0.05,
    kink: 5,
    tiny: 0.5,
    colour: 1,
    level: 0.8,
    weight: 0.08,
    anchorsPerCm: Infinity,
    drift: 1.5,
  },
  cutter: {
    gap: 2,
    spare: 0.2,
    kink: 6,
    tiny: 6,
    colour: 1,
    level: 1,
    weight: 0.1,
    anchorsPerCm: 25,
    drift: 2,
  },
  pen: {
    gap: 1.2,
    spare: 0.2,
    kink: 6,
    tiny: 1.2,
    colour: 1,
    level: 1,
    weight: 0.1,
    anchorsPerCm: 40,
    drift: 2,
  },
};

/** A shape that is proved: in sight, and not meant to be as it is. */
export interface ProofShape {
  readonly shape: Shape;
  /** All lines of it, those that follow about an axis too. */
  readonly whole: readonly Path[];
  readonly box: Box;
  /** How far up it stands. */
  readonly level: number;
}

/** A place of a line and how far it was found to lie from the picture's edge. */
export interface DriftedPlace {
  /** On the sheet. */
  readonly at: Point;
  /** Picture pixels, signed as `measureDrift` has it. */
  readonly drift: number;
  /** Picture pixels of the line that the place stands for, and from the line's beginning to it. */
  readonly weight: number;
  readonly along: number;
  readonly segment: number;
}

/** What was measured of a path against the picture, elsewhere: the places that lie off its edge by half of what is allowed, or more. */
export interface MeasuredPath {
  readonly shape: string;
  readonly path: string;
  readonly places: readonly DriftedPlace[];
}

/** What is proved. */
export interface Subject {
  readonly art: Art;
  readonly measured: readonly MeasuredPath[];
  readonly shapes: readonly ProofShape[];
}

export const subjectOf = (art: Art, measured: readonly MeasuredPath[] = []): Subject => ({
  art,
  measured,
  shapes: shapesOf(art)
    .map(({ shape, shown }, level) => ({ shape, shown, level }))
    .filter(({ shape, shown }) => shown && shape.meant !== true)
    .map(({ shape, level }) => {
      const whole = wholePaths(shape);
      return { shape, whole, level, box: whole.map(pathBounds).reduce(uniteBoxes, EMPTY_BOX) };
    }),
});

/** One thing to look for. */
export interface Check {
  readonly kind: FindingKind;
  find(subject: Subject, tolerances: Tolerances): Finding[];
  /** Mends what it found, where that is safe; left out where the hand has to decide. */
  readonly fix?: (art: Art, finding: Finding, tolerances: Tolerances) => Recipe | null;
}

/** The shape that a finding is about first, in the drawing as it is now; null where it is gone. */
export const shapeFound = (art: Art, { shapes }: Finding): Shape | null =>
  shapesOf(art).find(({ shape }) => shape.id === shapes[0])?.shape ?? null;

/** The path that a finding is about, in the drawing as it is now; null where it is gone. */
export function pathFound(art: Art, finding: Finding): { readonly shape: Shape; readonly path: Path } | null {
  const shape = shapeFound(art, finding);
  const path = shape?.paths.find(({ id }) => id === finding.path);
  return shape && path ? { shape, path } : null;
}
