import DxfParser, {
  type IArcEntity,
  type ICircleEntity,
  type IDxf,
  type IEllipseEntity,
  type IEntity,
  type IInsertEntity,
  type ILineEntity,
  type ILwpolylineEntity,
  type IPolylineEntity,
  type ISplineEntity,
} from 'dxf-parser';
import { emptyArt } from '../../art/blank';
import { readArt } from '../../art/check';
import { FARTHEST_COORDINATE } from '../../art/limits';
import { plainStroke } from '../../art/paint';
import type { ArtNode, Layer } from '../../art/schema';
import { fitName } from '../../art/text';
import { PX_PER } from '../../art/units';
import { MirrotError } from '../../error';
import {
  compose,
  IDENTITY,
  meanScale,
  rotation,
  scaling,
  translation,
  type Affine,
} from '../../geometry/affine';
import { EMPTY_BOX, isEmptyBox, uniteBoxes, type Box } from '../../geometry/bounds';
import type { Cubic } from '../../geometry/cubic';
import { splineCubics } from '../../geometry/spline';
import { distance, type Point } from '../../geometry/vector';
import { ellipseArc } from '../../path/arc';
import { parsePathData } from '../../path/data';
import { plainForm } from '../../path/form';
import { formPath } from '../../path/form-path';
import type { Path } from '../../path/path';
import { transformPath } from '../../path/path-map';
import { pathBounds } from '../../path/path-measure';
import type { SvgReading } from '../svg/read/read';
import { chained } from './chain';

// The tokens are read by dxf-parser; what they mean is Autodesk's DXF Reference, from memory: units of INSUNITS, bulges of
// polylines (the tangent of a quarter of the arc's angle), arcs and ellipses counted anticlockwise.

/** Millimetres to one of each unit of INSUNITS. What says none is taken for millimetres. */
const MM_PER: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  9: 0.0254,
  10: 914.4,
  14: 100,
};
/** Ends of lines nearer than this share of all that is drawn meet. */
const MEETS = 1e-7;
/** Deepest that blocks stand in each other, and most entities in all. */
const DEEPEST = 16;
const MOST_ENTITIES = 200_000;
/** Width of the lines, sheet pixels: a quarter of a millimetre. */
const LINE_PX = PX_PER.mm / 4;
const NOTHING = 'Nothing was added.';

const refuse = (sentence: string): never => {
  throw new MirrotError('dxf', `${sentence} ${NOTHING}`);
};

const pair = ({ x, y }: Point): string => `${x} ${y}`;
const curve = ([, b, c, d]: Cubic): string => `C${pair(b)} ${pair(c)} ${pair(d)}`;

const circleArc = (centre: Point, radius: number, from: number, to: number): Cubic[] =>
  ellipseArc(centre, { x: radius, y: 0 }, { x: 0, y: radius }, from, to - from);

const TURN = 2 * Math.PI;
/** Where an arc ends that is drawn anticlockwise from an angle: more than that, a whole turn at most. */
const endAfter = (from: number, to: number): number => from + ((((to - from) % TURN) + TURN) % TURN || TURN);

/** A side of a polyline: straight, or an arc by its bulge. */
function bulged(a: Point, b: Point, bulge: number): string {
  if (!bulge) return `L${pair(b)}`;
  const angle = 4 * Math.atan(bulge);
  const chord = { x: b.x - a.x, y: b.y - a.y };
  // The centre lies beside the middle of the chord, to its left where the arc is drawn anticlockwise and less than a half turn.
  const off = (1 - bulge * bulge) / (4 * bulge);
  const centre = { x: (a.x + b.x) / 2 - chord.y * off, y: (a.y + b.y) / 2 + chord.x * off };
  const from = Math.atan2(a.y - centre.y, a.x - centre.x);
  const cubics = circleArc(centre, Math.hypot(a.x - centre.x, a.y - centre.y), from, from + angle);
  return cubics.map((c, i) => curve(i === cubics.length - 1 ? [c[0], c[1], c[2], b] : c)).join('');
}

/** A path by its data; none where there is nothing of it. */
const pathOf = (data: string): Path | null => parsePathData(data, () => 'p')[0] ?? null;

function polyline(vertices: readonly (Point & { readonly bulge?: number })[], closed: boolean): Path | null {
  const [first] = vertices;
  if (!first || vertices.length < 2) return null;
  const sides = vertices.slice(1).map((v, i) => bulged(vertices[i]!, v, vertices[i]!.bulge ?? 0));
  const last = vertices.at(-1)!;
  const back = closed && last.bulge ? bulged(last, first, last.bulge) : '';
  return pathOf(`M${pair(first)}${sides.join('')}${back}${closed ? 'Z' : ''}`);
}

/** A line of cubics; one that comes back to where it began is closed. */
function lineOf(cubics: readonly Cubic[]): Path | null {
  if (cubics.length === 0) return null;
  const [from, to] = [cubics[0]![0], cubics.at(-1)![3]];
  const size = Math.max(...cubics.flat().map((p) => distance(p, from)));
  const closes = distance(from, to) <= 1e-9 * size;
  return pathOf(`M${pair(from)}${cubics.map(curve).join('')}${closes ? 'Z' : ''}`);
}

