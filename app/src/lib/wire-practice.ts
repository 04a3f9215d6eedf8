import {
  effortSchema,
  exerciseSchema,
  nameSchema,
  type Advice,
  type Box,
  type GhostFrame,
  type KeptAttempt,
} from '@mirrot/core';
import { z } from 'zod';

// What goes over the wire of exercises: requests as schemas, answers as types. Used by both ends.

/** An exercise as it is told before it is done: all but its truth. */
export interface ExerciseAnswer {
  readonly id: string;
  readonly title: string;
  readonly minutes: number;
  readonly todo: readonly string[];
  readonly aids: readonly string[];
}

/** An exercise to begin with, and what was handed in of it so far. */
export interface OfferedExercise extends ExerciseAnswer {
  /** A project in which it is practised already, where it is an own one; null for those that ship. */
  readonly from: string | null;
  /** Address of its picture in small. */
  readonly thumb: string;
  readonly tries: number;
  /** The least mean distance so far, pixels of the picture. */
  readonly best: number | null;
}

/** An exercise made of a finished project: its drawing is the truth. */
export const newExerciseRequest = z.strictObject({
  title: nameSchema,
  minutes: exerciseSchema.shape.minutes,
  todo: exerciseSchema.shape.todo,
});
export type NewExerciseRequest = z.infer<typeof newExerciseRequest>;

export const handInRequest = effortSchema;

/** What the coach says of a drawing as it is now; null where nothing is left to be said. */
export interface CoachAnswer {
  readonly advice: Advice | null;
}

/** What was handed in once. */
export interface Attempt extends KeptAttempt {
  readonly id: string;
  /** It was drawn in this project. */
  readonly here: boolean;
}

/** The best attempt as it grew, to race against. */
export interface GhostAnswer {
  /** Which attempt it is, from 1 for the first. */
  readonly number: number;
  /** How long it took, and its mean distance from the truth, pixels of the picture. */
  readonly seconds: number;
  readonly mean: number;
  /** Their seconds rise. */
  readonly frames: readonly GhostFrame[];
}

/** A project of a bundle that was handed in, as a class's table tells of it. */
export interface ClassEntry {
  /** Name of the project. */
  readonly name: string;
  /** The exercise that it practises; null where it practises none. */
  readonly exercise: string | null;
  /** Oldest first. */
  readonly attempts: readonly KeptAttempt[];
  /** The true lines, in a box that holds them; pixels of the picture: SVG path data. */
  readonly truth: { readonly d: string; readonly box: Box } | null;
}
export interface ClassAnswer {
  readonly entries: readonly ClassEntry[];
}

/** What is told of the exercise that a project practises, without its answer. */
export interface PractisedAnswer {
  readonly exercise: ExerciseAnswer;
  /** Oldest first. */
  readonly attempts: readonly Attempt[];
}

/** The answer to an exercise: the truth beside what was handed in. */
export interface AnswerAnswer extends PractisedAnswer {
  readonly picture: { readonly source: string; readonly width: number; readonly height: number };
  /** Pixels of the picture: SVG path data; lines that are not closed apart from outlines. */
  readonly truth: readonly { readonly name: string; readonly d: string; readonly fill: string | null }[];
}
