import { openShapes, snapField, wholePaths, type Art, type SnapField } from '@mirrot/core';

// The field is laid out anew only when a path other than those left out has changed.
let known: { layers: Art['layers']; without: string; field: SnapField } | null = null;

/** Everything that attracts by its anchors and segments, but for some paths. */
export function fieldWithout(art: Art, without: ReadonlySet<string>): SnapField {
  const name = [...without].join(' ');
  if (known?.layers === art.layers && known.without === name) return known.field;
  const last = known?.field;
  let count = 0;
  let same = last !== undefined;
  for (const shape of openShapes(art))
    for (const path of wholePaths(shape))
      if (same && !without.has(path.id)) same = last!.paths[count++] === path;
  const field =
    same && last!.paths.length === count
      ? last!
      : snapField(openShapes(art).flatMap((s) => wholePaths(s).filter((p) => !without.has(p.id))));
  known = { layers: art.layers, without: name, field };
  return field;
}
