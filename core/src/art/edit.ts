import { current, isDraft, original, type Draft } from 'mutative';
import type { Point } from '../geometry/vector';
import { compose, IDENTITY, invert, type Affine } from '../geometry/affine';
import { mapAxis, settleAbout, type Axis } from '../path/axis';
import { settleFlow } from '../path/flow';
import { keepForm } from '../path/form';
import { keepsShape, transformPath, type Path } from '../path/path';
import {
  carryShared,
  closeAlong,
  holdShared,
  keyed,
  partAnchors,
  rebaseShared,
  shares,
  spotOf,
  type Borders,
} from '../path/share';
import { artOfDraft, type Recipe } from './change';
import type { Art, Chip, Grid, Group, Guide, Layer, PlacedPicture, Shape, ShapeNode, Sheet } from './schema';
import { findNode, nodePlaces, shapeIndex, shapesOf, wholePaths, type Found, type TreeNode } from './tree';

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

/** Takes nodes out of the tree; what they share with others is looked after by the caller. */
function detachNodes(draft: Draft<Art>, ids: readonly string[]): void {
  for (const id of ids) {
    const found = draftFind(draft, id);
    if (!found) continue;
    if (found.parent) (found.parent as Draft<Group>).children.splice(found.index, 1);
    else if (draft.layers.length > 1) draft.layers.splice(found.index, 1);
    else draft.layers[0]!.children = [];
  }
}

const keysIn = (paths: readonly Path[]): string[] =>
  paths.flatMap((p) => p.anchors.flatMap(({ shared }) => shared ?? []));

const pathsIn = (node: TreeNode): readonly Path[] =>
  node.type === 'shape' ? node.paths : node.children.flatMap(pathsIn);

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

const plain = <T extends object>(value: T): T => (isDraft(value) ? current(value) : value);

/** What follows from a path's anchors brought up to date: flow, the other parts about an axis, its form. */
function settled(path: Path, axis: Axis | undefined): Path {
  const held = holdShared(path);
  return keepForm(axis ? settleAbout(held, axis) : settleFlow(held));
}

interface Sharer {
  readonly shape: string;
  readonly path: string;
}
const sharers = new WeakMap<Art['layers'], ReadonlyMap<string, readonly Sharer[]>>();

/** Which paths hold each key of shared anchors. */
function sharerIndex(art: Art): ReadonlyMap<string, readonly Sharer[]> {
  let known = sharers.get(art.layers);
  if (!known) {
    const map = new Map<string, Sharer[]>();
    for (const { shape } of shapesOf(art))
      for (const path of shape.paths)
        for (const { shared } of path.anchors) {
          if (shared === undefined) continue;
          const list = map.get(shared) ?? [];
          if (list.length === 0) map.set(shared, list);
          if (!list.some((s) => s.path === path.id)) list.push({ shape: shape.id, path: path.id });
        }
    sharers.set(art.layers, (known = map));
  }
  return known;
}

/**
 * Takes keys off anchors that are left alone with them: a key that nobody else has would keep them from flowing and from
 * being thinned out for good.
 *
 * @param also a shape whose paths may have come into their keys just now
 */
function dropLoneKeys(draft: Draft<Art>, keys: readonly string[], also?: Draft<Shape>): void {
  if (keys.length === 0 || !isDraft(draft)) return;
  const index = sharerIndex(original(draft) as Art);
  for (const key of new Set(keys)) {
    const holders = new Map<string, { shape: Draft<Shape>; k: number }>();
    const look = (shape: Draft<Shape> | null | undefined): void =>
      shape?.paths.forEach((p, k) => {
        if (p.anchors.some((a) => a.shared === key)) holders.set(p.id, { shape, k });
      });
    for (const { shape } of index.get(key) ?? []) look(draftShape(draft, shape));
    look(also);
    const [lone] = holders.values();
    if (!lone || holders.size > 1) continue;
    const path = plain(lone.shape.paths[lone.k] as Path);
    const own = path.anchors.flatMap((a, i) => (a.shared === key ? [i] : []));
    lone.shape.paths[lone.k] = partAnchors(path, own) as Draft<Path>;
  }
}

