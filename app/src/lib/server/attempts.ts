import {
  bestAttempt,
  coach,
  drawnShapes,
  formatPathData,
  isScore,
  MOST_ATTEMPTS,
  scoreDrawing,
  type Art,
  type Effort,
  type KeptAttempt,
  type PlacedPicture,
  type Score,
} from '@mirrot/core';
import { sql } from 'kysely';
import { newId } from '$lib/ids';
import type { AnswerAnswer, Attempt, CoachAnswer, GhostAnswer, PractisedAnswer } from '$lib/wire-practice';
import type { Database } from './database';
import { getArt } from './documents';
import { ghostApart } from './growing';
import { practisedIn, withoutTruth, type KeptExercise } from './practised';
import { Refusal } from './refusal';

const allRows = (db: Database) =>
  db
    .selectFrom('attempts')
    .selectAll()
    .orderBy('created_at')
    .orderBy(sql`rowid`);
type Row = Awaited<ReturnType<ReturnType<typeof allRows>['execute']>>[number];

/**
 * What was handed in of an exercise, oldest first: in this project and in others. What came with a bundle belongs to whoever drew it,
 * and stands beside nothing that was drawn in other projects.
 */
async function rowsOf(db: Database, projectId: string, exerciseId: string): Promise<Row[]> {
  const here = await allRows(db).where('project_id', '=', projectId).execute();
  if (here.some((row) => row.from_bundle === 1)) return here;
  return allRows(db).where('exercise_id', '=', exerciseId).where('from_bundle', '=', 0).execute();
}

const keptOf = (r: Row): KeptAttempt => ({
  createdAt: r.created_at,
  revision: r.revision,
  seconds: r.seconds,
  presses: r.presses,
  score: JSON.parse(r.score) as Score,
  lines: r.lines,
});

async function attemptsAt(db: Database, projectId: string, exerciseId: string): Promise<Attempt[]> {
  return (await rowsOf(db, projectId, exerciseId)).map((r) => ({
    ...keptOf(r),
    id: r.id,
    here: r.project_id === projectId,
  }));
}

/** What was handed in from one project, oldest first: the latest where there are very many. */
export async function attemptsIn(db: Database, projectId: string): Promise<KeptAttempt[]> {
  const rows = await allRows(db).where('project_id', '=', projectId).execute();
  return rows.slice(-MOST_ATTEMPTS).map(keptOf);
}

/** Keeps attempts. */
export async function keepAttempts(
  tx: Database,
  exerciseId: string,
  projectId: string,
  attempts: readonly (KeptAttempt & { readonly id?: string })[],
  fromBundle: boolean,
): Promise<void> {
  for (const { id = newId(), createdAt, score, ...attempt } of attempts)
    await tx
      .insertInto('attempts')
      .values({
        ...attempt,
        id,
        exercise_id: exerciseId,
        project_id: projectId,
        created_at: createdAt,
        score: JSON.stringify(score),
        from_bundle: Number(fromBundle),
      })
      .execute();
}

/** The exercise that is practised in a project, its answer kept from sight, and what was handed in of it. */
export async function getPractised(db: Database, projectId: string): Promise<PractisedAnswer> {
  const { exercise } = await practisedIn(db, projectId);
  return { exercise: withoutTruth(exercise), attempts: await attemptsAt(db, projectId, exercise.id) };
}

/** The picture that the exercise is done on, as the drawing has it now. */
function placedFor(art: Art, { picture }: KeptExercise): PlacedPicture {
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
  { seconds, presses }: Effort,
): Promise<Attempt> {
  const practised = await practisedIn(db, projectId);
  const { art, revision } = await getArt(db, projectId);
  const placed = placedFor(art, practised);
  const shapes = drawnShapes(art, placed);
  const score = scoreDrawing(shapes, practised.exercise.truth);
  if (!isScore(score))
    throw new Refusal(
      422,
      'nothing-drawn',
      'Nothing of the exercise is drawn yet. Draw its outline on the picture, then hand it in.',
    );
  const lines = formatPathData(shapes.flatMap(({ paths }) => paths));
  const createdAt = new Date().toISOString();
  const attempt = { id: newId(), createdAt, revision, seconds, presses, score, lines };
  await keepAttempts(db, practised.exercise.id, projectId, [attempt], false);
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

/** The best attempt of the exercise that a project practises, as it grew. Refuses while nothing was handed in. */
export async function getGhost(db: Database, projectId: string): Promise<GhostAnswer> {
  const { exercise } = await practisedIn(db, projectId);
  const rows = await rowsOf(db, projectId, exercise.id);
  const attempts = rows.map((row) => ({ ...keptOf(row), project: row.project_id }));
  const best = bestAttempt(attempts);
  if (!best)
    throw new Refusal(
      409,
      'not-handed-in',
      'There is nothing to race against before something is handed in.',
    );
  const { project, ...attempt } = best;
  const { seconds, score } = attempt;
  return {
    number: attempts.indexOf(best) + 1,
    seconds,
    mean: score.mean,
    frames: await ghostApart(db, project, attempt),
  };
}
