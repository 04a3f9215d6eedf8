import { boxesMeet, boxHas, boxOfPoints, growBox } from '../geometry/bounds';
import { lineCubic, type Cubic } from '../geometry/cubic';
import { cubicIntersections } from '../geometry/intersect';
import { nearestOnCubic } from '../geometry/nearest';
import type { Point } from '../geometry/vector';
import { openPathAlong, pathAlong } from './along';
import { arrange, type Arrangement } from './arrangement';
import type { Stretch } from './stretch';
import type { Path } from './path';
import { cubicOf, endOf, runsAlong, startOf, turnedBack, type Walked } from './walk';

// Weed: pieces of lines between the places where these cross are taken away, and ends that meet then are joined.

/** A piece of a line from one crossing to the next, or to an end. */
export interface LinePiece {
  /** Which line. */
  readonly line: number;
  readonly cubics: readonly Cubic[];
  /** Its stretches in the line's own direction. */
  readonly walked: readonly Walked[];
}

export interface LinePieces {
  readonly arrangement: Arrangement;
  readonly pieces: readonly LinePiece[];
}

/** How many stretches begin or end at each vertex. */
function degreesOf(stretches: readonly Stretch[]): Map<number, number> {
  const degrees = new Map<number, number>();
  for (const { start, end } of stretches)
    for (const vertex of [start, end]) degrees.set(vertex, (degrees.get(vertex) ?? 0) + 1);
  return degrees;
}

/** The stretches of each line, in its direction. */
function walkedLines({ members, stretches }: Arrangement): Walked[][] {
  const places = members.map((): { at: number; walked: Walked }[] => []);
  for (const stretch of stretches)
    for (const { member, segment, from, reversed } of stretch.sources)
      places[member]!.push({ at: segment + from, walked: { stretch, forward: !reversed } });
  return places.map((list) => list.sort((a, b) => a.at - b.at).map(({ walked }) => walked));
}

/** Lines cut into pieces at all places where they cross or touch. */
export function linePieces(lines: readonly Path[]): LinePieces {
  const arrangement = arrange([], lines);
  const degrees = degreesOf(arrangement.stretches);
  const isCut = (vertex: number): boolean => degrees.get(vertex) !== 2;
  const pieces = walkedLines(arrangement).flatMap((walked, line): LinePiece[] => {
    const runs = runsAlong(walked, lines[line]!.closed, isCut);
    return runs.map((run) => ({ line, cubics: run.map(cubicOf), walked: run }));
  });
  return { arrangement, pieces };
}

/** Which pieces a swipe goes across, by number. */
export function piecesUnder(pieces: readonly LinePiece[], swipe: readonly Point[]): number[] {
  const cuts = swipe.slice(1).map((to, i) => lineCubic(swipe[i]!, to));
  const around = boxOfPoints(swipe);
  return pieces.flatMap(({ cubics }, n) =>
    cubics.some((cubic) => {
      const box = boxOfPoints(cubic);
      if (!boxesMeet(box, around)) return false;
      return cuts.some(
        (cut) => boxesMeet(boxOfPoints(cut), box) && cubicIntersections(cubic, cut).length > 0,
      );
    })
      ? [n]
      : [],
  );
}

/** The piece nearest to a point, by number; null where none lies within reach. */
export function pieceAt(pieces: readonly LinePiece[], p: Point, reach: number): number | null {
  let best: number | null = null;
  let least = reach;
  pieces.forEach(({ cubics }, n) => {
    for (const cubic of cubics) {
      if (!boxHas(growBox(boxOfPoints(cubic), least), p)) continue;
      const far = nearestOnCubic(cubic, p).distance;
      if (far <= least) [best, least] = [n, far];
    }
  });
  return best;
}

/** What lines become when pieces of them are taken away. */
export interface Weeded {
  /** By line: the paths it is now; null where nothing of it changed. A line that another one took in has none. */
  readonly paths: readonly (readonly Path[] | null)[];
}

/** A run of stretches that is left of a line, open at both ends. */
interface Left {
  readonly line: number;
  readonly walked: readonly Walked[];
}

