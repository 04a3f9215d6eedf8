import { exerciseSchema, homography, parsePathData, project, projectPath, type Exercise } from '@mirrot/core';
import { cornersOf } from '../camera';
import { slug } from '../makers';
import { EXERCISE_HEIGHT, EXERCISE_WIDTH, type ExerciseOriginal } from './exercise';

export const EXERCISE_SIZE = { width: EXERCISE_WIDTH, height: EXERCISE_HEIGHT };

/** The exercise as it ships: its truth in pixels of its picture. */
export function shippedExercise({
  id,
  title,
  minutes,
  todo,
  aids,
  shapes,
  seenAt,
}: ExerciseOriginal): Exercise {
  const seen =
    seenAt &&
    homography(
      cornersOf(EXERCISE_SIZE),
      seenAt.map(([x, y]) => ({ x, y })),
    );
  return exerciseSchema.parse({
    id,
    title,
    minutes,
    todo,
    aids,
    truth: shapes.map((shape) => {
      const paths = parsePathData(shape.d, (n) => `${slug(shape.name)}-${n + 1}`);
      return {
        name: shape.name,
        paths: seen ? paths.map((path) => projectPath(path, (p) => project(seen, p)).path) : paths,
        fill: shape.toned ? shape.paint[0] : null,
      };
    }),
  });
}
