import {
  formatHex,
  drawnData,
  outputOf,
  paintedBox,
  paintedPictures,
  seenBox,
  writeParts,
  type Art,
  type Box,
  type PaintedPart,
  type PaintedShape,
  type PlacedPicture,
  type SeenPaint,
} from '@mirrot/core';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import type { OutputOptions } from '../output-options';
import { asGroup, asMasked, blendInRgb, type Pdf } from './group';
import { pdfGradient } from './gradient';

// The drawing as a PDF of one page, by the same paint list as every other file. What blurs, casts a shadow or is masked is
// laid in as pixels: PDF has neither of the first, and of masks no blurred ones.

/** Points to a sheet pixel: 72 and 96 to the inch. */
const POINTS = 72 / 96;
/** Pixels to the inch of what is blurred, and the most of one such picture. */
const SOFT_PPI = 300;
const MOST_SOFT = 16_000_000;
/** PDF 1.7 has pages up to this many points a side (ISO 32000-1, annex C). */
export const LONGEST_PAGE = 14_400;

/** Pixels of a picture as JPEG or PNG. */
export type PixelsOf = (picture: PlacedPicture) => Promise<Buffer>;

/** Something to be drawn, made ready: what takes time is done before the page is written. */
type Draw = () => void;

async function ready(pdf: Pdf, part: PaintedPart, art: Art, pixelsOf: PixelsOf): Promise<Draw> {
  const inner = await ownDraw(pdf, part, art, pixelsOf);
  const { opacity, blend, clip } = part;
  const clipped = (): void => {
    if (!clip) return inner();
    pdf.save();
    const d = drawnData(clip.paths);
    if (d) pdf.path(d).clip('even-odd');
    else pdf.rect(0, 0, 0, 0).clip();
    inner();
    pdf.restore();
  };
  // A group that is opaque and normal is no more than its parts.
  const whole = opacity === 1 && blend === 'normal';
  if (whole) return clipped;
  return () => asGroup(pdf, { opacity, blend, apart: true }, clipped);
}

async function ownDraw(pdf: Pdf, part: PaintedPart, art: Art, pixelsOf: PixelsOf): Promise<Draw> {
  if (part.blur > 0 || part.shadow || part.mask) return softDraw(pdf, part, art, pixelsOf);
  if (part.type === 'shape') return () => drawShape(pdf, part);
  if (part.type === 'picture') return pictureDraw(pdf, part.picture, await pixelsOf(part.picture));
  const inner: Draw[] = [];
  for (const one of part.parts) inner.push(await ready(pdf, one, art, pixelsOf));
  return () => inner.forEach((draw) => draw());
}

/** What is blurred, casts a shadow or is masked, as pixels in its place. */
async function softDraw(pdf: Pdf, part: PaintedPart, art: Art, pixelsOf: PixelsOf): Promise<Draw> {
  const box = paintedBox([{ ...part, clip: null }]);
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  if (!(width > 0 && height > 0)) return () => {};
  const k = Math.min(SOFT_PPI / 96, Math.sqrt(MOST_SOFT / (width * height)));
  const hrefs = new Map<string, string>();
  for (const picture of paintedPictures([part]))
    hrefs.set(picture.id, `data:image/png;base64,${(await sharp(await pixelsOf(picture)).png().toBuffer()).toString('base64')}`); // prettier-ignore
  const svg = writeParts(art, [{ ...part, opacity: 1, blend: 'normal', clip: null }], box, {
    width: Math.ceil(width * k),
    height: Math.ceil(height * k),
    pictureHref: (p) => hrefs.get(p.id)!,
  });
  const png = await sharp(Buffer.from(svg), { unlimited: true }).png().toBuffer();
  return () => void pdf.image(png, box.x0, box.y0, { width, height });
}

function pictureDraw(pdf: Pdf, picture: PlacedPicture, bytes: Buffer): Draw {
  const { width, height } = picture.square ?? picture;
  const { x0, y0, x1, y1 } = seenBox(picture);
  return () => {
    pdf.save();
    pdf.transform(...(picture.placement as [number, number, number, number, number, number]));
    pdf.rect(x0, y0, x1 - x0, y1 - y0).clip();
    pdf.image(bytes, 0, 0, { width, height });
    pdf.restore();
  };
}

