import type { Point } from '../geometry/vector';
import { acrossAt, strengthAt } from './field-form';
import type { FieldTiles } from './field-tiles';
import { STRANGE, strangeTo, type Training } from './learnt-edge';

/** Pixels to either side of its beginning that a wire can go. */
export const ROOM = 400;
const SIDE = 2 * ROOM + 1;
/** Cost of a pixel's length without any edge, in whole steps; with the best edge it is 1. */
const COST_WITHOUT_EDGE = 60;
/** Cost of going across an edge instead of along it. */
const ACROSS = 40;
/** Pixels that a wire keeps away from what is drawn, but within so many of where it begins. */
const CLEAR = 2;
const OPEN = 14;
/** No cost known, and no step. */
const NEVER = 0xffffffff;
const NOWHERE = 255;
const DIAGONAL = Math.SQRT2;
const LONGEST_STEP = Math.ceil(DIAGONAL * (COST_WITHOUT_EDGE + ACROSS)) + 1;
/** Steps to the eight neighbours. */
const DX = [1, 1, 0, -1, -1, -1, 0, 1] as const;
const DY = [0, 1, 1, 1, 0, -1, -1, -1] as const;

/** A live wire from one pixel: what has been found of the cheapest ways to all others. */
export interface Wire {
  readonly field: FieldTiles;
  /** The pixel it starts from. */
  readonly from: Point;
  /** Slope that counts as half an edge. */
  readonly half: number;
  /** What the edge looks like that is followed; null where nothing was learnt. */
  readonly training: Training | null;
  /** The field's pixel of the grid's first. */
  readonly x0: number;
  readonly y0: number;
  /** Cheapest cost so far to each pixel of the grid, and the step it was reached by; 255 for none. */
  readonly cost: Uint32Array;
  readonly by: Uint8Array;
  /** 1 where the cheapest way is known, 2 where none may go. */
  readonly done: Uint8Array;
  /** What a step onto each pixel costs by each of the first four ways, a byte each, and by the four back; 0 until worked out. */
  readonly steps: Uint32Array;
  readonly back: Uint32Array;
  /** Pixels of the grid that have been written to, in no order, and how many. */
  readonly touched: Int32Array;
  count: number;
  /** Pixels waiting, by their cost (Dial 1969): a ring of as many lists as a step can cost. */
  readonly lists: number[][];
  level: number;
  waiting: number;
}

/**
 * The strongest pixel about a point, nearer ones preferred; null outside the picture. Whole numbers.
 *
 * @param wire where it has learnt what its edge looks like, that which is most of an edge to it
 */
export function strongestNear(
  field: FieldTiles,
  p: Point,
  within: number,
  wire?: Pick<Wire, 'field' | 'half' | 'training'>,
): Point | null {
  const { width, height } = field.raster;
  const r = Math.max(1, Math.ceil(within));
  const [cx, cy] = [Math.floor(p.x), Math.floor(p.y)];
  let best: Point | null = null;
  let most = 0;
  for (let y = Math.max(0, cy - r); y <= Math.min(height - 1, cy + r); y++)
    for (let x = Math.max(0, cx - r); x <= Math.min(width - 1, cx + r); x++) {
      const d = Math.sqrt((x + 0.5 - p.x) ** 2 + (y + 0.5 - p.y) ** 2);
      if (d > within + 0.5) continue;
      const learnt = wire?.training ? edgeAsLearnt(wire, x, y) : null;
      const strength = learnt ? Math.max(learnt.left, learnt.right) : strengthAt(field, x, y);
      const s = strength * (1 - (0.6 * d) / (within + 1));
      if (s > most) {
        most = s;
        best = { x, y };
      }
    }
  return best;
}

/** An edge counts beside a stronger one close by that has so large a share of its strength. */
const BESIDE_STRONGER = 0.3;

/**
 * The nearest edge to a point: where a path begins nothing else tells two edges close by apart.
 *
 * @returns a pixel in the middle of it; whole numbers; null where there is none
 */
export function nearestEdgePixel(field: FieldTiles, p: Point, within: number): Point | null {
  const { width, height } = field.raster;
  const strongest = strongestNear(field, p, within);
  if (!strongest) return null;
  const least = BESIDE_STRONGER * strengthAt(field, strongest.x, strongest.y);
  const r = Math.max(1, Math.ceil(within));
  const [cx, cy] = [Math.floor(p.x), Math.floor(p.y)];
  let best: Point | null = null;
  let near = within + 0.5;
  for (let y = Math.max(1, cy - r); y <= Math.min(height - 2, cy + r); y++)
    for (let x = Math.max(1, cx - r); x <= Math.min(width - 2, cx + r); x++) {
      const d = Math.sqrt((x + 0.5 - p.x) ** 2 + (y + 0.5 - p.y) ** 2);
      if (d >= near) continue;
      const { strength, nx, ny } = acrossAt(field, x, y);
      const [dx, dy] = [Math.round(nx), Math.round(ny)];
      const isMiddle =
        strength >= strengthAt(field, x + dx, y + dy) && strength >= strengthAt(field, x - dx, y - dy);
      if (strength >= least && isMiddle) [near, best] = [d, { x, y }];
    }
  return best;
}

