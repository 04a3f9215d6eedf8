import { dot, length, scale, subtract, unit, type Point } from '../geometry/vector';
import { handleOrNone, withFittingLengths, withoutMark } from './anchor';
import { freezeSegment } from './flow';
import { anchorAt, segmentIsLine, tangentAt, withAnchor, type Path } from './path';
import { otherSide, type Anchor, type AnchorKind, type HandleSide } from './anchor';

/** The segment on a side of anchor `i`, or null at the end of an open path. */
export function segmentBeside(path: Path, i: number, side: HandleSide): number | null {
  const neighbour = anchorAt(path, i, side === 'out' ? 1 : -1);
  if (neighbour === null || path.anchors.length < 2) return null;
  return side === 'out' ? i : neighbour;
}

/**
 * Direction a smooth anchor's handle on `side` must keep because the other side is a straight segment
 * arriving in it; null when it is free to turn.
 */
export function lineDirection(path: Path, i: number, side: HandleSide): Point | null {
  const beyond = segmentBeside(path, i, otherSide(side));
  if (beyond === null || !segmentIsLine(path, beyond)) return null;
  const t = tangentAt(path, i, otherSide(side));
  return t && (side === 'out' ? t : scale(t, -1));
}

/** An anchor with one handle set; a smooth one's other handle turns to stay in line, its length kept. */
export function withHandle(anchor: Anchor, side: HandleSide, handle: Point | null): Anchor {
  const other = otherSide(side);
  const opposite = anchor[other];
  const direction = handle && unit(handle);
  if (anchor.kind === 'smooth' && opposite && direction)
    return {
      ...anchor,
      [side]: handle,
      [other]: scale(direction, anchor.equal ? -length(handle!) : -length(opposite)),
    };
  return { ...anchor, [side]: handle };
}

/**
 * Sets a handle's end.
 *
 * @param to where the handle should end, in the path's coordinates; on the anchor itself removes the handle
 * @param breaking true makes the anchor a corner, so that the other handle stays where it is
 * @returns the new path. A smooth anchor beside a straight segment keeps its handle on that line's direction.
 */
export function moveHandle(path: Path, i: number, side: HandleSide, to: Point, breaking = false): Path {
  if (!path.anchors[i]) throw new RangeError(`There is no anchor ${i}.`);
  // A handle that is touched no longer flows, nor does the other end of its segment.
  const beside = segmentBeside(path, i, side);
  if (beside !== null) path = freezeSegment(path, beside);
  const anchor = path.anchors[i]!;
  let handle = handleOrNone(subtract(to, anchor));
  if (breaking) return withAnchor(path, i, withFittingLengths({ ...anchor, kind: 'corner', [side]: handle }));
  const line = anchor.kind === 'smooth' ? lineDirection(path, i, side) : null;
  if (handle && line) {
    const reach = Math.max(0, dot(handle, line));
    handle = reach === 0 ? null : scale(line, reach);
  }
  return withAnchor(path, i, withHandle(anchor, side, handle));
}

/**
 * Turns an anchor's kind. To corner: nothing moves, the handles are merely free. To flowing: its handles are for
 * `deriveFlow` to work out. To smooth: both handles turn
 * onto their common direction, lengths kept; a lone handle turns onto the straight segment opposite, which stays
 * straight; an anchor between two straight segments gets handles of a third of each side along the direction
 * from its neighbour before to its neighbour after.
 *
 * @throws RangeError when the anchor does not exist
 */
export function setAnchorKind(path: Path, i: number, kind: AnchorKind): Path {
  const anchor = path.anchors[i];
  if (!anchor) throw new RangeError(`The path has ${path.anchors.length} anchors; there is no anchor ${i}.`);
  if (kind !== 'smooth' || anchor.kind === kind) {
    return withAnchor(path, i, kind === 'smooth' ? anchor : withFittingLengths({ ...anchor, kind }));
  }
  const { in: arriving, out: leaving } = anchor;
  if (arriving && leaving) {
    const direction = unit(subtract(leaving, arriving)) ?? unit(leaving);
    if (!direction) return withAnchor(path, i, { ...anchor, kind });
    return withAnchor(path, i, {
      ...anchor,
      kind,
      in: scale(direction, -length(arriving)),
      out: scale(direction, length(leaving)),
    });
  }
  if (arriving || leaving) {
    const side: HandleSide = leaving ? 'out' : 'in';
    const line = lineDirection(path, i, side);
    const reach = length((leaving ?? arriving)!);
    const handle = line ? scale(line, reach) : anchor[side];
    return withAnchor(path, i, { ...anchor, kind, [side]: handle });
  }
  const before = anchorAt(path, i, -1);
  const after = anchorAt(path, i, 1);
  if (before === null || after === null || before === after) return withAnchor(path, i, { ...anchor, kind });
  const a = path.anchors[before]!;
  const b = path.anchors[after]!;
  const direction = unit(subtract(b, a));
  if (!direction) return withAnchor(path, i, { ...anchor, kind });
  return withAnchor(path, i, {
    ...anchor,
    kind,
    in: scale(direction, -length(subtract(anchor, a)) / 3),
    out: scale(direction, length(subtract(b, anchor)) / 3),
  });
}

/**
 * Switches equal lengths of a smooth anchor's handles on or off. On: both become as long as their mean; on another kind
 * the anchor becomes smooth first.
 */
export function setEqualLengths(path: Path, i: number, on: boolean): Path {
  const turned = on ? setAnchorKind(path, i, 'smooth') : path;
  const bare = withoutMark(turned.anchors[i]!, 'equal');
  if (!on) return withAnchor(turned, i, bare);
  const { in: arriving, out: leaving } = bare;
  const mean = arriving && leaving ? (length(arriving) + length(leaving)) / 2 : 0;
  const even = (h: Point | null): Point | null => {
    const u = h && unit(h);
    return u && mean > 0 ? scale(u, mean) : h;
  };
  return withAnchor(turned, i, { ...bare, equal: true, in: even(arriving), out: even(leaving) });
}

/**
 * Turns and stretches the handles on one side of several anchors alike, each about its own anchor. Anchors without a
 * handle there stay as they are.
 *
 * @param turn radians, clockwise on screen
 * @param stretch factor of the lengths, 0 or more; 0 takes the handles away
 */
export const turnHandles = (
  path: Path,
  indices: readonly number[],
  side: HandleSide,
  turn: number,
  stretch: number,
): Path =>
  indices.reduce((p, i) => {
    const anchor = p.anchors[i];
    const h = anchor?.[side];
    if (!h) return p;
    const [c, s] = [Math.cos(turn) * stretch, Math.sin(turn) * stretch];
    return moveHandle(p, i, side, { x: anchor.x + c * h.x - s * h.y, y: anchor.y + s * h.x + c * h.y });
  }, path);
