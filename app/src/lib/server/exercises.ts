import {
  drawnShapes,
  emptyArt,
  exerciseSchema,
  formatPathData,
  IDENTITY,
  placedPicture,
  scoreDrawing,
  type Art,
  type Exercise,
  type PlacedPicture,
  type Score,
} from '@mirrot/core';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { newId } from '$lib/ids';
import type {
  AnswerAnswer,
  Attempt,
  ExerciseAnswer,
  HandInRequest,
  OfferedExercise,
  PractisedAnswer,
  ProjectAnswer,
} from '$lib/wire';
import { inTransaction, type Database } from './database';
import { decodePicture } from './decode';
import { getArt } from './documents';
import { storePicture } from './pictures';
import { getProject, insertProject } from './projects';
import { Refusal } from './refusal';

const folder = (): string => process.env.MIRROT_EXERCISES ?? 'demo/exercises';

interface Shipped {
  readonly exercise: Exercise;
  readonly picture: string;
}

/** The exercises that ship, in their order; one that cannot be read is left out. */
async function shippedExercises(): Promise<Shipped[]> {
  const files = (await readdir(folder()).catch(() => [] as string[]))
    .filter((f) => f.endsWith('.json'))
    .sort();
  const read = files.map(async (file): Promise<Shipped[]> => {
    const exercise = exerciseSchema.safeParse(JSON.parse(await readFile(join(folder(), file), 'utf8')));
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

/** All of an exercise but its truth. */
const withoutTruth = ({ id, title, minutes, todo, aids }: Exercise): ExerciseAnswer => ({ id, title, minutes, todo, aids }); // prettier-ignore

/** The exercises to begin with, and how often each was handed in, how near at best. */
export async function listExercises(db: Database): Promise<OfferedExercise[]> {
  const rows = await db.selectFrom('attempts').select(['exercise_id', 'score']).execute();
  return (await shippedExercises()).map(({ exercise }) => {
    const scores = rows.filter((r) => r.exercise_id === exercise.id).map((r) => JSON.parse(r.score) as Score);
    return {
      ...withoutTruth(exercise),
      tries: scores.length,
      best: scores.length > 0 ? Math.min(...scores.map(({ mean }) => mean)) : null,
    };
  });
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

/** What a project keeps of the exercise that is practised in it. */
interface Practised {
  readonly exercise: Exercise;
  /** The placed picture that it is done on, by id. */
  readonly picture: string;
}

/** Makes a project to practise an exercise in: its picture on a sheet as large, locked, and nothing drawn. */
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
  const art: Art = {
    ...emptyArt({ width, height, unit: 'px' }, newId()),
    pictures: [placed],
    traced: placed.id,
  };
  const practised: Practised = { exercise, picture: placed.id };
  const project = await inTransaction(db, async (tx) => {
    await storePicture(tx, source, exercise.title, bytes, decoded);
    return insertProject(tx, {
      name: exercise.title,
      art,
      pictures: [source],
      exercise: JSON.stringify(practised),
    });
  });
  return getProject(db, project);
}

/** What is practised in a project. Refuses with 404 where nothing is. */
async function practisedIn(db: Database, projectId: string): Promise<Practised> {
  await getProject(db, projectId);
  const row = await db
    .selectFrom('projects')
    .select('exercise')
    .where('id', '=', projectId)
    .executeTakeFirst();
  if (!row?.exercise) throw new Refusal(404, 'no-exercise', 'No exercise is practised in this project.');
  return JSON.parse(row.exercise) as Practised;
}

async function attemptsAt(db: Database, projectId: string, exerciseId: string): Promise<Attempt[]> {
  const rows = await db
    .selectFrom('attempts')
    .selectAll()
    .where('exercise_id', '=', exerciseId)
    .orderBy('created_at')
    .orderBy('id')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    createdAt: r.created_at,
    here: r.project_id === projectId,
    seconds: r.seconds,
    presses: r.presses,
    score: JSON.parse(r.score) as Score,
    lines: r.lines,
  }));
}

/** The exercise that is practised in a project, its answer kept from sight, and what was handed in of it. */
export async function getPractised(db: Database, projectId: string): Promise<PractisedAnswer> {
  const { exercise } = await practisedIn(db, projectId);
  return { exercise: withoutTruth(exercise), attempts: await attemptsAt(db, projectId, exercise.id) };
}

/** The picture that the exercise is done on, as the drawing has it now. */
function placedFor(art: Art, { picture }: Practised): PlacedPicture {
  const placed = art.pictures.find(({ id }) => id === picture);
  if (!placed)
    throw new Refusal(
      409,
      'no-picture',
      'The exercise’s picture is no longer in the drawing, so nothing can be measured. Undo until it is back.',
    );
  return placed;
}

/** Keeps what is drawn now as an attempt, with its score. Refuses while nothing of the exercise is drawn. */
export async function handIn(
  db: Database,
  projectId: string,
  { seconds, presses }: HandInRequest,
): Promise<Attempt> {
  const practised = await practisedIn(db, projectId);
  const { art } = await getArt(db, projectId);
  const placed = placedFor(art, practised);
  const shapes = drawnShapes(art, placed);
  const score = scoreDrawing(shapes, practised.exercise.truth);
  if (!(score.drawn > 0))
    throw new Refusal(
      422,
      'nothing-drawn',
      'Nothing of the exercise is drawn yet. Draw its outline on the picture, then hand it in.',
    );
  const lines = formatPathData(shapes.flatMap(({ paths }) => paths));
  const attempt = { id: newId(), seconds, presses, createdAt: new Date().toISOString(), score, lines };
  await db
    .insertInto('attempts')
    .values({
      id: attempt.id,
      exercise_id: practised.exercise.id,
      project_id: projectId,
      created_at: attempt.createdAt,
      seconds,
      presses,
      score: JSON.stringify(score),
      lines,
    })
    .execute();
  return { ...attempt, here: true };
}

/** The answer: the truth, and all that was handed in. Refuses before something is. */
export async function getAnswer(db: Database, projectId: string): Promise<AnswerAnswer> {
  const practised = await practisedIn(db, projectId);
  const { exercise } = practised;
  const attempts = await attemptsAt(db, projectId, exercise.id);
  if (!attempts.some(({ here }) => here))
    throw new Refusal(409, 'not-handed-in', 'The answer is shown once something is handed in here.');
  const { art } = await getArt(db, projectId);
  const { source, width, height } = placedFor(art, practised);
  return {
    exercise: withoutTruth(exercise),
    attempts,
    picture: { source, width, height },
    truth: exercise.truth.map(({ name, paths, fill }) => ({ name, d: formatPathData(paths), fill })),
  };
}
