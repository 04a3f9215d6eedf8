import type { z } from 'zod';
import { MirrotError } from '../error';
import {
  checkGroup,
  countNode,
  countShape,
  holdingsAfter,
  holdingsOf,
  looseIds,
  noTurnover,
  refuse,
  type Holdings,
  type Turnover,
} from './holdings';
import { DEEPEST_GROUP } from './limits';
import { migrateArt } from './migrate';
import {
  anchorSchema,
  artFields,
  groupSchema,
  layerSchema,
  pathSchema,
  pictureNodeSchema,
  shapeSchema,
  type Art,
  type ArtNode,
  type Group,
  type Layer,
  type PictureNode,
  type Shape,
} from './schema';

// A document is checked whole when it comes from outside, and after a change only where it changed: what is the same
// object as before was checked before.

const tooDeep = (): never => refuse(`Groups can stand in each other ${DEEPEST_GROUP} deep at most.`);

/** The whole document with what its parts are to each other. */
export const artSchema = artFields.superRefine((art, context) => {
  try {
    holdingsOf(art as Art);
  } catch (error) {
    if (!(error instanceof MirrotError)) throw error;
    context.addIssue({ code: 'custom', message: error.message });
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
  if (isObject(value)) checkDepth(value.layers, 0);
  const art = migrateArt(value);
  parsed(artSchema, art, '');
  return art as Art;
}

const layerFields = layerSchema.omit({ children: true });
const groupFields = groupSchema.omit({ children: true });
const shapeFields = shapeSchema.omit({ paths: true });
const pathFields = pathSchema.omit({ anchors: true });

/** The schema for a node by what it says it is. */
const schemaFor = (node: unknown): z.ZodType =>
  (isObject(node) && NODE_SCHEMAS[node.type as ArtNode['type']]) || shapeSchema;
const NODE_SCHEMAS: Readonly<Record<ArtNode['type'], z.ZodType>> = {
  shape: shapeSchema,
  group: groupSchema,
  picture: pictureNodeSchema,
};

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
  was: ArtNode | undefined,
  where: string,
  depth: number,
  turnover: Turnover,
): void {
  if (!was || !isObject(now) || now.type !== was.type) {
    checkDepth([now], depth);
    parsed<unknown>(schemaFor(now), now, where);
    if (was) countNode(was, -1, turnover);
    return countNode(now as unknown as ArtNode, 1, turnover);
  }
  if (was.type === 'group') {
    checkFields(groupFields, 'children', now, was, where);
    checkChildren(was.children, now.children, `${where}/children`, depth + 1, turnover);
    return checkGroup(now as unknown as Group);
  }
  if (was.type === 'picture') {
    parsed(pictureNodeSchema, now, where);
    countNode(was, -1, turnover);
    return countNode(now as unknown as PictureNode, 1, turnover);
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
  before: readonly ArtNode[],
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
  if ((['pictures', 'chips', 'colourways', 'guides'] as const).some((key) => before[key] !== art[key])) {
    turnover.gone.push(...looseIds(before));
    turnover.come.push(...looseIds(art));
  }
  return holdingsAfter(art, turnover, holdings);
}
