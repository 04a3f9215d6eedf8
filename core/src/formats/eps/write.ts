import type { SeenPaint } from '../../art/paint';
import { hexAt } from '../../art/paint';
import { outputOf, type OutputRange } from '../../art/output';
import type { PaintedShape } from '../../art/paint-list';
import type { Art } from '../../art/schema';
import { PX_PER } from '../../art/units';
import { formatHex, parseHex, type Rgb } from '../../colour/srgb';
import { MirrotError } from '../../error';
import { apply, invert } from '../../geometry/affine';
import type { Box } from '../../geometry/bounds';
import { growBox, uniteBoxes, EMPTY_BOX } from '../../geometry/bounds';
import type { Point } from '../../geometry/vector';
import { pathCubics, segmentIsLine, type Path } from '../../path/path';
import { pathBounds } from '../../path/path-measure';
import { leavesOf } from '../outlines';

// Source: Adobe, PostScript Language Reference, 2nd edition (1990), and Encapsulated PostScript File Format Specification 3.0
// (1992); from memory, and as Ghostscript draws it (in the tests). Level 2 knows neither gradients nor see-through paint.

const POINTS = 72 / PX_PER.in;
/** Steps of colour along a gradient's own length. */
const STEPS = 96;
/** A gradient that goes on is followed so many of its lengths at most. */
const MOST_LENGTHS = 40;

const short = (v: number): string => String(Number(v.toFixed(3)));

const ENDS = { butt: 0, round: 1, square: 2 } as const;
const JOINS = { miter: 0, round: 1, bevel: 2 } as const;

/** What see-through colours are mixed with where the drawing has a clear ground. */
const PAPER = '#ffffff';

/** How colours are set. */
interface Ink {
  /** From 0 to 1. */
  readonly opacity: number;
  /** What a see-through colour is mixed with. */
  readonly ground: string;
}

/** A colour mixed with the ground by how see-through it is, as PostScript sets it. */
function colour(hex: string, { opacity, ground }: Ink): string {
  const beneath = parseHex(ground);
  const mixed = parseHex(hex).map((v, k) => beneath[k]! + (v - beneath[k]!) * opacity);
  return `${mixed.map((v) => Number(v.toFixed(4))).join(' ')} setrgbcolor`;
}

function lineOf(path: Path): string {
  const cubics = pathCubics(path);
  const [first] = cubics;
  if (!first) return '';
  const at = ({ x, y }: Point): string => `${short(x)} ${short(y)}`;
  const parts = cubics.map(([, b, c, d], i) =>
    segmentIsLine(path, i) ? `${at(d)} lineto` : `${at(b)} ${at(c)} ${at(d)} curveto`,
  );
  return [`${at(first[0])} moveto`, ...parts, ...(path.closed ? ['closepath'] : [])].join('\n');
}

const linesOf = (paths: readonly Path[]): string => ['newpath', ...paths.map(lineOf)].join('\n');

const isFading = (paint: SeenPaint): boolean =>
  paint.kind !== 'flat' && paint.stops.some((stop) => stop.opacity < 1);

/** How see-through a gradient is at a place: its stops' opacities run over into each other as their colours do. */
function opacityAt(paint: SeenPaint, at: Point): number {
  if (!isFading(paint) || paint.kind === 'flat') return 1;
  const grey = (o: number): string => formatHex([o, o, o] as Rgb);
  return parseHex(
    hexAt({ ...paint, stops: paint.stops.map((s) => ({ ...s, hex: grey(s.opacity) })) }, at),
  )[0];
}

/** A gradient laid over a box as steps of colour, each over the last. */
function steps(paint: Exclude<SeenPaint, { kind: 'flat' }>, box: Box, ink: Ink): string[] {
  const { kind, placement } = paint;
  const back = invert(placement);
  if (!back) return [colour(paint.stops.at(-1)!.hex, ink), `${short(box.x0)} ${short(box.y0)} ${short(box.x1 - box.x0)} ${short(box.y1 - box.y0)} rectfill`]; // prettier-ignore
  const corners = [[box.x0, box.y0], [box.x1, box.y0], [box.x1, box.y1], [box.x0, box.y1]].map(([x, y]) => apply(back, { x: x!, y: y! })); // prettier-ignore
  const along = corners.map((p) => (kind === 'linear' ? p.x : Math.hypot(p.x, p.y)));
  const across = corners.map((p) => p.y);
  const inside = kind === 'linear' && corners.length > 0;
  const from = inside ? Math.min(...along) : 0;
  const to = Math.max(...along);
  const [low, high] = [Math.min(...across), Math.max(...across)];
  const at = (t: number): Point => apply(placement, { x: t, y: 0 });
  // Only as far as it changes, unless it goes on.
  const [begin, end] = paint.spread
    ? [Math.max(from, -MOST_LENGTHS / 2), Math.min(to, MOST_LENGTHS / 2)]
    : [Math.max(from, 0), Math.min(to, 1)];
  const count = Math.max(1, Math.ceil((end - begin) * STEPS));
  const places = Array.from({ length: count }, (_, i) => begin + ((end - begin) * i) / count);
  const middle = (t: number): number => t + (end - begin) / count / 2;
  const paintOf = (t: number): string =>
    colour(hexAt(paint, at(t)), { ...ink, opacity: ink.opacity * opacityAt(paint, at(t)) });
  const out = ['gsave', `[${placement.map((v) => Number(v.toFixed(6))).join(' ')}] concat`];
  const digits = (v: number): string => String(Number(v.toFixed(6)));
  if (kind === 'linear') {
    out.push(paintOf(from - 1e-9), `${digits(from)} ${digits(low)} ${digits(to - from)} ${digits(high - low)} rectfill`); // prettier-ignore
    for (const t of places) out.push(paintOf(middle(t)), `${digits(t)} ${digits(low)} ${digits(to - t)} ${digits(high - low)} rectfill`); // prettier-ignore
    if (to > end) out.push(paintOf(to), `${digits(end)} ${digits(low)} ${digits(to - end)} ${digits(high - low)} rectfill`); // prettier-ignore
  } else {
    out.push(paintOf(to + 1e-9), `0 0 ${digits(to)} 0 360 arc fill`);
    for (const t of places.reverse()) out.push(paintOf(middle(t)), `0 0 ${digits(t + (end - begin) / count)} 0 360 arc fill`); // prettier-ignore
  }
  out.push('grestore');
  return out;
}

