import { checked, route } from '$lib/server/answer';
import { pdfPixels } from '$lib/server/output';
import { writeReport } from '$lib/server/pdf/report';
import { reportOf } from '$lib/server/reporting';
import { reportsQuery } from '$lib/wire';
import type { RequestEvent } from './$types';

export const GET = route(async ({ url }: RequestEvent, db) => {
  const { of, use } = checked(reportsQuery, Object.fromEntries(url.searchParams));
  const all = [];
  for (const id of new Set(of.split(','))) all.push({ ...(await reportOf(db, id, use)), pixelsOf: pdfPixels(db, 'work') }); // prettier-ignore
  const bytes = await writeReport(all);
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': 'inline; filename="report.pdf"' },
  });
});
