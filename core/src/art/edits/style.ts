import type { Draft } from 'mutative';
import type { Recipe } from '../change';
import { mapColours, plainStroke, type Colour, type Paint, type Stroke } from '../paint';
import type { Art, Chip, Layer, Shape } from '../schema';
import { shapesOf } from '../tree';
import { cloned, draftNode, draftShape, plain } from './draft';

// How things are painted, and the palette they take their colours from.

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

/** Which of the two paints of a shape. */
export type PaintTarget = 'fill' | 'stroke';

/** Paints the fill or the stroke of shapes. A stroke keeps its width and form; one that comes anew is `weight` wide. */
export const paintShapes =
  (ids: readonly string[], target: PaintTarget, paint: Paint, weight: number): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape) continue;
      if (target === 'fill') shape.fill = paint as Draft<Paint>;
      else if (shape.stroke) shape.stroke.paint = paint as Draft<Paint>;
      else shape.stroke = plainStroke(paint, weight) as Draft<Stroke>;
    }
  };

/** Sets the width of the strokes that shapes have, sheet pixels. */
export const weighStrokes =
  (ids: readonly string[], width: number): Recipe =>
  (draft) => {
    for (const id of ids) {
      const stroke = draftShape(draft, id)?.stroke;
      if (stroke) stroke.width = width;
    }
  };

/** How the whole of a layer, group, shape or picture is laid over what is beneath it. */
export type Covering = Partial<Pick<Layer, 'opacity' | 'blend' | 'blur'>>;

/** Sets opacity, blend and blur; a blend that is normal and a blur of nothing are left out. */
export const setCovering =
  (ids: readonly string[], { opacity, blend, blur }: Covering): Recipe =>
  (draft) => {
    for (const id of ids) {
      const node = draftNode(draft, id);
      if (!node) continue;
      if (opacity !== undefined) node.opacity = opacity;
      if (blend === 'normal') delete node.blend;
      else if (blend !== undefined) node.blend = blend;
      if (blur === 0) delete node.blur;
      else if (blur !== undefined) node.blur = blur;
    }
  };

/** Gives shapes the look of another: fill, stroke, opacity, blend and blur. */
export const takeLook =
  (ids: readonly string[], from: string): Recipe =>
  (draft) => {
    const shape = draftShape(draft, from);
    if (!shape) return;
    const { fill, stroke, opacity, blend = 'normal', blur = 0 } = plain(shape as Shape);
    for (const id of ids) {
      if (id === from || !draftShape(draft, id)) continue;
      styleShapes([id], cloned({ fill, stroke }))(draft);
      setCovering([id], { opacity, blend, blur })(draft);
    }
  };

/** Clips a group by one of its own shapes, or no longer. A shape that does not stand in it clips nothing. */
export const setClip =
  (groupId: string, shapeId: string | null): Recipe =>
  (draft) => {
    const group = draftNode(draft, groupId);
    if (group?.type !== 'group') return;
    if (shapeId === null) delete group.clip;
    else if (group.children.some((c) => c.id === shapeId && c.type === 'shape')) group.clip = shapeId;
  };

export const addChip =
  (chip: Chip): Recipe =>
  (draft) => {
    draft.chips.push({ ...chip });
  };

/** Adds a chip and takes every colour of its own that is the same from it, so that they are recoloured together. */
export const keepAsChip =
  (chip: Chip): Recipe =>
  (draft) => {
    const from: Colour = { chip: chip.id };
    addChip(chip)(draft);
    recolour(draft, (colour) => ('hex' in colour && colour.hex === chip.hex ? from : colour));
  };

/** Renames or recolours a chip: all that takes its colour from it is recoloured with it. */
export const setChip =
  (id: string, values: Partial<Omit<Chip, 'id'>>): Recipe =>
  (draft) => {
    const chip = draft.chips.find((c) => c.id === id);
    if (chip) Object.assign(chip, values);
  };

/** Puts colours of fills and strokes through `change`, wherever they stand in the drawing. */
const recolour = (draft: Draft<Art>, change: (colour: Colour) => Colour): void => {
  for (const { shape } of shapesOf(plain(draft as Art))) {
    const { fill, stroke } = shape;
    const style: { fill?: Paint; stroke?: Stroke } = {};
    const [filled, stroked] = [fill, stroke?.paint ?? null].map(
      (paint) => paint && mapColours(paint, change),
    );
    if (filled && filled !== fill) style.fill = filled;
    if (stroke && stroked && stroked !== stroke.paint) style.stroke = { ...stroke, paint: stroked };
    if (style.fill || style.stroke) styleShapes([shape.id], style)(draft);
  }
};

/** Takes a chip out of the palette. What took its colour from it keeps that as its own. */
export const removeChip =
  (id: string): Recipe =>
  (draft) => {
    const chip = draft.chips.find((c) => c.id === id);
    if (!chip) return;
    const own = { hex: chip.hex };
    recolour(draft, (colour) => ('chip' in colour && colour.chip === id ? own : colour));
    draft.chips = draft.chips.filter((c) => c.id !== id);
  };
