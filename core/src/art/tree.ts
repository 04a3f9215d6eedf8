import type { Path } from '../path/path';
import { spreadPath, type Axis } from '../path/axis';
import type { Art, ArtNode, Group, Layer, PictureNode, PlacedPicture, Shape } from './schema';

/** What the tree of a drawing is made of. */
export type TreeNode = Layer | ArtNode;
/** What others stand in. */
export type ParentNode = Layer | Group;

/** Does for a node what its type asks for; a type left out does not compile. */
export const byType = <T>(
  node: TreeNode,
  cases: {
    readonly layer: (layer: Layer) => T;
    readonly group: (group: Group) => T;
    readonly shape: (shape: Shape) => T;
    readonly picture: (picture: PictureNode) => T;
  },
): T => (cases[node.type] as (node: TreeNode) => T)(node);

export const isParent = (node: TreeNode): node is ParentNode => 'children' in node;

const NONE: readonly ArtNode[] = [];
/** What stands in a node, bottom first; nothing in a shape or a picture. */
export const childrenOf = (node: TreeNode): readonly ArtNode[] => (isParent(node) ? node.children : NONE);

/** The shapes of a node: itself, or all that stand in it at any depth, bottom first. */
export const shapesIn = (node: TreeNode): readonly Shape[] =>
  node.type === 'shape' ? [node] : childrenOf(node).flatMap(shapesIn);

/** Names of all layers, groups, shapes and pictures of the tree. */
export function nodeNames(art: Pick<Art, 'layers'>): Set<string> {
  const namesIn = (node: TreeNode): string[] => [node.name, ...childrenOf(node).flatMap(namesIn)];
  return new Set(art.layers.flatMap(namesIn));
}

/** A shape with what it inherits from the groups and the layer it stands in. */
export interface PlacedShape {
  readonly shape: Shape;
  readonly layer: Layer;
  readonly shown: boolean;
  readonly locked: boolean;
  /** It is measured by the picture: neither meant so, nor left out of drift by itself or what it stands in. */
  readonly measured: boolean;
}

type Inherited = Omit<PlacedShape, 'shape'>;

function walk(nodes: readonly ArtNode[], { layer, ...above }: Inherited, out: PlacedShape[]): void {
  for (const node of nodes) {
    const shown = above.shown && node.shown;
    const locked = above.locked || node.locked;
    if (node.type === 'picture') continue;
    const measured = above.measured && !node.unmeasured;
    if (node.type === 'shape')
      out.push({ shape: node, layer, shown, locked, measured: measured && !node.meant });
    else walk(node.children, { layer, shown, locked, measured }, out);
  }
}

const placed = new WeakMap<Art['layers'], readonly PlacedShape[]>();

/** All shapes, bottom first. */
export function shapesOf(art: Art): readonly PlacedShape[] {
  let list = placed.get(art.layers);
  if (!list) {
    const out: PlacedShape[] = [];
    for (const layer of art.layers)
      walk(
        layer.children,
        { layer, shown: layer.shown, locked: layer.locked, measured: !layer.unmeasured },
        out,
      );
    placed.set(art.layers, (list = out));
  }
  return list;
}

const open = new WeakMap<readonly PlacedShape[], readonly Shape[]>();

/** Shapes in sight that are not locked, bottom first. */
export function openShapes(art: Art): readonly Shape[] {
  const list = shapesOf(art);
  let shapes = open.get(list);
  if (!shapes) open.set(list, (shapes = list.filter((p) => p.shown && !p.locked).map((p) => p.shape)));
  return shapes;
}

// Where shapes stood in the list they were last looked up in. A change leaves nearly all where they were, so this serves
// the next document too: a place counts only when the shape asked for stands there.
let lastPlaces: { list: readonly PlacedShape[]; of: ReadonlyMap<string, number> } | null = null;

/** A shape by its id, with what it inherits; null when there is none. */
export function placedById(art: Art, id: string): PlacedShape | null {
  const list = shapesOf(art);
  const standsAt = (): PlacedShape | null => {
    const place = lastPlaces?.of.get(id);
    const found = place === undefined ? null : list[place];
    return found?.shape.id === id ? found : null;
  };
  const found = standsAt();
  if (found || lastPlaces?.list === list) return found;
  lastPlaces = { list, of: new Map(list.map((p, i) => [p.shape.id, i])) };
  return standsAt();
}
/** A shape by its id; null when there is none. */
export const shapeById = (art: Art, id: string): Shape | null => placedById(art, id)?.shape ?? null;

/** Where a node stands: its parent, null for a layer, and its place in the parent's list. */
export interface Found {
  readonly node: TreeNode;
  readonly parent: ParentNode | null;
  readonly index: number;
}

const places = new WeakMap<Art['layers'], ReadonlyMap<string, readonly number[]>>();

/** Where each node stands: its layer's index, then the index in each list of children down to it. */
export function nodePlaces(art: Art): ReadonlyMap<string, readonly number[]> {
  let known = places.get(art.layers);
  if (!known) {
    const map = new Map<string, readonly number[]>();
    const note = (nodes: readonly TreeNode[], above: readonly number[]): void =>
      nodes.forEach((node, i) => {
        const place = [...above, i];
        map.set(node.id, place);
        note(childrenOf(node), place);
      });
    note(art.layers, []);
    places.set(art.layers, (known = map));
  }
  return known;
}

