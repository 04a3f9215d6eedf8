import {
  bestAttempt,
  exerciseSchema,
  IDENTITY,
  placedPicture,
  tracedPicture,
  truthOf,
  type Exercise,
  type PlacedPicture,
  type Score,
} from '@mirrot/core';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { newId } from '$lib/ids';
import type { ProjectAnswer } from '$lib/wire';
import type { NewExerciseRequest, OfferedExercise } from '$lib/wire-practice';
import { inTransaction, type Database } from './database';
import { decodePicture } from './decode';
import { getArt } from './documents';
import { storePicture } from './pictures';
import { addPractice, practisedIn, withoutTruth, type KeptExercise } from './practised';
import { getProject } from './projects';
import { Refusal } from './refusal';

const folder = (): string => process.env.MIRROT_EXERCISES ?? 'demo/exercises';

interface Shipped {
  readonly exercise: Exercise;
  readonly picture: string;
}

/** What JSON text says; null where it is none. */
function valueOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** The exercises that ship, in their order; one that cannot be read is left out. */
async function shippedExercises(): Promise<Shipped[]> {
  const files = (await readdir(folder()).catch(() => [] as string[]))
    .filter((f) => f.endsWith('.json'))
    .sort();
  const read = files.map(async (file): Promise<Shipped[]> => {
    const text = await readFile(join(folder(), file), 'utf8');
    const exercise = exerciseSchema.safeParse(valueOf(text));
    return exercise.success
      ? [{ exercise: exercise.data, picture: join(folder(), file.replace(/\.json$/, '.jpg')) }]
      : [];
  });
  return (await Promise.all(read)).flat();
}

async function shippedExercise(id: string): Promise<Shipped> {
  const found = (await shippedExercises()).find(({ exercise }) => exercise.id === id);
  if (!found) throw new Refusal(404, 'no-exercise', 'There is no such exercise.');
  return found;
}

/** Own exercises, the first made first: each with the first project it is practised in. */
async function ownExercises(
  db: Database,
): Promise<{ project: string; source: string; exercise: Exercise }[]> {
  const rows = await db
    .selectFrom('projects')
    .select(['id', 'exercise'])
    .where('exercise', 'is not', null)
    .where('deleted_at', 'is', null)
    .orderBy('created_at')
    .execute();
  const own = new Map<string, { project: string; source: string; exercise: Exercise }>();
  for (const { id, exercise: text } of rows) {
    const { exercise, picture } = JSON.parse(text!) as KeptExercise;
    if (exercise.id.startsWith(OWN) && !own.has(exercise.id))
      own.set(exercise.id, { project: id, source: picture.source, exercise });
  }
  return [...own.values()];
}

/** What ids of own exercises begin with. */
const OWN = 'own-';

/** The exercises to begin with, those that ship before own ones, and how often each was handed in, how near at best. */
export async function listExercises(db: Database): Promise<OfferedExercise[]> {
  const rows = await db
    .selectFrom('attempts')
    .select(['exercise_id', 'score'])
    .where('from_bundle', '=', 0)
    .execute();
  const offered = (exercise: Exercise, from: string | null, thumb: string): OfferedExercise => {
    const tries = rows
      .filter((r) => r.exercise_id === exercise.id)
      .map((r) => ({ score: JSON.parse(r.score) as Score }));
    return {
      ...withoutTruth(exercise),
      from,
      thumb,
      tries: tries.length,
      best: bestAttempt(tries)?.score.mean ?? null,
    };
  };
  return [
    ...(await shippedExercises()).map(({ exercise }) =>
      offered(exercise, null, `/api/exercises/${exercise.id}/thumb`),
    ),
    ...(await ownExercises(db)).map(({ exercise, project, source }) =>
      offered(exercise, project, `/api/pictures/${source}?size=thumb`),
    ),
  ];
}

/** An exercise's picture covers so much of its packet, in pixels of a screen of twice the density. */
const THUMB_PX = { width: 480, height: 360 };

/** An exercise's picture in small, a JPEG. */
export async function exerciseThumb(id: string): Promise<Buffer> {
  const { picture } = await shippedExercise(id);
  return sharp(picture)
    .resize(THUMB_PX.width, THUMB_PX.height, { fit: 'cover' })
    .jpeg({ quality: 84 })
    .toBuffer();
}

/** Makes a project to practise an exercise in that ships: its picture on a sheet as large. */
export async function startExercise(db: Database, id: string): Promise<ProjectAnswer> {
  const { exercise, picture } = await shippedExercise(id);
  const bytes = await readFile(picture);
  const decoded = await decodePicture(bytes);
  const { width, height } = decoded;
  const source = newId();
  const placed = placedPicture({
    id: newId(),
    source,
    name: exercise.title,
    width,
    height,
    placement: IDENTITY,
  });
  const project = await inTransaction(db, async (tx) => {
    await storePicture(tx, source, exercise.title, bytes, decoded);
    return addPractice(tx, exercise, { width, height, unit: 'px' }, placed);
  });
  return getProject(db, project);
}

/** A picture as it is practised on: in sight as it came, and out of the way of the hand. */
const plainly = (picture: PlacedPicture): PlacedPicture => ({
  ...picture,
  shown: true,
  locked: true,
  wash: 0,
});

/** Makes an exercise of a finished project, its drawing the truth, and a project to practise it in. */
export async function makeExercise(
  db: Database,
  projectId: string,
  { title, minutes, todo }: NewExerciseRequest,
): Promise<ProjectAnswer> {
  const { art } = await getArt(db, projectId);
  const truth = truthOf(art);
  const made = exerciseSchema.safeParse({ id: `${OWN}${newId()}`, title, minutes, todo, aids: [], truth });
  if (!made.success)
    throw new Refusal(422, 'exercise', `No exercise can be made of this drawing: ${made.error.issues[0]!.message} Nothing was made.`); // prettier-ignore
  const picture = plainly(tracedPicture(art)!);
  return getProject(db, await inTransaction(db, (tx) => addPractice(tx, made.data, art.sheet, picture)));
}

/** Begins the exercise that is practised in a project once more, in another one. */
export async function practiseAgain(db: Database, projectId: string): Promise<ProjectAnswer> {
  const { exercise, picture } = await practisedIn(db, projectId);
  const { sheet } = (await getArt(db, projectId)).art;
  return getProject(db, await inTransaction(db, (tx) => addPractice(tx, exercise, sheet, picture)));
}
