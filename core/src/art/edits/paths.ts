import type { Draft } from 'mutative';
import { IDENTITY, compose, invert, type Affine } from '../../geometry/affine';
import { mapAxis } from '../../path/axis';
import { keepsShape, transformPath } from '../../path/path-map';
import type { Path } from '../../path/path';
import type { Recipe } from '../change';
import { changedPaints, mapPaint } from '../paint';
import type { Lettering, Poured, Shape } from '../schema';
import { wholePaths } from '../tree';
import { releaseAxis, setAxis } from './axes';
import { cloned, draftFind, draftShape, plain } from './draft';
import { setPlace } from './measuring';
import { addNode, detachNodes, removeNodes, together } from './nodes';
import { repaintShape } from './style';
import { dropLoneKeys, keysIn, lostKeys, propagateShared } from './shared';

// The lines of shapes.

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
    if (shape.lettering) delete shape.lettering;
    const before = keysIn([plain(shape.paths[i] as Path)]);
    // Frozen, it is taken as it is: nothing in it is looked through for drafts.
    const next = Object.freeze(propagateShared(draft, shape, path));
    shape.paths[i] = next as Draft<Path>;
    if (before.length > 0) dropLoneKeys(draft, lostKeys(before, [next]), shape);
  };

/** Replaces all paths of a shape; a shape left without any goes. */
export const setPaths =
  (shapeId: string, paths: readonly Path[]): Recipe =>
  (draft) => {
    if (paths.length === 0) removeNodes([shapeId])(draft);
    else {
      const shape = draftShape(draft, shapeId);
      if (!shape) return;
      if (shape.lettering) delete shape.lettering;
      const before = keysIn(plain(shape.paths as Path[]));
      const next = paths.map((p) => propagateShared(draft, shape, p));
      shape.paths = next as Draft<Path>[];
      if (before.length > 0) dropLoneKeys(draft, lostKeys(before, next), shape);
    }
  };

/** Has a shape keep up with the lines it was poured between, or stand by itself. */
export const setPoured =
  (shapeId: string, poured: Poured | null): Recipe =>
  (draft) => {
    const shape = draftShape(draft, shapeId);
    if (!shape) return;
    if (poured) shape.poured = { ...poured, between: [...poured.between] };
    else delete shape.poured;
  };

/** Takes one path out of a shape; the shape goes with its last one. */
export const removePath =
  (shapeId: string, pathId: string): Recipe =>
  (draft) => {
    const paths = draftShape(draft, shapeId)?.paths;
    if (paths) setPaths(shapeId, paths.filter((p) => p.id !== pathId) as Path[])(draft);
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

/** Text goes along with its outlines, and stays text. */
const mapLettering =
  ({ id, lettering }: Shape, map: Affine): Recipe =>
  (draft) => {
    const shape = draftShape(draft, id);
    if (shape && lettering)
      shape.lettering = cloned({
        ...lettering,
        placement: compose(map, lettering.placement),
      }) as Draft<Lettering>;
  };

/**
 * Makes shapes lines of text: outlines that `letterPaths` gave, and what they were made of. Whatever else changes the
 * outlines of such a shape makes it paths like any other.
 */
export const setLettering =
  (shapeId: string, lettering: Lettering, paths: readonly Path[]): Recipe =>
  (draft) => {
    setPaths(shapeId, paths)(draft);
    const shape = draftShape(draft, shapeId);
    if (shape) shape.lettering = cloned(lettering) as Draft<Lettering>;
  };

/** Makes lettering paths like any other, where they are. */
export const letPathsBe =
  (ids: readonly string[]): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (shape?.lettering) delete shape.lettering;
    }
  };

/** Gradients go along with their shape; the width of a stroke stays. */
function mapPaints(shape: Shape, map: Affine): Recipe {
  const paints = changedPaints(shape, (paint) => mapPaint(paint, map));
  return Object.keys(paints).length > 0 ? repaintShape(shape.id, paints) : () => {};
}

/**
 * Maps a shape with its axis. A map that stretches one way makes one whole of its parts: they would no longer follow
 * from one another.
 */
export const mapShape = (shape: Shape, map: Affine): Recipe =>
  together(
    mapLines(shape, map),
    mapLettering(shape, map),
    mapPaints(shape, map),
    shape.place ? setPlace(shape.id, compose(shape.place, invert(map) ?? IDENTITY)) : () => {},
  );

/** The same where the picture goes along: what is measured where on it stays so. */
export const mapWithPicture = (shape: Shape, map: Affine): Recipe =>
  together(
    mapLines(shape, map),
    mapLettering(shape, map),
    mapPaints(shape, map),
    shape.place ? setPlace(shape.id, compose(map, compose(shape.place, invert(map) ?? IDENTITY))) : () => {},
  );

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
    delete host.lettering;
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
    delete host.lettering;
    const [path] = host.paths.splice(i, 1);
    addNode(found.parent.id, { ...freed, paths: [path as Path] }, found.index + 1)(draft);
  };
