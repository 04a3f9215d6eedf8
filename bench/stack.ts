// What the stack costs in the core among 5,000 shapes: restacking, hiding, grouping, a ring of a hundred copies that follows
// what leads; each beside the plain way to do it.
import {
  changeArt,
  groupNodes,
  mapShape,
  moveNodes,
  paintList,
  readSvg,
  setNode,
  shapesOf,
  together,
  translation,
  WHOLE_TURN,
  writeSvg,
  type Art,
  type Group,
  type Recipe,
} from '@mirrot/core';
import { crowd } from './crowd';
import { beside, row, time } from './table';

const art = crowd(5000);
const ids = shapesOf(art).map(({ shape }) => shape.id);
const some = ids.filter((_, i) => i % 250 === 0);
paintList(art);

/** The change with what is painted after it: what a press costs of the page's own work before the browser draws. */
const done = (recipe: Recipe) => (): void => void paintList(changeArt(art, recipe).art);
/** The plain way: the drawing copied whole, changed, and all of it painted anew. */
const anew = (recipe: Recipe) => (): void => {
  const copy = structuredClone(art) as Art;
  paintList(changeArt(copy, recipe).art);
};

console.log('The stack among 5,000 shapes, ms (ours, the plain way, ratio):');
const group: Omit<Group, 'children'> = {
  id: 'g',
  type: 'group',
  name: 'G',
  shown: true,
  locked: false,
  opacity: 1,
};
for (const [what, recipe] of [
  ['restack 20 shapes', moveNodes(some, 'layer', 10)],
  ['hide 20 shapes', together(...some.map((id) => setNode(id, { shown: false })))],
  ['group 20 shapes', groupNodes(some, group)],
] as const) {
  const [ours, plain] = beside(done(recipe), anew(recipe), 5);
  row(what, ours, plain, 'the whole drawing copied and painted anew');
}

// A ring of a hundred: a nudge of what leads, beside a hundred shapes moved one by one.
const lead = shapesOf(art)[0]!.shape;
const ring: Group = {
  ...group,
  children: [lead],
  repeat: { kind: 'ring', count: 100, x: 600, y: 450, angle: WHOLE_TURN / 100 },
};
const wheel: Art = {
  ...art,
  layers: [{ ...art.layers[0]!, children: [ring, ...art.layers[0]!.children.slice(1)] }],
};
paintList(wheel);
let at = 0;
const nudged = (): void => {
  at += 0.5;
  paintList(changeArt(wheel, mapShape(lead, translation(at, 0))).art);
};
const hundred = shapesOf(art).slice(0, 100).map(({ shape }) => shape); // prettier-ignore
const single = (): void => {
  at += 0.5;
  paintList(changeArt(art, together(...hundred.map((s) => mapShape(s, translation(at, 0))))).art);
};
row('a ring of 100 follows', ...beside(nudged, single), 'a hundred shapes moved one by one');

const svg = writeSvg(art);
const read = time(() => void readSvg(svg), 2);
console.log(
  `  5,000 shapes read from SVG${read.toFixed(0).padStart(18)}   ${(svg.length / 1e6).toFixed(1)} MB of text`,
);
