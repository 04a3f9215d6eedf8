import type { Draft } from 'mutative';
import { MirrotError } from '../../error';
import type { Recipe } from '../change';
import { DEEPEST_GROUP } from '../limits';
import type { Art, ArtNode, Group } from '../schema';
import { ancestorsOf, childrenOf, findNode, inPaintOrder, nodesOf, outermost, type ParentNode, type TreeNode } from '../tree'; // prettier-ignore
import { cloned, draftFind, draftParent, plain } from './draft';
import { detachNodes } from './nodes';

// Nodes moved between parents, and groups made of them and freed again.

/** How many groups stand in each other in a node, itself counted. */
const depthIn = (node: TreeNode): number =>
  node.type === 'group' ? 1 + Math.max(0, ...childrenOf(node).map(depthIn)) : 0;

/** The outermost of some shapes, groups and pictures as they are in a drawing, bottom first. */
const movable = (art: Art, ids: readonly string[]): ArtNode[] =>
  nodesOf(art, outermost(art, inPaintOrder(art, ids))).flatMap((node) =>
    node.type === 'layer' ? [] : [node],
  );

/** @param above how many layers and groups the nodes would stand in */
function checkDepth(above: number, nodes: readonly ArtNode[]): void {
  if (above - 1 + Math.max(0, ...nodes.map(depthIn)) > DEEPEST_GROUP)
    throw new MirrotError('art', `Groups can stand in each other ${DEEPEST_GROUP} deep at most. Nothing was changed.`); // prettier-ignore
}

/**
 * Moves shapes, groups and pictures into a layer or group. They keep their order among themselves; what stands in another
 * of them goes along with it. A group is not moved into itself. Layers are moved by `restack`.
 *
 * @param index before which of the parent's children they come, counted from the bottom as these stand before the move;
 *   left out, on top
 * @throws MirrotError `art` where groups would stand in each other too deep
 */
export const moveNodes =
  (ids: readonly string[], parentId: string, index?: number): Recipe =>
  (draft) => {
    const parent = draftParent(draft, parentId);
    if (!parent) return;
    const art = plain(draft as Art);
    const above = [parentId, ...ancestorsOf(art, parentId).map(({ id }) => id)];
    const nodes = movable(
      art,
      ids.filter((id) => !above.includes(id)),
    );
    checkDepth(above.length, nodes);
    const chosen = new Set(nodes.map(({ id }) => id));
    const own = plain(parent as ParentNode).children;
    const at = own.slice(0, index ?? own.length).filter(({ id }) => !chosen.has(id)).length;
    // The clip of the group they stay in stays with them.
    const { clip, edge } = parent.type === 'group' ? plain(parent as Group) : {};
    detachNodes(draft, [...chosen]);
    parent.children.splice(at, 0, ...(nodes as Draft<ArtNode>[]));
    if (parent.type === 'group' && clip !== undefined)
      Object.assign(parent, { clip }, edge && { edge: cloned(edge) });
  };

/**
 * Moves layers in the stack; they keep their order among themselves.
 *
 * @param index before which layer they come, counted from the bottom as the layers stand before the move
 */
export const moveLayers =
  (ids: readonly string[], index: number): Recipe =>
  (draft) => {
    const layers = plain(draft.layers as Art['layers'][number][]);
    const moved = layers.filter(({ id }) => ids.includes(id));
    const stay = layers.filter(({ id }) => !ids.includes(id));
    const at = layers.slice(0, index).filter(({ id }) => !ids.includes(id)).length;
    const next = [...stay.slice(0, at), ...moved, ...stay.slice(at)];
    next.forEach((layer, i) => {
      if (layer !== layers[i]) draft.layers[i] = layer as Draft<(typeof layers)[number]>;
    });
  };

/**
 * Makes a group of nodes: it stands where the topmost of them stood. With none of them there, nothing happens.
 *
 * @throws MirrotError `art` where groups would stand in each other too deep
 */
export const groupNodes =
  (ids: readonly string[], group: Omit<Group, 'children'>): Recipe =>
  (draft) => {
    const art = plain(draft as Art);
    const nodes = movable(art, ids);
    const chosen = new Set(nodes.map(({ id }) => id));
    const top = nodes.length > 0 ? findNode(art, nodes.at(-1)!.id) : null;
    const parent = top?.parent && draftParent(draft, top.parent.id);
    if (!parent) return;
    checkDepth(ancestorsOf(art, parent.id).length + 2, nodes);
    const at = plain(parent as ParentNode)
      .children.slice(0, top.index)
      .filter(({ id }) => !chosen.has(id)).length;
    detachNodes(draft, [...chosen]);
    parent.children.splice(at, 0, { ...group, children: nodes } as Draft<ArtNode>);
  };

/** Frees groups: what stands in each stands in its place, in its order. Their own opacity, blend, blur and clip go. */
export const freeGroups =
  (ids: readonly string[]): Recipe =>
  (draft) => {
    for (const id of ids) {
      const found = draftFind(draft, id);
      if (!found?.parent || found.node.type !== 'group') continue;
      const children = plain(found.node.children as ArtNode[]);
      moveNodes(
        children.map((child) => child.id),
        found.parent.id,
        found.index + 1,
      )(draft);
      detachNodes(draft, [id]);
    }
  };
