import type { Box } from '../geometry/bounds';
import { corner } from './anchor';
import type { Path } from './path';

/** The outline of a box, clockwise on screen from its top left. */
export const boxPath = ({ x0, y0, x1, y1 }: Box): Path => ({
  id: 'box',
  closed: true,
  anchors: [corner(x0, y0), corner(x1, y0), corner(x1, y1), corner(x0, y1)],
});
