// Combining: 5,000 random and awkward pairs beside a count of pixels (resvg), anchors and time beside paper.js and Skia's path
// operations (pathkit-wasm); strokes as shapes beside pathkit's stroker; areas that 500 lines enclose.
import { Resvg } from '@resvg/resvg-js';
import PathKitInit, { type KitPath } from 'pathkit-wasm/bin/pathkit.js';
import paperCore from 'paper/dist/paper-core.js';
import type Paper from 'paper';
import { readFileSync } from 'node:fs';
import {
  combine,
  combineAll,
  COMBININGS,
  enclosedAreas,
  formatPathData,
  parsePathData,
  pathArea,
  seeded,
  strokeToShape,
  type Combining,
  type Path,
} from '@mirrot/core';
import { flattenPath } from '../core/src/path/path-measure';
import { PAIRS } from '../core/src/path/testing';
import { anchor, pathOf } from '../core/src/testing';
import { beside, row, time } from './table';

const paper = paperCore as unknown as typeof Paper;
paper.setup([1, 1]);
const kit = await PathKitInit({
  wasmBinary: readFileSync(new URL('../node_modules/pathkit-wasm/bin/pathkit.wasm', import.meta.url)),
});

const idOf = (n: number): string => `r${n}`;
const areaOf = (paths: readonly Path[]): number => paths.reduce((sum, p) => sum + pathArea(p), 0);
const anchorsOf = (paths: readonly Path[]): number => paths.reduce((sum, p) => sum + p.anchors.length, 0);
const random = seeded(5000);
const kinds = Object.keys(PAIRS);
const PAIR_COUNT = Number(process.env.PAIRS ?? 5000);
const pairs = Array.from({ length: PAIR_COUNT }, (_, i) => PAIRS[kinds[i % kinds.length]!]!(random));

const scaled = (paths: readonly Path[], k: number): Path[] =>
  paths.map((p) => ({
    ...p,
    anchors: p.anchors.map((a) => ({
      ...a,
      x: a.x * k,
      y: a.y * k,
      in: a.in && { x: a.in.x * k, y: a.in.y * k },
      out: a.out && { x: a.out.x * k, y: a.out.y * k },
    })),
  }));

// Against a count of pixels, at sizes from a thousandth to a hundred thousand.
const SIDE = 320;
const inked = (paths: readonly Path[]): Uint8Array => {
  const k = SIDE / 200;
  const d = paths
    .map(
      (p) =>
        `M${flattenPath(p, 1e-2)
          .map(({ x, y }) => `${(x + 50) * k} ${(y + 50) * k}`)
          .join('L')}Z`,
    )
    .join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}" height="${SIDE}"><path fill-rule="evenodd" d="${d}"/></svg>`;
  const { pixels } = new Resvg(svg, { font: { loadSystemFonts: false } }).render();
  return Uint8Array.from({ length: SIDE * SIDE }, (_, i) => Number(pixels[4 * i + 3]! > 127));
};
const WANTED: Readonly<Record<Combining, (a: number, b: number) => number>> = {
  add: (a, b) => a | b,
  bite: (a, b) => a & ~b & 1,
  overlap: (a, b) => a & b,
  either: (a, b) => a ^ b,
};
let wrong = 0;
let worst = 0;
pairs.forEach(([a, b], i) => {
  const k = [1e-5, 1, 10, 1e3][i % 4]!;
  const [inA, inB] = [inked(a), inked(b)];
  const made = combineAll([scaled(a, k), scaled(b, k)], idOf);
  const union = inA.reduce((n, one, j) => n + (one | inB[j]!), 0);
  const pixel = (200 / SIDE) ** 2;
  for (const way of COMBININGS) {
    const count = inA.reduce((n, one, j) => n + WANTED[way](one, inB[j]!), 0);
    const ours = areaOf(made[way].flatMap(({ paths }) => paths)) / (k * k);
    const off = Math.abs(ours / pixel - count);
    const allowed = 0.001 * union + SIDE;
    worst = Math.max(worst, off / allowed);
    if (off > allowed) wrong++;
  }
});
console.log(`Combining ${PAIR_COUNT} pairs of ${kinds.length} kinds in four ways, sizes 1e-3 to 1e5:`);
console.log(
  `  ${wrong} wrong by more than 0.1 % of the union and a row of pixels; the worst at ${(100 * worst).toFixed(0)} % of that`,
);

