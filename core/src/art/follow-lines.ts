import { create, type Draft } from 'mutative';
import { insideEvenOdd } from '../geometry/flatten';
import { distance } from '../geometry/vector';
import { deepestPoint, enclosedAreas, type EnclosedArea } from '../path/enclosed';
import type { Path } from '../path/path';
import type { Art, Poured, Shape } from './schema';
import { shapeById, shapesOf, wholePaths } from './tree';
import { polygonOf } from './inside';
import { draftShape } from './edits/draft';

// Shapes that fill the area between other shapes' lines: when those change, the area is looked for anew.

const pouredShapes = new WeakMap<Art['layers'], readonly string[]>();

/** Shapes that keep up with lines they were poured between, by id. */
function pouredIn(art: Art): readonly string[] {
  let ids = pouredShapes.get(art.layers);
  if (!ids) {
    ids = shapesOf(art).flatMap(({ shape }) => (shape.poured ? [shape.id] : []));
    pouredShapes.set(art.layers, ids);
  }
  return ids;
}

const sameLines = (a: Shape | null, b: Shape | null): boolean => a?.paths === b?.paths && a?.axis === b?.axis;

/** The area that a poured shape fills: the one its deepest point lies in, else the nearest between the very same lines. */
function areaOf(shape: Shape, { gap }: Poured, lines: readonly Shape[]): EnclosedArea | null {
  const paths = lines.flatMap(wholePaths);
  const { areas } = enclosedAreas(paths, (n) => shape.paths[n]?.id ?? `${shape.id}-${n}`, gap);
  const at = deepestPoint(wholePaths(shape));
  const around = areas.find((area) => insideEvenOdd(area.paths.map(polygonOf), at));
  if (around) return around;
  const all = (area: EnclosedArea): boolean => area.lines.length === paths.length;
  return (
    areas.filter(all).reduce<{ area: EnclosedArea; far: number } | null>((best, area) => {
      const far = distance(deepestPoint(area.paths), at);
      return !best || far < best.far ? { area, far } : best;
    }, null)?.area ?? null
  );
}

/** Outlines with the ids that the shape's had, one by one. */
const withIds = (shape: Shape, paths: readonly Path[]): Path[] =>
  paths.map((path, i) => ({ ...path, id: shape.paths[i]?.id ?? `${shape.paths[0]!.id}-${i}` }));

/**
 * A drawing after a change, its poured shapes brought up to date with their lines. One whose own outline was changed and whose
 * lines were not fills nothing any more: it is a shape like any other. Where no area is left, it stays as it is.
 */
export function followLines(before: Art, after: Art): Art {
  if (before.layers === after.layers) return after;
  const poured = pouredIn(before);
  if (poured.length === 0) return after;
  const changes: ((draft: Draft<Art>) => void)[] = [];
  for (const id of poured) {
    const shape = shapeById(after, id);
    if (!shape?.poured) continue;
    const lines = shape.poured.between.map(
      (line) => [shapeById(before, line), shapeById(after, line)] as const,
    );
    const moved = lines.filter(([was, is]) => !sameLines(was, is));
    if (moved.length < lines.length && !sameLines(shapeById(before, id), shape)) {
      changes.push((draft) => delete draftShape(draft, id)!.poured);
      continue;
    }
    if (moved.length === 0 || lines.some(([, is]) => !is)) continue;
    const area = areaOf(
      shape,
      shape.poured,
      lines.map(([, is]) => is!),
    );
    if (!area) continue;
    const paths = withIds(shape, area.paths);
    changes.push((draft) => void (draftShape(draft, id)!.paths = paths as Draft<Path>[]));
  }
  return changes.length === 0 ? after : create(after, (draft) => changes.forEach((change) => change(draft)));
}
