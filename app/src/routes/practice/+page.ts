import { error } from '@sveltejs/kit';
import { ServerError } from '$lib/desk/api';
import { listExercises } from '$lib/practice/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async () => {
  try {
    return { exercises: await listExercises() };
  } catch (trouble) {
    if (trouble instanceof ServerError) error(trouble.status || 503, trouble.message);
    throw trouble;
  }
};