// Anchors and time beside paper and pathkit, on pairs that lie over each other.
const some = pairs.filter((_, i) => i % kinds.length === 0).slice(0, 200);
const data = some.map(([a, b]) => [formatPathData(a), formatPathData(b)] as const);
const paperOf = (d: string): paper.PathItem => new paper.CompoundPath({ pathData: d, fillRule: 'evenodd', insert: false }) as paper.PathItem; // prettier-ignore
const kitOf = (d: string): KitPath => {
  const path = kit.FromSVGString(d);
  path.setFillType(kit.FillType.EVENODD);
  return path;
};
const [ours, theirs] = beside(
  () => some.forEach(([a, b]) => combine([a, b], 'add', idOf)),
  () => data.forEach(([a, b]) => paperOf(a).unite(paperOf(b), { insert: false })),
  3,
);
row('Add, 200 pairs', ours, theirs, 'paper.js');
const kitUnion = ([a, b]: readonly [string, string]): string => {
  const [one, other] = [kitOf(a), kitOf(b)];
  one.op(other, kit.PathOp.UNION);
  const d = one.toSVGString();
  one.delete();
  other.delete();
  return d;
};
row(
  'Add, 200 pairs',
  ours,
  time(() => data.forEach(kitUnion)),
  'pathkit-wasm',
);
const segmentsOf = (item: paper.PathItem): number => {
  const parts = (item as paper.CompoundPath).children ?? [item];
  return parts.reduce((n, part) => n + (part as paper.Path).segments.length, 0);
};
const counts = [
  some.reduce((n, [a, b]) => n + anchorsOf(combine([a, b], 'add', idOf)), 0),
  data.reduce((n, [a, b]) => n + segmentsOf(paperOf(a).unite(paperOf(b), { insert: false })), 0),
  data.reduce((n, pair) => n + anchorsOf(parsePathData(kitUnion(pair), idOf)), 0),
];
console.log(`  anchors of Add: ours ${counts[0]}, paper.js ${counts[1]}, pathkit-wasm ${counts[2]}`);

// Strokes as shapes.
const lines = Array.from({ length: 100 }, (_, n) => {
  const points = Array.from({ length: 3 + (n % 4) }, () => ({ x: 300 * random(), y: 300 * random() }));
  return pathOf(
    points.map((p, i) => {
      const [a, b] = [points[Math.max(0, i - 1)]!, points[Math.min(points.length - 1, i + 1)]!];
      const h = [0.2 * (b.x - a.x), 0.2 * (b.y - a.y)] as const;
      return anchor(p.x, p.y, [-h[0], -h[1]], h, 'smooth');
    }),
  );
});
const strokes = lines.map((path, i) => ({ path, d: formatPathData([path]), width: [2, 6, 12][i % 3]! }));
const kitStroke = ({ d, width }: (typeof strokes)[number]): string => {
  const path = kit.FromSVGString(d);
  path.stroke({ width, join: kit.StrokeJoin.ROUND, cap: kit.StrokeCap.ROUND });
  path.simplify();
  const out = path.toSVGString();
  path.delete();
  return out;
};
const ownStroke = ({ path, width }: (typeof strokes)[number]): Path[] =>
  strokeToShape([path], { width, ends: 'round', joins: 'round', miterLimit: 4 }, idOf).flat();
const [strokeTime, kitTime] = beside(() => strokes.forEach(ownStroke), () => void strokes.forEach(kitStroke), 2); // prettier-ignore
row('Stroke to shape, 100 strokes', strokeTime, kitTime, 'pathkit-wasm');
let apart = 0;
const strokeCounts = [0, 0];
for (const stroke of strokes) {
  const [own, kits] = [ownStroke(stroke), parsePathData(kitStroke(stroke), idOf)];
  strokeCounts[0]! += anchorsOf(own);
  strokeCounts[1]! += anchorsOf(kits);
  apart = Math.max(apart, Math.abs(areaOf(own) - areaOf(combine([kits], 'add', idOf))) / areaOf(own));
}
console.log(`  anchors: ours ${strokeCounts[0]}, pathkit-wasm ${strokeCounts[1]}; areas ${(100 * apart).toFixed(3)} % apart at most`); // prettier-ignore

// Areas that lines enclose.
const crossing = Array.from({ length: 500 }, (_, i) => {
  const [x, y] = [2000 * random(), 2000 * random()];
  const by = (): [number, number] => [200 * (random() - 0.5), 200 * (random() - 0.5)];
  return pathOf([anchor(x, y, null, by()), anchor(x + 300 * (random() - 0.5), y + 300 * (random() - 0.5), by(), by(), 'smooth'), anchor(x + 300 * (random() - 0.5), y + 300 * (random() - 0.5), by(), null)], false, `l${i}`); // prettier-ignore
});
let found = 0;
const pour = time(() => (found = enclosedAreas(crossing, idOf, 2).areas.length), 2);
console.log(`  areas that 500 lines enclose: ${found} in ${pour.toFixed(0)} ms`);
