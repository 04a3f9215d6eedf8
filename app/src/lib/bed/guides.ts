import { distance, removeGuides, setGuide, subtract, type Guide, toDegrees } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import type { BedPointer, Grip } from './behaviour';

/** How near a pointer must be to a guide to take it, screen pixels. */
const GUIDE_REACH = 4;
/** A press this near to where a guide was pressed before moves it; farther off it turns it. */
const PIVOT_REACH = 14;
const TURN_STEP = Math.PI / 12;

/** The guide under the pointer, unless guides are locked. */
export function guideAt(desk: Desk, p: BedPointer): Guide | null {
  const { locked, lines } = desk.art.guides;
  if (locked || desk.pointing.task) return null;
  const far = (g: Guide): number =>
    Math.abs((p.sheet.x - g.x) * Math.sin(g.angle) - (p.sheet.y - g.y) * Math.cos(g.angle)) *
    desk.looking.view.scale;
  const near = lines.filter((g) => far(g) <= GUIDE_REACH * (p.type === 'touch' ? 2 : 1));
  return near.length > 0 ? near.reduce((a, b) => (far(b) < far(a) ? b : a)) : null;
}

/** Where a press on the guide turns it about; null when it would move it. */
export function pivotOf(desk: Desk, guide: Guide, p: BedPointer): { x: number; y: number } | null {
  const { pivot } = desk.pointing;
  if (pivot?.guide !== guide.id) return null;
  return distance(pivot.at, p.sheet) * desk.looking.view.scale > PIVOT_REACH ? pivot.at : null;
}

const half = (angle: number): number => angle - Math.PI * Math.floor(angle / Math.PI + 0.5);

/**
 * A drag moves a guide; let go on the bed's edge, where the rulers are, it goes. A click marks a place on it: a drag
 * from farther along then turns it about that place, with Shift in steps of 15°.
 */
export function gripGuide(desk: Desk, guide: Guide, start: BedPointer): Grip {
  const about = pivotOf(desk, guide, start);
  const gesture = desk.gesture(about ? 'Turn the guide' : 'Move the guide');
  const EDGE = 18;
  const turned = (p: BedPointer): number => {
    const to = subtract(p.sheet, about!);
    const angle = half(Math.atan2(to.y, to.x));
    return p.shift ? Math.round(angle / TURN_STEP) * TURN_STEP : angle;
  };
  return {
    drag(p) {
      if (about) {
        const angle = turned(p);
        gesture.show(setGuide(guide.id, { x: about.x, y: about.y, angle }));
        desk.pointing.pointerNote = { at: p.sheet, text: `${(-toDegrees(angle)).toFixed(1)}°` };
      } else {
        const d = subtract(p.sheet, start.sheet);
        gesture.show(setGuide(guide.id, { x: guide.x + d.x, y: guide.y + d.y }));
      }
    },
    release(p) {
      if (!about && (p.screen.x < EDGE || p.screen.y < EDGE)) gesture.show(removeGuides(guide.id));
      gesture.keep();
      desk.pointing.pointerNote = null;
      desk.pointing.pivot = null;
    },
    click() {
      gesture.drop();
      desk.pointing.pivot =
        desk.pointing.pivot?.guide === guide.id ? null : { guide: guide.id, at: start.sheet };
    },
    cancel() {
      gesture.drop();
      desk.pointing.pointerNote = null;
    },
  };
}
