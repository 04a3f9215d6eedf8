import type { Draft } from 'mutative';
import type { Recipe } from '../change';
import type { PlacedPicture } from '../schema';

// Pictures on the sheet.

export const addPicture =
  (picture: PlacedPicture): Recipe =>
  (draft) => {
    draft.pictures.push(picture as Draft<PlacedPicture>);
    draft.traced ??= picture.id;
  };

export const setPicture =
  (id: string, values: Partial<Omit<PlacedPicture, 'id'>>): Recipe =>
  (draft) => {
    const picture = draft.pictures.find((p) => p.id === id);
    if (picture) Object.assign(picture, values);
  };

export const removePicture =
  (id: string): Recipe =>
  (draft) => {
    draft.pictures = draft.pictures.filter((p) => p.id !== id);
    if (draft.traced === id) draft.traced = draft.pictures[0]?.id ?? null;
  };

export const traceFrom =
  (id: string): Recipe =>
  (draft) => {
    if (draft.pictures.some((p) => p.id === id)) draft.traced = id;
  };
