import { listProjects, listShipped } from '$lib/desk/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async () => {
  const [projects, shipped] = await Promise.all([listProjects(), listShipped()]);
  return { projects, shipped };
};
