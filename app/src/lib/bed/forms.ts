import {
  addNode,
  dragForm,
  fittedRadii,
  formatLength,
  formPath,
  redrawForm,
  radiusAt,
  radiusGrip,
  setPath,
  type Form,
  type FormKind,
  type Path,
  type Point,
  type Shape,
  toDegrees,
} from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import type { BedPointer, Grip } from './behaviour';
import { parentToDrawIn, newShape } from './new-shape';
import { snapAt } from './snapping';

export const FORM_WORDS: Readonly<Record<FormKind, string>> = {
  box: 'Box',
  ellipse: 'Ellipse',
  polygon: 'Polygon',
  line: 'Line',
};

/** A shape that is one form, and that form: the one chosen, or the one just drawn. */
export function formInHand(
  desk: Desk,
): { readonly shape: Shape; readonly path: Path; readonly form: Form } | null {
  if (desk.live || (desk.step !== 'block-in' && desk.step !== 'refine')) return null;
  const [shape, ...more] = desk.choosing.receivedShapes;
  const path = shape?.paths[0];
  return shape && path?.form && more.length === 0 && shape.paths.length === 1
    ? { shape, path, form: path.form }
    : null;
}

/** A form's size in words, in the sheet's unit. */
export function sizeInWords(desk: Desk, form: Form): string {
  const { unit } = desk.art.sheet;
  const text = (v: number): string => formatLength(v, unit);
  if (form.kind === 'line') return `${text(form.width)}, ${(-toDegrees(form.angle)).toFixed(1)}°`;
  if (form.kind === 'polygon') return `${form.sides} sides, ${text(form.width)} across`;
  return `${text(form.width).replace(` ${unit}`, '')} × ${text(form.height)}`;
}

/** Screen pixels from a box's corner to the grip of a corner that is not rounded. */
const GRIP_INSET = 14;
const GRIP_REACH = 7;

/** Grips that round the corners of the box in hand, where it is large enough on screen to have them. */
export function radiusGrips(desk: Desk): Point[] {
  const held = formInHand(desk);
  if (held?.form.kind !== 'box') return [];
  if (desk.step === 'refine' && desk.choice.level !== 'path') return [];
  if (Math.min(held.form.width, held.form.height) * desk.looking.view.scale < 3 * GRIP_INSET) return [];
  return [0, 1, 2, 3].map((i) => radiusGrip(held.form, i, GRIP_INSET / desk.looking.view.scale));
}

/** Which rounding grip a pointer is on; null for none. */
export function radiusGripAt(desk: Desk, p: BedPointer): number | null {
  const reach = (GRIP_REACH * (p.type === 'touch' ? 2 : 1)) / desk.looking.view.scale;
  const i = radiusGrips(desk).findIndex((g) => Math.hypot(g.x - p.sheet.x, g.y - p.sheet.y) <= reach);
  return i < 0 ? null : i;
}

/** Rounds the corners of the box in hand; with Alt the one corner alone. */
export function gripRadius(desk: Desk, corner: number, start: BedPointer): Grip {
  const { shape, path, form } = formInHand(desk)!;
  const ended = desk.choosing.justEnded;
  const gesture = desk.gesture('Round the corners');
  const before = radiusAt(form, corner, start.sheet) - fittedRadii(form)[corner]!;
  const most = Math.min(form.width, form.height) / 2;
  const keep = (): void => {
    desk.choosing.justEnded = ended;
    desk.pointing.pointerNote = null;
  };
  return {
    drag(p) {
      const wanted = Math.min(most, Math.max(0, radiusAt(form, corner, p.sheet) - before));
      const r = wanted * desk.looking.view.scale < 2 ? 0 : wanted;
      const radii = form.radii.map((old, i) => (p.alt && i !== corner ? old : r)) as [
        number,
        number,
        number,
        number,
      ];
      gesture.show(setPath(shape.id, redrawForm(path, { ...form, radii })));
      desk.pointing.pointerNote = { at: p.sheet, text: `radius ${formatLength(r, desk.art.sheet.unit)}` };
    },
    release() {
      gesture.keep();
      keep();
    },
    click() {
      gesture.drop();
      keep();
    },
    cancel() {
      gesture.drop();
      keep();
    },
  };
}

const drawn = (
  desk: Desk,
  kind: FormKind,
  from: Point,
  to: Point,
  keys: Pick<BedPointer, 'shift' | 'alt'>,
): Form =>
  dragForm(kind, from, to, {
    equal: keys.shift,
    centred: keys.alt,
    sides: desk.next.formSides,
    radius: desk.next.formRadius,
  });

/** A press while forms are drawn: a drag draws one, a click offers one of the size drawn last. */
export function gripForm(desk: Desk, kind: FormKind, start: BedPointer): Grip | null {
  const layer = parentToDrawIn(desk);
  if (!layer) return null;
  const from = snapAt(desk, start.sheet)?.at ?? start.sheet;
  const bare = newShape(desk, FORM_WORDS[kind], { id: 'form', closed: false, anchors: [] });
  // A form is closed as it is drawn, so it has its fill at once; a line has none.
  const fill = kind === 'line' ? null : desk.colouring.nextFill;
  const shape: Shape = { ...bare, fill };
  const path = shape.paths[0]!.id;
  const made = (form: Form): Shape => ({ ...shape, paths: [formPath(form, path)] });
  const gesture = desk.gesture(`Draw the ${kind}`);
  const ended = (): void => {
    desk.pointing.pointerNote = null;
    desk.pointing.snapTarget = null;
    desk.pointing.focus = null;
  };
  let form: Form | null = null;
  const keep = (f: Form): void => {
    desk.next.formSizes = { ...desk.next.formSizes, [kind]: { width: f.width, height: f.height } };
    desk.choosing.justEnded = shape.id;
    desk.picture.inks.choose(made(f), desk.picture.traced);
  };
  return {
    drag(p) {
      desk.pointing.snapTarget = snapAt(desk, p.sheet);
      const to = desk.pointing.snapTarget?.at ?? p.sheet;
      const next = drawn(desk, kind, from, to, p);
      // A box of no width or height is not there to be seen.
      form = next.width > 0 && (kind === 'line' || next.height > 0) ? next : null;
      if (form) gesture.show(addNode(layer, made(form)));
      else gesture.show(() => {});
      desk.pointing.pointerNote = form && { at: to, text: sizeInWords(desk, form) };
      desk.pointing.focus = to;
    },
    release() {
      ended();
      gesture.keep({ choice: chooseShapes([]) });
      if (form) keep(form);
    },
    click(p) {
      gesture.drop();
      const size = desk.next.formSizes[kind];
      if (!size) return desk.say(`Drag to draw: Shift makes it even, Alt draws from the middle.`);
      const to = { x: from.x + size.width / (p.alt ? 2 : 1), y: from.y + size.height / (p.alt ? 2 : 1) };
      const one = drawn(desk, kind, from, to, { shift: false, alt: p.alt });
      desk.makeOffer({
        text: `One more of ${sizeInWords(desk, one)} here`,
        label: 'Draw the last size again',
        recipe: addNode(layer, made(one)),
        preview: true,
        taken: () => keep(one),
      });
    },
    cancel() {
      gesture.drop();
      ended();
    },
  };
}
