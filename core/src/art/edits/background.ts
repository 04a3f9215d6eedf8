import type { Draft } from 'mutative';
import { boxHeight, boxWidth, type Box } from '../../geometry/bounds';
import { formPath } from '../../path/form-path';
import type { Recipe } from '../change';
import type { Colour } from '../paint';
import type { Shape } from '../schema';

/** What a background is called; a locked shape of this name at the very bottom is taken for one. */
export const BACKGROUND_NAME = 'Background';

/**
 * Lays a box beneath everything, locked; one that lies there already is given this size and colour instead. It is meant
 * to leave the picture, so drift leaves it out.
 *
 * @param box sheet pixels, of some width and height
 * @param ids for the shape and its path, where they are made
 */
export const layBackground =
  (box: Box, colour: Colour, ids: { readonly shape: string; readonly path: string }): Recipe =>
  (draft) => {
    const path = formPath(
      {
        kind: 'box',
        x: (box.x0 + box.x1) / 2,
        y: (box.y0 + box.y1) / 2,
        width: boxWidth(box),
        height: boxHeight(box),
        angle: 0,
        radii: [0, 0, 0, 0],
        sides: 4,
      },
      ids.path,
    );
    const layer = draft.layers[0];
    if (!layer) return;
    const lowest = layer.children[0];
    if (lowest?.type === 'shape' && lowest.locked && lowest.name === BACKGROUND_NAME) {
      lowest.paths = [{ ...path, id: lowest.paths[0]!.id }] as Draft<Shape>['paths'];
      lowest.fill = { ...colour };
      return;
    }
    const shape: Shape = {
      id: ids.shape,
      type: 'shape',
      name: BACKGROUND_NAME,
      shown: true,
      locked: true,
      opacity: 1,
      fill: { ...colour },
      stroke: null,
      paths: [path],
      meant: true,
    };
    layer.children.unshift(shape as Draft<Shape>);
  };