function painted(paint: SeenPaint, ink: Ink, box: Box, fill: string, clip: string): string[] {
  if (paint.kind === 'flat') return [colour(paint.hex, ink), fill];
  return ['gsave', clip, ...steps(paint, box, ink), 'grestore'];
}

function shapeLines({ paths, fill, stroke }: PaintedShape, ink: Ink): string[] {
  const lines = linesOf(paths);
  const box = paths.map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
  const filled = fill ? [lines, ...painted(fill, ink, box, 'eofill', 'eoclip newpath')] : [];
  const drawn = stroke
    ? [
        lines,
        `${short(stroke.width)} setlinewidth ${ENDS[stroke.ends]} setlinecap ${JOINS[stroke.joins]} setlinejoin ${short(Math.max(1, stroke.miterLimit))} setmiterlimit`,
        `[${stroke.dash.map(short).join(' ')}] ${short(stroke.dashOffset ?? 0)} setdash`,
        ...painted(stroke.paint, ink, growBox(box, stroke.width * Math.max(1, stroke.miterLimit)), 'stroke', 'strokepath clip newpath'), // prettier-ignore
      ]
    : [];
  return stroke?.under ? [...drawn, ...filled] : [...filled, ...drawn];
}

/**
 * A drawing as Encapsulated PostScript, level 2, in its real size. Gradients are steps of colour, see-through colours are mixed
 * with the ground's, pictures are left out, and what is soft is sharp (`leftOut` counts them).
 *
 * @param ground "#rrggbb" behind everything; null for none, left out for the sheet's own
 * @throws MirrotError `nothing` when nothing is painted but pictures
 */
export function writeEps(
  art: Art,
  { ground = art.sheet.ground, scale = 1, ...range }: OutputRange & { readonly ground?: string | null } = {},
): string {
  const { list, box } = outputOf(art, range);
  const points = POINTS * scale;
  const [width, height] = [(box.x1 - box.x0) * points, (box.y1 - box.y0) * points];
  const lines: string[] = [];
  if (ground) lines.push(colour(ground, { opacity: 1, ground }), `${short(box.x0)} ${short(box.y0)} ${short(box.x1 - box.x0)} ${short(box.y1 - box.y0)} rectfill`); // prettier-ignore
  for (const { part, clips, opacity } of leavesOf(list)) {
    if (part.type === 'picture') continue;
    lines.push('gsave');
    for (const clip of clips) lines.push(linesOf(clip.paths), 'eoclip');
    lines.push(...shapeLines(part, { opacity, ground: ground ?? PAPER }), 'grestore');
  }
  if (lines.length === 0)
    throw new MirrotError('nothing', 'There is nothing in this drawing to write as EPS. Show a shape that has a fill or a stroke.'); // prettier-ignore
  return [
    '%!PS-Adobe-3.0 EPSF-3.0',
    `%%BoundingBox: 0 0 ${Math.ceil(width)} ${Math.ceil(height)}`,
    `%%HiResBoundingBox: 0 0 ${Number(width.toFixed(6))} ${Number(height.toFixed(6))}`,
    '%%Creator: Mirrot',
    '%%LanguageLevel: 2',
    '%%Pages: 1',
    '%%EndComments',
    '%%Page: 1 1',
    'gsave',
    // Sheet pixels, y downward, from the top left of what is shown.
    `[${Number(points.toFixed(9))} 0 0 ${Number((-points).toFixed(9))} ${short(-box.x0 * points)} ${Number((height + box.y0 * points).toFixed(6))}] concat`,
    `${short(box.x0)} ${short(box.y0)} ${short(box.x1 - box.x0)} ${short(box.y1 - box.y0)} rectclip`,
    ...lines,
    'grestore',
    'showpage',
    '%%EOF',
    '',
  ].join('\n');
}
