import {
  coach,
  drawnShapes,
  emptyArt,
  exerciseSchema,
  formatPathData,
  IDENTITY,
  placedPicture,
  scoreDrawing,
  tracedPicture,
  truthOf,
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
  CoachAnswer,
  ExerciseAnswer,
  HandInRequest,
  NewExerciseRequest,
  OfferedExercise,
  PractisedAnswer,
} from '$lib/wire-practice';
import type { ProjectAnswer } from '$lib/wire';
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

/** All of an exercise but its truth. */
const withoutTruth = ({ id, title, minutes, todo, aids }: Exercise): ExerciseAnswer => ({ id, title, minutes, todo, aids }); // prettier-ignore

/** What a project keeps of the exercise that is practised in it. */
interface Practised {
  readonly exercise: Exercise;
  /** The picture that it is done on, as it was placed when it was begun. */
  readonly picture: PlacedPicture;
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
    const { exercise, picture } = JSON.parse(text!) as Practised;
    if (exercise.id.startsWith(OWN) && !own.has(exercise.id))
      own.set(exercise.id, { project: id, source: picture.source, exercise });
  }
  return [...own.values()];
}

/** What ids of own exercises begin with. */
const OWN = 'own-';

/** The exercises to begin with, those that ship before own ones, and how often each was handed in, how near at best. */
export async function listExercises(db: Database): Promise<OfferedExercise[]> {
  const rows = await db.selectFrom('attempts').select(['exercise_id', 'score']).execute();
  const offered = (exercise: Exercise, from: string | null, thumb: string): OfferedExercise => {
    const scores = rows.filter((r) => r.exercise_id === exercise.id).map((r) => JSON.parse(r.score) as Score);
    return {
      ...withoutTruth(exercise),
      from,
      thumb,
      tries: scores.length,
      best: scores.length > 0 ? Math.min(...scores.map(({ mean }) => mean)) : null,
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

/** Adds a project to practise in: the picture alone, locked, and nothing drawn. */
async function addPractice(
  tx: Database,
  exercise: Exercise,
  sheet: Pick<Art['sheet'], 'width' | 'height' | 'unit'>,
  picture: PlacedPicture,
): Promise<string> {
  const { width, height, unit } = sheet;
  const art: Art = { ...emptyArt({ width, height, unit }, newId()), pictures: [picture], traced: picture.id };
  const practised: Practised = { exercise, picture };
  return insertProject(tx, {
    name: exercise.title,
    art,
    pictures: [picture.source],
    exercise: JSON.stringify(practised),
  });
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
  const placed = art.pictures.find(({ id }) => id === picture.id);
  if (!placed)
    throw new Refusal(
      409,
      'no-picture',
      'The exercise’s picture is no longer in the drawing, so nothing can be measured. Undo until it is back.',
    );
  return placed;
}

/** The one thing that would help most now, told by the truth, which stays here. */
export async function getCoach(db: Database, projectId: string): Promise<CoachAnswer> {
  const practised = await practisedIn(db, projectId);
  const { art } = await getArt(db, projectId);
  return { advice: coach(drawnShapes(art, placedFor(art, practised)), practised.exercise.truth) };
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
