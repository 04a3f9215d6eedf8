import { checked, route } from '$lib/server/answer';
import { outputCutout } from '$lib/server/cutout';
import { getArt } from '$lib/server/documents';
import { fileName, outputPdf, outputPng, outputSvg } from '$lib/server/output';
import { getProject } from '$lib/server/projects';
import { Refusal } from '$lib/server/refusal';
import { exportQuery } from '$lib/wire';
import type { RequestEvent } from './$types';

const TYPES: Readonly<Record<string, string>> = {
  svg: 'image/svg+xml',
  png: 'image/png',
  pdf: 'application/pdf',
};

/** Pixels to the inch of the sheet that pictures in an SVG have at most, and more where the sheet is printed finer. */
const PRINT_PPI = 300;

export const GET = route(async ({ params, url }: RequestEvent, db) => {
  const type = Object.hasOwn(TYPES, params.format) ? TYPES[params.format] : undefined;
  if (!type)
    throw new Refusal(
      404,
      'no-format',
      `Mirrot does not write "${params.format}" files. It writes SVG, PNG and PDF.`,
    );
  const { area, ppi, width, ground, picture, cutout } = checked(
    exportQuery,
    Object.fromEntries(url.searchParams),
  );
  if (cutout && params.format !== 'png')
    throw new Refusal(404, 'no-format', 'A cutout by itself is written as PNG only.');
  const { name } = await getProject(db, params.id);
  const { art } = await getArt(db, params.id);
  const options = {
    area,
    ground: ground === undefined ? undefined : ground === 'clear' ? null : ground.toLowerCase(),
    picture: picture === '1',
  };
  const file =
    params.format === 'svg'
      ? await outputSvg(db, art, options, 'full', Math.max(PRINT_PPI, art.sheet.ppi))
      : new Uint8Array(
          params.format === 'pdf'
            ? await outputPdf(db, art, name, options)
            : cutout
              ? await outputCutout(db, art, cutout)
              : await outputPng(db, art, { ...options, ppi, width }),
        );
  return new Response(file, {
    headers: {
      'content-type': type,
      'content-disposition': `inline; filename="drawing.${params.format}"; filename*=UTF-8''${encodeURIComponent(fileName(name, params.format))}`,
      'content-security-policy': "sandbox; default-src 'none'; img-src data:",
    },
  });
});
