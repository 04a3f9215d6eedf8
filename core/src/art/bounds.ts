import { EMPTY_BOX, uniteBoxes, type Box } from '../geometry/bounds';
import { pathBounds } from '../path/path-measure';
import type { Shape } from './schema';
import { wholePaths } from './tree';

/** Bounds of a shape's lines, its parts about an axis included; what a stroke paints beside them is `paintedBox`'s. */
export const shapeBounds = (shape: Shape): Box =>
  wholePaths(shape).map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
