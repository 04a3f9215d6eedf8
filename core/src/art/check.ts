import type { z } from 'zod';
import { MirrotError } from '../error';
import type { Axis } from '../path/axis';
import { DEEPEST_GROUP, MOST_ANCHORS, MOST_SHAPES } from './limits';
import { migrateArt } from './migrate';
import {
  anchorSchema,
  artFields,
  groupSchema,
  layerSchema,
  pathSchema,
  shapeSchema,
  type Art,
  type Layer,
  type Shape,
  type ShapeNode,
} from './schema';

// A document is checked whole when it comes from outside, and after a change only where it changed: what is the same
// object as before was checked before.

/** What a document holds in all, kept beside it so that a change need not look at all of it again. */
export interface Holdings {
  /** Ids of everything that has one. */
  readonly ids: Set<string>;
  readonly shapes: number;
  /** Shapes that have a fill or a stroke. */
  readonly painted: number;
  /** Anchors, the parts about an axis counted as often as they are drawn. */
  readonly anchors: number;
}

const refuse = (message: string): never => {
  throw new MirrotError('art', message);
};

const tooDeep = (): never => refuse(`Groups can stand in each other ${DEEPEST_GROUP} deep at most.`);

const timesDrawn = (axis: Axis | undefined): number => (!axis ? 1 : axis.kind === 'turn' ? axis.parts : 2);

/** Anchors of a shape as it is drawn, its parts about an axis included. */
export const drawnAnchors = ({ paths, axis }: Pick<Shape, 'paths' | 'axis'>): number =>
  paths.reduce((n, p) => n + p.anchors.length, 0) * timesDrawn(axis);

/** What comes and what goes with a change. */
interface Turnover {
  readonly come: string[];
  readonly gone: string[];
  shapes: number;
  painted: number;
  anchors: number;
}

const noTurnover = (): Turnover => ({ come: [], gone: [], shapes: 0, painted: 0, anchors: 0 });

function countShape(shape: Shape, by: 1 | -1, turnover: Turnover): void {
  turnover.shapes += by;
  turnover.anchors += by * drawnAnchors(shape);
  if (shape.fill || shape.stroke) turnover.painted += by;
}

/** Counts a node and all beneath it as come (1) or gone (-1). */
function countNode(node: Layer | ShapeNode, by: 1 | -1, turnover: Turnover): void {
  const names = by === 1 ? turnover.come : turnover.gone;
  names.push(node.id);
  if (node.type === 'shape') {
    for (const path of node.paths) names.push(path.id);
    countShape(node, by, turnover);
  } else for (const child of node.children) countNode(child, by, turnover);
}

/** The ids of what has one outside the tree of layers. */
const looseIds = (art: Pick<Art, 'pictures' | 'chips' | 'guides'>): string[] =>
  [...art.pictures, ...art.chips, ...art.guides.lines].map(({ id }) => id);

function checkTraced({ traced, pictures }: Pick<Art, 'traced' | 'pictures'>): void {
  if (traced !== null && !pictures.some((p) => p.id === traced))
    refuse('The traced picture is not in the document.');
}

function settle(holdings: Holdings, { come, gone, ...counts }: Turnover): Holdings {
  const shapes = holdings.shapes + counts.shapes;
  const anchors = holdings.anchors + counts.anchors;
  if (shapes > MOST_SHAPES) refuse(`A drawing has ${MOST_SHAPES.toLocaleString('en')} shapes at most.`);
  if (anchors > MOST_ANCHORS) refuse(`A drawing has ${MOST_ANCHORS.toLocaleString('en')} anchors at most.`);
  const leaving = new Set(gone);
  const arriving = new Set<string>();
  for (const id of come) {
    if (arriving.has(id) || (holdings.ids.has(id) && !leaving.has(id))) refuse(`The id ${id} is used twice.`);
    arriving.add(id);
  }
  for (const id of gone) holdings.ids.delete(id);
  for (const id of come) holdings.ids.add(id);
  return { ids: holdings.ids, shapes, anchors, painted: holdings.painted + counts.painted };
}

