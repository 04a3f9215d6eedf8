import { drawnData } from '../../art/line-data';
import {
  outputBox,
  paintList,
  type OutputArea,
  type PaintedPart,
  type PaintedPicture,
} from '../../art/paint-list';
import { seenSize } from '../../art/placed-picture';
import type { Art, PlacedPicture } from '../../art/schema';
import { fromPx } from '../../art/units';
import { boxHeight, boxWidth } from '../../geometry/bounds';
import {
  coveringAttributes,
  filterElement,
  gradientElement,
  shapeAttributes,
  type Reference,
} from './attributes';
import { element, escapeXml, idMaker, number, openTag } from './xml';

export interface SvgOptions {
  /** The whole sheet, or the box of what is drawn. A drawing with nothing in it takes the sheet. */
  readonly area?: OutputArea;
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
export function outputPictures(art: Art, traced: boolean): PlacedPicture[] {
  const inDrawing = (parts: readonly PaintedPart[]): PlacedPicture[] =>
    parts.flatMap((p) => (p.type === 'group' ? inDrawing(p.parts) : p.type === 'picture' ? [p.picture] : []));
  return [...(traced ? art.pictures.filter((p) => p.shown) : []), ...inDrawing(paintList(art))];
}

/**
 * The drawing as an SVG 2 document, in sheet pixels, with its real size in the sheet's unit. Every layer and group is a
 * group, every shape one path, each with its name as title. What is hidden or paints nothing is left out.
 */
export function writeSvg(art: Art, options: SvgOptions = {}): string {
  const { area = 'sheet', ground = art.sheet.ground, pictures: traced = false, pictureHref } = options;
  const list = paintList(art);
  const box = outputBox(art, area, list);
  const [width, height] = [boxWidth(box), boxHeight(box)];
  const { unit } = art.sheet;
  const idOf = idMaker();
  const lines: string[] = [];
  const size = (px: number): string => `${number(fromPx(px, unit), 4)}${unit}`;
  const place = { x: number(box.x0), y: number(box.y0), width: number(width), height: number(height) };
  lines.push(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size(width)}" height="${size(height)}" viewBox="${Object.values(place).join(' ')}">`,
  );
  if (ground) lines.push(element('rect', { ...place, fill: ground }));

  // Pixels placed several times stand in the file once.
  const shown = pictureHref ? outputPictures(art, traced) : [];
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
      id: idOf(p.name),
      transform: `matrix(${p.placement.map((v) => number(v, 9)).join(' ')})`,
      'clip-path': crop && `url(#${crop})`,
    };
    const once = shared.get(href);
    const [name, attributes] = once ? (['use', { ...at, href: `#${once}` }] as const) : image(p, href, at);
    lines.push(element(name, attributes, title(p.name) + credit(p)));
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
      const steps = filter.steps.map((step) => element(step.name, step.attributes)).join('');
      lines.push(element('filter', { id, ...filter.attributes }, steps));
    }
    const { clip } = part;
    if (clip && !clips.has(clip.id)) {
      const id = idOf(`clip by ${clip.id}`);
      clips.set(clip.id, id);
      lines.push(
        element('clipPath', { id }, element('path', { d: drawnData(clip.paths), 'clip-rule': 'evenodd' })),
      );
    }
    return (what) => (what === 'clip' ? clips.get(clip!.id)! : ids.get(what)!);
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
    const id = idOf(part.name);
    if (part.type === 'shape')
      return void lines.push(element('path', { id, ...shapeAttributes(part, reference) }, title(part.name)));
    lines.push(openTag('g', { id, ...coveringAttributes(part, reference) }) + title(part.name));
    part.parts.forEach(write);
    lines.push('</g>');
  };

  const seen = traced && pictureHref ? art.pictures.filter((p) => p.shown) : [];
  seen.filter((p) => !p.above).forEach(picture);
  list.forEach(write);
  seen.filter((p) => p.above).forEach(picture);
  lines.push('</svg>');
  return `${lines.join('\n')}\n`;
}
