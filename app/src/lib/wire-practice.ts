import { exerciseSchema, nameSchema, type Advice, type Score } from '@mirrot/core';
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

/** A day and more: no time at work is longer. */
const LONGEST_WORK_SECONDS = 100_000;
export const handInRequest = z.strictObject({
  /** Time at work, pauses left out. */
  seconds: z.number().min(0).max(LONGEST_WORK_SECONDS),
  presses: z.number().int().min(0).max(1_000_000),
});
export type HandInRequest = z.infer<typeof handInRequest>;

/** What the coach says of a drawing as it is now; null where nothing is left to be said. */
export interface CoachAnswer {
  readonly advice: Advice | null;
}

/** What was handed in once. */
export interface Attempt extends HandInRequest {
  readonly id: string;
  readonly createdAt: string;
  /** It was drawn in this project. */
  readonly here: boolean;
  readonly score: Score;
  /** What was drawn, pixels of the picture: SVG path data. */
  readonly lines: string;
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