/** Settles a path that is about to be put into a shape, and carries what it shares into its neighbours. */
function carried(draft: Draft<Art>, shape: Draft<Shape>, path: Path): Path {
  const axis = shape.axis && plain(shape.axis as Axis);
  let next = settled(path, axis);
  if (!isDraft(draft)) return next;
  const art = original(draft) as Art;
  const was = shapeIndex(art)
    .get(shape.id)
    ?.paths.find((p) => p.id === path.id);
  const held = shape.paths.find((p) => p.id === path.id);
  if (!was || !held || !shares(was)) return next;
  const now = plain(held as Path);
  next = rebaseShared(was, now, next);
  const seen = new Set([path.id]);
  for (const { shared } of was.anchors)
    for (const sharer of (shared !== undefined && sharerIndex(art).get(shared)) || []) {
      if (seen.has(sharer.path)) continue;
      seen.add(sharer.path);
      const other = draftShape(draft, sharer.shape);
      const k = other?.paths.findIndex((p) => p.id === sharer.path) ?? -1;
      if (!other || k < 0) continue;
      const theirs = plain(other.paths[k] as Path);
      const both = carryShared(now, next, theirs);
      next = both.after;
      if (both.other !== theirs)
        other.paths[k] = settled(both.other, other.axis && plain(other.axis as Axis)) as Draft<Path>;
    }
  return next;
}

/**
 * Replaces one path of a shape by the path of the same id. What follows from it is brought up to date: its flowing
 * anchors, its form, the anchors that neighbours share with it.
 */
export const setPath =
  (shapeId: string, path: Path): Recipe =>
  (draft) => {
    const shape = draftShape(draft, shapeId);
    const i = shape?.paths.findIndex((p) => p.id === path.id) ?? -1;
    if (!shape || i < 0) return;
    const before = keysIn([plain(shape.paths[i] as Path)]);
    // Frozen, it is taken as it is: nothing in it is looked through for drafts.
    const next = Object.freeze(carried(draft, shape, path));
    shape.paths[i] = next as Draft<Path>;
    if (before.length > 0) dropLoneKeys(draft, lostKeys(before, [next]), shape);
  };

const lostKeys = (before: readonly string[], after: readonly Path[]): string[] => {
  const kept = new Set(keysIn(after));
  return before.filter((key) => !kept.has(key));
};

/** Replaces all paths of a shape; a shape left without any goes. */
export const setPaths =
  (shapeId: string, paths: readonly Path[]): Recipe =>
  (draft) => {
    if (paths.length === 0) removeNodes([shapeId])(draft);
    else {
      const shape = draftShape(draft, shapeId);
      if (!shape) return;
      const before = keysIn(plain(shape.paths as Path[]));
      const next = paths.map((p) => carried(draft, shape, p));
      shape.paths = next as Draft<Path>[];
      if (before.length > 0) dropLoneKeys(draft, lostKeys(before, next), shape);
    }
  };

/** Takes one path out of a shape; the shape goes with its last one. */
export const removePath =
  (shapeId: string, pathId: string): Recipe =>
  (draft) => {
    const paths = draftShape(draft, shapeId)?.paths;
    if (paths) setPaths(shapeId, paths.filter((p) => p.id !== pathId) as Path[])(draft);
  };

/**
 * Maps a shape with its axis. A map that stretches one way makes one whole of its parts: they would no longer follow
 * from one another.
 */
export const mapShape = (shape: Shape, map: Affine): Recipe =>
  together(
    mapLines(shape, map),
    shape.place ? setPlace(shape.id, compose(shape.place, invert(map) ?? IDENTITY)) : () => {},
  );

/** The same where the picture goes along: what is measured where on it stays so. */
export const mapWithPicture = (shape: Shape, map: Affine): Recipe =>
  together(
    mapLines(shape, map),
    shape.place ? setPlace(shape.id, compose(map, compose(shape.place, invert(map) ?? IDENTITY))) : () => {},
  );

/** Remembers where on the picture a shape is measured, or forgets it: null measures it where it lies. */
export const setPlace =
  (id: string, place: Affine | null): Recipe =>
  (draft) => {
    const shape = draftShape(draft, id);
    if (!shape) return;
    if (place) shape.place = [...place];
    else delete shape.place;
  };

