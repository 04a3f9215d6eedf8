import { about, apply, applyLinear, compose, determinant, IDENTITY, rotation, translation, type Affine } from '../geometry/affine'; // prettier-ignore
import { boxCentre, EMPTY_BOX, isEmptyBox, uniteBoxes, type Box } from '../geometry/bounds';
import { subtract, type Point } from '../geometry/vector';
import { pathBounds } from '../path/path-measure';
import { transformPath } from '../path/path-map';
import { shapeBounds } from './bounds';
import type { Art, Group, Repeat, Shape } from './schema';
import { childrenOf, isParent, shapesIn, wholePaths, type TreeNode } from './tree';

// Groups that stand several times, in a row or round a centre.

/** A whole turn, radians. */
export const WHOLE_TURN = 2 * Math.PI;
/** A ring goes all the way round where its copies miss it by less than this, radians. */
const WHOLE_WITHIN = 1e-9;

/** Whether a ring's copies stand evenly all the way round. */
export const isWholeRing = ({ count, angle }: Extract<Repeat, { kind: 'ring' }>): boolean =>
  Math.abs(Math.abs(angle) * count - WHOLE_TURN) < WHOLE_WITHIN * count;

/**
 * The maps from what leads to each copy that follows it, in order; what is left out is not among them.
 *
 * @param middle of what leads, sheet pixels: what is carried round upright is carried by it
 */
export function repeatMaps(repeat: Repeat, middle: Point): Affine[] {
  const steps = Array.from({ length: repeat.count - 1 }, (_, i) => i + 1);
  if (repeat.kind === 'row') return steps.map((k) => translation(k * repeat.x, k * repeat.y));
  const { without, upright, angle } = repeat;
  return steps.flatMap((k): Affine[] => {
    if (without !== undefined && (k + 1) % without === 0) return [];
    const turned = about(rotation(k * angle), repeat);
    if (!upright) return [turned];
    const to = subtract(apply(turned, middle), middle);
    return [translation(to.x, to.y)];
  });
}

/** Bounds of the lines of what stands in a node, its own copies left out. */
const leadingBox = (node: TreeNode): Box => shapesIn(node).map(shapeBounds).reduce(uniteBoxes, EMPTY_BOX);

/** The maps to the copies that follow a group; none for one that stands once, or has nothing in it. */
export function copyMaps(group: Group): Affine[] {
  const box = group.repeat ? leadingBox(group) : EMPTY_BOX;
  return isEmptyBox(box) ? [] : repeatMaps(group.repeat!, boxCentre(box));
}

/** Bounds of the lines of a node, all copies counted; `EMPTY_BOX` for none. */
export function outlineBox(node: TreeNode, map: Affine | null = null): Box {
  if (node.type === 'shape')
    return map === null
      ? shapeBounds(node)
      : wholePaths(node).map((path) => pathBounds(transformPath(path, map))).reduce(uniteBoxes, EMPTY_BOX); // prettier-ignore
  const copies = node.type === 'group' ? copyMaps(node) : [];
  return [null, ...copies]
    .map((copy) => (copy && map ? compose(map, copy) : (copy ?? map)))
    .flatMap((place) => childrenOf(node).map((child) => outlineBox(child, place)))
    .reduce(uniteBoxes, EMPTY_BOX);
}

/** The numbers of a repetition after a map of the sheet: where the map mirrors, a ring runs the other way. */
export function mapRepeat(repeat: Repeat, map: Affine): Repeat {
  if (repeat.kind === 'row') return { ...repeat, ...applyLinear(map, repeat) };
  return { ...repeat, ...apply(map, repeat), angle: determinant(map) < 0 ? -repeat.angle : repeat.angle };
}

/** The groups of a node that stand several times, itself among them, outermost first. */
export const repeatedGroups = (node: TreeNode): Group[] => [
  ...(node.type === 'group' && node.repeat ? [node] : []),
  ...childrenOf(node).flatMap(repeatedGroups),
];

/** How many shapes are seen of a node, copies counted. */
export function shapesSeen(node: TreeNode): number {
  if (node.type === 'shape' || node.type === 'picture') return 1;
  const inside = childrenOf(node).reduce((sum, child) => sum + shapesSeen(child), 0);
  return node.type === 'group' && node.repeat ? inside * node.repeat.count : inside;
}

/** A shape that is seen elsewhere too, and the maps that take it there. */
export interface CopiedShape {
  readonly shape: Shape;
  readonly maps: readonly Affine[];
}

const copied = new WeakMap<Art['layers'], readonly CopiedShape[]>();

/** The shapes in sight that lead copies, bottom first; through all groups that stand several times. */
export function copiedShapes(art: Art): readonly CopiedShape[] {
  let known = copied.get(art.layers);
  if (!known) {
    const out: CopiedShape[] = [];
    const walk = (nodes: readonly TreeNode[], maps: readonly Affine[]): void => {
      for (const node of nodes) {
        if (node.type === 'shape' && maps.length > 1 && node.shown)
          out.push({ shape: node, maps: maps.slice(1) });
        if (!isParent(node) || !node.shown) continue;
        const own = node.type === 'group' && node.repeat ? [IDENTITY, ...copyMaps(node)] : [IDENTITY];
        walk(
          node.children,
          own.length === 1 ? maps : maps.flatMap((outer) => own.map((map) => compose(outer, map))),
        );
      }
    };
    walk(art.layers, [IDENTITY]);
    copied.set(art.layers, (known = out));
  }
  return known;
}
