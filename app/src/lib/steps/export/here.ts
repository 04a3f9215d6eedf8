import { fitName, outputBox, outputPictures, PX_PER, shapesOf, writePalette, type Art, type Bundle, type BundledFile, type PlacedPicture } from '@mirrot/core'; // prettier-ignore
import { pictureUrl } from '$lib/desk/api';
import { holdsLines } from '$lib/desk/exporting';
import { addressOf, paintSvg, pngOf } from '$lib/desk/svg-pixels';
import type { Workplace } from '$lib/desk/workplace.svelte';
import type { MadeFile } from '$lib/desk/writing';
import { fontAddress, SHIPPED_FONTS } from '$lib/edits/fonts';
import { fileName } from '$lib/file-name';
import { fileWorker } from '$lib/workers/files';
import { linesNow, rangeNow } from './asking';

// Files made in the page: lines and the palette always, others while the server is away.

const STOPPED = 'The file was not written.';

/** What lies at an address, from the browser's own store where the server is away. */
async function fetched(address: string, name: string): Promise<Blob> {
  const answer = await fetch(address).catch(() => null);
  if (answer?.ok) return answer.blob();
  throw new Error(
    `“${name}” cannot be fetched while the server is away. Write the file without it, or later.`,
  );
}

/** Pictures' pixels as addresses that hold them. Those that are squared up are seen straight by the server alone. */
async function hrefsOf(pictures: readonly PlacedPicture[]): Promise<ReadonlyMap<string, string>> {
  const hrefs = new Map<string, string>();
  for (const { id, source, name, square } of pictures) {
    if (square) throw new Error(`“${name}” is squared up, which takes the server, and that is away. Write the file without it, or later.`); // prettier-ignore
    hrefs.set(id, await addressOf(await fetched(pictureUrl(source, 'full'), name)));
  }
  return hrefs;
}

async function svgHere(w: Workplace, art: Art): Promise<string> {
  const { exporting: out } = w;
  const range = rangeNow(w);
  const lines = linesNow(w);
  const picture = out.picture && !holdsLines(out);
  const hrefs = lines ? new Map<string, string>() : await hrefsOf(outputPictures(art, picture, range.only));
  const ground = out.ground === 'clear' ? null : out.ground;
  const options = { ...range, ground, pictures: picture, plain: out.plain && out.format === 'svg' };
  const svg = await fileWorker.ask((work) => work.svg(art, options, hrefs, lines ? out.lines : null));
  if (svg === null) throw new Error(STOPPED);
  return svg;
}

async function pngHere(w: Workplace, art: Art): Promise<Blob> {
  const range = rangeNow(w);
  const { x0, y0, x1, y1 } = outputBox(art, range);
  const scale = ((range.scale ?? 1) * w.exporting.ppi) / PX_PER.in;
  const [width, height] = [x1 - x0, y1 - y0].map((v) => Math.max(1, Math.round(v * scale))) as [
    number,
    number,
  ];
  return pngOf(await paintSvg(await svgHere(w, art), width, height));
}

/** The project as a bundle, with what the page has of it: kept copies, journal and exercise are on the server. */
async function bundleHere(w: Workplace, art: Art): Promise<Uint8Array> {
  const { name, createdAt } = w.project;
  const filed = async (id: string, called: string, address: string): Promise<BundledFile> => ({
    id,
    name: called,
    bytes: new Uint8Array(await (await fetched(address, called)).arrayBuffer()),
  });
  const pictures = new Map(art.pictures.map((p) => [p.source, p.name]));
  const fonts = new Map(
    shapesOf(art).flatMap(({ shape }) => (shape.lettering ? [[shape.lettering.font.id, shape.lettering.font.name] as const] : [])), // prettier-ignore
  );
  for (const { id } of SHIPPED_FONTS) fonts.delete(id);
  const bundle: Bundle = {
    name: fitName(name, 'Untitled'),
    createdAt,
    revision: 0,
    art,
    pictures: await Promise.all(
      [...pictures].map(([id, called]) => filed(id, called, pictureUrl(id, 'full'))),
    ),
    fonts: await Promise.all([...fonts].map(([id, called]) => filed(id, called, fontAddress(id)))),
    copies: [],
    journal: [],
    beginning: null,
    practised: null,
  };
  const bytes = await fileWorker.ask((work) => work.bundle(bundle));
  if (!bytes) throw new Error(STOPPED);
  return bytes;
}

async function contentHere(w: Workplace, art: Art): Promise<Blob> {
  const { format } = w.exporting;
  if (format === 'svg') return new Blob([await svgHere(w, art)], { type: 'image/svg+xml' });
  if (format === 'png') return pngHere(w, art);
  if (format === 'zip')
    return new Blob([new Uint8Array(await bundleHere(w, art))], { type: 'application/zip' });
  if (format === 'txt') {
    if (art.chips.length === 0) throw new Error('The palette has no chip yet. Nothing was written.');
    return new Blob([writePalette(art.chips, 'lines')], { type: 'text/plain' });
  }
  const wish = linesNow(w);
  const made = wish && (await w.lineMaking.make(w, art, wish));
  if (!made?.plot) throw new Error(w.lineMaking.trouble ?? STOPPED);
  return new Blob([made.plot.text]);
}

/** The file that is asked for, made in the page of the drawing as it is there. */
export const makeHere = async (w: Workplace): Promise<MadeFile> => ({
  name: fileName(w.project.name, w.exporting.format),
  content: await contentHere(w, w.desk.drawing.kept),
  ...(w.exporting.format === 'zip' && {
    without: 'Its kept copies and how it grew are on the server: they are not in it.',
  }),
});
