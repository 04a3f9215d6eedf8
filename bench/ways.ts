// The ways in which a hand lays an outline on its edge, told press by press. It strays as much as a pointer does at 100 %, and mends
// what is worst at 400 % until all of it is near enough.
import {
  deriveFlow,
  flowAll,
  nearestOnPath,
  pullSegment,
  segmentCount,
  segmentCubic,
  settle,
  type FieldTiles,
  type Oklab,
  type Path,
  type Point,
} from '@mirrot/core';
import { cubicLength, cubicPoint } from '../core/src/geometry/cubic';
import { distance } from '../core/src/geometry/vector';
import { clickAlong } from '../core/src/trace/clicking';
import { seeded } from '../core/src/seed';
import { pyramid } from './bond-set';
import { click, drag, press, type Hand } from './keystrokes';

/** How far a hand strays either way at 100 %, screen pixels, and how many times it looks closer to mend. */
const STRAYS_PX = 2.5;
const CLOSER = 4;
/** Near enough, on the mean; and so many mends are enough of trying. */
export const NEAR_ENOUGH_PX = 0.5;
const MOST_MENDS = 80;
/** Corners that turn by more than this stay so when a rough pass is made flowing, as on the desk. */
const SHARPEST = (70 * Math.PI) / 180;

/** How far each segment of a path lies from an outline, on the mean, and all of it. */
export function offsOf(path: Path, truth: Path): { readonly segments: number[]; readonly mean: number } {
  let [sum, count] = [0, 0];
  const segments = Array.from({ length: segmentCount(path) }, (_, s) => {
    const cubic = segmentCubic(path, s);
    const n = Math.max(4, Math.round(cubicLength(cubic) / 4));
    let own = 0;
    for (let i = 0; i < n; i++) own += nearestOnPath(truth, cubicPoint(cubic, (i + 0.5) / n))!.distance;
    sum += own * (cubicLength(cubic) / n);
    count += cubicLength(cubic);
    return own / n;
  });
  return { segments, mean: count > 0 ? sum / count : 0 };
}

/** A picture in full size, half and quarter, as Reach looks at it and as Settle does. */
export interface Seen {
  /** Its edges, or the middles of its strokes. */
  readonly fields: readonly FieldTiles[];
  /** Its edges, or the middles of strokes too thin for two borders. */
  readonly borders: readonly FieldTiles[];
  /** Width of strokes that are followed by both their borders. */
  readonly stroke: number | undefined;
}

/** An outline to be laid on its edge, and the hand that strays from it. */
export interface Case {
  readonly truth: Path;
  readonly seen: Seen;
  /** The colour that it is filled with, where that is known. */
  readonly own: Oklab | undefined;
  readonly stray: (p: Point, closer?: number) => Point;
}

export function strayingHand(seed: number): Case['stray'] {
  const random = seeded(seed);
  const off = (closer: number): number => (STRAYS_PX / closer) * (2 * random() - 1);
  return (p, closer = 1) => ({ x: p.x + off(closer), y: p.y + off(closer) });
}

/**
 * Mends what is worst, closer to, until it is near enough: a side by one pull where that does, else its anchors and its handles, one
 * after the other.
 */