/** Marks shapes as leaving the picture on purpose, or takes the mark off. */
export const setMeant =
  (ids: readonly string[], on: boolean): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape) continue;
      if (on) shape.meant = true;
      else delete shape.meant;
    }
  };

const mapLines = (shape: Shape, map: Affine): Recipe =>
  shape.axis && !keepsShape(map)
    ? together(
        releaseAxis([shape.id]),
        setPaths(
          shape.id,
          wholePaths(shape).map((p) => transformPath(p, map)),
        ),
      )
    : together(
        setAxis([shape.id], shape.axis ? mapAxis(shape.axis, map) : null),
        setPaths(
          shape.id,
          shape.paths.map((p) => transformPath(p, map)),
        ),
      );

/** Gives shapes an axis about which they are drawn, or takes it off; their lines stay as they were drawn. */
export const setAxis =
  (ids: readonly string[], axis: Axis | null): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape || (!axis && !shape.axis)) continue;
      if (axis) shape.axis = { ...axis };
      else delete shape.axis;
      shape.paths = shape.paths.map((p) => carried(draft, shape, plain(p as Path))) as Draft<Path>[];
    }
  };

/**
 * All parts of a shape about its axis as paths of their own: each with an id that nothing else has. Only what was drawn
 * shares with neighbours; the other parts lie elsewhere.
 */
function releasedPaths(art: Art, shape: Shape): Path[] {
  const own = new Set(shape.paths.map((p) => p.id));
  const taken = new Set(shapesOf(art).flatMap((s) => s.shape.paths.map((p) => p.id)));
  const drawn = new Map(
    shape.paths.flatMap((p) => p.anchors.flatMap((a) => (a.shared ? [[a.shared, a] as const] : []))),
  );
  return wholePaths(shape).map((path) => {
    let { id } = path;
    for (let n = 2; taken.has(id) && !own.has(id); n++) id = `${path.id.slice(0, 56)}-${n}`;
    own.delete(id);
    taken.add(id);
    const elsewhere = path.anchors.flatMap((a, i) => {
      const at = a.shared && drawn.get(a.shared);
      return at && (at.x !== a.x || at.y !== a.y) ? [i] : [];
    });
    return { ...partAnchors(path, elsewhere), id };
  });
}

/** Makes one whole of what was drawn about an axis and its other parts. */
export const releaseAxis =
  (ids: readonly string[]): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape?.axis) continue;
      shape.paths = releasedPaths(artOfDraft(draft), plain(shape as Shape)) as Draft<Path>[];
      delete shape.axis;
    }
  };

/** The axis about which new paths are drawn; null for none. */
export const setDrawingAxis =
  (axis: Axis | null): Recipe =>
  (draft) => {
    draft.axis = axis && { ...axis };
  };

/**
 * Closes a path along a border of its neighbours. All anchors on the way get one key in every outline that runs through
 * them, so that they move together from now on.
 *
 * @param path open, its last anchor where the way begins, its first where the way ends
 */
export const shareBorder =
  (shapeId: string, path: Path, borders: Borders, way: number, newKey: () => string): Recipe =>
  (draft) => {
    const border = borders.ways[way];
    if (!border) return;
    for (const { shape, path: grown } of borders.added) setPath(shape, grown)(draft);
    const spots = new Set(border.anchors.map(spotOf));
    const keys = new Map<string, string>();
    const places = shapesOf(plain(draft as Art)).flatMap(({ shape }) =>
      shape.id === shapeId
        ? []
        : shape.paths.flatMap((p, k) =>
            p.anchors.some((a) => spots.has(spotOf(a))) ? [{ shape: shape.id, k, p }] : [],
          ),
    );
    for (const { p } of places)
      for (const a of p.anchors) if (a.shared && spots.has(spotOf(a))) keys.set(spotOf(a), a.shared);
    for (const spot of spots) if (!keys.has(spot)) keys.set(spot, newKey());
    for (const { shape, k, p } of places) draftShape(draft, shape)!.paths[k] = keyed(p, keys) as Draft<Path>;
    setPath(shapeId, keyed(closeAlong(path, border), keys))(draft);
  };

