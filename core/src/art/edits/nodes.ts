import type { Draft } from 'mutative';
import { artOfDraft, type Recipe } from '../change';
import type { Art, ArtNode, Layer } from '../schema';
import { longestRising } from '../order';
import { findNode, inPaintOrder, type ParentNode } from '../tree';
import { draftFind, draftNode, draftParent, plain } from './draft';
import { dropLoneKeys, keysIn, pathsIn } from './shared';

// Layers, groups and shapes: put in, taken away, named, restacked.

/** Several recipes as one. */
export const together =
  (...recipes: readonly Recipe[]): Recipe =>
  (draft) =>
    recipes.forEach((r) => r(draft));

/** Adds shapes, groups or pictures, in their order, on top of a layer's or group's children, or at `index` from the bottom. */
export const addNodes =
  (parentId: string, nodes: readonly ArtNode[], index?: number): Recipe =>
  (draft) => {
    const children = draftParent(draft, parentId)?.children;
    children?.splice(index ?? children.length, 0, ...(nodes as Draft<ArtNode>[]));
  };
export const addNode = (parentId: string, node: ArtNode, index?: number): Recipe =>
  addNodes(parentId, [node], index);

/** Adds nodes right above another one, wherever it stands by then, or right below it. */
export const addBeside =
  (id: string, nodes: readonly ArtNode[], above: boolean): Recipe =>
  (draft) => {
    const found = draftFind(draft, id);
    if (found?.parent) addNodes(found.parent.id, nodes, found.index + (above ? 1 : 0))(draft);
  };

/**
 * Puts nodes into the tree, each just above another one, by its id. What stands beside them is taken as it is: no other
 * change of theirs may follow in the same recipe.
 */
export function putAbove(draft: Draft<Art>, above: ReadonlyMap<string, ArtNode>): void {
  const parents = new Set([...above.keys()].flatMap((id) => draftFind(draft, id)?.parent?.id ?? []));
  for (const id of parents) {
    const parent = draftParent(draft, id)!;
    const children = plain(parent as ParentNode).children.flatMap((child) => {
      const node = above.get(child.id);
      // Frozen, it is not looked through for drafts: with thousands that takes longer than all the rest.
      return node ? [Object.freeze(child), node] : [Object.freeze(child)];
    });
    parent.children = children as Draft<ArtNode>[];
  }
}

/** Takes nodes out of the tree; what they share with others is looked after by the caller. */
export function detachNodes(draft: Draft<Art>, ids: readonly string[]): void {
  // From the top down: so none of the places still to come is moved by what is taken out.
  for (const id of inPaintOrder(plain(draft as Art), ids).reverse()) {
    const found = draftFind(draft, id);
    if (!found) continue;
    if (found.parent) {
      const parent = found.parent as Draft<ParentNode>;
      parent.children.splice(found.index, 1);
      if (parent.type === 'group' && parent.clip === id) {
        delete parent.clip;
        delete parent.edge;
      }
    } else if (draft.layers.length > 1) draft.layers.splice(found.index, 1);
    else draft.layers[0]!.children = [];
  }
}

/** Takes nodes away. The last layer stays, emptied. Neighbours left alone with a key lose it. */
export const removeNodes =
  (ids: readonly string[]): Recipe =>
  (draft) => {
    const art = artOfDraft(draft);
    const keys = ids.flatMap((id) => {
      const node = findNode(art, id)?.node;
      return node ? keysIn(pathsIn(node)) : [];
    });
    detachNodes(draft, ids);
    dropLoneKeys(draft, keys);
  };

/** Name, show and lock of any layer, group, shape or picture in the tree. */
export const setNode =
  (id: string, values: Partial<Pick<Layer, 'name' | 'shown' | 'locked'>>): Recipe =>
  (draft) => {
    const node = draftNode(draft, id);
    if (node) Object.assign(node, values);
  };

export const setLayerInk =
  (id: string, ink: string | null): Recipe =>
  (draft) => {
    const node = draftNode(draft, id);
    if (node?.type === 'layer') node.ink = ink;
  };

/** How far a node goes in the stack, among its siblings. */
export type StackMove = 'up' | 'down' | 'top' | 'bottom';

/** Moves nodes in the stack, each among its siblings; several keep their order among themselves. */
export const restack =
  (ids: readonly string[], move: StackMove): Recipe =>
  (draft) => {
    const chosen = new Set(ids);
    const lists = new Set(
      ids.flatMap((id) => {
        const found = draftFind(draft, id);
        return found ? [(found.parent ? found.parent.children : draft.layers) as Draft<ArtNode>[]] : [];
      }),
    );
    for (const list of lists) {
      const before = plain(list);
      const isChosen = (i: number): boolean => chosen.has(before[i]!.id);
      const order = before.map((_, i) => i);
      if (move === 'top') order.sort((a, b) => Number(isChosen(a)) - Number(isChosen(b)));
      else if (move === 'bottom') order.sort((a, b) => Number(isChosen(b)) - Number(isChosen(a)));
      else {
        // From the end they move towards: one goes past a neighbour only where that one does not go itself.
        const step = move === 'up' ? 1 : -1;
        for (let k = 1; k < order.length; k++) {
          const at = step > 0 ? order.length - 1 - k : k;
          const [own, next] = [order[at]!, order[at + step]!];
          if (isChosen(own) && !isChosen(next)) [order[at], order[at + step]] = [next, own];
        }
      }
      const stay = longestRising(order);
      const moved = order.flatMap((from, at) => (stay.has(at) ? [] : [{ from, at }]));
      for (const from of moved.map((m) => m.from).sort((a, b) => b - a)) list.splice(from, 1);
      for (const { from, at } of moved) list.splice(at, 0, before[from] as Draft<ArtNode>);
    }
  };

/** Adds an empty layer above the layer `aboveId`. */
export const addLayer =
  (layer: Layer, aboveId: string | null): Recipe =>
  (draft) => {
    const at = draft.layers.findIndex((l) => l.id === aboveId);
    draft.layers.splice(at < 0 ? draft.layers.length : at + 1, 0, layer as Draft<Layer>);
  };