/**
 * Begins a live wire. Source: Mortensen and Barrett, "Intelligent scissors for image composition", SIGGRAPH 1995: a step
 * costs less the more edge lies under it and the better it goes along it; what counts as an edge is learnt where the wire
 * begins.
 *
 * @param from a pixel of the picture, whole numbers
 * @param least slope (or bend) below which nothing counts as an edge
 * @param drawn points it keeps away from, but for those beside its beginning: what is drawn already
 * @param training what was learnt of the edge so far: others count for less
 * @param before an earlier wire, whose room is used again
 */
export function startWire(
  field: FieldTiles,
  from: Point,
  least: number,
  drawn: readonly Point[] = [],
  before?: Wire,
  training: Training | null = null,
): Wire {
  const { cost, by, done, steps, back, touched, lists } = roomOf(before);
  const wire: Wire = {
    field,
    from,
    half: Math.max(least, 0.25 * strengthAt(field, from.x, from.y)),
    training,
    x0: from.x - ROOM,
    y0: from.y - ROOM,
    cost,
    by,
    done,
    steps,
    back,
    touched,
    count: 0,
    lists,
    level: 0,
    waiting: 1,
  };
  for (const p of drawn) {
    const [px, py] = [Math.floor(p.x) - wire.x0, Math.floor(p.y) - wire.y0];
    if (Math.hypot(px - ROOM, py - ROOM) <= OPEN) continue;
    for (let y = Math.max(0, py - CLEAR); y <= Math.min(SIDE - 1, py + CLEAR); y++)
      for (let x = Math.max(0, px - CLEAR); x <= Math.min(SIDE - 1, px + CLEAR); x++)
        if (done[y * SIDE + x] === 0) {
          done[y * SIDE + x] = 2;
          touched[wire.count++] = y * SIDE + x;
        }
  }
  const start = ROOM * SIDE + ROOM;
  cost[start] = 0;
  touched[wire.count++] = start;
  lists[0]!.push(start);
  return wire;
}

type Room = Pick<Wire, 'cost' | 'by' | 'done' | 'steps' | 'back' | 'touched' | 'lists'>;
/** Room for a wire, as good as new: only what an earlier one wrote is wiped. */
function roomOf(before: Wire | undefined): Room {
  const size = SIDE * SIDE;
  if (!before)
    return {
      cost: new Uint32Array(size).fill(NEVER),
      by: new Uint8Array(size).fill(NOWHERE),
      done: new Uint8Array(size),
      steps: new Uint32Array(size),
      back: new Uint32Array(size),
      touched: new Int32Array(size),
      lists: Array.from({ length: LONGEST_STEP + 1 }, () => []),
    };
  const { cost, by, done, steps, touched, count, lists } = before;
  for (let i = 0; i < count; i++) {
    const at = touched[i]!;
    cost[at] = NEVER;
    by[at] = NOWHERE;
    done[at] = 0;
    steps[at] = 0;
  }
  for (const list of lists) list.length = 0;
  return before;
}

/** What the step `way` costs that ends on a pixel with so much edge, across which lies (nx, ny); a whole number. */
export function stepCost(edge: number, nx: number, ny: number, way: number): number {
  const through = DX[way]! * nx + DY[way]! * ny;
  // On the diagonal `through` is √2 times as long, and so is the step.
  return way & 1
    ? 1 + ((DIAGONAL * ((COST_WITHOUT_EDGE - 1) * (1 - edge) + (ACROSS / 2) * edge * through * through)) | 0)
    : 1 + (((COST_WITHOUT_EDGE - 1) * (1 - edge) + ACROSS * edge * through * through) | 0);
}

/** How much edge a pixel has, 0 to 1, and the way across it. */
export function edgeOf(
  { field, half }: Pick<Wire, 'field' | 'half'>,
  x: number,
  y: number,
): { edge: number; nx: number; ny: number } {
  const { strength, nx, ny } = acrossAt(field, x, y);
  const s = strength * strength;
  return { edge: s / (s + half * half), nx, ny };
}

/** Edges so faint are not looked at for their colours: they hardly count. */
const FAINT = 0.05;

