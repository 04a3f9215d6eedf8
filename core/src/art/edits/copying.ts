import { IDENTITY, type Affine } from '../../geometry/affine';
import type { Recipe } from '../change';
import type { Art, ArtNode, Shape } from '../schema';
import { copyNames } from '../text';
import { inPaintOrder, nodeNames, nodesOf, outermost, shapesIn, type TreeNode } from '../tree';
import { mapApart } from './arranging';
import { cloned } from './draft';
import { putAbove } from './nodes';

/** Copies of nodes, to be put into the drawing, and what they are called: outermost ones, bottom first. */
export interface Copies {
  /** Puts them in, mapped from what they are of. */
  readonly recipe: (map?: Affine) => Recipe;
  /** The copies where those stand that they are of, in the order of `of`. */
  readonly nodes: readonly ArtNode[];
  /** Their ids. */
  readonly ids: readonly string[];
  /** The nodes that were copied. */
  readonly of: readonly string[];
}

/** Keys that anchors of several paths share, counted over nodes. */
function keyCounts(nodes: readonly TreeNode[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const shape of nodes.flatMap(shapesIn))
    for (const path of shape.paths)
      for (const { shared } of path.anchors)
        if (shared !== undefined) counts.set(shared, (counts.get(shared) ?? 0) + 1);
  return counts;
}

/** A copy poured between copies goes on keeping up with them; between lines that were not copied it stands by itself. */
function pouredAnew(node: ArtNode, copies: ReadonlyMap<string, string>): ArtNode {
  if (node.type === 'group')
    return { ...node, children: node.children.map((child) => pouredAnew(child, copies)) };
  if (node.type !== 'shape' || !node.poured) return node;
  const { poured, ...shape } = node;
  const between = poured.between.flatMap((id) => copies.get(id) ?? []);
  return between.length < poured.between.length ? shape : { ...shape, poured: { ...poured, between } };
}

/**
 * The same nodes once more, everything in them with an id of its own. Anchors that they share with each other are shared
 * among the copies; with others they share nothing.
 */
export function freshCopies(nodes: readonly ArtNode[], newId: () => string): ArtNode[] {
  const counts = keyCounts(nodes);
  const keys = new Map<string, string>();
  const keyOf = (shared: string): string | undefined => {
    if ((counts.get(shared) ?? 0) < 2) return undefined;
    if (!keys.has(shared)) keys.set(shared, newId());
    return keys.get(shared);
  };
  const ids = new Map<string, string>();
  const idOf = (id: string): string => {
    ids.set(id, newId());
    return ids.get(id)!;
  };
  const copyShape = (shape: Shape): Shape => ({
    ...shape,
    id: idOf(shape.id),
    paths: shape.paths.map((path) => ({
      ...path,
      id: newId(),
      anchors: path.anchors.map(({ shared, ...anchor }) => {
        const key = shared === undefined ? undefined : keyOf(shared);
        return key === undefined ? anchor : { ...anchor, shared: key };
      }),
    })),
  });
  const copy = (node: ArtNode): ArtNode => {
    if (node.type === 'shape') return copyShape(node);
    if (node.type === 'picture') return { ...node, id: newId() };
    const children = node.children.map(copy);
    const clipped = node.children.findIndex((child) => child.id === node.clip);
    const { clip: _clip, ...group } = node;
    const made = { ...group, id: newId(), children };
    return clipped < 0 ? made : { ...made, clip: children[clipped]!.id };
  };
  return nodes.map(copy).map((node) => pouredAnew(node, ids));
}

/** What can be copied of some nodes: outermost ones, bottom first; layers and what is not there are left out. */
export const nodesToCopy = (art: Art, ids: readonly string[]): ArtNode[] =>
  nodesOf(art, outermost(art, inPaintOrder(art, ids))).filter((node) => node.type !== 'layer');

/**
 * Copies shapes, groups and pictures in place, each just above the one it is of. Everything in a copy has an id of its own.
 * Anchors that copies share with each other are shared among the copies; with what was not copied they share nothing. Layers
 * and what is not there are left out.
 *
 * @param newId gives an id that is not in the drawing, another one each time
 */
export function copiesOf(art: Art, ids: readonly string[], newId: () => string): Copies {
  const nodes = nodesToCopy(art, ids);
  const nameOf = copyNames(nodeNames(art), true);
  const made = freshCopies(nodes, newId).map((node) => ({ ...node, name: nameOf(node.name) }));
  return {
    // Fresh each time: what is put into a draft is the draft's to change.
    recipe: (map = IDENTITY) => {
      const mapped = mapApart(made, map);
      return (draft) => putAbove(draft, new Map(cloned(mapped).map((node, i) => [nodes[i]!.id, node])));
    },
    nodes: made,
    ids: made.map((node) => node.id),
    of: nodes.map((node) => node.id),
  };
}
