import {
  apply,
  boxHas,
  compose,
  invert,
  seenSize,
  subtract,
  together,
  translation,
  type Box,
  type Point,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { levelBy, originAt, pictureRecipe } from '$lib/desk/placing';
import type { Offer } from '$lib/desk/offer';
import type { Rule, Task } from '$lib/desk/task';
import { toBed } from '$lib/desk/view';
import type { BedPointer, Grip } from './behaviour';
import { boxGripAt, currentFrame, gripBox } from './box';
import { gripGuide, guideAt } from './guides';
import { alongAxis } from './grips';

/** A press in Mount: what a task asks for; else it moves, scales or turns the picture when it is unlocked. */
export function pressMount(desk: Desk, start: BedPointer): Grip | null {
  const { task } = desk.pointing;
  if (task?.kind === 'level') return gripRule(desk, start, (rule) => levelBy(desk, rule));
  if (task?.kind === 'real-size') return gripRule(desk, start, (rule) => measure(desk, rule));
  if (task?.kind === 'origin') return { click: (p) => originAt(desk, p.sheet) };
  if (task?.kind === 'crop') return gripCrop(desk, task, start);
  const guide = guideAt(desk, start);
  if (guide) return gripGuide(desk, guide, start);
  const corner = boxGripAt(desk, start);
  if (corner) return gripBox(desk, corner, start);
  const frame = currentFrame(desk);
  const picture = desk.picture.traced;
  const back = frame && invert(frame.map);
  if (!back || !picture || !boxHas({ x0: 0, y0: 0, x1: 1, y1: 1 }, apply(back, start.sheet))) return null;
  const gesture = desk.gesture('Move the picture');
  return {
    drag(p) {
      const d = subtract(p.sheet, start.sheet);
      const way = p.shift ? alongAxis(d) : d;
      const placement = compose(translation(way.x, way.y), picture.placement);
      gesture.show(pictureRecipe(picture, { placement }, desk.picture.follow));
    },
    release: () => gesture.keep(),
    cancel: () => gesture.drop(),
  };
}

/** A line drawn over the picture; a click is a line of no length. */
function gripRule(desk: Desk, start: BedPointer, take: (rule: Rule) => void): Grip {
  const from = start.sheet;
  return {
    drag(p) {
      desk.pointing.rule = { from, to: p.sheet };
      desk.pointing.focus = p.sheet;
    },
    release(p) {
      desk.pointing.rule = null;
      desk.pointing.focus = null;
      take({ from, to: p.sheet });
    },
    click: () => take({ from, to: from }),
    cancel() {
      desk.pointing.rule = null;
      desk.pointing.focus = null;
    },
  };
}

function measure(desk: Desk, rule: Rule): void {
  if (Math.hypot(rule.to.x - rule.from.x, rule.to.y - rule.from.y) * desk.looking.view.scale < 8) {
    desk.say(
      'That line is too short to measure by. Draw one over a length you know. Nothing was changed.',
      'bad',
    );
    return;
  }
  desk.picture.knownLength = rule;
}

/** Corners and sides of the crop within reach of a pointer: which of its edges move. */
const CROP_REACH = 10;

type Crop = Extract<Task, { kind: 'crop' }>;

/** Which edges of the crop a pointer is on: −1 the lesser, 1 the greater, 0 neither. Null when on none. */
export function cropEdges(
  desk: Desk,
  { box }: Crop,
  p: BedPointer,
): { readonly x: -1 | 0 | 1; readonly y: -1 | 0 | 1 } | null {
  const picture = desk.picture.traced;
  if (!picture) return null;
  const at = (x: number, y: number): Point => toBed(desk.looking.view, apply(picture.placement, { x, y }));
  const reach = CROP_REACH * (p.type === 'touch' ? 2 : 1);
  const [mx, my] = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
  let best: { x: -1 | 0 | 1; y: -1 | 0 | 1; far: number } | null = null;
  for (const x of [-1, 0, 1] as const)
    for (const y of [-1, 0, 1] as const) {
      if (x === 0 && y === 0) continue;
      const q = at(x < 0 ? box.x0 : x > 0 ? box.x1 : mx, y < 0 ? box.y0 : y > 0 ? box.y1 : my);
      const far = Math.hypot(q.x - p.screen.x, q.y - p.screen.y);
      if (far <= reach && (!best || far < best.far)) best = { x, y, far };
    }
  return best;
}

function gripCrop(desk: Desk, task: Crop, start: BedPointer): Grip | null {
  const picture = desk.picture.traced;
  const back = picture && invert(picture.placement);
  if (!picture || !back) return null;
  const { width, height } = seenSize(picture);
  const edges = cropEdges(desk, task, start);
  const inside = boxHas(task.box, apply(back, start.sheet));
  if (!edges && !inside) return null;
  const set = (box: Box): void => void (desk.pointing.task = { ...task, box });
  return {
    drag(p) {
      const d = subtract(apply(back, p.sheet), apply(back, start.sheet));
      set(edges ? stretched(task, edges, d, width, height) : shifted(task.box, d, width, height));
    },
    cancel: () => set(task.box),
  };
}

/** The box moved, kept within the picture. */
function shifted(box: Box, d: Point, width: number, height: number): Box {
  const dx = Math.min(width - box.x1, Math.max(-box.x0, d.x));
  const dy = Math.min(height - box.y1, Math.max(-box.y0, d.y));
  return { x0: box.x0 + dx, y0: box.y0 + dy, x1: box.x1 + dx, y1: box.y1 + dy };
}

/** The box with some edges moved, within the picture, a pixel at least, its ratio kept when there is one. */
function stretched(
  { box, ratio }: Crop,
  { x, y }: { x: number; y: number },
  d: Point,
  width: number,
  height: number,
): Box {
  const within = (v: number, low: number, high: number): number => Math.min(high, Math.max(low, v));
  let { x0, y0, x1, y1 } = box;
  if (x < 0) x0 = within(x0 + d.x, 0, x1 - 1);
  if (x > 0) x1 = within(x1 + d.x, x0 + 1, width);
  if (y < 0) y0 = within(y0 + d.y, 0, y1 - 1);
  if (y > 0) y1 = within(y1 + d.y, y0 + 1, height);
  if (ratio === null) return { x0, y0, x1, y1 };
  return ofRatio({ x0, y0, x1, y1 }, ratio, { x, y }, width, height);
}

/** The largest box of a ratio in another, holding on to the edges that were not moved. */
export function ofRatio(
  box: Box,
  ratio: number,
  moved: { x: number; y: number },
  width: number,
  height: number,
): Box {
  let w = box.x1 - box.x0;
  let h = box.y1 - box.y0;
  if (moved.x === 0 && moved.y !== 0) w = Math.min(width, h * ratio);
  else if (moved.y === 0 && moved.x !== 0) h = Math.min(height, w / ratio);
  if (w / h > ratio) w = h * ratio;
  else h = w / ratio;
  const place = (low: number, high: number, size: number, side: number, most: number): number => {
    const at = side < 0 ? high - size : side > 0 ? low : (low + high - size) / 2;
    return Math.min(most - size, Math.max(0, at));
  };
  const x0 = place(box.x0, box.x1, w, moved.x, width);
  const y0 = place(box.y0, box.y1, h, moved.y, height);
  return { x0, y0, x1: x0 + w, y1: y0 + h };
}

/** The crop as it stands when it is taken; a crop of everything is none. */
export const cropOffer = (desk: Desk): Offer => ({
  text: 'Crop to this',
  label: 'Crop the picture',
  get recipe() {
    const { task } = desk.pointing;
    const { traced, follow } = desk.picture;
    if (task?.kind !== 'crop' || !traced) return together();
    const { width, height } = seenSize(traced);
    const { x0, y0, x1, y1 } = task.box;
    const all = x0 < 0.5 && y0 < 0.5 && x1 > width - 0.5 && y1 > height - 0.5;
    return pictureRecipe(traced, { crop: all ? null : task.box }, follow);
  },
  taken: () => (desk.pointing.task = null),
});
