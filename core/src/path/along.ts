import { reversedCubic, subCubic, type Cubic } from '../geometry/cubic';
import { subtract } from '../geometry/vector';
import { handleOrNone, turnedAnchor, withFittingKind, withoutMark, type Anchor } from './anchor';
import type { Arrangement } from './arrangement';
import type { Source } from './stretch';
import { inLine } from './data';
import { insertAnchor } from './insert';
import { cubicBetween, segmentCount, segmentIsLine, type Path } from './path';
import { endOf, startOf, type Walked } from './walk';

// Paths along the stretches of an arrangement, made of the very segments that the stretches were cut from.

/** A run along one segment of an outline, forward or against it. */
interface Run {
  readonly member: number;
  readonly path: number;
  readonly segment: number;
  from: number;
  to: number;
  readonly against: boolean;
  start: number;
  end: number;
}

/** Parameters so near each other are one place of a segment. */
const ONE_PARAMETER = 1e-6;

/** Stretches as runs along segments: those of one segment that follow one another are one run, in a loop also the last and first. */
function runsOf(loop: readonly Walked[], closed = true): Run[] {
  const out: Run[] = [];
  const againstOf = (w: Walked, s: Source): boolean => w.forward === s.reversed;
  const goesOn = (run: Run, w: Walked, s: Source): boolean =>
    run.member === s.member &&
    run.path === s.path &&
    run.segment === s.segment &&
    run.against === againstOf(w, s) &&
    Math.abs(run.against ? run.from - s.to : s.from - run.to) < ONE_PARAMETER;
  for (const w of loop) {
    const last = out.at(-1);
    const same = last && w.stretch.sources.find((s) => goesOn(last, w, s));
    if (last && same) {
      if (last.against) last.from = same.from;
      else last.to = same.to;
      last.end = endOf(w);
      continue;
    }
    // Where borders are in common, the one that the line before ran along goes on.
    const s = (last && w.stretch.sources.find((one) => one.member === last.member)) ?? w.stretch.sources[0]!;
    out.push({ ...s, against: againstOf(w, s), start: startOf(w), end: endOf(w) });
  }
  const [first, last] = [out[0], out.at(-1)];
  const round =
    closed &&
    first &&
    last &&
    first !== last &&
    first.member === last.member &&
    first.path === last.path &&
    first.segment === last.segment &&
    first.against === last.against && // prettier-ignore
    Math.abs(first.against ? last.from - first.to : first.from - last.to) < ONE_PARAMETER;
  if (!round) return out;
  if (first.against) first.to = last.to;
  else first.from = last.from;
  first.start = last.start;
  return out.slice(0, -1);
}

/** The anchor at which a run ends, where it ends at one. */
function anchorAtEnd(run: Run, path: Path): Anchor | null {
  const n = path.anchors.length;
  if (run.against) return run.from < ONE_PARAMETER ? path.anchors[run.segment]! : null;
  return run.to > 1 - ONE_PARAMETER ? path.anchors[(run.segment + 1) % n]! : null;
}
function anchorAtStart(run: Run, path: Path): Anchor | null {
  const n = path.anchors.length;
  if (run.against) return run.to > 1 - ONE_PARAMETER ? path.anchors[(run.segment + 1) % n]! : null;
  return run.from < ONE_PARAMETER ? path.anchors[run.segment]! : null;
}

/** The line of a run, and whether it is straight by construction. */
function lineOf(run: Run, members: Arrangement['members']): { cubic: Cubic; straight: boolean } {
  const path = members[run.member]![run.path]!;
  // The last segment of an open path is the line that a fill closes it with.
  const closing = run.segment >= segmentCount(path);
  const [from, to] = [path.anchors[run.segment]!, path.anchors[(run.segment + 1) % path.anchors.length]!];
  const whole = closing ? cubicBetween({ ...from, out: null }, { ...to, in: null }) : cubicBetween(from, to);
  const part = subCubic(whole, run.from, run.to);
  return {
    cubic: run.against ? reversedCubic(part) : part,
    straight: closing || segmentIsLine(path, run.segment),
  };
}

/** Anchors between runs: one where each begins, and one where the last ends when the path is open. */
function anchorsAlong(runs: readonly Run[], { vertices, members }: Arrangement, closed: boolean): Anchor[] {
  const lines = runs.map((run) => lineOf(run, members));
  const pathOf = (run: Run): Path => members[run.member]![run.path]!;
  const anchorBetween = (before: number | null, after: number | null): Anchor => {
    const [earlier, later] = [before === null ? null : runs[before]!, after === null ? null : runs[after]!];
    const arriving = before === null ? null : lines[before]!;
    const leaving = after === null ? null : lines[after]!;
    const into =
      !arriving || arriving.straight ? null : handleOrNone(subtract(arriving.cubic[2], arriving.cubic[3]));
    const out =
      !leaving || leaving.straight ? null : handleOrNone(subtract(leaving.cubic[1], leaving.cubic[0]));
    const end = earlier && anchorAtEnd(earlier, pathOf(earlier));
    const start = later && anchorAtStart(later, pathOf(later));
    const own = earlier && later ? (end === start ? start : null) : (end ?? start);
    const { x, y } = vertices[later ? later.start : earlier!.end]!;
    if (own) {
      const turned = (later ?? earlier!).against ? turnedAnchor(own) : own;
      return withFittingKind({ ...withoutMark(turned, 'shared'), kind: own.kind === 'corner' ? 'corner' : 'smooth', x, y, in: into, out }); // prettier-ignore
    }
    const smooth = into && out && inLine(into, out);
    return { x, y, kind: smooth ? 'smooth' : 'corner', in: into, out };
  };
  const starts = runs.map((_, i) => anchorBetween(i > 0 ? i - 1 : closed ? runs.length - 1 : null, i));
  return closed ? starts : [...starts, anchorBetween(runs.length - 1, null)];
}

/**
 * A closed path along a loop of stretches. It has the anchors, kinds and handles of the segments it runs along; where it
 * goes over from one to another it has a corner, or a smooth anchor where the handles lie in line.
 */
export function pathAlong(loop: readonly Walked[], arrangement: Arrangement, id: string): Path {
  const runs = runsOf(loop);
  const [only] = runs;
  if (runs.length > 1 || !only) return { id, closed: true, anchors: anchorsAlong(runs, arrangement, true) };
  // One segment that comes back to where it began: a closed path has two anchors at least.
  const once: Path = { id, closed: false, anchors: anchorsAlong(runs, arrangement, false) };
  const [first, middle, last] = insertAnchor(once, 0, 0.5).anchors as [Anchor, Anchor, Anchor];
  return { id, closed: true, anchors: [{ ...first, kind: 'corner', in: last.in }, middle] };
}

/** An open path along stretches that follow one another, made as `pathAlong` does. */
export const openPathAlong = (walked: readonly Walked[], arrangement: Arrangement, id: string): Path => ({
  id,
  closed: false,
  anchors: anchorsAlong(runsOf(walked, false), arrangement, false),
});