/**
 * The way from a layer down to a node, the node last; empty where there is no such node. Searched, unless the places of
 * all nodes are known already: to make them costs more than one search.
 */
function wayTo(art: Art, id: string): Found[] {
  const way: Found[] = [];
  const place = places.get(art.layers)?.get(id);
  if (place) {
    let list: readonly TreeNode[] = art.layers;
    let parent: ParentNode | null = null;
    for (const index of place) {
      const node: TreeNode = list[index]!;
      way.push({ node, parent, index });
      list = childrenOf(node);
      parent = isParent(node) ? node : null;
    }
    return way;
  }
  if (places.has(art.layers)) return way;
  const search = (nodes: readonly TreeNode[], parent: ParentNode | null): boolean => {
    for (let index = 0; index < nodes.length; index++) {
      const node = nodes[index]!;
      if (node.id === id || (isParent(node) && search(node.children, node))) {
        way.push({ node, parent, index });
        return true;
      }
    }
    return false;
  };
  search(art.layers, null);
  return way.reverse();
}

/** Finds a node by id; null when there is none. */
export const findNode = (art: Art, id: string): Found | null => wayTo(art, id).at(-1) ?? null;

/** Where a node stands, as `nodePlaces` says it; null when there is none. */
export function placeOf(art: Art, id: string): readonly number[] | null {
  const way = wayTo(art, id);
  return way.length > 0 ? way.map(({ index }) => index) : null;
}

/** Ids looked up from which on it is cheaper to know the places of all nodes. */
const MANY = 8;

/** Finds nodes by their ids, in their order; what is not there is left out. */
export function nodesOf(art: Art, ids: readonly string[]): TreeNode[] {
  if (ids.length >= MANY) nodePlaces(art);
  return ids.flatMap((id) => findNode(art, id)?.node ?? []);
}

/** What a node stands in, nearest first, its layer last; nothing for a layer and for what is not there. */
export const ancestorsOf = (art: Art, id: string): readonly ParentNode[] =>
  wayTo(art, id)
    .slice(0, -1)
    .map(({ node }) => node as ParentNode)
    .reverse();

/** What a node stands in; null for a layer and for what is not there. */
export const parentOf = (art: Art, id: string): ParentNode | null => findNode(art, id)?.parent ?? null;

/** The layer a node stands in (itself for a layer), or null. */
export const layerOf = (art: Art, id: string): Layer | null =>
  (wayTo(art, id)[0]?.node as Layer | undefined) ?? null;

/** Whether a place in the tree is painted before another; what stands in a node comes after it. */
function comparePlaces(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return a.length - b.length;
}

/** Ids in the order in which their nodes are painted, bottom first, each once; what is not there is left out. */
export function inPaintOrder(art: Art, ids: readonly string[]): string[] {
  const all = nodePlaces(art);
  return [...new Set(ids)]
    .flatMap((id) => {
      const place = all.get(id);
      return place ? [{ id, place }] : [];
    })
    .sort((a, b) => comparePlaces(a.place, b.place))
    .map(({ id }) => id);
}

/** The ids without those whose nodes stand in others of them. */
export function outermost(art: Art, ids: readonly string[]): string[] {
  const chosen = new Set(ids);
  if (ids.length >= MANY) nodePlaces(art);
  return ids.filter((id) => !ancestorsOf(art, id).some((above) => chosen.has(above.id)));
}

/** A shape by id, or null. */
export function findShape(art: Art, id: string): Shape | null {
  const node = findNode(art, id)?.node;
  return node?.type === 'shape' ? node : null;
}

/** The picture being traced, or null. */
export const tracedPicture = (art: Art): PlacedPicture | null =>
  art.pictures.find((p) => p.id === art.traced) ?? null;

export const anchorCount = (shape: Shape): number =>
  shape.paths.reduce((sum, p) => sum + p.anchors.length, 0);

const wholes = new WeakMap<readonly Path[], { axis: Axis; paths: readonly Path[] }>();

/** All lines of a shape: what was drawn, and with an axis the other parts too. */
export function wholePaths(shape: Pick<Shape, 'paths' | 'axis'>): readonly Path[] {
  const { paths, axis } = shape;
  if (!axis) return paths;
  let known = wholes.get(paths);
  if (known?.axis !== axis)
    wholes.set(paths, (known = { axis, paths: paths.flatMap((p) => spreadPath(p, axis)) }));
  return known.paths;
}

/**
 * The nodes beside some: all that neither are they, nor hold them, nor stand in them, each as far out as it can be said.
 * To hide or lock just these leaves the others as they are.
 */
export function nodesBeside(art: Art, ids: readonly string[]): TreeNode[] {
  const kept = new Set(ids);
  const holds = new Set(ids.flatMap((id) => ancestorsOf(art, id).map((above) => above.id)));
  const walk = (nodes: readonly TreeNode[]): TreeNode[] =>
    nodes.flatMap((node) => (kept.has(node.id) ? [] : holds.has(node.id) ? walk(childrenOf(node)) : [node]));
  return walk(art.layers);
}
