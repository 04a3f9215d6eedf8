import { error } from '@sveltejs/kit';
import { ServerError } from '$lib/desk/api';
import { getAnswer } from '$lib/practice/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params }) => {
  try {
    return { answer: await getAnswer(params.id), project: params.id };
  } catch (trouble) {
    if (trouble instanceof ServerError) error(trouble.status || 503, trouble.message);
    throw trouble;
  }
};
