import { apply, applyLinear, type Affine } from '../geometry/affine';
import { cross, dot, length, type Point } from '../geometry/vector';

// Every making and changing of an anchor: its kind, its handles and its marks. What an operation of a path does to them
// follows from these few functions, and one table tests it (anchor.test.ts).

/** Corner: its handles are free. Smooth: they lie in one line. Flowing: they are worked out from the neighbours. */
export type AnchorKind = 'corner' | 'smooth' | 'flowing';

/** Which handle of an anchor: the one of the segment that arrives, or of the one that leaves. */
export type HandleSide = 'in' | 'out';

/** A point the path goes through. Handles are relative to it; null means none (it lies in the anchor). */
export interface Anchor {
  readonly x: number;
  readonly y: number;
  readonly kind: AnchorKind;
  readonly in: Point | null;
  readonly out: Point | null;
  /** A smooth anchor whose handles are kept equally long. */
  readonly equal?: true;
  /** Stays when the path is thinned out. */
  readonly protected?: true;
  /** The segment that leaves it leaves the picture on purpose. */
  readonly meant?: true;
  /** Anchors of neighbours with the same key are one: they move together. */
  readonly shared?: string;
}

/** What an anchor may carry besides its place, kind and handles. */
export const MARKS = ['equal', 'protected', 'meant', 'shared'] as const;
export type Mark = (typeof MARKS)[number];

export const otherSide = (side: HandleSide): HandleSide => (side === 'in' ? 'out' : 'in');

export const corner = (x: number, y: number): Anchor => ({ x, y, kind: 'corner', in: null, out: null });

export const isMarked = (a: Anchor): boolean =>
  a.equal !== undefined || a.protected !== undefined || a.meant !== undefined || a.shared !== undefined;

/** An anchor without one of its marks; itself when it has not got it. */
export function withoutMark(a: Anchor, mark: Mark): Anchor {
  if (a[mark] === undefined) return a;
  const bare: Record<string, unknown> = { ...a };
  Reflect.deleteProperty(bare, mark);
  return bare as unknown as Anchor;
}

/** The marks of one anchor put on another; its own give way. */
export const withMarksOf = (a: Anchor, from: Anchor): Anchor =>
  MARKS.reduce<Anchor>(
    (made, mark) => (from[mark] === undefined ? withoutMark(made, mark) : { ...made, [mark]: from[mark] }),
    a,
  );

/** A handle, or none where it would lie in its anchor. */
export const handleOrNone = (handle: Point): Point | null =>
  handle.x === 0 && handle.y === 0 ? null : handle;

/** An anchor with another kind and other handles. Most have no marks: written out, they are made twice as fast. */
export const withHandles = (
  a: Anchor,
  kind: AnchorKind,
  arriving: Point | null,
  leaving: Point | null,
): Anchor =>
  isMarked(a)
    ? { ...a, kind, in: arriving, out: leaving }
    : { x: a.x, y: a.y, kind, in: arriving, out: leaving };

/** Handles count as equally long within this share of the longer one. */
const EQUAL_WITHIN = 1e-9;

/** An anchor that says "equal lengths" only while it is smooth and they are. */
export function withFittingLengths(a: Anchor): Anchor {
  if (!a.equal) return a;
  const [arriving, leaving] = [a.in && length(a.in), a.out && length(a.out)];
  const even =
    arriving === null ||
    leaving === null ||
    Math.abs(arriving - leaving) <= EQUAL_WITHIN * Math.max(arriving, leaving);
  return a.kind === 'smooth' && even ? a : withoutMark(a, 'equal');
}

/** Sine of the angle by which two handles may miss one line and still count as in it. */
const LINE_WITHIN = 1e-6;

const inOneLine = (a: Point | null, b: Point | null): boolean =>
  !a || !b || (Math.abs(cross(a, b)) <= LINE_WITHIN * length(a) * length(b) && dot(a, b) <= 0);

/** A smooth anchor whose handles no longer lie in one line is a corner; one that flowed stands still. */
export function withFittingKind(a: Anchor): Anchor {
  const kind = a.kind === 'flowing' ? 'smooth' : a.kind;
  const fitting = kind === 'smooth' && !inOneLine(a.in, a.out) ? 'corner' : kind;
  return withFittingLengths(fitting === a.kind ? a : { ...a, kind: fitting });
}

/** An anchor and its handles under a map; one that flows stands still where the map changes shapes. */
export function mapAnchor(a: Anchor, map: Affine, keepsShapes: boolean): Anchor {
  const turn = (h: Point | null): Point | null => h && applyLinear(map, h);
  const kind = !keepsShapes && a.kind === 'flowing' ? 'smooth' : a.kind;
  return withFittingLengths({ ...a, ...apply(map, a), kind, in: turn(a.in), out: turn(a.out) });
}

/** An anchor of the path run the other way. The mark of the segment that leaves it is the path's to move. */
export const turnedAnchor = (a: Anchor): Anchor => ({ ...withoutMark(a, 'meant'), in: a.out, out: a.in });

/**
 * Two anchors on one spot made one corner: it arrives as the first and leaves as the second, and has what marks either
 * has. Shared with neighbours it is by the first's key.
 */
export function joinedAnchor(first: Anchor, second: Anchor): Anchor {
  const shared = first.shared ?? second.shared;
  return {
    x: first.x,
    y: first.y,
    kind: 'corner',
    in: first.in,
    out: second.out,
    ...((first.protected || second.protected) && { protected: true as const }),
    ...(second.meant && { meant: true as const }),
    ...(shared !== undefined && { shared }),
  };
}

/** Where an open path begins: nothing arrives there. */
export const asBeginning = (a: Anchor): Anchor => withFittingLengths({ ...a, in: null });

/** Where an open path ends: nothing leaves there, and no segment has the mark of one. */
export const asEnding = (a: Anchor): Anchor => withFittingLengths({ ...withoutMark(a, 'meant'), out: null });
