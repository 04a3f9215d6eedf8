import { error } from '@sveltejs/kit';
import { ServerError } from '$lib/desk/api';
import { openProject } from '$lib/desk/opening';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    return { workplace: await openProject(params.id) };
  } catch (e) {
    if (e instanceof ServerError) error(e.status || 503, { message: e.message });
    throw e;
  }
};
