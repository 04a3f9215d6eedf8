import type { Blend } from '@mirrot/core';

// What pdfkit has no calls for: transparency groups and blend modes (ISO 32000-1, sections 11.3 and 11.6.6), over the parts
// of its documents that it does not name in its types.

type Matrix = readonly [number, number, number, number, number, number];

interface Reference {
  data: Record<string, unknown>;
  write(chunk: string): void;
  end(chunk?: string): void;
}

/** A page, or what stands for one while a group is drawn. */
interface Page {
  readonly width: number;
  readonly height: number;
  readonly dictionary?: Reference;
  readonly fonts: Record<string, unknown>;
  readonly xobjects: Record<string, unknown>;
  readonly ext_gstates: Record<string, unknown>;
  readonly patterns: Record<string, unknown>;
  readonly colorSpaces: Record<string, unknown>;
  write(chunk: string): void;
}

export type Pdf = PDFKit.PDFDocument & {
  _ctm: Matrix;
  ref(data: Record<string, unknown>): Reference;
  addContent(content: string): unknown;
};

const pageOf = (pdf: Pdf): Page => pdf.page as unknown as Page;

/** Blend modes by the names PDF has for those of CSS. */
const PDF_BLENDS: Readonly<Record<Blend, string>> = {
  normal: 'Normal',
  multiply: 'Multiply',
  screen: 'Screen',
  overlay: 'Overlay',
  darken: 'Darken',
  lighten: 'Lighten',
  'color-dodge': 'ColorDodge',
  'color-burn': 'ColorBurn',
  'hard-light': 'HardLight',
  'soft-light': 'SoftLight',
  difference: 'Difference',
  exclusion: 'Exclusion',
  hue: 'Hue',
  saturation: 'Saturation',
  color: 'Color',
  luminosity: 'Luminosity',
};

const inverse = ([a, b, c, d, e, f]: Matrix): Matrix => {
  const k = a * d - b * c;
  return [d / k, -b / k, -c / k, a / k, (c * f - d * e) / k, (b * e - a * f) / k];
};

const text = (matrix: Matrix): string => matrix.map((v) => Number(v.toFixed(6))).join(' ');

let made = 0;

/** Blends are of the colours as they are written, in sRGB: a page says so once. */
export const blendInRgb = (pdf: Pdf): void =>
  void (pageOf(pdf).dictionary!.data.Group = { Type: 'Group', S: 'Transparency', CS: 'DeviceRGB', I: true });

/** Something drawn by itself, in the page's own plane; and the matrix that maps it now. */
function formOf(
  pdf: Pdf,
  apart: boolean,
  draw: () => void,
): { readonly form: Reference; readonly matrix: Matrix } {
  const page = pageOf(pdf);
  const resources = { ExtGState: {}, XObject: {}, Pattern: {}, Font: {}, ColorSpace: {} };
  const { width, height } = page;
  const form = pdf.ref({
    Type: 'XObject',
    Subtype: 'Form',
    FormType: 1,
    BBox: [0, 0, width, height],
    Group: { Type: 'Group', S: 'Transparency', CS: 'DeviceRGB', I: apart, K: false },
    Resources: resources,
  });
  // pdfkit changes its matrix in place.
  const matrix: Matrix = [...pdf._ctm];
  const inner: Page = {
    width,
    height,
    fonts: resources.Font,
    xobjects: resources.XObject,
    ext_gstates: resources.ExtGState,
    patterns: resources.Pattern,
    colorSpaces: resources.ColorSpace,
    write: (chunk) => form.write(chunk),
  };
  const document = pdf as unknown as { page: Page };
  document.page = inner;
  pdf.addContent(`${text(matrix)} cm`);
  try {
    draw();
  } finally {
    document.page = page;
    form.end();
  }
  return { form, matrix };
}

/** Lays what was drawn by itself over what is there, as a graphics state says. */
function lay(pdf: Pdf, form: Reference, matrix: Matrix, graphics: Record<string, unknown>): void {
  const page = pageOf(pdf);
  const name = `Group${++made}`;
  page.xobjects[name] = form;
  const state = pdf.ref({ Type: 'ExtGState', ...graphics });
  state.end();
  page.ext_gstates[name] = state;
  // The group's content has the page's own plane: what maps it now is undone for as long as it is laid down.
  pdf.addContent(`q ${text(inverse(matrix))} cm /${name} gs /${name} Do Q`);
}

/**
 * Draws something by itself and lays it over what is there as a whole.
 *
 * @param apart whether what stands in it is blended only with each other
 */
export function asGroup(
  pdf: Pdf,
  { opacity, blend, apart }: { readonly opacity: number; readonly blend: Blend; readonly apart: boolean },
  draw: () => void,
): void {
  const { form, matrix } = formOf(pdf, apart, draw);
  lay(pdf, form, matrix, { BM: PDF_BLENDS[blend], ca: opacity, CA: opacity });
}

/** Draws something that shows as far as a mask is light: all of it where that is white, nothing where it is black. */
export function asMasked(pdf: Pdf, mask: () => void, draw: () => void): void {
  const { form: light } = formOf(pdf, true, mask);
  const { form, matrix } = formOf(pdf, true, draw);
  lay(pdf, form, matrix, { SMask: { Type: 'Mask', S: 'Luminosity', G: light } });
}
