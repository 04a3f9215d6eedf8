import { error } from '@sveltejs/kit';
import { ServerError } from '$lib/desk/api';
import { getReport } from '$lib/report/api';
import { reportsQuery, type ReportAnswer } from '$lib/wire';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ url }) => {
  const asked = reportsQuery.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(422, asked.error.issues[0]!.message);
  const { of, use } = asked.data;
  const ids = [...new Set(of.split(','))];
  try {
    const reports: ReportAnswer[] = [];
    for (const id of ids) reports.push(await getReport(id, use));
    return { reports, use };
  } catch (trouble) {
    if (trouble instanceof ServerError) error(trouble.status || 503, trouble.message);
    throw trouble;
  }
};