const noHoldings = (): Holdings => ({ ids: new Set(), shapes: 0, painted: 0, anchors: 0 });

/**
 * What a document holds.
 *
 * @throws MirrotError `art` where an id is used twice, the traced picture is not there, or it holds more than it may
 */
export function holdingsOf(art: Art): Holdings {
  const turnover = noTurnover();
  for (const layer of art.layers) countNode(layer, 1, turnover);
  turnover.come.push(...looseIds(art));
  checkTraced(art);
  return settle(noHoldings(), turnover);
}

/** The whole document with what its parts are to each other. */
export const artSchema = artFields.superRefine((art, context) => {
  try {
    holdingsOf(art as Art);
  } catch (error) {
    context.addIssue({ code: 'custom', message: error instanceof Error ? error.message : String(error) });
  }
});

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

/** Refuses groups too deep in each other before anything walks them by calling itself. */
function checkDepth(nodes: unknown, start: number): void {
  const open: [unknown, number][] = [[nodes, start]];
  for (let next = open.pop(); next; next = open.pop()) {
    const [list, depth] = next;
    if (!Array.isArray(list)) continue;
    for (const node of list) {
      if (!isObject(node) || !('children' in node)) continue;
      if (depth > DEEPEST_GROUP) tooDeep();
      open.push([node.children, depth + 1]);
    }
  }
}

function parsed<T>(schema: z.ZodType<T>, value: unknown, where: string): void {
  const read = schema.safeParse(value);
  if (read.success) return;
  const issue = read.error.issues[0];
  const place = [where, ...(issue?.path ?? [])].filter((part) => part !== '').join('/') || 'the document';
  refuse(`The drawing cannot be read at ${place}: ${issue?.message ?? 'it is not a drawing'}`);
}

/**
 * Checks a document from outside, of this version or an older one.
 *
 * @throws MirrotError `art` naming the first place that is wrong
 */
export function readArt(value: unknown): Art {
  const art = migrateArt(value);
  if (isObject(art)) checkDepth(art.layers, 0);
  parsed(artSchema, art, '');
  return art as Art;
}

const layerFields = layerSchema.omit({ children: true });
const groupFields = groupSchema.omit({ children: true });
const shapeFields = shapeSchema.omit({ paths: true });
const pathFields = pathSchema.omit({ anchors: true });

type Named = { readonly id: string };

/**
 * Goes through a list that changed: items that are the same object as before are passed over, wherever they stand now.
 *
 * @param changed is told an item with what it was before, undefined for a new one
 * @param gone is told what is no longer there
 */
function compareLists<T extends object>(
  before: readonly T[],
  after: unknown,
  where: string,
  keyOf: (item: T) => unknown,
  changed: (now: unknown, was: T | undefined, where: string) => void,
  gone: (was: T) => void,
): void {
  if (!Array.isArray(after)) return refuse(`The drawing cannot be read at ${where}: it is no list`);
  let start = 0;
  while (start < before.length && start < after.length && before[start] === after[start]) start++;
  let [endBefore, endAfter] = [before.length, after.length];
  while (endBefore > start && endAfter > start && before[endBefore - 1] === after[endAfter - 1]) {
    endBefore--;
    endAfter--;
  }
  const left = new Map(before.slice(start, endBefore).map((item) => [keyOf(item), item]));
  for (let i = start; i < endAfter; i++) {
    const now = after[i] as T;
    const key = isObject(now) ? keyOf(now) : undefined;
    const was = left.get(key);
    left.delete(key);
    if (was !== now) changed(now, was, `${where}/${i}`);
  }
  for (const item of left.values()) gone(item);
}

/** The fields of a node without its list, when they are not what they were. */
function checkFields(schema: z.ZodType, list: string, now: object, was: object, where: string): void {
  const { [list]: _now, ...fields } = now as Record<string, unknown>;
  const before = was as Record<string, unknown>;
  const keys = Object.keys(fields);
  const same =
    keys.length === Object.keys(before).length - 1 && keys.every((key) => fields[key] === before[key]);
  if (!same) parsed(schema, fields, where);
}

const idOf = ({ id }: Named): string => id;

