import { call, get, send } from '$lib/desk/api';
import type { ProjectAnswer } from '$lib/wire';
import type { Effort } from '@mirrot/core';
import type { AnswerAnswer, Attempt, CoachAnswer, GhostAnswer, NewExerciseRequest, ClassAnswer, ClassEntry, OfferedExercise, PractisedAnswer } from '$lib/wire-practice'; // prettier-ignore

export const listExercises = (): Promise<OfferedExercise[]> => get('/api/exercises');
/** Makes a project to practise in: of an exercise that ships, or one that is practised in a project already. */
export const startExercise = (id: string): Promise<ProjectAnswer> =>
  send('POST', `/api/exercises/${id}/projects`, {});
export const practiseAgain = (project: string): Promise<ProjectAnswer> =>
  send('POST', `/api/projects/${project}/exercise/projects`, {});
/** Makes an exercise of a finished project, and a project to practise it in. */
export const makeExercise = (project: string, exercise: NewExerciseRequest): Promise<ProjectAnswer> =>
  send('POST', `/api/projects/${project}/exercise`, exercise);
export const getPractised = (project: string): Promise<PractisedAnswer> =>
  get(`/api/projects/${project}/exercise`);
export const getCoach = (project: string): Promise<CoachAnswer> => get(`/api/projects/${project}/coach`);
export const getGhost = (project: string): Promise<GhostAnswer> => get(`/api/projects/${project}/ghost`);
export const getAnswer = (project: string): Promise<AnswerAnswer> => get(`/api/projects/${project}/answer`);
export const sendAttempt = (project: string, effort: Effort): Promise<Attempt> =>
  send('POST', `/api/projects/${project}/attempts`, effort);
export const answerPage = (project: string): string => `/projects/${project}/answer`;
/** The page where a project's growth is replayed. */
export const replayPage = (project: string): string => `/projects/${project}${REPLAY_HASH}`;
export const REPLAY_HASH = '#replay';

/** What a file hands in of exercises: a bundle, or a zip file of several. Nothing of it is kept. */
export async function readHandedIn(file: File, signal: AbortSignal): Promise<readonly ClassEntry[]> {
  const form = new FormData();
  form.set('file', file);
  const answer = await call('/api/class', { method: 'POST', body: form, signal });
  return ((await answer.json()) as ClassAnswer).entries;
}
