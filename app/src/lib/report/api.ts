import { get } from '$lib/desk/api';
import type { ReportAnswer, ReportUse } from '$lib/wire';

export const getReport = (id: string, use: ReportUse): Promise<ReportAnswer> =>
  get(`/api/projects/${id}/report?use=${use}`);

/** Address of the report on projects as a page, and as a PDF. */
export const reportPage = (ids: readonly string[], use: ReportUse): string => `/report?of=${ids.join(',')}&use=${use}`; // prettier-ignore
export const reportPdf = (ids: readonly string[], use: ReportUse): string => `/api/report.pdf?of=${ids.join(',')}&use=${use}`; // prettier-ignore