function checkPath(now: unknown, was: Shape['paths'][number] | undefined, where: string): void {
  if (!was) return parsed(pathSchema, now, where);
  checkFields(pathFields, 'anchors', now as object, was, where);
  const { anchors } = now as { anchors: unknown };
  // Anchors have no names: one that is the same object stands for itself, any other is new.
  compareLists(
    was.anchors,
    anchors,
    `${where}/anchors`,
    (anchor) => anchor,
    (anchor, _was, place) => parsed(anchorSchema, anchor, place),
    () => {},
  );
  if ((anchors as unknown[]).length === 0)
    refuse(`The drawing cannot be read at ${where}: a path without anchors`);
}

function checkNode(
  now: unknown,
  was: ShapeNode | undefined,
  where: string,
  depth: number,
  turnover: Turnover,
): void {
  if (!was || !isObject(now) || now.type !== was.type) {
    checkDepth([now], depth);
    parsed<unknown>(isObject(now) && now.type === 'group' ? groupSchema : shapeSchema, now, where);
    if (was) countNode(was, -1, turnover);
    return countNode(now as unknown as ShapeNode, 1, turnover);
  }
  if (was.type === 'group') {
    checkFields(groupFields, 'children', now, was, where);
    return checkChildren(was.children, now.children, `${where}/children`, depth + 1, turnover);
  }
  checkFields(shapeFields, 'paths', now, was, where);
  if (now.paths !== was.paths) {
    compareLists(was.paths, now.paths, `${where}/paths`, idOf, checkPath, () => {});
    if ((now.paths as unknown[]).length === 0)
      refuse(`The drawing cannot be read at ${where}: a shape without a path`);
    turnover.gone.push(...was.paths.map(idOf));
    turnover.come.push(...(now.paths as Named[]).map(idOf));
  }
  countShape(was, -1, turnover);
  countShape(now as unknown as Shape, 1, turnover);
}

function checkChildren(
  before: readonly ShapeNode[],
  after: unknown,
  where: string,
  depth: number,
  turnover: Turnover,
): void {
  if (before === after) return;
  compareLists(
    before,
    after,
    where,
    idOf,
    (now, was, place) => checkNode(now, was, place, depth, turnover),
    (was) => countNode(was, -1, turnover),
  );
}

/**
 * Checks a changed document where it differs from the checked one it was made of. Costs what the change is large, not
 * what the document is.
 *
 * @param holdings of the document before; its set of ids goes over into the result
 * @throws MirrotError `art` naming the first place that is wrong; `holdings` is as it was then
 */
export function checkChange(before: Art, after: unknown, holdings: Holdings): Holdings {
  if (before === after) return holdings;
  if (!isObject(after)) return refuse('The drawing cannot be read: it is no object');
  const was = before as unknown as Record<string, unknown>;
  for (const key of new Set([...Object.keys(was), ...Object.keys(after)])) {
    if (key === 'layers' || was[key] === after[key]) continue;
    const schema = (artFields.shape as Record<string, z.ZodType | undefined>)[key];
    if (!schema) return refuse(`The drawing cannot be read at ${key}: a drawing has no such part`);
    parsed(schema, after[key], key);
  }
  const art = after as unknown as Art;
  const turnover = noTurnover();
  if (before.layers !== art.layers) {
    compareLists(
      before.layers,
      art.layers,
      'layers',
      idOf,
      (now, layer, where) => {
        if (!layer) {
          if (isObject(now)) checkDepth(now.children, 1);
          parsed(layerSchema, now, where);
          return countNode(now as Layer, 1, turnover);
        }
        checkFields(layerFields, 'children', now as object, layer, where);
        checkChildren(layer.children, (now as Layer).children, `${where}/children`, 1, turnover);
      },
      (layer) => countNode(layer, -1, turnover),
    );
    if (art.layers.length === 0) refuse('A drawing has one layer at least.');
  }
  if (before.pictures !== art.pictures || before.chips !== art.chips || before.guides !== art.guides) {
    turnover.gone.push(...looseIds(before));
    turnover.come.push(...looseIds(art));
  }
  checkTraced(art);
  return settle(holdings, turnover);
}
