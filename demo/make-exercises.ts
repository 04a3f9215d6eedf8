// npm run demo:exercises: photographs the exercises' originals, and writes them with their truth.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { develop, draw, grain, lens, lookAt, vignette } from './camera';
import { EXERCISES } from './exercises';
import { exerciseScene } from './exercises/exercise';
import { EXERCISE_SIZE, shippedExercise } from './exercises/shipped';

const folder = join(fileURLToPath(new URL('.', import.meta.url)), 'exercises');

const wanted = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
for (const [i, exercise] of EXERCISES.entries()) {
  if (wanted.length > 0 && !wanted.includes(exercise.id)) continue;
  const scene = await draw(exerciseScene(exercise), 60);
  const corners = exercise.seenAt?.map(([x, y]) => ({ x, y }));
  const seen = corners ? lookAt(scene, corners, EXERCISE_SIZE.width, EXERCISE_SIZE.height) : scene;
  const photo = vignette(grain(await lens(seen, exercise.lens ?? 0.8), 9, 70 + i), 0.2);
  // In the order in which they rise.
  const name = `${String(i + 1).padStart(2, '0')}-${exercise.id}`;
  writeFileSync(join(folder, `${name}.jpg`), await develop(photo, 84, 72));
  writeFileSync(join(folder, `${name}.json`), `${JSON.stringify(shippedExercise(exercise))}\n`);
  console.log(exercise.id);
}
