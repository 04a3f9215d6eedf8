import { isDraft, original, type Draft } from 'mutative';
import type { Point } from '../geometry/vector';
import { settleFlow } from '../path/flow';
import type { Path } from '../path/path';
import type { Recipe } from './change';
import type { Art, Chip, Group, Guide, Layer, PlacedPicture, Shape, ShapeNode, Sheet } from './schema';
import { findNode, nodePlaces, type Found, type TreeNode } from './tree';

// Every function here gives a recipe for `changeArt`. A recipe that names what is not there does nothing.

/**
 * Finds a node in a draft. Walking a draft makes a proxy of every node passed, so it is looked up in the document the
 * draft was made of; where the draft has changed too much since for that place to hold, it is searched.
 */
function draftFind(draft: Draft<Art>, id: string): Found | null {
  const place = isDraft(draft) ? nodePlaces(original(draft) as Art).get(id) : undefined;
  if (place) {
    let parent: Layer | Group | null = null;
    let list: readonly TreeNode[] = draft.layers as readonly TreeNode[];
    place.slice(0, -1).forEach((i) => {
      const node = list[i];
      parent = node && node.type !== 'shape' ? node : null;
      list = parent?.children ?? [];
    });
    const index = place.at(-1)!;
    const node = list[index];
    if (node?.id === id) return { node, parent, index };
  }
  return findNode(draft as Art, id);
}

const draftNode = (draft: Draft<Art>, id: string): Draft<Layer | Group | Shape> | null =>
  (draftFind(draft, id)?.node as Draft<Layer | Group | Shape> | undefined) ?? null;

const draftShape = (draft: Draft<Art>, id: string): Draft<Shape> | null => {
  const node = draftNode(draft, id);
  return node?.type === 'shape' ? node : null;
};

/** Several recipes as one. */
export const together =
  (...recipes: readonly Recipe[]): Recipe =>
  (draft) =>
    recipes.forEach((r) => r(draft));

/** Adds a shape or group on top of a layer's or group's children, or at `index` from the bottom. */
export const addNode =
  (parentId: string, node: ShapeNode, index?: number): Recipe =>
  (draft) => {
    const parent = draftNode(draft, parentId);
    if (parent && parent.type !== 'shape')
      parent.children.splice(index ?? parent.children.length, 0, node as Draft<ShapeNode>);
  };

/** Takes nodes away. The last layer stays, emptied. */
export const removeNodes =
  (ids: readonly string[]): Recipe =>
  (draft) => {
    for (const id of ids) {
      const found = draftFind(draft, id);
      if (!found) continue;
      if (found.parent) (found.parent as Draft<Group>).children.splice(found.index, 1);
      else if (draft.layers.length > 1) draft.layers.splice(found.index, 1);
      else draft.layers[0]!.children = [];
    }
  };

/** Replaces one path of a shape by the path of the same id; its flowing anchors are settled. */
export const setPath =
  (shapeId: string, path: Path): Recipe =>
  (draft) => {
    const shape = draftShape(draft, shapeId);
    const i = shape?.paths.findIndex((p) => p.id === path.id) ?? -1;
    if (shape && i >= 0) shape.paths[i] = settleFlow(path) as Draft<Path>;
  };

/** Replaces all paths of a shape; a shape left without any goes. */
export const setPaths =
  (shapeId: string, paths: readonly Path[]): Recipe =>
  (draft) => {
    if (paths.length === 0) removeNodes([shapeId])(draft);
    else {
      const shape = draftShape(draft, shapeId);
      if (shape) shape.paths = paths.map(settleFlow) as Draft<Path>[];
    }
  };

/** Takes one path out of a shape; the shape goes with its last one. */
export const removePath =
  (shapeId: string, pathId: string): Recipe =>
  (draft) => {
    const paths = draftShape(draft, shapeId)?.paths;
    if (paths) setPaths(shapeId, paths.filter((p) => p.id !== pathId) as Path[])(draft);
  };

/** What of a shape can be set without touching its lines. */
export type ShapeStyle = Partial<Pick<Shape, 'fill' | 'stroke' | 'opacity'>>;

export const styleShapes =
  (ids: readonly string[], style: ShapeStyle): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (shape) Object.assign(shape, style);
    }
  };

/** Name, show and lock of any layer, group or shape. */
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

