import type { Affine } from '../../geometry/affine';
import type { Recipe } from '../change';
import { draftNode, draftShape } from './draft';

// How shapes are measured on the picture.

/** Says what shapes' drift follows; null leaves it to be found. */
export const setFollow =
  (ids: readonly string[], follow: 'edge' | 'middle' | null): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape) continue;
      if (follow) shape.follow = follow;
      else delete shape.follow;
    }
  };

/** Remembers where on the picture a shape is measured, or forgets it: null measures it where it lies. */
export const setPlace =
  (id: string, place: Affine | null): Recipe =>
  (draft) => {
    const shape = draftShape(draft, id);
    if (!shape) return;
    if (place) shape.place = [...place];
    else delete shape.place;
  };

/** Leaves layers, groups or shapes out of drift as a whole, or measures them again. */
export const setUnmeasured =
  (ids: readonly string[], on: boolean): Recipe =>
  (draft) => {
    for (const id of ids) {
      const node = draftNode(draft, id);
      if (!node || node.type === 'picture') continue;
      if (on) node.unmeasured = true;
      else delete node.unmeasured;
    }
  };

/** Marks shapes as leaving the picture on purpose, or takes the mark off. */
export const setMeant =
  (ids: readonly string[], on: boolean): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape) continue;
      if (on) shape.meant = true;
      else delete shape.meant;
    }
  };
