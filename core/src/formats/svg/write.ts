import { drawShape } from '../../art/draw';
import { seenSize } from '../../art/picture';
import type { Art, Group, Layer, PlacedPicture, ShapeNode } from '../../art/schema';
import { drawingBounds } from '../../art/tree';
import { cutText } from '../../art/text';
import { fromPx } from '../../art/units';
import { boxHeight, boxWidth, isEmptyBox, type Box } from '../../geometry/bounds';

export interface SvgOptions {
  /** The whole sheet, or the box of what is drawn. A drawing with nothing in it takes the sheet. */
  readonly area?: 'sheet' | 'drawing';
  /** "#rrggbb" behind everything, or null for clear. Left out: the sheet's own ground. */
  readonly ground?: string | null;
  /** Address of a picture's pixels as they are seen (straightened when squared up, not cropped), when pictures go along; left out, no picture does. */
  readonly pictureHref?: (picture: PlacedPicture) => string;
}

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Text for a file: what XML 1.0 (section 2.2) cannot hold is left out. */
const escapeXml = (text: string): string =>
  text.replace(/[\p{Cc}\p{Cs}\uFFFE\uFFFF]/gu, '').replace(/[&<>"]/g, (c) => ESCAPES[c]!);

const number = (v: number, digits = 3): string => String(Number(v.toFixed(digits)));

/** Ids from names: letters and digits of any script, joined by hyphens; unlike each other. */
function idMaker(): (name: string) => string {
  const used = new Set<string>();
  return (name) => {
    const words =
      name
        .normalize('NFC')
        .toLowerCase()
        .match(/[\p{L}\p{N}]+/gu) ?? [];
    let stem = cutText(words.join('-'), 80) || 'item';
    if (!/^\p{L}/u.test(stem)) stem = `n-${stem}`;
    let id = stem;
    for (let n = 2; used.has(id); n++) id = `${stem}-${n}`;
    used.add(id);
    return id;
  };
}

/** Where a picture comes from, as a description; nothing when nothing is noted. */
function credit({ credit: c }: PlacedPicture): string {
  const words = [c.source, c.author, c.licence, c.address].filter(Boolean).join(' · ');
  return words && `<desc>${escapeXml(words)}</desc>`;
}

/** The part of the plane an export shows, in sheet pixels. */
export function exportBox(art: Art, area: 'sheet' | 'drawing'): Box {
  const drawing = area === 'drawing' ? drawingBounds(art) : null;
  if (drawing && !isEmptyBox(drawing) && boxWidth(drawing) > 0 && boxHeight(drawing) > 0) return drawing;
  return { x0: 0, y0: 0, x1: art.sheet.width, y1: art.sheet.height };
}

/**
 * Writes the drawing as an SVG file: real size in the sheet's unit, a viewBox in sheet pixels, layers and groups as
 * groups with ids and titles, path data short but exact to 0.001 px. What is not shown is left out.
 * Source of the form: W3C SVG 2.
 */
export function writeSvg(art: Art, options: SvgOptions = {}): string {
  const { area = 'sheet', ground = art.sheet.ground, pictureHref } = options;
  const { x0, y0, x1, y1 } = exportBox(art, area);
  const { unit } = art.sheet;
  const idOf = idMaker();
  const lines: string[] = [];
  const w = number(x1 - x0);
  const h = number(y1 - y0);
  const size = (px: number): string => `${number(fromPx(px, unit), 4)}${unit}`;
  lines.push(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size(x1 - x0)}" height="${size(y1 - y0)}" viewBox="${number(x0)} ${number(y0)} ${w} ${h}">`,
  );
  if (ground)
    lines.push(`<rect x="${number(x0)}" y="${number(y0)}" width="${w}" height="${h}" fill="${ground}"/>`);
  const title = (name: string): string => `<title>${escapeXml(name)}</title>`;
  if (pictureHref) {
    const shown = art.pictures.filter((p) => p.shown);
    const hrefs = new Map(shown.map((p) => [p, pictureHref(p)]));
    // Pixels placed several times stand in the file once.
    const pixels = new Map<string, string>();
    for (const [p, href] of hrefs) {
      if (pixels.has(href) || shown.filter((q) => hrefs.get(q) === href).length < 2) continue;
      const { width, height } = seenSize(p);
      const id = idOf(`pixels of ${p.name}`);
      pixels.set(href, id);
      lines.push(
        `<defs><image id="${id}" width="${width}" height="${height}" preserveAspectRatio="none" href="${escapeXml(href)}"/></defs>`,
      );
    }
    for (const p of shown) {
      const { width, height } = seenSize(p);
      const map = `transform="matrix(${p.placement.map((v) => number(v, 9)).join(' ')})"`;
      const clip = p.crop ? idOf(`crop of ${p.name}`) : null;
      if (p.crop) {
        const { x0: left, y0: top, x1: right, y1: bottom } = p.crop;
        lines.push(
          `<clipPath id="${clip}"><rect x="${number(left)}" y="${number(top)}" width="${number(right - left)}" height="${number(bottom - top)}"/></clipPath>`,
        );
      }
      const href = hrefs.get(p)!;
      const shared = pixels.get(href);
      const [name, what] = shared
        ? ['use', `href="#${shared}"`]
        : [
            'image',
            `width="${width}" height="${height}" preserveAspectRatio="none" href="${escapeXml(href)}"`,
          ];
      lines.push(
        `<${name} id="${idOf(p.name)}" ${map}${clip ? ` clip-path="url(#${clip})"` : ''} ${what}>${title(p.name)}${credit(p)}</${name}>`,
      );
    }
  }
  const group = (node: Layer | Group, opacity: number): void => {
    const faded = opacity < 1 ? ` opacity="${number(opacity)}"` : '';
    lines.push(`<g id="${idOf(node.name)}"${faded}>${title(node.name)}`);
    node.children.forEach(write);
    lines.push('</g>');
  };
  const write = (node: ShapeNode): void => {
    if (!node.shown) return;
    if (node.type === 'group') return group(node, node.opacity);
    const drawn = drawShape(node);
    if (drawn.fill === 'none' && !drawn.stroke) return;
    const attributes = [`id="${idOf(node.name)}"`, `d="${drawn.d}"`, `fill="${drawn.fill}"`];
    // Also one path alone may cross itself: on the bed as here, what is enclosed twice is outside.
    if (drawn.fill !== 'none') attributes.push('fill-rule="evenodd"');
    if (drawn.stroke)
      attributes.push(
        `stroke="${drawn.stroke}"`,
        `stroke-width="${number(drawn.strokeWidth)}"`,
        'stroke-linecap="round"',
        'stroke-linejoin="round"',
      );
    if (drawn.opacity < 1) attributes.push(`opacity="${number(drawn.opacity)}"`);
    lines.push(`<path ${attributes.join(' ')}>${title(node.name)}</path>`);
  };
  for (const layer of art.layers) if (layer.shown) group(layer, 1);
  lines.push('</svg>');
  return `${lines.join('\n')}\n`;
}
