import { formatPathData, pathBounds, uniteBoxes, type Bundle } from '@mirrot/core';
import type { ClassEntry } from '$lib/wire-practice';
import { readBundlesApart } from './apart';

function entryOf({ name, practised }: Bundle): ClassEntry {
  if (!practised) return { name, exercise: null, attempts: [], truth: null };
  const { exercise, attempts } = practised;
  const paths = exercise.truth.flatMap((shape) => shape.paths);
  const truth = { d: formatPathData(paths), box: paths.map(pathBounds).reduce(uniteBoxes) };
  // The truth is told as the answer is: once something was handed in.
  return { name, exercise: exercise.title, attempts, truth: attempts.length > 0 ? truth : null };
}

/** What a bundle, or a zip file of several, hands in of exercises; nothing of it is kept. Refuses what is none. */
export async function readHandedIn(bytes: Uint8Array): Promise<ClassEntry[]> {
  return (await readBundlesApart(bytes)).map(entryOf);
}
