import { compose, IDENTITY, translation, type Affine } from '../../../geometry/affine';
import { MirrotError } from '../../../error';
import { pathInside } from '../../../art/inside';
import { pathArea } from '../../../path/path-measure';
import { evenOddPaths } from '../../../path/even-odd';
import { keepForm } from '../../../path/form-path';
import { reversePath, transformPath } from '../../../path/path-map';
import type { Path } from '../../../path/path';
import type { SvgElement } from './elements';
import { isOutline, outlinesOf } from './outlines';
import { hrefOf, type Lookup } from './paints';
import type { Style } from './styles';
import { lengthOf, transformOf, type Viewport } from './values';

// Clip paths (CSS Masking 1, section 6): the outlines of what stands in one, all together.

/** Maps paths by a map of the plane; what is no form any more is none. */
export const mapPaths = (paths: readonly Path[], map: Affine): Path[] =>
  paths.map((path) => keepForm(transformPath(path, map)));

/** The outlines of an element; none, and a word, where its data breaks the grammar. */
export function readOutlines(
  element: SvgElement,
  viewport: Viewport,
  lookup: Lookup,
  newId: () => string,
): Path[] {
  try {
    return outlinesOf(element, viewport, newId);
  } catch (error) {
    if (!(error instanceof MirrotError)) throw error;
    lookup.leave('paths with broken data');
    return [];
  }
}

/** Outlines without crossings turned so that the nonzero rule fills them as the even-odd rule does. */
const wound = (paths: readonly Path[]): Path[] =>
  paths.map((path) => {
    const around = paths.filter((other) => other !== path && pathInside(path, other)).length;
    return pathArea(path) > 0 === (around % 2 === 0) ? path : reversePath(path);
  });

/**
 * The inside of a clip path under the even-odd rule; empty where it shows nothing.
 *
 * @param map takes its units to sheet pixels
 */
export function clipOutline(
  element: SvgElement,
  parent: Style | null,
  map: Affine,
  viewport: Viewport,
  lookup: Lookup,
  newId: () => string,
): readonly Path[] {
  const style = lookup.styleOf(element, parent);
  if (style['clip-path'] !== 'none') lookup.leave('clip paths of clip paths');
  const parts = element.children.flatMap((child): Path[][] => {
    const own = lookup.styleOf(child, style);
    const used = child.name === 'use' ? lookup.byId.get(hrefOf(child).slice(1)) : undefined;
    const drawn = used ?? child;
    if (own.display === 'none' || own.visibility !== 'visible') return [];
    if (!isOutline(drawn)) {
      if (!['title', 'desc', 'metadata'].includes(drawn.name)) lookup.leave(`${drawn.name} in clip paths`);
      return [];
    }
    const drawnStyle = used ? lookup.styleOf(used, own) : own;
    const [outer, inner] = [transformOf(own.transform), used ? transformOf(drawnStyle.transform) : null];
    if (!outer) return [];
    if (own['clip-path'] !== 'none') lookup.leave('clip paths of clip paths');
    const x = used ? (lengthOf(child.attributes.x, viewport.width) ?? 0) : 0;
    const y = used ? (lengthOf(child.attributes.y, viewport.height) ?? 0) : 0;
    const place = compose(map, compose(compose(outer, translation(x, y)), inner ?? IDENTITY));
    const paths = mapPaths(readOutlines(drawn, viewport, lookup, newId), place).map((path) => ({
      ...path,
      closed: true,
    }));
    return [[...(drawnStyle['clip-rule'] === 'evenodd' ? paths : evenOddPaths(paths, newId))]];
  });
  return parts.length === 1 ? parts[0]! : evenOddPaths(parts.flatMap(wound), newId);
}
