// The bond of curve and picture on outlines photographed under many conditions: what drift says of the true outline, how much
// of it is seen, what is seen where nothing is, how near Settle comes, and whether Reach comes round with how many anchors.
import {
  driftFigures,
  edgeTiles,
  measureDrift,
  measureEconomy,
  nearestOnPath,
  ownColour,
  settle,
  transformPath,
  warmTile,
  type FieldTiles,
  type Light,
  type Oklab,
  type Path,
  type Raster,
} from '@mirrot/core';
import { scale as scaled } from '../core/src/geometry/vector';
import { halved } from '../core/src/picture/halve';
import { pointsAlong, clickAlong, type Clicked } from '../core/src/trace/clicking';
import {
  CONDITIONS,
  filledAs,
  finestOf,
  GROUNDS,
  pyramid,
  roughly,
  strayLines,
  truthsOfSet,
} from './bond-set';

const only = process.env.ONLY?.split(',');
const parts = new Set((process.env.PARTS ?? 'drift,settle,far,reach').split(','));
/** How far the hand strays from an outline, pixels. */
const STRAYS_PX = 2.5;
/** So far about the pointer the picture is looked at beforehand, pixels. */
const AHEAD_PX = 260;
/** How far a segment may lie from the edge, pixels. */
const TOLERANCE_PX = 0.6;
const mean = (v: readonly number[]): number => v.reduce((s, x) => s + x, 0) / v.length;
const f = (v: number, wide: number, digits = 2): string => v.toFixed(digits).padStart(wide);
const fieldOf = (raster: Raster): FieldTiles => edgeTiles(raster);
const offs = (path: Path, truth: Path): number[] =>
  pointsAlong(path).map((p) => nearestOnPath(truth, p)!.distance);

/** An outline clicked round at Reach's ticks, the picture about the pointer looked at beforehand, as it is while the pointer rests. */
const reachedRound = (outline: Path, seenBy: readonly FieldTiles[], light: Light, k: number): Clicked =>
  clickAlong((far) => pyramid(seenBy, far), outline, TOLERANCE_PX, 8, {
    light,
    strays: STRAYS_PX,
    seed: 300 + k,
    clock: () => performance.now(),
    rest: (p) =>
      seenBy.forEach((tiles, level) => {
        const at = scaled(p, 1 / 2 ** level);
        for (const warm of [tiles, finestOf(tiles)]) while (warmTile(warm, at, AHEAD_PX));
      }),
  });

/** Each outline is clicked round so many times: what the same move takes at least is its own work, the rest the machine's. */
const GOES = 3;
const share = (v: readonly number[], of: number): number =>
  v.toSorted((a, b) => a - b)[Math.floor(of * v.length)] ?? NaN;

/** How unevenly the machine does one and the same sum of about 3 ms, by itself: the time of 99 % beside the median. */
function unevenness(): number {
  const times: number[] = [];
  let sum = 0;
  for (let k = 0; k < 900; k++) {
    const from = performance.now();
    for (let i = 0; i < 400_000; i++) sum += Math.sqrt(i + k);
    if (k >= 200) times.push(performance.now() - from);
  }
  return sum > 0 ? share(times, 0.99) / share(times, 0.5) : NaN;
}

const conditions = CONDITIONS.filter(({ name }) => !only || only.includes(name));
// Once round all of them beforehand: moves are slow until the machine has made its code.
if (parts.has('reach') && conditions[0])
  for (const [k, { truth }] of truthsOfSet.entries()) {
    const raster = await conditions[0].take(truth, k);
    const half = halved(raster);
    reachedRound(truth, [raster, half, halved(half)].map(fieldOf), conditions[0].light ?? 'true', k);
  }

console.log('Seen where nothing is, % of the length of lines over plain ground:');
for (const { name, raster } of GROUNDS) {
  const field = fieldOf(await raster());
  const { measured, length } = driftFigures(strayLines().map((path) => measureDrift(path, field, { reach: 12 })), 1); // prettier-ignore
  console.log(`  ${name.padEnd(10)} ${f((100 * measured) / length, 6)}`);
}

if (parts.has('reach'))
  console.log(
    `This machine, at one sum over and over: 99 % take up to ${f(unevenness(), 0, 1)} times the median.`,
  );
