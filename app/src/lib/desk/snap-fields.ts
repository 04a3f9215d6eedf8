import { openShapes, snapField, wholePaths, type Art, type SnapField } from '@mirrot/core';

// The field is laid out anew only when a path other than those left out has changed.
let known: { layers: Art['layers']; without: string; field: SnapField } | null = null;

/** Everything that attracts by its anchors and segments, but for some paths. */
export function fieldWithout(art: Art, without: ReadonlySet<string>): SnapField {
  const name = [...without].join(' ');
  if (known?.layers === art.layers && known.without === name) return known.field;
  const paths = openShapes(art).flatMap((s) => wholePaths(s).filter((p) => !without.has(p.id)));
  const last = known?.field;
  const same = last && last.paths.length === paths.length && paths.every((p, i) => p === last.paths[i]);
  const field = same ? last : snapField(paths);
  known = { layers: art.layers, without: name, field };
  return field;
}
