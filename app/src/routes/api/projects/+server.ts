import { json } from '@sveltejs/kit';
import { body, route } from '$lib/server/answer';
import { listProjects, makeProject } from '$lib/server/projects';
import { newProjectRequest } from '$lib/wire';

export const GET = route(async (_event, db) => json(await listProjects(db)));

export const POST = route(async (event, db) => {
  const { name, sheet } = await body(event, newProjectRequest);
  return json(await makeProject(db, name, sheet), { status: 201 });
});
