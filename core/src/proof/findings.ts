import { changeArt, type Recipe } from '../art/change';
import type { Art } from '../art/schema';
import { crossedHandles } from './crossed-handles';
import { crowded } from './crowded';
import { doubled } from './doubled';
import { drifted } from './drifted';
import {
  subjectOf,
  type Check,
  type Finding,
  type FindingKind,
  type MeasuredPath,
  type Tolerances,
} from './finding';
import { gap } from './gap';
import { groundPatch } from './ground-patch';
import { hidden } from './hidden';
import { kink } from './kink';
import { longHandle } from './long-handle';
import { missingAnchor } from './missing-anchor';
import { nearColours } from './near-colours';
import { nearEnds } from './near-ends';
import { nearLevel } from './near-level';
import { nearWeights } from './near-weights';
import { offPalette } from './off-palette';
import { offSheet } from './off-sheet';
import { openFill } from './open-fill';
import { pictureShown } from './picture-shown';
import { pokesOut } from './pokes-out';
import { selfCrossing } from './self-crossing';
import { sliver } from './sliver';
import { spareAnchor } from './spare-anchor';
import { tiny } from './tiny';
import { uncovered } from './uncovered';

/** All that is looked for, in the order in which it is told. */
const CHECKS: readonly Check[] = [
  openFill,
  nearEnds,
  pokesOut,
  gap,
  kink,
  longHandle,
  crossedHandles,
  missingAnchor,
  spareAnchor,
  selfCrossing,
  doubled,
  crowded,
  tiny,
  sliver,
  hidden,
  groundPatch,
  offSheet,
  nearColours,
  offPalette,
  nearWeights,
  nearLevel,
  drifted,
  uncovered,
  pictureShown,
];
const checkOf = (kind: FindingKind): Check => CHECKS.find((check) => check.kind === kind)!;

/**
 * Everything in a drawing that is probably not meant, kind by kind. What is hidden, or marked as meant so, is left out.
 *
 * @param tolerances how much is too much (`TOLERANCES` for screen, print, cutter and pen)
 * @param measured how far lines lie from the picture, where that is known; in the drawing's paths by their ids
 */
export function findings(
  art: Art,
  tolerances: Tolerances,
  measured: readonly MeasuredPath[] = [],
): Finding[] {
  const subject = subjectOf(art, measured);
  const all = CHECKS.flatMap((check) => check.find(subject, tolerances));
  // Lines that lie on each other nearly meet at their ends, too: that is told once.
  const doubles = all.filter(({ kind }) => kind === 'doubled').map(({ shapes }) => shapes);
  const isToldAsDouble = ({ kind, shapes }: Finding): boolean =>
    kind === 'near-ends' &&
    doubles.some((pair) => shapes.every((id) => pair.includes(id)) && shapes.length === 2);
  // A line with too many anchors has some that can go: that is told once, too.
  const crowds = new Set(all.flatMap(({ kind, path }) => (kind === 'crowded' && path ? [path] : [])));
  const isToldAsCrowd = ({ kind, path }: Finding): boolean =>
    kind === 'spare-anchor' && path !== undefined && crowds.has(path);
  return withOwnKeys(all.filter((finding) => !isToldAsDouble(finding) && !isToldAsCrowd(finding)));
}

/** Several of a kind at one place are told apart by a number behind their keys. */
function withOwnKeys(found: readonly Finding[]): Finding[] {
  const count = new Map<string, number>();
  return found.map((finding) => {
    const n = (count.get(finding.key) ?? 0) + 1;
    count.set(finding.key, n);
    return n === 1 ? finding : { ...finding, key: `${finding.key} ${n}` };
  });
}

/** Whether there is a mend for findings of a kind; else the hand decides. */
export const canMend = (kind: FindingKind): boolean => checkOf(kind).fix !== undefined;

/**
 * What mends something that was found, as a change of the drawing as it is now.
 *
 * @returns null where the hand has to decide, or where it is there no more
 */
export const fixFor = (art: Art, finding: Finding, tolerances: Tolerances): Recipe | null =>
  checkOf(finding.kind).fix?.(art, finding, tolerances) ?? null;

/** So many of a kind are mended at one go. */
const MOST_AT_ONCE = 2000;

/**
 * Mends all of a kind, one after another, each looked for anew in the drawing as the last one left it.
 *
 * @param aside keys of those that stay as they are
 * @returns the drawing mended, and how many were
 */
export function fixAll(
  art: Art,
  kind: FindingKind,
  tolerances: Tolerances,
  aside: ReadonlySet<string> = new Set(),
): { readonly art: Art; readonly count: number } {
  const check = checkOf(kind);
  const left = new Set(aside);
  let [now, count] = [art, 0];
  while (count < MOST_AT_ONCE) {
    const next = check.find(subjectOf(now), tolerances).find(({ key }) => !left.has(key));
    if (!next) break;
    const fix = check.fix?.(now, next, tolerances);
    const fixed = fix ? changeArt(now, fix).art : now;
    // What cannot be mended, or is there again, is left.
    if (fixed === now) left.add(next.key);
    else {
      if (check.find(subjectOf(fixed), tolerances).some(({ key }) => key === next.key)) left.add(next.key);
      now = fixed;
      count++;
    }
  }
  return { art: now, count };
}
