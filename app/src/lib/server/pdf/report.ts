import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?inline';
import plain from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?inline';
import type { Art } from '@mirrot/core';
import type { ReportAnswer } from '$lib/wire';
import { blendInRgb, type Pdf } from './group';
import { newPdf, readyDrawing, type PixelsOf, type ReadyDrawing } from './pdf';

// A report as PDF: a page for each project, on A4.

/** ISO 216 A4 in points; the margin, and the room between two boxes. */
const [WIDE, HIGH] = [595.28, 841.89];
const [MARGIN, GAP] = [42, 14];
const INNER = WIDE - 2 * MARGIN;
const [TEXT, QUIET, LINE, LEAF] = ['#2a2722', '#6b6355', '#d8cdb8', '#2f6b4f'];
const [SMALL, BODY, HEAD, TITLE] = [8, 9.5, 12, 20];
/** Rows of findings that fit on a page. */
const MOST_ROWS = 22;

const fontOf = (inline: string): Buffer => Buffer.from(inline.slice(inline.indexOf(',') + 1), 'base64');

interface Place {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Draws a drawing into a place, as large as fits, on a ground. */
function lay(pdf: Pdf, { box, draw }: ReadyDrawing, place: Place, ground: string): void {
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
  const k = Math.min(place.width / w, place.height / h);
  const [x, y] = [place.x + (place.width - k * w) / 2, place.y + (place.height - k * h) / 2];
  pdf.save();
  pdf.rect(x, y, k * w, k * h).fill(ground);
  pdf.rect(x, y, k * w, k * h).clip();
  pdf.transform(k, 0, 0, k, x - k * box.x0, y - k * box.y0);
  draw();
  pdf.restore();
  pdf
    .lineWidth(0.5)
    .rect(x, y, k * w, k * h)
    .stroke(LINE);
}

function write(
  pdf: Pdf,
  text: string,
  x: number,
  y: number,
  size: number,
  colour: string = TEXT,
  width = INNER,
  font: 'plain' | 'bold' = 'plain',
): void {
  // prettier-ignore
  pdf.font(font).fontSize(size).fillColor(colour).text(text, x, y, { width, lineBreak: false, ellipsis: true, height: size * 1.4 }); // prettier-ignore
}

async function page(pdf: Pdf, report: ReportAnswer, art: Art, pixelsOf: PixelsOf): Promise<void> {
  blendInRgb(pdf);
  const whole = { area: 'sheet', margin: 0, only: undefined } as const;
  const drawing = await readyDrawing(pdf, art, { ...whole, picture: false, ground: null }, pixelsOf);
  const bare = { ...art, layers: art.layers.map((layer) => ({ ...layer, children: [] })) };
  const picture = report.pictured ? await readyDrawing(pdf, bare, { ...whole, picture: true, ground: null }, pixelsOf) : null; // prettier-ignore
  const paper = art.sheet.ground ?? '#ffffff';

  write(pdf, report.name, MARGIN, MARGIN, TITLE, TEXT, INNER, 'bold');
  write(pdf, report.sheet, MARGIN, MARGIN + 26, BODY, QUIET);
  let y = MARGIN + 48;
  const half = (INNER - GAP) / 2;
  const big = Math.min(half / report.ratio, 230);
  const pair = picture ? [[picture, 'the picture', '#ffffff'], [drawing, 'the drawing', paper]] as const : [[drawing, 'the drawing', paper]] as const; // prettier-ignore
  pair.forEach(([what, word, ground], i) => {
    const x = MARGIN + i * (half + GAP);
    lay(pdf, what, { x, y, width: half, height: big }, ground);
    write(pdf, word, x, y + big + 3, SMALL, QUIET, half);
  });
  y += big + 22;
  const third = (INNER - 2 * GAP) / 3;
  const small = Math.min(third / report.ratio, 110);
  (
    [
      ['on a loud ground', '#ff2ea6'],
      ['on dark', '#1b1d19'],
      ['on light', '#fffdf6'],
    ] as const
  ).forEach(([word, ground], i) => {
    // prettier-ignore
    const x = MARGIN + i * (third + GAP);
    lay(pdf, drawing, { x, y, width: third, height: small }, ground);
    write(pdf, word, x, y + small + 3, SMALL, QUIET, third);
  });
  y += small + 26;

  const top = y;
  write(pdf, 'Figures', MARGIN, y, HEAD, TEXT, half, 'bold');
  y += 20;
  for (const [what, value] of report.figures) {
    write(pdf, what, MARGIN, y, BODY, QUIET, half);
    pdf.font('plain').fontSize(BODY).fillColor(TEXT).text(value, MARGIN, y, { width: half, align: 'right', lineBreak: false }); // prettier-ignore
    y += 14;
  }
  let right = top;
  const x = MARGIN + half + GAP;
  write(pdf, 'Area by colour', x, right, HEAD, TEXT, half, 'bold');
  right += 20;
  const bar = half - 130;
  for (const { hex, name, share } of report.areas.slice(0, 8)) {
    write(pdf, name, x, right, SMALL, QUIET, 84);
    pdf.rect(x + 88, right, Math.max(1, bar * share), 9).fillAndStroke(hex, LINE);
    write(pdf, `${(100 * share).toFixed(1)} %`, x + 96 + bar, right, SMALL, TEXT, 40);
    right += 13;
  }
  y = Math.max(y, right) + 10;
  const rows = [...report.left, ...report.aside];
  const heading = report.left.length === 0 ? 'Nothing is left that looks like a mistake' : `Findings left: ${report.left.length}`; // prettier-ignore
  write(pdf, heading, MARGIN, y, HEAD, report.left.length === 0 ? LEAF : TEXT, INNER, 'bold');
  y += 20;
  const room = Math.min(MOST_ROWS, Math.floor((HIGH - MARGIN - y) / 13) - 1);
  for (const { what, where, amount, aside } of rows.slice(0, room)) {
    write(
      pdf,
      aside === null ? what : `aside: ${what}`,
      MARGIN,
      y,
      SMALL,
      aside === null ? TEXT : QUIET,
      190,
    );
    write(pdf, where, MARGIN + 196, y, SMALL, QUIET, 130);
    write(pdf, aside || amount, MARGIN + 332, y, SMALL, QUIET, INNER - 332);
    y += 13;
  }
  if (rows.length > room)
    write(pdf, `${rows.length - Math.max(0, room)} more of them.`, MARGIN, y, SMALL, QUIET);
}

/** Writes reports as one PDF. */
export async function writeReport(
  all: readonly { readonly report: ReportAnswer; readonly art: Art; readonly pixelsOf: PixelsOf }[],
): Promise<Buffer> {
  const { pdf, written } = newPdf({ size: [WIDE, HIGH], margin: 0, autoFirstPage: false, info: { Title: 'Report', Creator: 'Mirrot' } }); // prettier-ignore
  pdf.registerFont('plain', fontOf(plain));
  pdf.registerFont('bold', fontOf(bold));
  for (const { report, art, pixelsOf } of all) {
    pdf.addPage();
    await page(pdf, report, art, pixelsOf);
  }
  pdf.end();
  return written;
}
