import { boxOfPoints, EMPTY_BOX, uniteBoxes, growBox, type Box } from '../geometry/bounds';
import { insideEvenOdd } from '../geometry/flatten';
import { flattenPath, pathBounds, type Path } from '../path/path';
import { spreadPath, type Axis } from '../path/axis';
import type { Art, Group, Layer, PlacedPicture, Shape, ShapeNode } from './schema';

export type TreeNode = Layer | Group | Shape;

/** A shape with what it inherits from the groups and the layer it stands in. */
export interface PlacedShape {
  readonly shape: Shape;
  readonly layer: Layer;
  readonly shown: boolean;
  readonly locked: boolean;
}

function walk(
  nodes: readonly ShapeNode[],
  layer: Layer,
  shown: boolean,
  locked: boolean,
  out: PlacedShape[],
): void {
  for (const node of nodes) {
    const inSight = shown && node.shown;
    const shut = locked || node.locked;
    if (node.type === 'group') walk(node.children, layer, inSight, shut, out);
    else out.push({ shape: node, layer, shown: inSight, locked: shut });
  }
}

const placed = new WeakMap<Art['layers'], readonly PlacedShape[]>();

/** All shapes, bottom first. */
export function shapesOf(art: Art): readonly PlacedShape[] {
  let list = placed.get(art.layers);
  if (!list) {
    const out: PlacedShape[] = [];
    for (const layer of art.layers) walk(layer.children, layer, layer.shown, layer.locked, out);
    placed.set(art.layers, (list = out));
  }
  return list;
}

const indices = new WeakMap<readonly PlacedShape[], ReadonlyMap<string, Shape>>();

/** All shapes by their ids. */
export function shapeIndex(art: Art): ReadonlyMap<string, Shape> {
  const list = shapesOf(art);
  let index = indices.get(list);
  if (!index) indices.set(list, (index = new Map(list.map(({ shape }) => [shape.id, shape]))));
  return index;
}

/** Where a node stands: its parent's list and its place in it. */
export interface Found {
  readonly node: TreeNode;
  readonly parent: Layer | Group | null;
  readonly index: number;
}

/** Finds a layer, group or shape by id; null when there is none. */
export function findNode(art: Art, id: string): Found | null {
  const search = (nodes: readonly ShapeNode[], parent: Layer | Group): Found | null => {
    for (let index = 0; index < nodes.length; index++) {
      const node = nodes[index]!;
      if (node.id === id) return { node, parent, index };
      const deeper = node.type === 'group' ? search(node.children, node) : null;
      if (deeper) return deeper;
    }
    return null;
  };
  for (let index = 0; index < art.layers.length; index++) {
    const layer = art.layers[index]!;
    if (layer.id === id) return { node: layer, parent: null, index };
    const found = search(layer.children, layer);
    if (found) return found;
  }
  return null;
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
        if (node.type !== 'shape') note(node.children, place);
      });
    note(art.layers, []);
    places.set(art.layers, (known = map));
  }
  return known;
}

/** A shape by id, or null. */
export function findShape(art: Art, id: string): Shape | null {
  const node = findNode(art, id)?.node;
  return node?.type === 'shape' ? node : null;
}

/** The layer a node stands in (itself for a layer), or null. */
export function layerOf(art: Art, id: string): Layer | null {
  const holds = (nodes: readonly ShapeNode[]): boolean =>
    nodes.some((n) => n.id === id || (n.type === 'group' && holds(n.children)));
  return art.layers.find((l) => l.id === id || holds(l.children)) ?? null;
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

/** Bounds of the shape's lines, half the stroke's width added when asked for what is painted. */
export function shapeBounds(shape: Shape, painted = false): Box {
  const box = wholePaths(shape).map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
  return painted && shape.stroke ? growBox(box, shape.stroke.width / 2) : box;
}

/** Bounds of everything shown that paints; `EMPTY_BOX` for nothing. */
export const drawingBounds = (art: Art): Box =>
  shapesOf(art)
    .filter(({ shape, shown }) => shown && (shape.fill || shape.stroke))
    .map(({ shape }) => shapeBounds(shape, true))
    .reduce(uniteBoxes, EMPTY_BOX);

const polygons = new WeakMap<Path, ReturnType<typeof flattenPath>>();

/** The path as a polygon fine enough to decide what is inside it: a two-thousandth of its size. */
export function polygonOf(path: Path): ReturnType<typeof flattenPath> {
  let polygon = polygons.get(path);
  if (!polygon) {
    const box = boxOfPoints(path.anchors);
    const size = Math.max(box.x1 - box.x0, box.y1 - box.y0, 1e-3);
    polygons.set(path, (polygon = flattenPath(path, size / 2000)));
  }
  return polygon;
}

/** Whether a point lies in the shape's inside (even-odd; open paths are taken as closed, as a fill does). */
export const shapeHas = (shape: Shape, p: { x: number; y: number }): boolean =>
  insideEvenOdd(wholePaths(shape).map(polygonOf), p);

/** Whether all of `inner` lies inside `outer`'s line (both taken as closed). */
export const pathInside = (inner: Path, outer: Path): boolean => {
  const around = polygonOf(outer);
  return inner.anchors.length > 0 && polygonOf(inner).every((p) => insideEvenOdd([around], p));
};