/** How much edge a pixel has for who goes along it with (nx, ny), the way across it, to the left, and to the right; 0 to 1. */
export function edgeAsLearnt(
  wire: Pick<Wire, 'field' | 'half' | 'training'>,
  x: number,
  y: number,
): { left: number; right: number; nx: number; ny: number } {
  const { edge, nx, ny } = edgeOf(wire, x, y);
  if (!wire.training || edge < FAINT) return { left: edge, right: edge, nx, ny };
  const [toLeft, toRight] = strangeTo(wire.training, { x: x + 0.5, y: y + 0.5 }, { x: nx, y: ny });
  return { left: edge * (1 - STRANGE * toLeft), right: edge * (1 - STRANGE * toRight), nx, ny };
}

/** Whether who goes that way has (nx, ny) to the left, as seen on screen. */
export const isLeftOf = (nx: number, ny: number, way: number): boolean => DY[way]! * nx - DX[way]! * ny > 0;

/** Works out what steps onto a pixel cost, `at` in the grid: there and back cost the same where nothing was learnt. */
function priceSteps(wire: Wire, at: number, x: number, y: number): void {
  const { left, right, nx, ny } = edgeAsLearnt(wire, x, y);
  wire.steps[at] = fourSteps(left, right, nx, ny, 0);
  wire.back[at] = left === right ? wire.steps[at] : fourSteps(left, right, nx, ny, 4);
}

/** Costs of four ways from `first` on, a byte each, of an edge that counts so much with (nx, ny) to the left, and to the right. */
function fourSteps(left: number, right: number, nx: number, ny: number, first: 0 | 4): number {
  let packed = 0;
  for (let k = 0; k < 4; k++) {
    const way = first + k;
    const edge = isLeftOf(nx, ny, way) ? left : right;
    packed |= stepCost(edge, nx, ny, way) << (8 * k);
  }
  return packed;
}

/** Finds cheapest ways until the one to a pixel is known, or `most` pixels more are. */
function expand(wire: Wire, goal: number, most: number): void {
  const { cost, by, done, steps, back, touched, lists, field, x0, y0 } = wire;
  const { width, height } = field.raster;
  // The part of the grid that lies on the picture.
  const left = Math.max(0, -x0);
  const top = Math.max(0, -y0);
  const right = Math.min(SIDE, width - x0) - 1;
  const bottom = Math.min(SIDE, height - y0) - 1;
  let still = most;
  while (wire.waiting > 0 && !done[goal] && still > 0) {
    const list = lists[wire.level % lists.length]!;
    const at = list.pop();
    if (at === undefined) {
      wire.level++;
      continue;
    }
    wire.waiting--;
    if (done[at] || cost[at] !== wire.level) continue;
    done[at] = 1;
    still--;
    const gy = (at / SIDE) | 0;
    const gx = at - gy * SIDE;
    for (let way = 0; way < 8; way++) {
      const qx = gx + DX[way]!;
      const qy = gy + DY[way]!;
      if (qx < left || qy < top || qx > right || qy > bottom) continue;
      const q = qy * SIDE + qx;
      if (done[q]) continue;
      if (steps[q] === 0) {
        priceSteps(wire, q, x0 + qx, y0 + qy);
        touched[wire.count++] = q;
      }
      const c = wire.level + (((way < 4 ? steps : back)[q]! >>> ((way & 3) << 3)) & 255);
      if (c >= cost[q]!) continue;
      cost[q] = c;
      by[q] = way;
      lists[c % lists.length]!.push(q);
      wire.waiting++;
    }
  }
}

/**
 * The cheapest way from where the wire begins to a pixel, both included.
 *
 * @param most pixels worked out in this call at most
 * @returns whole numbers; null where it is not known yet, or the pixel lies out of the wire's room
 */
export function wireTo(wire: Wire, to: Point, most = Infinity): Point[] | null {
  const [gx, gy] = [to.x - wire.x0, to.y - wire.y0];
  if (gx < 0 || gy < 0 || gx >= SIDE || gy >= SIDE) return null;
  const goal = gy * SIDE + gx;
  expand(wire, goal, most);
  if (wire.done[goal] !== 1) return null;
  const out: Point[] = [];
  let [x, y] = [gx, gy];
  for (;;) {
    out.push({ x: wire.x0 + x, y: wire.y0 + y });
    const way = wire.by[y * SIDE + x]!;
    if (way === NOWHERE) break;
    x -= DX[way]!;
    y -= DY[way]!;
  }
  return out.reverse();
}

/** Whether the way to a pixel is not known yet, but may be when more is worked out. */
export function isOpen(wire: Wire, to: Point): boolean {
  const [gx, gy] = [to.x - wire.x0, to.y - wire.y0];
  if (gx < 0 || gy < 0 || gx >= SIDE || gy >= SIDE) return false;
  return wire.waiting > 0 && wire.done[gy * SIDE + gx] === 0;
}

/** Cost of the cheapest way to a pixel that has been worked out. */
export const wireCost = (wire: Wire, to: Point): number =>
  wire.cost[(to.y - wire.y0) * SIDE + (to.x - wire.x0)]!;