function mended(path: Path, { truth, stray }: Case, hand: Hand): Path {
  let now = path;
  let off = offsOf(now, truth);
  if (off.mean > NEAR_ENOUGH_PX) press(hand, 2);
  const within = (2 * STRAYS_PX) / CLOSER;
  /** An anchor's place, or one of its handles, drawn to where it should be, unless it is there. */
  const drawn = (i: number, what: 'at' | 'in' | 'out'): void => {
    const [a, meant] = [now.anchors[i]!, truth.anchors[i]!];
    const [is, should] = what === 'at' ? [a, meant] : [a[what], meant[what]];
    if (is === should || (is && should && distance(is, should) <= within)) return;
    drag(hand);
    const by = should && stray(should, CLOSER);
    const next = what === 'at' ? { ...a, x: by!.x, y: by!.y } : { ...a, kind: 'corner' as const, [what]: by };
    // Flowing neighbours follow.
    now = deriveFlow({ ...now, anchors: now.anchors.map((old, k) => (k === i ? next : old)) });
  };
  for (let k = 0; k < MOST_MENDS && off.mean > NEAR_ENOUGH_PX; k++) {
    const worst = off.segments.indexOf(Math.max(...off.segments));
    const { point } = nearestOnPath(truth, cubicPoint(segmentCubic(now, worst), 0.5))!;
    const pulled = pullSegment(now, worst, 0.5, stray(point, CLOSER));
    if (offsOf(pulled, truth).segments[worst]! <= NEAR_ENOUGH_PX) {
      drag(hand);
      now = pulled;
    } else {
      const next = (worst + 1) % now.anchors.length;
      for (const i of [worst, next]) drawn(i, 'at');
      drawn(worst, 'out');
      drawn(next, 'in');
    }
    off = offsOf(now, truth);
  }
  return now;
}

/** Anchors clicked, straight sides between them. */
const clicked = ({ truth, stray }: Case, hand: Hand): Path => ({
  ...truth,
  anchors: truth.anchors.map((a) => {
    click(hand);
    const { x, y } = stray(a);
    return { ...a, x, y, kind: 'corner', in: null, out: null };
  }),
});
/** Sides that bend pulled once each. */
function pulledOnce(path: Path, { truth, stray }: Case, hand: Hand): Path {
  let now = path;
  for (let s = 0; s < segmentCount(now); s++) {
    const middle = cubicPoint(segmentCubic(truth, s), 0.5);
    if (nearestOnPath(path, middle)!.distance < 2 * STRAYS_PX) continue;
    drag(hand);
    now = pullSegment(now, s, 0.5, stray(middle));
  }
  return now;
}

/** Each way gives the path as it lies in the end, and whether it came all the way round. */
export const WAYS: Readonly<
  Record<string, (c: Case, hand: Hand) => { readonly path: Path; readonly whole: boolean }>
> = {
  'handles while going': (c, hand) => {
    const { truth, stray } = c;
    const handle = (h: Point | null): Point | null => h && stray(h);
    const path: Path = {
      ...truth,
      anchors: truth.anchors.map((a) => {
        const { x, y } = stray(a);
        if (!a.in && !a.out) click(hand);
        else drag(hand);
        // The drag pulls both handles out as long; a corner's other one is pulled by itself.
        if (a.kind === 'corner' && a.in && a.out) drag(hand);
        const out = handle(a.out);
        const mirrored = a.kind !== 'corner' && out && a.in ? { x: -out.x, y: -out.y } : handle(a.in);
        return { ...a, x, y, out, in: mirrored };
      }),
    };
    click(hand);
    return { path: mended(path, c, hand), whole: true };
  },
  'corners, then pull': (c, hand) => {
    const path = clicked(c, hand);
    click(hand);
    return { path: mended(pulledOnce(path, c, hand), c, hand), whole: true };
  },
  'rough pass, Flow all': (c, hand) => {
    const path = clicked(c, hand);
    click(hand);
    press(hand);
    return { path: mended(flowAll(path, { sharpest: SHARPEST }), c, hand), whole: true };
  },
  Reach: (c, hand) => {
    const { path, whole } = clickAlong((far) => pyramid(c.seen.fields, far), c.truth, 0.6, 8, {
      light: 'true',
      strays: STRAYS_PX,
    });
    for (let i = 0; i <= path.anchors.length; i++) click(hand);
    return { path, whole };
  },
  'corners, pull, Settle': (c, hand) => {
    const path = clicked(c, hand);
    click(hand);
    const rough = pulledOnce(path, c, hand);
    const { borders, stroke } = c.seen;
    const [field, ...halves] = borders;
    const coarser = stroke === undefined ? halves : [];
    press(hand);
    const { path: settled } = settle(rough, field!, {
      reach: 12,
      light: 'true',
      stroke,
      coarser,
      ...(c.own && { own: c.own }),
    });
    press(hand);
    return { path: mended(settled, c, hand), whole: true };
  },
};
