import { drawnData } from '../../art/line-data';
import { paintedPictures, paintList, type PaintedPart, type PaintedPicture } from '../../art/paint-list';
import { outputBox, outputOf, type OutputRange } from '../../art/output';
import { seenSize } from '../../art/placed-picture';
import type { Art, PlacedPicture } from '../../art/schema';
import { fromPx, type Unit } from '../../art/units';
import { boxHeight, boxWidth, type Box } from '../../geometry/bounds';
import {
  coveringAttributes,
  filterElement,
  gradientElement,
  shapeAttributes,
  type Reference,
} from './attributes';
import { maskElements, type MaskElement } from './masks';
import { element, escapeXml, idMaker, number, openTag, type SvgElement } from './xml';

export interface SvgOptions extends OutputRange {
  /** Paths alone, without ids, names, and groups that do nothing. */
  readonly plain?: boolean;
  /** "#rrggbb" behind everything, or null for clear. Left out: the sheet's own ground. */
  readonly ground?: string | null;
  /** Whether the pictures that are traced go along, where they lie. Left out, they do not. */
  readonly pictures?: boolean;
  /**
   * Address of a picture's pixels as they are seen (straightened when squared up, not cropped). Without it no picture is
   * written, not those either that are part of the drawing.
   */
  readonly pictureHref?: (picture: PlacedPicture) => string;
}

/** Where a picture comes from, as a description; nothing when nothing is noted. */
function credit({ credit: c }: PlacedPicture): string {
  const words = [c.source, c.author, c.licence, c.address].filter(Boolean).join(' · ');
  return words && `<desc>${escapeXml(words)}</desc>`;
}

const title = (name: string): string => `<title>${escapeXml(name)}</title>`;

/** Pictures of a drawing that an output shows: those that are traced when asked for, and those that are part of it. */
export const outputPictures = (art: Art, traced: boolean, only?: ReadonlySet<string>): PlacedPicture[] =>
  shownPictures(art, traced, paintList(art, only));

const shownPictures = (art: Art, traced: boolean, list: readonly PaintedPart[]): PlacedPicture[] => [
  ...(traced ? art.pictures.filter((p) => p.shown) : []),
  ...paintedPictures(list),
];

const stepElement = ({ name, attributes, inner }: SvgElement): string =>
  element(name, attributes, inner ? inner.map(stepElement).join('') : null);

const placeOf = (box: Box) => ({
  x: number(box.x0),
  y: number(box.y0),
  width: number(boxWidth(box)),
  height: number(boxHeight(box)),
});

const viewBox = (box: Box): string => Object.values(placeOf(box)).join(' ');

/** The opening tag of a document that shows a part of the plane in its real size. */
function rootTag(box: Box, unit: Unit, scale = 1): string {
  const size = (px: number): string => `${number(fromPx(px * scale, unit), 4)}${unit}`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${size(boxWidth(box))}" height="${size(boxHeight(box))}" viewBox="${viewBox(box)}">`;
}

/**
 * The drawing as an SVG 2 document, in sheet pixels, with its real size in the sheet's unit. Every layer and group is a
 * group, every shape one path, each with its name as title. What is hidden or paints nothing is left out.
 */
export function writeSvg(art: Art, options: SvgOptions = {}): string {
  const { list, box } = outputOf(art, options);
  const lines = contentLines(art, list, box, options, idMaker());
  return `${[rootTag(box, art.sheet.unit, options.scale), ...lines, '</svg>'].join('\n')}\n`;
}

/**
 * Parts of a drawing as they are painted, alone on clear ground.
 *
 * @param box the part of the plane that is shown, sheet pixels
 * @param size of the document, pixels
 */
export function writeParts(
  art: Art,
  parts: readonly PaintedPart[],
  box: Box,
  { width, height, pictureHref }: { readonly width: number; readonly height: number; readonly pictureHref: (picture: PlacedPicture) => string }, // prettier-ignore
): string {
  const lines = contentLines(art, parts, box, { ground: null, pictureHref }, idMaker());
  const root = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" preserveAspectRatio="none" viewBox="${viewBox(box)}">`;
  return [root, ...lines, '</svg>'].join('\n');
}

/** Of a drawing on a sheet of several: the gap between them, and the height of a name, shares of its longer side. */
const GAP = 0.08;
const NAME_HEIGHT = 0.05;

/**
 * A drawing in several colourways on one sheet, in rows, each with its name beneath.
 *
 * @param ways each with a colour for every chip, in the order of the palette
 */
export function writeColourways(
  art: Art,
  ways: readonly { readonly name: string; readonly hexes: readonly string[] }[],
): string {
  const idOf = idMaker();
  const own = outputBox(art);
  const [width, height] = [boxWidth(own), boxHeight(own)];
  const size = Math.max(width, height);
  const [gap, letters] = [GAP * size, NAME_HEIGHT * size];
  const columns = Math.max(1, Math.ceil(Math.sqrt((ways.length * height) / width)));
  const rows = Math.ceil(ways.length / columns);
  const [across, down] = [width + gap, height + gap + letters];
  const whole = { x0: 0, y0: 0, x1: columns * across + gap, y1: rows * down + gap };
  const cells = ways.flatMap(({ name, hexes }, i) => {
    const chips = art.chips.map((chip, k) => ({ ...chip, hex: hexes[k] ?? chip.hex }));
    const seen = { ...art, chips };
    const [x, y] = [gap + (i % columns) * across, gap + Math.floor(i / columns) * down];
    return [
      openTag('svg', { x: number(x), y: number(y), width: number(width), height: number(height), viewBox: viewBox(own) }), // prettier-ignore
      ...contentLines(seen, paintList(seen), own, {}, idOf),
      '</svg>',
      element('text', { x: number(x + width / 2), y: number(y + height + 1.2 * letters), 'text-anchor': 'middle', 'font-family': 'sans-serif', 'font-size': number(0.8 * letters), fill: '#2a2722' }, escapeXml(name)), // prettier-ignore
    ];
  });
  return `${[rootTag(whole, art.sheet.unit), ...cells, '</svg>'].join('\n')}\n`;
}

