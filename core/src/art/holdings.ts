import { MirrotError } from '../error';
import type { Axis } from '../path/axis';
import { MOST_ANCHORS, MOST_SHAPES } from './limits';
import { chipsOf } from './paint';
import { shapesSeen } from './repeat';
import type { Art, Group, Shape } from './schema';
import { byType, type TreeNode } from './tree';

/** What a document holds in all, kept beside it so that a change need not look at all of it again. */
export interface Holdings {
  /** Ids of everything that has one. */
  readonly ids: Set<string>;
  /** How often each chip and each picture is named in the tree. */
  readonly uses: Map<string, number>;
  /** Shapes, and pictures that stand among them. */
  readonly shapes: number;
  /** Of those, the ones that paint something. */
  readonly painted: number;
  /** Anchors, the parts about an axis counted as often as they are drawn. */
  readonly anchors: number;
}

export const refuse = (message: string): never => {
  throw new MirrotError('art', message);
};

const timesDrawn = (axis: Axis | undefined): number => (!axis ? 1 : axis.kind === 'turn' ? axis.parts : 2);

/** Anchors of a shape as it is drawn, its parts about an axis included. */
export const drawnAnchors = ({ paths, axis }: Pick<Shape, 'paths' | 'axis'>): number =>
  paths.reduce((n, p) => n + p.anchors.length, 0) * timesDrawn(axis);

/** What comes and what goes with a change. */
export interface Turnover {
  readonly come: string[];
  readonly gone: string[];
  /** By how much the uses of each chip and picture change. */
  readonly uses: Map<string, number>;
  shapes: number;
  painted: number;
  anchors: number;
}

export const noTurnover = (): Turnover => ({
  come: [],
  gone: [],
  uses: new Map(),
  shapes: 0,
  painted: 0,
  anchors: 0,
});

const use = (turnover: Turnover, id: string, by: 1 | -1): void =>
  void turnover.uses.set(id, (turnover.uses.get(id) ?? 0) + by);

export function countShape(shape: Shape, by: 1 | -1, turnover: Turnover): void {
  turnover.shapes += by;
  turnover.anchors += by * drawnAnchors(shape);
  if (shape.fill || shape.stroke) turnover.painted += by;
  for (const chip of chipsOf(shape)) use(turnover, chip, by);
}

/** Refuses a group that is clipped by what is no shape of its own, or stands more often than a drawing can hold. */
export function checkGroup(group: Group): void {
  const { clip, children, repeat } = group;
  if (repeat && shapesSeen(group) > MOST_SHAPES)
    refuse(`A drawing has ${MOST_SHAPES.toLocaleString('en')} shapes at most, copies counted.`);
  if (clip !== undefined && !children.some((c) => c.id === clip && c.type === 'shape'))
    refuse('A group can be clipped only by a shape that stands in it.');
}

/** Counts a node and all beneath it as come (1) or gone (-1). */
export function countNode(node: TreeNode, by: 1 | -1, turnover: Turnover): void {
  const names = by === 1 ? turnover.come : turnover.gone;
  names.push(node.id);
  byType(node, {
    layer: ({ children }) => children.forEach((child) => countNode(child, by, turnover)),
    group: (group) => {
      if (by === 1) checkGroup(group);
      group.children.forEach((child) => countNode(child, by, turnover));
    },
    shape: (shape) => {
      for (const path of shape.paths) names.push(path.id);
      countShape(shape, by, turnover);
    },
    picture: ({ picture }) => {
      turnover.shapes += by;
      turnover.painted += by;
      use(turnover, picture, by);
    },
  });
}

type Tables = Pick<Art, 'pictures' | 'chips' | 'colourways' | 'guides' | 'traced'>;

/** The ids of what has one outside the tree of layers. */
export const looseIds = (art: Tables): string[] =>
  [...art.pictures, ...art.chips, ...art.colourways, ...art.guides.lines].map(({ id }) => id);

/** Refuses a document that names a chip or a picture which it has not. */
function checkNamed(uses: ReadonlyMap<string, number>, art: Tables): void {
  if (art.traced !== null && !art.pictures.some((p) => p.id === art.traced))
    refuse('The traced picture is not in the document.');
  if (uses.size === 0) return;
  const there = new Set([...art.pictures, ...art.chips].map(({ id }) => id));
  for (const id of uses.keys())
    if (!there.has(id)) refuse(`The chip or picture ${id} is used and is not in the document.`);
}

const NOTHING: Holdings = { ids: new Set(), uses: new Map(), shapes: 0, painted: 0, anchors: 0 };

/**
 * What a document holds after a change.
 *
 * @param art the document after it; of it only the tables are looked at
 * @param holdings before it; its set of ids and its uses go over into the result, unless it throws
 */
export function holdingsAfter(art: Tables, turnover: Turnover, holdings: Holdings): Holdings {
  const shapes = holdings.shapes + turnover.shapes;
  const anchors = holdings.anchors + turnover.anchors;
  if (shapes > MOST_SHAPES) refuse(`A drawing has ${MOST_SHAPES.toLocaleString('en')} shapes at most.`);
  if (anchors > MOST_ANCHORS) refuse(`A drawing has ${MOST_ANCHORS.toLocaleString('en')} anchors at most.`);
  const leaving = new Set(turnover.gone);
  const arriving = new Set<string>();
  for (const id of turnover.come) {
    if (arriving.has(id) || (holdings.ids.has(id) && !leaving.has(id))) refuse(`The id ${id} is used twice.`);
    arriving.add(id);
  }
  const uses = new Map(holdings.uses);
  for (const [id, by] of turnover.uses) {
    const n = (uses.get(id) ?? 0) + by;
    if (n > 0) uses.set(id, n);
    else uses.delete(id);
  }
  checkNamed(uses, art);
  for (const id of turnover.gone) holdings.ids.delete(id);
  for (const id of turnover.come) holdings.ids.add(id);
  return { ids: holdings.ids, uses, shapes, anchors, painted: holdings.painted + turnover.painted };
}

/**
 * What a document holds.
 *
 * @throws MirrotError `art` where an id is used twice, something is named that is not there, or it holds more than it may
 */
export function holdingsOf(art: Art): Holdings {
  const turnover = noTurnover();
  for (const layer of art.layers) countNode(layer, 1, turnover);
  turnover.come.push(...looseIds(art));
  return holdingsAfter(art, turnover, { ...NOTHING, ids: new Set() });
}
