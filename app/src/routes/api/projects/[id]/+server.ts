import { json } from '@sveltejs/kit';
import { body, route } from '$lib/server/answer';
import { changeProject, deleteProject, openedProject } from '$lib/server/projects';
import { patchProjectRequest } from '$lib/wire';
import type { RequestEvent } from './$types';

export const GET = route(async ({ params }: RequestEvent, db) => json(await openedProject(db, params.id)));

export const PATCH = route(async (event: RequestEvent, db) =>
  json(await changeProject(db, event.params.id, await body(event, patchProjectRequest))),
);

export const DELETE = route(async ({ params }: RequestEvent, db) => {
  await deleteProject(db, params.id);
  return new Response(null, { status: 204 });
});