/** What an entity draws, in the file's own units and axes, by its type; null for nothing that a path can be. */
const READERS: Readonly<Record<string, (entity: never) => Path | null>> = {
  LINE: ({ vertices: [a, b] }: ILineEntity) => (a && b ? pathOf(`M${pair(a)}L${pair(b)}`) : null),
  LWPOLYLINE: ({ vertices, shape }: ILwpolylineEntity) => polyline(vertices ?? [], shape),
  POLYLINE: ({ vertices, shape, is3dPolygonMesh, isPolyfaceMesh }: IPolylineEntity) =>
    is3dPolygonMesh || isPolyfaceMesh ? null : polyline(vertices ?? [], shape),
  CIRCLE: ({ center, radius }: ICircleEntity) =>
    center && radius > 0 ? formPath(plainForm('ellipse', { x: center.x, y: center.y, width: 2 * radius, height: 2 * radius }), 'circle') : null, // prettier-ignore
  ARC: ({ center, radius, startAngle, endAngle }: IArcEntity) =>
    center && radius > 0
      ? lineOf(circleArc(center, radius, startAngle, endAfter(startAngle, endAngle)))
      : null,
  ELLIPSE({ center, majorAxisEndPoint: major, axisRatio, startAngle, endAngle }: IEllipseEntity) {
    if (!center || !major || !(axisRatio > 0)) return null;
    const minor = { x: -major.y * axisRatio, y: major.x * axisRatio };
    const from = startAngle ?? 0;
    return lineOf(ellipseArc(center, major, minor, from, endAfter(from, endAngle ?? TURN) - from));
  },
  // Rational ones are no curves of degree 3; the others are the same curves here.
  SPLINE: ({ degreeOfSplineCurve, knotValues, controlPoints, rational }: ISplineEntity) =>
    rational ? null : lineOf(splineCubics(degreeOfSplineCurve, knotValues ?? [], controlPoints ?? [])),
};

/** An entity's own axes: those of what is seen from behind run the other way. */
function ownMap(entity: IEntity): Affine {
  const { extrusionDirectionZ, extrusionDirection } = entity as Partial<ILwpolylineEntity & IInsertEntity>;
  return (extrusionDirectionZ ?? extrusionDirection?.z ?? 1) < 0 ? scaling(-1, 1) : IDENTITY;
}

/** Everything of one layer in one colour. */
interface Pile {
  readonly layer: string;
  readonly hex: string;
  readonly paths: Path[];
}

class Reading {
  readonly piles = new Map<string, Pile>();
  readonly left = new Map<string, number>();
  #count = 0;
  readonly #dxf: IDxf;

  constructor(dxf: IDxf) {
    this.#dxf = dxf;
  }

  hexOf(entity: IEntity, layer: string): string {
    const colour = entity.color ?? this.#dxf.tables?.layer?.layers?.[layer]?.color ?? 0;
    // White is what black paper wants: here it is paper.
    return colour === 0xffffff || !(colour >= 0 && colour <= 0xffffff) ? '#000000' : `#${colour.toString(16).padStart(6, '0')}`; // prettier-ignore
  }

  take(entities: readonly IEntity[], map: Affine, within: string | null, depth: number): void {
    for (const entity of entities) {
      if (++this.#count > MOST_ENTITIES) refuse(`This DXF has over ${MOST_ENTITIES} parts.`);
      const { type, visible, inPaperSpace } = entity;
      if (visible === false || inPaperSpace) continue;
      // In a block, layer 0 is the layer of what it is put in.
      const layer = !entity.layer || entity.layer === '0' ? (within ?? entity.layer ?? '0') : entity.layer;
      const here = compose(map, ownMap(entity));
      if (type === 'INSERT') {
        this.#insert(entity as IInsertEntity, here, layer, depth);
        continue;
      }
      const read = Object.hasOwn(READERS, type) ? READERS[type] : undefined;
      const drawn = read?.(entity as never) ?? null;
      if (!drawn) {
        const what =
          type === 'SPLINE' && (entity as ISplineEntity).rational ? 'rational splines' : type.toLowerCase();
        this.left.set(what, (this.left.get(what) ?? 0) + 1);
        continue;
      }
      this.#pile(layer, this.hexOf(entity, layer)).paths.push(transformPath(drawn, here));
    }
  }

  #insert(entity: IInsertEntity, map: Affine, layer: string, depth: number): void {
    const blocks = this.#dxf.blocks ?? {};
    const block = Object.hasOwn(blocks, entity.name) ? blocks[entity.name] : undefined;
    if (!block || depth >= DEEPEST) {
      this.left.set('insert', (this.left.get('insert') ?? 0) + 1);
      return;
    }
    const { position, xScale = 1, yScale = 1, rotation: degrees = 0 } = entity;
    const turn = compose(rotation((degrees * Math.PI) / 180), scaling(xScale, yScale));
    const base = block.position ?? { x: 0, y: 0 };
    const place = compose(translation(position.x, position.y), compose(turn, translation(-base.x, -base.y)));
    this.take(block.entities ?? [], compose(map, place), layer, depth + 1);
  }