function drawShape(pdf: Pdf, { paths, fill, stroke, ...part }: PaintedShape): void {
  const d = drawnData(paths);
  if (!d) return;
  const box: Box = paintedBox([{ ...part, paths, fill, stroke, opacity: 1, clip: null }]);
  const colour = (paint: SeenPaint): PDFKit.Mixins.ColorValue =>
    paint.kind === 'flat' ? paint.hex : pdfGradient(pdf, paint, box);
  /** A gradient that fades is opaque behind a mask: masks within its pattern are not what every reader draws. */
  const paintIt = (paint: SeenPaint, lay: (colour: PDFKit.Mixins.ColorValue) => void): void => {
    if (paint.kind === 'flat' || paint.stops.every(({ opacity }) => opacity === 1)) return lay(colour(paint));
    const { x0, y0, x1, y1 } = box;
    const light = { ...paint, stops: paint.stops.map(({ at, opacity }) => ({ at, hex: formatHex([opacity, opacity, opacity]), opacity: 1 })) }; // prettier-ignore
    const whole = { ...paint, stops: paint.stops.map((stop) => ({ ...stop, opacity: 1 })) };
    asMasked(
      pdf,
      () => void pdf.rect(x0, y0, x1 - x0, y1 - y0).fill(colour(light)),
      () => lay(colour(whole)),
    );
  };
  const fillIt = (): void => void (fill && paintIt(fill, (by) => void pdf.path(d).fill(by, 'even-odd')));
  const strokeIt = (): void => {
    if (!stroke) return;
    paintIt(stroke.paint, (by) => {
      pdf.lineWidth(stroke.width).lineCap(stroke.ends).lineJoin(stroke.joins).miterLimit(stroke.miterLimit);
      if (stroke.dash.length > 0)
        pdf.dash(stroke.dash as unknown as number, { phase: stroke.dashOffset ?? 0 });
      else pdf.undash();
      pdf.path(d).stroke(by);
    });
  };
  pdf.save();
  if (stroke?.under) strokeIt();
  fillIt();
  if (!stroke?.under) strokeIt();
  pdf.restore();
}

/** A drawing made ready to be drawn, in sheet pixels, and the part of the sheet that it shows. */
export interface ReadyDrawing {
  readonly box: Box;
  draw(): void;
}

/** Makes a drawing ready: its parts, its traced pictures where asked for, and the ground. */
export async function readyDrawing(
  pdf: Pdf,
  art: Art,
  { ground, picture: traced, ...range }: Omit<OutputOptions, 'scale'>,
  pixelsOf: PixelsOf,
): Promise<ReadyDrawing> {
  const { list, box } = outputOf(art, range);
  const seen = traced ? art.pictures.filter((p) => p.shown) : [];
  const pictures = new Map<string, Draw>();
  for (const p of seen) pictures.set(p.id, pictureDraw(pdf, p, await pixelsOf(p)));
  const drawn: Draw[] = [];
  for (const part of list) drawn.push(await ready(pdf, part, art, pixelsOf));
  const fill = ground === undefined ? art.sheet.ground : ground;
  return {
    box,
    draw() {
      if (fill) pdf.rect(box.x0, box.y0, box.x1 - box.x0, box.y1 - box.y0).fill(fill);
      for (const p of seen) if (!p.above) pictures.get(p.id)!();
      for (const draw of drawn) draw();
      for (const p of seen) if (p.above) pictures.get(p.id)!();
    },
  };
}

/** A PDF that is written page by page, and all of its bytes once it is ended. */
export function newPdf(options: PDFKit.PDFDocumentOptions): {
  readonly pdf: Pdf;
  readonly written: Promise<Buffer>;
} {
  const pdf = new PDFDocument(options) as Pdf;
  const parts: Buffer[] = [];
  const written = new Promise<Buffer>((done, failed) => {
    pdf.on('data', (chunk: Buffer) => parts.push(chunk));
    pdf.on('end', () => done(Buffer.concat(parts)));
    pdf.on('error', failed);
  });
  return { pdf, written };
}

/**
 * Writes a drawing as a PDF page of its real size.
 *
 * @param pixelsOf gives the pixels of a picture, straightened, as JPEG or PNG
 */
export async function writePdf(
  art: Art,
  name: string,
  { scale = 1, ...options }: OutputOptions,
  pixelsOf: PixelsOf,
): Promise<Buffer> {
  const { box } = outputOf(art, options);
  const points = POINTS * scale;
  const size: [number, number] = [(box.x1 - box.x0) * points, (box.y1 - box.y0) * points];
  const { pdf, written } = newPdf({ size, margin: 0, info: { Title: name, Creator: 'Mirrot' } });
  blendInRgb(pdf);
  const drawing = await readyDrawing(pdf, art, options, pixelsOf);
  pdf.transform(points, 0, 0, points, -box.x0 * points, -box.y0 * points);
  drawing.draw();
  pdf.end();
  return written;
}
