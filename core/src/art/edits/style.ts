import type { Draft } from 'mutative';
import type { Recipe } from '../change';
import { changedPaints, mapColours, plainStroke, type Colour, type Paint, type Shadow, type Stroke } from '../paint'; // prettier-ignore
import type { Art, Chip, Colourway, CutEdge, Layer, Shape } from '../schema';
import { shapesOf } from '../tree';
import { cloned, draftNode, draftShape, plain } from './draft';

// How things are painted, and the palette they take their colours from.

/** What of a shape can be set without touching its lines. */
export type ShapeStyle = Partial<Pick<Shape, 'fill' | 'stroke' | 'opacity'>>;

/** Sets how shapes are painted. A fill that is set so is no body tone any more, and what was taken off before it goes. */
export const styleShapes =
  (ids: readonly string[], style: ShapeStyle): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape) continue;
      Object.assign(shape, cloned(style));
      if ('fill' in style) delete shape.toned;
      for (const target of ['fill', 'stroke'] as const) if (style[target]) dropAside(shape, target);
    }
  };

/** Forgets what was taken off: something else is put on instead. */
function dropAside(shape: Draft<Shape>, target: PaintTarget): void {
  if (!shape.aside?.[target]) return;
  const other = target === 'fill' ? 'stroke' : 'fill';
  const kept = cloned(plain(shape as Shape).aside![other]);
  if (kept) shape.aside = { [other]: kept } as Draft<NonNullable<Shape['aside']>>;
  else delete shape.aside;
}

/** Gives a shape its paints anew where they are still the same ones: moved along, recoloured. */
export const repaintShape =
  (id: string, paints: ReturnType<typeof changedPaints>): Recipe =>
  (draft) => {
    const shape = draftShape(draft, id);
    if (shape) Object.assign(shape, cloned(paints));
  };

/** Fills shapes by their body tones (hex): with a chip, or with the tone itself. */
export const toneShapes =
  (tones: readonly { readonly id: string; readonly tone: string; readonly colour: Colour }[]): Recipe =>
  (draft) => {
    for (const { id, tone, colour } of tones) {
      const shape = draftShape(draft, id);
      if (!shape) continue;
      styleShapes([id], { fill: colour })(draft);
      shape.toned = tone;
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
      if (target === 'fill') styleShapes([id], { fill: paint })(draft);
      else if (shape.stroke) shape.stroke.paint = cloned(paint) as Draft<Paint>;
      else styleShapes([id], { stroke: plainStroke(paint, weight) })(draft);
    }
  };

/** Takes the fill or the stroke off shapes. It is kept aside, to be put on again as it was. */
export const takeOff =
  (ids: readonly string[], target: PaintTarget): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      const paint = shape && plain(shape as Shape)[target];
      if (!shape || !paint) continue;
      shape.aside = { ...cloned(plain(shape as Shape).aside ?? {}), [target]: cloned(paint) } as Draft<NonNullable<Shape['aside']>>; // prettier-ignore
      shape[target] = null;
    }
  };

/** Puts the fill or the stroke of shapes that have none on again: as it was, or `first` where there never was one. */
export const putOn =
  (ids: readonly string[], target: PaintTarget, first: Paint, weight: number): Recipe =>
  (draft) => {
    for (const id of ids) {
      const shape = draftShape(draft, id);
      if (!shape || shape[target]) continue;
      const kept = cloned(plain(shape as Shape).aside?.[target]);
      if (!kept) {
        paintShapes([id], target, first, weight)(draft);
        continue;
      }
      // A body tone that was taken off is one again.
      Object.assign(shape, { [target]: kept });
      dropAside(shape, target);
    }
  };

/** How a stroke is drawn, apart from what it is painted with. What is undefined goes. */
export type LineForm = {
  readonly [K in keyof Omit<Stroke, 'paint'>]?: Stroke[K] | undefined;
};

/** Sets the form of the strokes that shapes have. */
export const formStrokes =
  (ids: readonly string[], form: LineForm): Recipe =>
  (draft) => {
    for (const id of ids) {
      const stroke = draftShape(draft, id)?.stroke;
      if (!stroke) continue;
      Object.assign(stroke, cloned(form));
      if ('dashOffset' in form && form.dashOffset === undefined) delete stroke.dashOffset;
      if ('under' in form && form.under === undefined) delete stroke.under;
    }
  };

/** Sets the width of the strokes that shapes have, sheet pixels. */
export const weighStrokes = (ids: readonly string[], width: number): Recipe => formStrokes(ids, { width });

/** How the whole of a layer, group, shape or picture is laid over what is beneath it. */
export type Covering = Partial<Pick<Layer, 'opacity' | 'blend' | 'blur'>> & {
  /** Null for none. */
  readonly shadow?: Shadow | null;
};

