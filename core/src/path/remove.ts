import { cubicPoint, isStraight, type Cubic } from '../geometry/cubic';
import { negate, subtract, type Point } from '../geometry/vector';
import { asBeginning, asEnding, handleOrNone, withFittingLengths, type Anchor } from './anchor';
import { fitCubic } from './fit';
import { freezeFlow } from './flow';
import { unmeant } from './meant';
import { segmentCubic, segmentIsLine, tangentAt, type Path } from './path';

const SAMPLES = 24;

const samplesOf = (cubics: readonly Cubic[]): Point[] => [
  cubics[0]![0],
  ...cubics.flatMap((c) => Array.from({ length: SAMPLES }, (_, i) => cubicPoint(c, (i + 1) / SAMPLES))),
];

/**
 * Takes anchors out and refits what joins their neighbours: one cubic in place of the segments that went,
 * by least squares over those segments, leaving and arriving in the old directions (Schneider 1990), so the
 * line stays as near as one segment can keep it. Where only straight segments went, a straight one stays.
 * At the ends of an open path the line simply gets shorter.
 *
 * @param indices anchors to take out, in any order
 * @returns the new path, or null when fewer than two anchors would be left
 * @throws RangeError when an index does not exist
 */
export function removeAnchors(path: Path, indices: readonly number[]): Path | null {
  const n = path.anchors.length;
  const gone = new Set(indices);
  for (const i of gone)
    if (!(Number.isInteger(i) && i >= 0 && i < n))
      throw new RangeError(`The path has ${n} anchors; there is no anchor ${i}.`);
  if (gone.size === 0) return path;
  const kept = path.anchors.map((_, i) => i).filter((i) => !gone.has(i));
  if (kept.length < 2) return null;
  // What flows is frozen first: flowing again would undo what is fitted here.
  path = freezeFlow(path);
  const anchors: Anchor[] = kept.map((i) => path.anchors[i]!);
  const spans = path.closed ? kept.length : kept.length - 1;
  for (let k = 0; k < spans; k++) {
    const from = kept[k]!;
    const next = (k + 1) % kept.length;
    const run: number[] = [];
    for (let i = from; i !== kept[next]; i = (i + 1) % n) run.push(i);
    if (run.length < 2) continue;
    if (!run.every((i) => path.anchors[i]!.meant)) anchors[k] = unmeant(anchors[k]!);
    if (run.every((i) => segmentIsLine(path, i))) {
      anchors[k] = { ...anchors[k]!, out: null };
      anchors[next] = { ...anchors[next]!, in: null };
      continue;
    }
    const leave = tangentAt(path, from, 'out');
    const arrive = tangentAt(path, kept[next]!, 'in');
    const c = fitCubic(samplesOf(run.map((i) => segmentCubic(path, i))), leave, arrive && negate(arrive));
    const straight = isStraight(c, 1e-9);
    anchors[k] = { ...anchors[k]!, out: straight ? null : handleOrNone(subtract(c[1], c[0])) };
    anchors[next] = { ...anchors[next]!, in: straight ? null : handleOrNone(subtract(c[2], c[3])) };
  }
  if (!path.closed) {
    if (gone.has(0)) anchors[0] = asBeginning(anchors[0]!);
    if (gone.has(n - 1)) anchors[anchors.length - 1] = asEnding(anchors.at(-1)!);
  }
  return { ...path, anchors: anchors.map(withFittingLengths) };
}
