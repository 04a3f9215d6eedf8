import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import {
  driftFigures,
  edgeTiles,
  measureDrift,
  scoreDrawing,
  type Exercise,
  type Raster,
} from '@mirrot/core';
import { EXERCISES } from './exercises/index';
import { EXERCISE_SIZE, shippedExercise } from './exercises/shipped';

const folder = join(fileURLToPath(new URL('.', import.meta.url)), 'exercises');
const files = readdirSync(folder).filter((f) => f.endsWith('.json')).sort(); // prettier-ignore
const read = (file: string): Exercise => JSON.parse(readFileSync(join(folder, file), 'utf8')) as Exercise;

/** An exercise, its numbers to a millionth of a pixel. */
const rounded = (exercise: Exercise): unknown => JSON.parse(JSON.stringify(exercise, (_, v: unknown) => (typeof v === 'number' ? Math.round(1e6 * v) / 1e6 : v))); // prettier-ignore

async function pixels(file: string): Promise<Raster> {
  const { data, info } = await sharp(join(folder, file)).ensureAlpha().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}

/** Pieces of a truth that lie beneath its other shapes, or whose edge has next to no contrast, are not seen in the picture. */
const SEEN_AT_LEAST = 0.5;

it('ships every exercise as its original has it, in the order in which they rise', () => {
  expect(files.map((f) => f.replace(/^\d\d-|\.json$/g, ''))).toEqual(EXERCISES.map(({ id }) => id));
  expect(EXERCISES.length).toBeGreaterThanOrEqual(14);
  files.forEach((file, i) => expect(rounded(read(file))).toEqual(rounded(shippedExercise(EXERCISES[i]!))));
  for (const { minutes, todo } of EXERCISES) {
    expect(minutes).toBeGreaterThanOrEqual(2);
    expect(minutes).toBeLessThanOrEqual(8);
    expect(todo).toHaveLength(3);
  }
});

describe('the truth of an exercise', () => {
  // Outside: the vector originals the pictures were photographed from.
  it.each(files)('lies on the edges of its picture: %s', async (file) => {
    const exercise = read(file);
    const raster = await pixels(file.replace('.json', '.jpg'));
    expect([raster.width, raster.height]).toEqual([EXERCISE_SIZE.width, EXERCISE_SIZE.height]);
    const field = edgeTiles(raster);
    const areas = exercise.truth.flatMap(({ paths }) => paths).filter(({ closed }) => closed);
    const drifts = areas.map((path) => measureDrift(path, field, { reach: 6, light: 'true' }));
    for (const drift of drifts) {
      const { measured, length, mean } = driftFigures([drift], 0.5);
      if (measured < SEEN_AT_LEAST * length) continue;
      expect(mean).toBeLessThan(0.35);
    }
    if (areas.length > 0) expect(driftFigures(drifts, 0.5).mean).toBeLessThan(0.25);
  });

  it('scores full marks by itself: nothing off, nothing missing, the original’s anchors', () => {
    for (const file of files) {
      const { truth } = read(file);
      const score = scoreDrawing(truth, truth);
      expect(score.mean, file).toBeLessThan(1e-6);
      expect([score.drawn, score.astray, score.anchors], file).toEqual([1, 0, score.own]);
    }
  });
});
