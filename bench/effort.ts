// What it costs a hand to lay outlines within half a pixel of their edges, way by way: presses, and seconds by the keystroke-level
// model; on the bench's own outlines, on the demo's originals and on the exercises.
import { join } from 'node:path';
import {
  driftFigures,
  edgeTiles,
  fieldFor,
  fieldTiles,
  parseHex,
  lineBlur,
  measureDrift,
  rgbToOklab,
  type Oklab,
  type Path,
  type Raster,
} from '@mirrot/core';
import { halved } from '../core/src/picture/halve';
import { EXERCISES } from '../demo/exercises/index';
import { shippedExercise } from '../demo/exercises/shipped';
import { GOURD } from '../demo/originals/gourd';
import { GROWER } from '../demo/originals/grower';
import { CONDITIONS, filledAs, truthsOfSet } from './bond-set';
import { freshHand } from './keystrokes';
import { CASES, picturePixels, pixels, truths, type Case as Pictured } from './originals';
import { NEAR_ENOUGH_PX, offsOf, strayingHand, WAYS, type Case, type Seen } from './ways';

/** An outline that shows for so much of its length, and lies so near the edge that is seen, is measured. */
const IN_SIGHT = 0.5;
const ON_EDGE_PX = 0.6;

/** A picture as it is seen by who follows its edges, or the middles of strokes of a width. */
function seenAs(raster: Raster, width: number | null): Seen {
  const half = halved(raster);
  const sizes = [raster, half, halved(half)];
  const edges = sizes.map((r) => edgeTiles(r));
  if (width === null) return { fields: edges, borders: edges, stroke: undefined };
  const lines = sizes.map((r, i) => fieldTiles(r, 'line', lineBlur(width / 2 ** i)));
  const { kind, stroke } = fieldFor('middle', width);
  return { fields: lines, borders: kind === 'edge' ? edges : lines, stroke };
}

interface Group {
  readonly name: string;
  readonly cases: readonly Case[];
  /** Outlines that are not in sight. */
  readonly left: number;
}

function groupOf(
  name: string,
  outlines: readonly { readonly truth: Path; readonly seen: Seen; readonly own?: Oklab }[],
): Group {
  const cases = outlines.flatMap(({ truth, seen, own }, k): Case[] => {
    const { borders, stroke } = seen;
    const on = driftFigures([measureDrift(truth, borders[0]!, { reach: 6, light: 'true', stroke })], 1);
    if (!(on.measured > IN_SIGHT * on.length && on.mean < ON_EDGE_PX)) return [];
    return [{ truth, seen, own, stray: strayingHand(500 + k) }];
  });
  return { name, cases, left: outlines.length - cases.length };
}

interface Cost {
  presses: number;
  seconds: number;
  off: number;
  near: number;
}

/** What each way costs on all outlines of a group together. */
const costsOf = ({ cases }: Group): Cost[] =>
  Object.values(WAYS).map((draw) => {
    const cost: Cost = { presses: 0, seconds: 0, off: 0, near: 0 };
    for (const c of cases) {
      const hand = freshHand();
      const { path, whole } = draw(c, hand);
      const { mean } = offsOf(path, c.truth);
      cost.presses += hand.presses;
      cost.seconds += hand.seconds;
      cost.off += mean;
      if (whole && mean <= NEAR_ENOUGH_PX) cost.near++;
    }
    return cost;
  });

const condition = CONDITIONS.find((c) => c.name === 'lens 0.7')!;
const set = groupOf(
  'bench outlines',
  await Promise.all(
    truthsOfSet.map(async ({ truth }, k) => {
      const seen = seenAs(await condition.take(truth, k), null);
      return { truth, seen, own: filledAs(condition) };
    }),
  ),
);
console.log(`Effort to lie within ${NEAR_ENOUGH_PX} px of the edge on the mean, an outline (keystroke-level model, times from memory):`); // prettier-ignore
console.log('                          presses  seconds   as long as the first   px   near enough');
const names = Object.keys(WAYS);
const count = set.cases.length;
costsOf(set).forEach(({ presses, seconds, off, near }, i, all) => {
  console.log(
    `  ${names[i]!.padEnd(22)} ${(presses / count).toFixed(1).padStart(8)} ${(seconds / count).toFixed(0).padStart(8)} ${(seconds / all[0]!.seconds).toFixed(2).padStart(14)} ${(off / count).toFixed(2).padStart(14)} ${near.toString().padStart(6)} of ${count}`,
  );
});

const originals = async (): Promise<Group[]> =>
  Promise.all(
    [...CASES, ...[GOURD, GROWER].map((original) => ({ original, width: null }))].map(async (each) => {
      const c: Pictured = { ...each, shapes: /./ };
      const seen = seenAs(await pixels(c.original.name), c.width);
      return groupOf(c.original.name, truths(c).map(({ truth }) => ({ truth, seen })));
    }),
  ); // prettier-ignore

const exercises = async (): Promise<Group[]> =>
  Promise.all(
    EXERCISES.map(async (original, k) => {
      const { id, title, truth } = shippedExercise(original);
      const file = `${String(k + 1).padStart(2, '0')}-${id}.jpg`;
      const raster = await picturePixels(join(import.meta.dirname, '..', 'demo', 'exercises', file));
      const width = original.shapes[0]!.line ?? null;
      const seen = seenAs(raster, width);
      const outlines = truth.flatMap(({ paths, fill }) => paths.map((path) => ({ truth: path, seen, ...(fill && { own: rgbToOklab(parseHex(fill)) }) }))); // prettier-ignore
      return groupOf(title, outlines);
    }),
  );

console.log('\nThe same on each original, seconds for all its outlines in sight; in brackets how many of them lie near enough where not all do:'); // prettier-ignore
console.log(`  ${''.padEnd(24)} outlines anchors ${names.map((n) => n.padStart(24)).join('')}`);
for (const group of [...(await originals()), ...(await exercises())]) {
  const { name, cases, left } = group;
  if (cases.length === 0) {
    console.log(`  ${name.padEnd(24)} ${`0 of ${left}`.padStart(8)}    none of its outlines lies on edges`);
    continue;
  }
  const anchors = cases.reduce((n, c) => n + c.truth.anchors.length, 0);
  const told = costsOf(group).map(({ seconds, near }) => `${seconds.toFixed(0)}${near < cases.length ? ` (${near})` : ''}`.padStart(24)); // prettier-ignore
  console.log(`  ${name.padEnd(24)} ${`${cases.length}${left > 0 ? ` of ${cases.length + left}` : ''}`.padStart(8)} ${anchors.toString().padStart(7)} ${told.join('')}`); // prettier-ignore
}