console.log('Outlines of the set, picture px:');
console.log('                the truth’s drift, and economy | settled from 5 px off     | from 20 px off, not  | Reach: whole %, anchors to own, mean, 99 % of moves in ms: their own work, as they came'); // prettier-ignore
console.log(
  '  condition      mean  95 % seen %  fewest |  mean  95 % worst harm | home                | whole picture                   | half as large',
);
for (const condition of conditions) {
  const { name, light = 'true' } = condition;
  // The shape is filled with its colour, as finished ones are, or has none yet and is told by what it shows.
  const filled = filledAs(condition);
  const ownOf = (path: Path, raster: Raster): { own?: Oklab } => {
    const own = process.env.BARE ? ownColour(path, raster) : filled;
    return own ? { own } : {};
  };
  let [fewest, drawn] = [0, 0];
  const drifts: number[] = [];
  const p95s: number[] = [];
  let [seen, long] = [0, 0];
  const settled: number[] = [];
  const ends: number[] = [];
  const worse: string[] = [];
  const reached = [1, 0.5].map(() => ({ tried: 0, whole: 0, anchors: 0, own: 0, offs: [] as number[], least: [] as number[], times: [] as number[] })); // prettier-ignore
  const lost: string[] = [];
  for (const [k, { name: what, truth }] of truthsOfSet.entries()) {
    const raster = await condition.take(truth, k);
    const field = fieldOf(raster);
    const half = halved(raster);
    const smaller = [edgeTiles(half), edgeTiles(halved(half))];
    if (parts.has('drift')) {
      const { measured, length, mean: off, p95 } = driftFigures([measureDrift(truth, field, { reach: 12, light, ...ownOf(truth, raster) })], 1); // prettier-ignore
      // Anchors that the same edge could be held by, beside the outline's own.
      const places = measureDrift(truth, field, { reach: 12, spacing: 2, light, ...ownOf(truth, raster) });
      fewest += measureEconomy(truth, places, TOLERANCE_PX)?.fewest ?? 0;
      drawn += truth.anchors.length;
      if (measured > 0) drifts.push(off);
      if (measured > 0) p95s.push(p95);
      seen += measured;
      long += length;
    }
    if (parts.has('settle')) {
      const rough = roughly(truth, 5, 700 + k);
      const { path } = settle(rough, field, { reach: 12, light, coarser: smaller, ...ownOf(rough, raster) });
      const left = offs(path, truth);
      settled.push(mean(left));
      ends.push(Math.max(...left));
      if (mean(left) > mean(offs(rough, truth))) worse.push(what);
    }
    if (parts.has('far')) {
      const rough = roughly(truth, 20, 900 + k);
      const { path } = settle(rough, field, { reach: 16, light, coarser: smaller, ...ownOf(rough, raster) });
      const left = mean(offs(path, truth));
      if (left > 0.5) lost.push(`${what} ${left.toFixed(1)}`);
    }
    if (parts.has('reach'))
      for (const [size, scale] of [1, 0.5].entries()) {
        const whole = transformPath(truth, [scale, 0, 0, scale, 0, 0]);
        const seenBy = scale === 1 ? [field, ...smaller] : smaller;
        const done = reachedRound(whole, seenBy, light, k);
        const r = reached[size]!;
        r.tried++;
        const goes = [done, ...Array.from({ length: GOES - 1 }, () => reachedRound(whole, seenBy, light, k))];
        r.least.push(...done.times.map((_, i) => Math.min(...goes.map(({ times }) => times[i]!))));
        r.times.push(...goes.at(-1)!.times);
        if (done.whole) {
          r.whole++;
          r.anchors += done.path.anchors.length;
          r.own += truth.anchors.length;
          r.offs.push(mean(offs(done.path, whole)));
        } else if (process.env.LOUD) console.log(`   ${name} ${what}\n      ${done.log.join('\n      ')}`);
      }
  }
  const reachText = reached
    .map(
      (r) =>
        `${f((100 * r.whole) / r.tried, 5, 0)} ${f(r.anchors / r.own, 6)} ${f(mean(r.offs), 6)} ${f(share(r.least, 0.99), 6, 1)} ${f(share(r.times, 0.99), 5, 1)}`,
    )
    .join(' |');
  console.log(
    `  ${name.padEnd(12)} ${f(mean(drifts), 6)} ${f(mean(p95s), 5)} ${f((100 * seen) / long, 6, 1)} ${f(fewest / drawn, 7)} | ${f(mean(settled), 5)} ${f(share(settled, 0.95), 5)} ${f(Math.max(...ends), 5)} ${f(worse.length, 3, 0)} | ${f(lost.length, 3, 0)} ${lost.join(', ').padEnd(20)} |${reachText}`,
  );
}
