import type { Draft } from 'mutative';
import type { Point } from '../../geometry/vector';
import type { Path } from '../../path/path';
import type { Recipe } from '../change';
import type { Chip, Grid, Guide, ShapeNode, Sheet } from '../schema';

// The sheet, its chips, guides and grid, and moving all there is on it.

export const setSheet =
  (values: Partial<Sheet>): Recipe =>
  (draft) => {
    Object.assign(draft.sheet, values);
  };

export const addChip =
  (chip: Chip): Recipe =>
  (draft) => {
    draft.chips.push({ ...chip });
  };

export const removeChip =
  (id: string): Recipe =>
  (draft) => {
    draft.chips = draft.chips.filter((c) => c.id !== id);
  };

/** Moves every shape and picture by a way in sheet pixels. */
export const shiftAll =
  (by: Point): Recipe =>
  (draft) => {
    const move = (p: { x: number; y: number }): void => {
      p.x += by.x;
      p.y += by.y;
    };
    const shift = (nodes: Draft<ShapeNode>[]): void => {
      for (const node of nodes)
        if (node.type === 'group') shift(node.children);
        else {
          for (const path of node.paths as Draft<Path>[]) {
            path.anchors.forEach(move);
            if (path.form) move(path.form);
          }
          if (node.axis) move(node.axis);
          // What is measured where on the picture stays so: both go along.
          if (node.place) {
            const [a, b, c, d] = node.place;
            node.place[4] += by.x - a * by.x - c * by.y;
            node.place[5] += by.y - b * by.x - d * by.y;
          }
        }
    };
    if (draft.axis) move(draft.axis);
    for (const layer of draft.layers) shift(layer.children);
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
