// npm run demo:exercises: photographs the exercises' originals, and writes them with their truth.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { exerciseSchema, homography, parsePathData, project, projectPath, type Exercise } from '@mirrot/core';
import { cornersOf, develop, draw, grain, lens, lookAt, vignette } from './camera';
import { EXERCISES } from './exercises';
import { EXERCISE_HEIGHT, EXERCISE_WIDTH, exerciseScene, type ExerciseOriginal } from './exercises/exercise';
import { slug } from './makers';

const folder = join(fileURLToPath(new URL('.', import.meta.url)), 'exercises');
const SIZE = { width: EXERCISE_WIDTH, height: EXERCISE_HEIGHT };

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
      cornersOf(SIZE),
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

const wanted = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
for (const [i, exercise] of EXERCISES.entries()) {
  if (wanted.length > 0 && !wanted.includes(exercise.id)) continue;
  const scene = await draw(exerciseScene(exercise), 60);
  const corners = exercise.seenAt?.map(([x, y]) => ({ x, y }));
  const seen = corners ? lookAt(scene, corners, SIZE.width, SIZE.height) : scene;
  const photo = vignette(grain(await lens(seen, exercise.lens ?? 0.8), 9, 70 + i), 0.2);
  // In the order in which they rise.
  const name = `${String(i + 1).padStart(2, '0')}-${exercise.id}`;
  writeFileSync(join(folder, `${name}.jpg`), await develop(photo, 84, 72));
  writeFileSync(join(folder, `${name}.json`), `${JSON.stringify(shippedExercise(exercise))}\n`);
  console.log(exercise.id);
}
