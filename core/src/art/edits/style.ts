import type { Recipe } from '../change';
import type { Shape } from '../schema';
import { draftShape } from './draft';

// How shapes are painted.

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
