import type { Draft } from 'mutative';
import type { Point } from '../../geometry/vector';
import type { Path } from '../../path/path';
import type { Recipe } from '../change';
import type { Grid, Guide, Layer, Shape, Sheet } from '../schema';
import { shapesIn } from '../tree';

// The sheet, its guides and grid, and moving all there is on it.

export const setSheet =
  (values: Partial<Sheet>): Recipe =>
  (draft) => {
    Object.assign(draft.sheet, values);
  };

/** Moves every shape and picture by a way in sheet pixels. */
export const shiftAll =
  (by: Point): Recipe =>
  (draft) => {
    const move = (p: { x: number; y: number }): void => {
      p.x += by.x;
      p.y += by.y;
    };
    const shift = (shape: Draft<Shape>): void => {
      for (const path of shape.paths as Draft<Path>[]) {
        path.anchors.forEach(move);
        if (path.form) move(path.form);
      }
      if (shape.axis) move(shape.axis);
      for (const paint of [shape.fill, shape.stroke?.paint])
        if (paint && 'placement' in paint) {
          paint.placement[4] += by.x;
          paint.placement[5] += by.y;
        }
      // What is measured where on the picture stays so: both go along.
      if (shape.place) {
        const [a, b, c, d] = shape.place;
        shape.place[4] += by.x - a * by.x - c * by.y;
        shape.place[5] += by.y - b * by.x - d * by.y;
      }
    };
    if (draft.axis) move(draft.axis);
    for (const layer of draft.layers)
      shapesIn(layer as Layer).forEach((shape) => shift(shape as Draft<Shape>));
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