/** Parts anchors from their neighbours': they no longer move together. A neighbour left alone with a key loses it too. */
export const partShared =
  (refs: readonly { readonly shape: string; readonly path: string; readonly index: number }[]): Recipe =>
  (draft) => {
    const art = plain(draft as Art);
    const part = (shapeId: string, pathId: string, indices: readonly number[]): void => {
      const shape = draftShape(draft, shapeId);
      const k = shape?.paths.findIndex((p) => p.id === pathId) ?? -1;
      if (shape && k >= 0)
        shape.paths[k] = partAnchors(plain(shape.paths[k] as Path), indices) as Draft<Path>;
    };
    const holders = new Map<string, { shape: string; path: string; index: number }[]>();
    for (const { shape } of shapesOf(art))
      for (const path of shape.paths)
        path.anchors.forEach(({ shared }, index) => {
          if (shared !== undefined)
            holders.set(shared, [...(holders.get(shared) ?? []), { shape: shape.id, path: path.id, index }]);
        });
    for (const [, all] of holders) {
      const kept = all.filter((h) => !refs.some((r) => r.path === h.path && r.index === h.index));
      if (kept.length === all.length) continue;
      for (const h of kept.length > 1 ? all.filter((h) => !kept.includes(h)) : all)
        part(h.shape, h.path, [h.index]);
    }
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

/** Says what shapes' drift follows; null leaves it to be found. */
export const setFollow =
  (ids: readonly string[], follow: 'edge' | 'middle' | null): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape) continue;
      if (follow) shape.follow = follow;
      else delete shape.follow;
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

/** Moves nodes in the stack, each among its siblings; several keep their order among themselves. */
export const restack =
  (ids: readonly string[], move: StackMove): Recipe =>
  (draft) => {
    const chosen = new Set(ids);
    const lists = new Set(
      ids.flatMap((id) => {
        const found = draftFind(draft, id);
        return found ? [(found.parent ? found.parent.children : draft.layers) as Draft<ShapeNode>[]] : [];
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
      order.forEach((from, at) => {
        if (list[at] !== before[from]) list[at] = before[from]!;
      });
    }
  };

/** Adds an empty layer above the layer `aboveId`. */
export const addLayer =
  (layer: Layer, aboveId: string | null): Recipe =>
  (draft) => {
    const at = draft.layers.findIndex((l) => l.id === aboveId);
    draft.layers.splice(at < 0 ? draft.layers.length : at + 1, 0, layer as Draft<Layer>);
  };

/** Makes a shape's lines holes in another shape; the shape itself goes. Two about one axis stay so; else both are made whole. */
export const makeHole =
  (holeId: string, hostId: string): Recipe =>
  (draft) => {
    const hole = draftShape(draft, holeId);
    const host = draftShape(draft, hostId);
    if (!hole || !host || holeId === hostId) return;
    const [one, other] = [plain(hole as Shape), plain(host as Shape)];
    const alike = JSON.stringify(one.axis) === JSON.stringify(other.axis);
    const paths = (alike ? one.paths : wholePaths(one)).map((p) => ({ ...p, closed: true })) as Draft<Path>[];
    if (!alike) releaseAxis([hostId])(draft);
    detachNodes(draft, [holeId]);
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
    const move = (p: { x: number; y: number }): void => {
      p.x += by.x;
      p.y += by.y;
    };
    const shift = (nodes: Draft<ShapeNode>[]): void => {
      for (const node of nodes)
        if (node.type === 'group') shift(node.children);
        else {
          for (const path of node.paths as Draft<Path>[]) {
            path.anchors.forEach(move);
            if (path.form) move(path.form);
          }
          if (node.axis) move(node.axis);
          // What is measured where on the picture stays so: both go along.
          if (node.place) {
            const [a, b, c, d] = node.place;
            node.place[4] += by.x - a * by.x - c * by.y;
            node.place[5] += by.y - b * by.x - d * by.y;
          }
        }
    };
    if (draft.axis) move(draft.axis);
    for (const layer of draft.layers) shift(layer.children);
    draft.guides.lines.forEach(move);
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

export const setGrid =
  (values: Partial<Grid>): Recipe =>
  (draft) => {
    Object.assign(draft.grid, values);
  };