/** What stands in a document: all that is painted of a drawing. */
function contentLines(
  art: Art,
  list: readonly PaintedPart[],
  box: Box,
  { ground = art.sheet.ground, pictures: traced = false, pictureHref, plain = false }: SvgOptions,
  idOf: (name: string) => string,
): string[] {
  const lines: string[] = [];
  const place = placeOf(box);
  if (ground) lines.push(element('rect', { ...place, fill: ground }));

  // Pixels placed several times stand in the file once.
  const shown = pictureHref ? shownPictures(art, traced, list) : [];
  const addresses = shown.map((p) => pictureHref!(p));
  const shared = new Map<string, string>();
  const image = (
    p: PlacedPicture,
    href: string,
    more = {},
  ): [string, Record<string, string | number | null>] => [
    'image',
    { ...more, ...seenSize(p), preserveAspectRatio: 'none', href },
  ];
  shown.forEach((p, i) => {
    const href = addresses[i]!;
    if (shared.has(href) || addresses.indexOf(href) === addresses.lastIndexOf(href)) return;
    const id = idOf(`pixels of ${p.name}`);
    shared.set(href, id);
    lines.push(`<defs>${element(...image(p, href, { id }))}</defs>`);
  });
  const picture = (p: PlacedPicture): void => {
    const crop = p.crop ? idOf(`crop of ${p.name}`) : null;
    if (p.crop) {
      const { x0, y0, x1, y1 } = p.crop;
      const rect = { x: number(x0), y: number(y0), width: number(x1 - x0), height: number(y1 - y0) };
      lines.push(element('clipPath', { id: crop }, element('rect', rect)));
    }
    const href = pictureHref!(p);
    const at = {
      id: plain ? null : idOf(p.name),
      transform: `matrix(${p.placement.map((v) => number(v, 9)).join(' ')})`,
      'clip-path': crop && `url(#${crop})`,
    };
    const once = shared.get(href);
    const [name, attributes] = once ? (['use', { ...at, href: `#${once}` }] as const) : image(p, href, at);
    lines.push(element(name, attributes, plain ? null : title(p.name) + credit(p)));
  };

  /** Writes what a part refers to before it, a clip once for all that it cuts. */
  const clips = new Map<string, string>();
  const define = (part: PaintedPart): Reference => {
    const ids = new Map<string, string>();
    const gradients = part.type === 'shape' ? ({ fill: part.fill, stroke: part.stroke?.paint } as const) : {};
    for (const [what, paint] of Object.entries(gradients)) {
      const gradient = gradientElement(paint);
      if (!gradient) continue;
      const id = idOf(`${what} of ${part.name}`);
      ids.set(what, id);
      lines.push(element(gradient.name, { id, ...gradient.attributes }, gradient.stops.map((s) => element('stop', s)).join(''))); // prettier-ignore
    }
    const filter = filterElement(part);
    if (filter) {
      const id = idOf(`${part.shadow ? 'shadow' : 'blur'} of ${part.name}`);
      ids.set('filter', id);
      lines.push(element('filter', { id, ...filter.attributes }, filter.steps.map(stepElement).join('')));
    }
    const { clip } = part;
    if (clip && !clips.has(clip.id)) {
      const id = idOf(`clip by ${clip.id}`);
      clips.set(clip.id, id);
      lines.push(
        element('clipPath', { id }, element('path', { d: drawnData(clip.paths), 'clip-rule': 'evenodd' })),
      );
    }
    if (part.mask) {
      const words = new Map<string, string>();
      const wordId = (what: string): string => {
        if (!words.has(what)) words.set(what, idOf(`${what} of ${part.name}`));
        return words.get(what)!;
      };
      maskElements(part.mask, wordId).forEach(put);
      ids.set('mask', wordId('mask'));
    }
    return (what) => (what === 'clip' ? clips.get(clip!.id)! : ids.get(what)!);
  };

  const put = ({ name, attributes, inner = [], parts = [] }: MaskElement): void => {
    if (inner.length + parts.length === 0) return void lines.push(element(name, attributes));
    lines.push(openTag(name, attributes));
    inner.forEach(put);
    parts.forEach(write);
    lines.push(`</${name}>`);
  };

  const placed = (part: PaintedPicture): void => {
    const covering = coveringAttributes(part, define(part));
    if (Object.values(covering).every((v) => v === null)) return picture(part.picture);
    lines.push(openTag('g', covering));
    picture(part.picture);
    lines.push('</g>');
  };
  const write = (part: PaintedPart): void => {
    if (part.type === 'picture') {
      if (pictureHref) placed(part);
      return;
    }
    const reference = define(part);
    const id = plain ? null : idOf(part.name);
    const named = plain ? '' : title(part.name);
    if (part.type === 'shape')
      return void lines.push(element('path', { id, ...shapeAttributes(part, reference) }, named || null));
    const covering = coveringAttributes(part, reference);
    if (plain && Object.values(covering).every((v) => v === null)) return part.parts.forEach(write);
    lines.push(openTag('g', { id, ...covering }) + named);
    part.parts.forEach(write);
    lines.push('</g>');
  };

  const seen = traced && pictureHref ? art.pictures.filter((p) => p.shown) : [];
  seen.filter((p) => !p.above).forEach(picture);
  list.forEach(write);
  seen.filter((p) => p.above).forEach(picture);
  return lines;
}
