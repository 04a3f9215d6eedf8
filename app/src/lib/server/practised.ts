import { emptyArt, type Art, type Exercise, type PlacedPicture, type Practised } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { ExerciseAnswer } from '$lib/wire-practice';
import type { Database } from './database';
import { getProject, insertProject } from './projects';
import { Refusal } from './refusal';

/** What a project keeps of the exercise that is practised in it: JSON in its row. */
export type KeptExercise = Omit<Practised, 'attempts'>;

/** All of an exercise but its truth. */
export const withoutTruth = ({ id, title, minutes, todo, aids }: Exercise): ExerciseAnswer => ({ id, title, minutes, todo, aids }); // prettier-ignore

/** Adds a project to practise in: the picture alone, locked, and nothing drawn. */
export async function addPractice(
  tx: Database,
  exercise: Exercise,
  sheet: Pick<Art['sheet'], 'width' | 'height' | 'unit'>,
  picture: PlacedPicture,
): Promise<string> {
  const { width, height, unit } = sheet;
  const art: Art = { ...emptyArt({ width, height, unit }, newId()), pictures: [picture], traced: picture.id };
  const kept: KeptExercise = { exercise, picture };
  return insertProject(tx, {
    name: exercise.title,
    art,
    pictures: [picture.source],
    exercise: JSON.stringify(kept),
  });
}

/** What is practised in a project; null for nothing. Refuses with 404 where there is no such project. */
export async function exerciseIn(db: Database, projectId: string): Promise<KeptExercise | null> {
  await getProject(db, projectId);
  const row = await db
    .selectFrom('projects')
    .select('exercise')
    .where('id', '=', projectId)
    .executeTakeFirst();
  return row?.exercise ? (JSON.parse(row.exercise) as KeptExercise) : null;
}

/** What is practised in a project. Refuses with 404 where nothing is. */
export async function practisedIn(db: Database, projectId: string): Promise<KeptExercise> {
  const kept = await exerciseIn(db, projectId);
  if (!kept) throw new Refusal(404, 'no-exercise', 'No exercise is practised in this project.');
  return kept;
}
