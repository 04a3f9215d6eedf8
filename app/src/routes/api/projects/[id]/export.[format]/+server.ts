import { writeDxf, writeEps, type Art } from '@mirrot/core';
import { checked, route } from '$lib/server/answer';
import { outputCutout } from '$lib/server/cutout';
import { getArt } from '$lib/server/documents';
import { bundleProject } from '$lib/server/bundling';
import { linedApart, plotApart } from '$lib/server/apart';
import { fileName } from '$lib/file-name';
import { outputPdf, outputPixels, outputSvgFile } from '$lib/server/output';
import { fileOptions, type FileOptions } from '$lib/server/output-options';
import { zipPieces } from '$lib/server/pieces';
import { getProject } from '$lib/server/projects';
import { Refusal } from '$lib/server/refusal';
import { exportQuery } from '$lib/wire';
import type { Database } from '$lib/server/database';
import type { RequestEvent } from './$types';

/** A kind of file: what it calls itself, and how it is made. */
interface Kind {
  readonly type: string;
  readonly write: (db: Database, art: Art, options: FileOptions, name: string) => Promise<string | Buffer>;
}

const KINDS: Readonly<Record<string, Kind>> = {
  svg: {
    type: 'image/svg+xml',
    write: (db, art, options) => outputSvgFile(db, art, options),
  },
  png: {
    type: 'image/png',
    write: (db, art, { cutout, ...options }) =>
      cutout ? outputCutout(db, art, cutout) : outputPixels(db, art, options),
  },
  webp: {
    type: 'image/webp',
    write: (db, art, options) => outputPixels(db, art, { ...options, kind: 'webp' }),
  },
  pdf: { type: 'application/pdf', write: (db, art, options, name) => outputPdf(db, art, name, options) },
  eps: { type: 'application/postscript', write: async (_, art, options) => writeEps(art, options) },
  dxf: { type: 'image/vnd.dxf', write: async (_, art, options) => writeDxf(art, options) },
  plt: {
    type: 'application/vnd.hp-hpgl',
    write: (_, art, { area, margin, only, scale, lines, plot }) =>
      plotApart(art, { range: { area, margin, only, scale }, lines: lines ?? undefined, ...plot }),
  },
};
/** Kinds that hold lines only, whether asked for or not. HP-GL makes them ready by itself. */
const LINES_ONLY = ['dxf', 'plt'];
const PIXELS = ['png', 'webp'];

/** A drawing of lines stands on a sheet that is just what is written of it. */
const WHOLE_SHEET = { area: 'sheet', margin: 0, only: undefined, picture: false } as const;

const answer = (file: string | Uint8Array, type: string, name: string, format: string): Response =>
  new Response(typeof file === 'string' ? file : new Uint8Array(file), {
    headers: {
      'content-type': type,
      'content-disposition': `inline; filename="drawing.${format}"; filename*=UTF-8''${encodeURIComponent(fileName(name, format))}`,
      'content-security-policy': "sandbox; default-src 'none'; img-src data:",
    },
  });

export const GET = route(async ({ params, url }: RequestEvent, db) => {
  if (params.format === 'zip') {
    const { name } = await getProject(db, params.id);
    return answer(await bundleProject(db, params.id), 'application/zip', name, 'zip');
  }
  const kind = Object.hasOwn(KINDS, params.format) ? KINDS[params.format] : undefined;
  if (!kind)
    throw new Refusal(
      404,
      'no-format',
      `Mirrot does not write "${params.format}" files. It writes SVG, PNG, WebP, PDF, EPS, DXF, HP-GL (plt) and bundles (zip).`,
    );
  const query = checked(exportQuery, Object.fromEntries(url.searchParams));
  if (query.cutout && params.format !== 'png')
    throw new Refusal(404, 'no-format', 'A cutout by itself is written as PNG only.');
  const { name } = await getProject(db, params.id);
  const { art } = await getArt(db, params.id);
  const options = fileOptions(query, LINES_ONLY.includes(params.format));
  const write = async (wanted: FileOptions): Promise<string | Buffer> => {
    const { area, margin, only, lines, scale } = wanted;
    if (!lines || params.format === 'plt') return kind.write(db, art, wanted, name);
    const lined = await linedApart(art, { area, margin, only }, lines);
    return kind.write(db, lined, { ...wanted, ...WHOLE_SHEET, scale }, name);
  };
  const widths = query.widths && PIXELS.includes(params.format) ? query.widths.split(',').map(Number) : [];
  if (query.each !== 'one' || widths.length > 0) {
    const zip = await zipPieces(art, name, params.format, options, { each: query.each, widths }, write);
    return answer(zip, 'application/zip', name, 'zip');
  }
  const file = await write(options);
  return answer(file, kind.type, name, params.format);
});