/**
 * Lines without some of their pieces. Ends that meet now, two at a place, are joined: into a path of the line with the lowest
 * number.
 *
 * @param gone pieces by number; the same stretch of another line that lies on it goes too
 * @param idOf names the nth new path
 */
export function withoutPieces(
  { arrangement, pieces }: LinePieces,
  gone: readonly number[],
  idOf: (n: number) => string,
): Weeded {
  const { members } = arrangement;
  const goes = new Set(gone.flatMap((n) => pieces[n]?.walked.map(({ stretch }) => stretch) ?? []));
  const touched = new Set<number>();
  /** Where something was taken away. */
  const ends = new Set<number>();
  for (const stretch of goes) {
    for (const { member } of stretch.sources) touched.add(member);
    ends.add(stretch.start).add(stretch.end);
  }
  const walkedOf = walkedLines(arrangement);
  const isClosed = (line: number): boolean => members[line]![0]!.closed;
  let left = walkedOf.flatMap((walked, line): Left[] => {
    const runs = runsAlong(
      walked.filter(({ stretch }) => !goes.has(stretch)),
      isClosed(line),
    );
    if (!touched.has(line))
      return isClosed(line) ? [] : runs.slice(0, 1).map((run) => ({ line, walked: run }));
    return runs.map((run) => ({ line, walked: run }));
  });
  const stretchesLeft = arrangement.stretches.filter((stretch) => !goes.has(stretch));
  const degrees = degreesOf(stretchesLeft);
  const rings: Left[] = [];
  for (const vertex of ends) {
    if (degrees.get(vertex) !== 2) continue;
    const meeting = left.flatMap((one) => [
      ...(endOf(one.walked.at(-1)!) === vertex ? [{ one, way: one.walked }] : []),
      ...(startOf(one.walked[0]!) === vertex ? [{ one, way: one.walked.map(turnedBack).reverse() }] : []),
    ]);
    const [a, b] = meeting;
    if (meeting.length !== 2 || !a || !b) continue;
    left = left.filter((one) => one !== a.one && one !== b.one);
    if (a.one === b.one) rings.push(a.one);
    else {
      const [low, high] = a.one.line <= b.one.line ? [a, b] : [b, a];
      left.push({ line: low.one.line, walked: [...low.way, ...high.way.map(turnedBack).reverse()] });
      touched.add(low.one.line).add(high.one.line);
    }
  }
  let count = 0;
  const named = (line: number, first: boolean): string => (first ? members[line]![0]!.id : idOf(count++));
  const made = members.map((): Path[] => []);
  for (const { line, walked } of left)
    if (touched.has(line))
      made[line]!.push(openPathAlong(walked, arrangement, named(line, made[line]!.length === 0)));
  for (const { line, walked } of rings)
    made[line]!.push(pathAlong(walked, arrangement, named(line, made[line]!.length === 0)));
  return { paths: made.map((paths, line) => (touched.has(line) ? paths : null)) };
}

/** Places on lines where they cross or touch others or themselves, away from their anchors. */
export interface CrossingPlace {
  readonly line: number;
  readonly segment: number;
  readonly t: number;
}

/** A parameter so near an end of a segment is that end. */
const AT_END_PARAMETER = 1e-6;

/** Where lines meet others or themselves, as places for new anchors. */
export function crossingPlaces(lines: readonly Path[]): CrossingPlace[] {
  const { stretches } = arrange([], lines);
  const degrees = degreesOf(stretches);
  const out: CrossingPlace[] = [];
  const seen = new Set<string>();
  for (const { start, end, sources } of stretches)
    for (const { member, segment, from, to, reversed } of sources)
      for (const [vertex, t] of [
        [reversed ? end : start, from],
        [reversed ? start : end, to],
      ] as const) {
        const key = `${member} ${segment} ${t.toFixed(7)}`;
        if (degrees.get(vertex) === 2 || t < AT_END_PARAMETER || t > 1 - AT_END_PARAMETER || seen.has(key))
          continue;
        seen.add(key);
        out.push({ line: member, segment, t });
      }
  return out;
}
