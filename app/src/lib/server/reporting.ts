import { findShape, formatLength, fromPx, type Art } from '@mirrot/core';
import { FINDING_WORDS } from '$lib/finding-words';
import type { ReportAnswer, ReportUse } from '$lib/wire';
import { proveApart } from './apart';
import type { Database } from './database';
import { getArt } from './documents';
import { getProject } from './projects';

/** Colours that are told, the largest first. */
const MOST_COLOURS = 12;

/** A sheet's size in words. */
function sheetWords({ sheet: { width, height, unit } }: Art): string {
  const [w, h] = [width, height].map((v) => Number(fromPx(v, unit).toFixed(unit === 'px' ? 0 : 1)));
  return `${w} × ${h} ${unit}`;
}

/** What is told of a project to a client or a teacher, in words. */
export async function reportOf(
  db: Database,
  projectId: string,
  use: ReportUse,
): Promise<{ readonly report: ReportAnswer; readonly art: Art }> {
  const { name, drift } = await getProject(db, projectId);
  const { art } = await getArt(db, projectId);
  const { unit } = art.sheet;
  const proved = await proveApart({ art, use });
  const aside = new Map(art.aside.map(({ id, reason }) => [id, reason] as const));
  const told = proved.findings.map((finding) => {
    const [what, amount] = FINDING_WORDS[finding.kind];
    const [shape] = finding.shapes;
    const where = shape === undefined ? '' : (findShape(art, shape)?.name ?? '');
    return { what, where, amount: amount(finding, unit), aside: aside.get(finding.key) ?? null };
  });
  const names = new Map(art.chips.map((chip) => [chip.hex, chip.name] as const));
  const report: ReportAnswer = {
    id: projectId,
    name,
    sheet: sheetWords(art),
    ratio: art.sheet.width / art.sheet.height,
    pictured: art.pictures.some((p) => p.shown),
    figures: [
      ['shapes', String(proved.shapes)],
      ['closed paths', String(proved.closed)],
      ['open paths', String(proved.open)],
      ['anchors', String(proved.anchors)],
      ['colours', String(proved.colours)],
      ['to cut or draw', formatLength(proved.length, unit)],
      ...(drift === null ? [] : [['mean drift, as measured last', `${drift.toFixed(1)} px`] as const]),
    ],
    areas: proved.areas
      .slice(0, MOST_COLOURS)
      .map(({ hex, share }) => ({ hex, share, name: names.get(hex) || hex.toUpperCase() })),
    left: told.filter((one) => one.aside === null),
    aside: told.filter((one) => one.aside !== null),
  };
  return { report, art };
}
