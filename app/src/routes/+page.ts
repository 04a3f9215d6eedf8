import { listProjects, listShipped } from '$lib/desk/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async () => {
  const [{ projects, away }, shipped] = await Promise.all([listProjects(), listShipped().catch(() => [])]);
  return { projects, away, shipped };
};