/** Sets opacity, blend, blur and shadow; a blend that is normal and a blur of nothing are left out. */
export const setCovering =
  (ids: readonly string[], { opacity, blend, blur, shadow }: Covering): Recipe =>
  (draft) => {
    for (const id of ids) {
      const node = draftNode(draft, id);
      if (!node) continue;
      if (opacity !== undefined) node.opacity = opacity;
      if (blend === 'normal') delete node.blend;
      else if (blend !== undefined) node.blend = blend;
      if (blur === 0) delete node.blur;
      else if (blur !== undefined) node.blur = blur;
      if (shadow === null) delete node.shadow;
      else if (shadow !== undefined) node.shadow = { ...shadow };
    }
  };

/** Gives shapes the look of another: fill, stroke, opacity, blend, blur and shadow. */
export const takeLook =
  (ids: readonly string[], from: string): Recipe =>
  (draft) => {
    const shape = draftShape(draft, from);
    if (!shape) return;
    const { fill, stroke, opacity, blend = 'normal', blur = 0, shadow = null } = plain(shape as Shape);
    for (const id of ids) {
      if (id === from || !draftShape(draft, id)) continue;
      styleShapes([id], { fill, stroke })(draft);
      setCovering([id], { opacity, blend, blur, shadow })(draft);
    }
  };

/** Clips a group by one of its own shapes, or no longer. A shape that does not stand in it clips nothing. */
export const setClip =
  (groupId: string, shapeId: string | null): Recipe =>
  (draft) => {
    const group = draftNode(draft, groupId);
    if (group?.type !== 'group') return;
    if (shapeId === null) {
      delete group.clip;
      delete group.edge;
    } else if (group.children.some((c) => c.id === shapeId && c.type === 'shape')) group.clip = shapeId;
  };

/** Says how what a group's shape clips ends at its outline; a sharp cut along it is left out. */
export const setCutEdge =
  (groupId: string, { by, soft, shadow }: CutEdge): Recipe =>
  (draft) => {
    const group = draftNode(draft, groupId);
    if (group?.type !== 'group' || group.clip === undefined) return;
    if (by === 0 && soft === 0 && !shadow) delete group.edge;
    else group.edge = { by, soft, ...(shadow ? { shadow: { ...shadow } } : {}) };
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

/** Renames or recolours a chip, or says what it is for (null for nothing): all that takes its colour from it is recoloured with it. */
export const setChip =
  (id: string, { role, ...values }: { name?: string; hex?: string; role?: Chip['role'] | null }): Recipe =>
  (draft) => {
    const chip = draft.chips.find((c) => c.id === id);
    if (!chip) return;
    Object.assign(chip, values);
    if (role === null) delete chip.role;
    else if (role) chip.role = role;
  };

/** Puts colours of fills and strokes through `change`, wherever they stand in the drawing. */
const recolour = (draft: Draft<Art>, change: (colour: Colour) => Colour): void => {
  for (const { shape } of shapesOf(plain(draft as Art))) {
    const paints = changedPaints(shape, (paint) => mapColours(paint, change));
    if (Object.keys(paints).length > 0) repaintShape(shape.id, paints)(draft);
  }
};

/** Takes a chip out of the palette. What took its colour from it keeps that as its own. */
export const removeChip =
  (id: string): Recipe =>
  (draft) => {
    const chip = draft.chips.find((c) => c.id === id);
    if (!chip) return;
    replaceColour(draft, id, { hex: chip.hex });
  };

/** Gives all that takes its colour from a chip another colour, and takes the chip out of palette and colourways. */
const replaceColour = (draft: Draft<Art>, id: string, by: Colour): void => {
  recolour(draft, (colour) => ('chip' in colour && colour.chip === id ? by : colour));
  draft.chips = draft.chips.filter((c) => c.id !== id);
  for (const way of draft.colourways)
    if (id in way.hexes) way.hexes = Object.fromEntries(Object.entries(plain(way.hexes)).filter(([chip]) => chip !== id)); // prettier-ignore
};

/** Puts one chip in the place of others: all that took its colour from them takes it from that one. */
export const replaceChips =
  (ids: readonly string[], by: string): Recipe =>
  (draft) => {
    if (!draft.chips.some((c) => c.id === by)) return;
    for (const id of ids)
      if (id !== by && draft.chips.some((c) => c.id === id)) replaceColour(draft, id, { chip: by });
  };

/** Adds a colourway, or sets the one of the same id. */
export const keepColourway =
  (way: Colourway): Recipe =>
  (draft) => {
    const at = draft.colourways.findIndex(({ id }) => id === way.id);
    draft.colourways.splice(at < 0 ? draft.colourways.length : at, at < 0 ? 0 : 1, cloned(way));
  };

export const removeColourway =
  (id: string): Recipe =>
  (draft) => {
    draft.colourways = draft.colourways.filter((way) => way.id !== id);
  };

/** Gives chips other colours: all that takes its colour from them follows. Chips that are not there are passed over. */
export const recolourChips =
  (hexes: Readonly<Record<string, string>>): Recipe =>
  (draft) => {
    for (const chip of draft.chips) if (hexes[chip.id] !== undefined) chip.hex = hexes[chip.id]!;
  };