  #pile(layer: string, hex: string): Pile {
    const key = `${layer}\0${hex}`;
    let pile = this.piles.get(key);
    if (!pile) this.piles.set(key, (pile = { layer, hex, paths: [] }));
    return pile;
  }
}

/** What the file says its drawing takes up, where all of it lies within. */
function saidExtents(header: IDxf['header'] | undefined, drawn: Box): Box | null {
  const [low, high] = [header?.$EXTMIN, header?.$EXTMAX];
  if (typeof low !== 'object' || typeof high !== 'object') return null;
  const box = { x0: low.x, y0: low.y, x1: high.x, y1: high.y };
  const slack = 1e-6 * Math.max(box.x1 - box.x0, box.y1 - box.y0);
  const holds = box.x0 <= drawn.x0 + slack && box.y0 <= drawn.y0 + slack && box.x1 >= drawn.x1 - slack && box.y1 >= drawn.y1 - slack; // prettier-ignore
  return holds && box.x1 > box.x0 && box.y1 > box.y0 ? box : null;
}

/**
 * Reads a DXF as a drawing: lines, polylines with their arcs, arcs, circles, ellipses, splines of degree 1 to 3, and blocks of
 * them; lines whose ends meet become one path. Everything else is counted as left out.
 *
 * @param options.layers whether layers of the file become layers; otherwise they are groups in one layer
 * @throws MirrotError `dxf` with a sentence, where it is no DXF, broken, or has nothing that can be read
 */
export function readDxf(text: string, { layers = true }: { readonly layers?: boolean } = {}): SvgReading {
  let dxf: IDxf | null = null;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch {
    refuse('This is no DXF of text, or one that is cut short or broken.');
  }
  if (!dxf?.entities) return refuse('This is no DXF, or one without any drawing.');
  const reading = new Reading(dxf);
  reading.take(dxf.entities, IDENTITY, null, 0);
  let ids = 0;
  const newId = (): string => `d${++ids}`;
  const drawn = [...reading.piles.values()].flatMap(({ paths }) => paths.map(pathBounds)).reduce(uniteBoxes, EMPTY_BOX); // prettier-ignore
  if (isEmptyBox(drawn)) return refuse('There is no line, arc, polyline or spline in this DXF.');
  const within = MEETS * Math.max(drawn.x1 - drawn.x0, drawn.y1 - drawn.y0);
  const piles = [...reading.piles.values()].map((pile) => ({ ...pile, paths: chained(pile.paths, within) }));
  const left = [...reading.left].map(([what, count]) => ({ what, count }));
  const box = saidExtents(dxf.header, drawn) ?? drawn;
  const px = (MM_PER[Number(dxf.header?.$INSUNITS ?? 4)] ?? 1) * PX_PER.mm;
  const toSheet: Affine = [px, 0, 0, -px, -box.x0 * px, box.y1 * px];
  const [width, height] = [(box.x1 - box.x0) * px, (box.y1 - box.y0) * px].map((v) => Math.max(v, 0.01)) as [number, number]; // prettier-ignore
  if (!(Math.max(width, height) <= FARTHEST_COORDINATE && Number.isFinite(meanScale(toSheet))))
    refuse('This DXF is larger than a sheet can be.');
  const tables = dxf.tables?.layer?.layers ?? {};
  const isShown = (name: string): boolean => !Object.hasOwn(tables, name) || (tables[name]!.visible !== false && !tables[name]!.frozen); // prettier-ignore
  const byLayer = new Map<string, ArtNode[]>();
  for (const { layer, hex, paths } of piles) {
    const shapes = paths.map((path): ArtNode => {
      const id = newId();
      return {
        id,
        type: 'shape',
        name: `Line ${ids}`,
        shown: true,
        locked: false,
        opacity: 1,
        fill: null,
        stroke: plainStroke({ hex }, LINE_PX),
        paths: [{ ...transformPath(path, toSheet), id: `${id}-p` }],
      };
    });
    byLayer.set(layer, [...(byLayer.get(layer) ?? []), ...shapes]);
  }
  const empty = emptyArt({ width, height, unit: 'mm' }, newId());
  const standing = (name: string) => ({ id: newId(), name: fitName(name, 'Layer'), shown: isShown(name), locked: false, opacity: 1 }); // prettier-ignore
  const asLayers = [...byLayer].map(([name, children]): Layer => ({ ...standing(name), type: 'layer', ink: null, children })); // prettier-ignore
  const asGroups = [...byLayer].map(([name, children]): ArtNode => ({ ...standing(name), type: 'group', children })); // prettier-ignore
  const inOne = byLayer.size > 1 ? asGroups : [...byLayer.values()].flat();
  const art = { ...empty, layers: layers ? asLayers : [{ ...empty.layers[0]!, children: inOne }] };
  return { art: readArt(art), title: null, left };
}