export const restack =
  (id: string, move: StackMove): Recipe =>
  (draft) => {
    const found = draftFind(draft, id);
    if (!found) return;
    const list = (found.parent ? found.parent.children : draft.layers) as Draft<ShapeNode>[];
    const to = {
      up: Math.min(list.length - 1, found.index + 1),
      down: Math.max(0, found.index - 1),
      top: list.length - 1,
      bottom: 0,
    }[move];
    if (to === found.index) return;
    const [node] = list.splice(found.index, 1);
    list.splice(to, 0, node!);
  };

/** Adds an empty layer above the layer `aboveId`. */
export const addLayer =
  (layer: Layer, aboveId: string | null): Recipe =>
  (draft) => {
    const at = draft.layers.findIndex((l) => l.id === aboveId);
    draft.layers.splice(at < 0 ? draft.layers.length : at + 1, 0, layer as Draft<Layer>);
  };

/** Makes a shape's lines holes in another shape; the shape itself goes. */
export const makeHole =
  (holeId: string, hostId: string): Recipe =>
  (draft) => {
    const hole = draftShape(draft, holeId);
    const host = draftShape(draft, hostId);
    if (!hole || !host || holeId === hostId) return;
    const paths = hole.paths.map((p) => ({ ...p, closed: true })) as Draft<Path>[];
    removeNodes([holeId])(draft);
    host.paths.push(...paths);
  };

/** Makes a path of a shape a shape of its own, standing just above it. */
export const freeHole =
  (hostId: string, pathId: string, freed: Omit<Shape, 'paths'>): Recipe =>
  (draft) => {
    const found = draftFind(draft, hostId);
    const host = draftShape(draft, hostId);
    if (!found?.parent || !host || host.paths.length < 2) return;
    const i = host.paths.findIndex((p) => p.id === pathId);
    if (i < 0) return;
    const [path] = host.paths.splice(i, 1);
    addNode(found.parent.id, { ...freed, paths: [path as Path] }, found.index + 1)(draft);
  };

export const addPicture =
  (picture: PlacedPicture): Recipe =>
  (draft) => {
    draft.pictures.push(picture as Draft<PlacedPicture>);
    draft.traced ??= picture.id;
  };

export const setPicture =
  (id: string, values: Partial<Omit<PlacedPicture, 'id'>>): Recipe =>
  (draft) => {
    const picture = draft.pictures.find((p) => p.id === id);
    if (picture) Object.assign(picture, values);
  };

export const removePicture =
  (id: string): Recipe =>
  (draft) => {
    draft.pictures = draft.pictures.filter((p) => p.id !== id);
    if (draft.traced === id) draft.traced = draft.pictures[0]?.id ?? null;
  };

export const traceFrom =
  (id: string): Recipe =>
  (draft) => {
    if (draft.pictures.some((p) => p.id === id)) draft.traced = id;
  };

export const setSheet =
  (values: Partial<Sheet>): Recipe =>
  (draft) => {
    Object.assign(draft.sheet, values);
  };

export const addChip =
  (chip: Chip): Recipe =>
  (draft) => {
    draft.chips.push({ ...chip });
  };

export const removeChip =
  (id: string): Recipe =>
  (draft) => {
    draft.chips = draft.chips.filter((c) => c.id !== id);
  };

/** Moves every shape and picture by a way in sheet pixels. */
export const shiftAll =
  (by: Point): Recipe =>
  (draft) => {
    const shift = (nodes: Draft<ShapeNode>[]): void => {
      for (const node of nodes)
        if (node.type === 'group') shift(node.children);
        else
          for (const path of node.paths as Draft<Path>[])
            for (const anchor of path.anchors) {
              anchor.x += by.x;
              anchor.y += by.y;
            }
    };
    for (const layer of draft.layers) shift(layer.children);
    for (const g of draft.guides.lines) {
      g.x += by.x;
      g.y += by.y;
    }
    for (const p of draft.pictures) {
      p.placement[4] += by.x;
      p.placement[5] += by.y;
    }
  };

export const addGuide =
  (guide: Guide): Recipe =>
  (draft) => {
    draft.guides.lines.push({ ...guide });
  };

export const setGuide =
  (id: string, values: Partial<Omit<Guide, 'id'>>): Recipe =>
  (draft) => {
    const guide = draft.guides.lines.find((g) => g.id === id);
    if (guide) Object.assign(guide, values);
  };

/** Takes guides away; all of them without a name. */
export const removeGuides =
  (id?: string): Recipe =>
  (draft) => {
    draft.guides.lines = draft.guides.lines.filter((g) => id !== undefined && g.id !== id);
  };

export const lockGuides =
  (locked: boolean): Recipe =>
  (draft) => {
    draft.guides.locked = locked;
  };
