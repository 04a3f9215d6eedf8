// Long because each of the demo's projects is a few lines over the same makers.

import {
  changeArt,
  firstMiddles,
  layBackground,
  nearestOf,
  oklabToRgb,
  parseHex,
  rgbToOklab,
  settleMiddles,
  corner,
  cubicPoint,
  enclosedAreas,
  flattenPath,
  insideEvenOdd,
  numberedName,
  shapesOf,
  flowAll,
  formatHex,
  homography,
  pathCubics,
  plainStroke,
  project,
  projectPath,
  WHOLE_TURN,
  type Art,
  type ArtNode,
  type Axis,
  type Chip,
  type Path,
  type Point,
  type Raster,
  type Repeat,
  type Shape,
} from '@mirrot/core';
import { cornersOf } from './camera';
import { slug, seenPaths, sampled, shapeOf, layerOf, artOf, toned, mergeNear } from './makers';
import { FERN } from './originals/fern';
import { GATE_BADGE } from './originals/gate-badge';
import { BAR, GLASSHOUSE, MIDDLE, ROSE } from './originals/glasshouse';
import { COLUMNS, GOURD } from './originals/gourd';
import { GROWER } from './originals/grower';
import type { OriginalShape } from './originals/original';
import { PACKET_PEN, SEED_PACKET } from './originals/seed-packet';
import { PEN, PLANT_LABELS } from './originals/plant-labels';
import { WATERING_CAN } from './originals/watering-can';
import { BADGE_CORNERS } from './scene';

export interface DemoProject {
  readonly name: string;
  readonly picture: string;
  readonly art: Art;
}

/** Gaps that are bridged where areas are poured, sheet pixels. */
const POUR_GAP_PX = 2;

/** Watering can, finished: every shape of the original on its outline, filled with its body tone, near ones merged. */
export function wateringCanProject(picture: Raster): DemoProject {
  const bare = WATERING_CAN.layers.map(({ name, shapes }) => ({
    name,
    shapes: shapes.map((s) => shapeOf(s.name, seenPaths(s, null), null)),
  }));
  const all = mergeNear(toned(bare.flatMap(({ shapes }) => shapes), picture), 2); // prettier-ignore
  const byId = new Map(all.map((shape) => [shape.id, shape]));
  const layers = bare.map(({ name, shapes }) => layerOf(name, shapes.map(({ id }) => byId.get(id)!))); // prettier-ignore
  return { name: 'Watering can', picture: 'watering-can.jpg', art: artOf(WATERING_CAN, 120, layers) };
}

/** How far off, in picture pixels, the badge's first pass lies at each anchor in turn. */
const OFF: readonly (readonly [number, number])[] = [
  [6, -4],
  [-5, 5],
  [4, 6],
  [-6, -3],
];

/** Gate badge, half traced: plate, field and sun follow their edges; posts and ground are a rough first pass. */
export function gateBadgeProject(picture: Raster): DemoProject {
  const map = homography(cornersOf(GATE_BADGE), BADGE_CORNERS);
  const seen = (p: Point): Point => project(map, p);
  const through = (p: Path): Path => projectPath(p, seen).path;
  const rough = (p: Path): Path => ({
    ...p,
    anchors: p.anchors.map((a, i) => {
      const [dx, dy] = OFF[i % OFF.length]!;
      return { ...a, x: a.x + dx, y: a.y + dy };
    }),
  });
  const find = (name: string): OriginalShape =>
    GATE_BADGE.layers.flatMap((l) => l.shapes).find((s) => s.name === name)!;
  const fillOf = (s: OriginalShape): string => sampled(picture, seen({ x: s.sample[0], y: s.sample[1] }));
  const exact = (name: string): Shape => shapeOf(name, seenPaths(find(name), through), fillOf(find(name)));
  const first = (name: string): Shape => shapeOf(name, seenPaths(find(name), through).map(rough), null);
  const layers = [
    layerOf('Plate', [exact('Plate'), exact('Field')]),
    layerOf('Scene', [exact('Sun'), first('Ground')]),
    layerOf('Gate', [first('Left post'), first('Right post')]),
  ];
  return {
    name: 'Gate badge',
    picture: 'gate-badge.jpg',
    art: artOf({ name: 'gate-badge', width: picture.width, height: picture.height }, 100, layers),
  };
}

/** How far off, in picture pixels, a quick hand puts its anchors down. */
const HASTE: readonly (readonly [number, number])[] = [
  [3, -2],
  [-2, 3],
  [2, 2],
  [-3, -1],
  [1, -3],
];

/** A path as a rough pass puts it down: corners only, one in the middle of each long segment, then made to flow. */
function roughPass(path: Path, from: number): Path {
  const cubics = pathCubics(path);
  const spots = cubics.flatMap((c) => [c[0], cubicPoint(c, 0.5)]);
  if (!path.closed) spots.push(cubics.at(-1)![3]);
  const cut: Path = {
    ...path,
    anchors: spots.map((p, i) => {
      const [dx, dy] = HASTE[(from + i) % HASTE.length]!;
      return corner(p.x + dx, p.y + dy);
    }),
  };
  return flowAll(cut, { sharpest: (75 * Math.PI) / 180 });
}

/** Fern, its rough pass done: corners put down in haste over the pencil's line, then all made to flow. */
export function fernProject(): DemoProject {
  const layers = FERN.layers.map(({ name, shapes }) =>
    layerOf(
      name,
      shapes.map((s, k) =>
        shapeOf(
          s.name,
          seenPaths(s, null).map((p) => roughPass(p, k)),
          null,
        ),
      ),
    ),
  );
  return { name: 'Fern', picture: 'fern.jpg', art: artOf(FERN, 150, layers) };
}

/** Ink of the labels' pen. */
const PEN_INK = '#22315c';

/** Plant labels, two words of three done: every letter in single strokes, as wide as the pen's line. */
export function plantLabelsProject(): DemoProject {
  const k = (180 * 96) / 25.4 / PLANT_LABELS.width;
  const layers = PLANT_LABELS.layers.slice(0, 2).map(({ name, shapes }) =>
    layerOf(
      name,
      shapes.map((s) => ({
        ...shapeOf(s.name, seenPaths(s, null), null),
        stroke: plainStroke({ hex: PEN_INK }, Number((PEN * k).toFixed(3))),
      })),
    ),
  );
  return { name: 'Plant labels', picture: 'plant-labels.jpg', art: artOf(PLANT_LABELS, 180, layers) };
}

/** What is poured of the sketch, by a place in each area (pixels of the sketch), and what it is called. */
const POURED: readonly (readonly [name: string, hex: string, x: number, y: number])[] = [
  ['Petal', '#c8442a', 662, 529],
  ['Petal', '#c8442a', 838, 529],
  ['Petal', '#c8442a', 893, 696],
  ['Petal in the shade', '#a5331f', 750, 800],
  ['Petal in the shade', '#a5331f', 607, 696],
  ['Seed head', '#3b3a33', 750, 650],
  ['Stem', '#5f7f4a', 752, 1000],
  ['Leaf', '#5f7f4a', 610, 1030],
  ['Right leaf', '#7b9a58', 900, 980],
  ['Label', '#fbf3df', 750, 1320],
  ['Flap', '#d9c48f', 750, 320],
];

/** Seed packet, inked and half poured: the leaves' tips stop short and are bridged, the foot and the ground are still bare. */
export function seedPacketProject(): DemoProject {
  const millimetres = 130;
  const [width, k] = [SEED_PACKET.width, (millimetres * 96) / 25.4 / SEED_PACKET.width];
  const stroke = plainStroke({ hex: '#1f2430' }, Number((PACKET_PEN * k).toFixed(3)));
  const ink = layerOf('Ink', SEED_PACKET.layers[0]!.shapes.map((s) => ({ ...shapeOf(s.name, seenPaths(s, null), null), stroke }))); // prettier-ignore
  const bare = artOf(SEED_PACKET, millimetres, [layerOf('Colour', []), ink]);
  const lines = shapesOf(bare).map(({ shape }) => shape);
  const { areas } = enclosedAreas(lines.flatMap((shape) => shape.paths), (n) => `area-${n}`, POUR_GAP_PX); // prettier-ignore
  const names = new Set<string>();
  const chips = new Map<string, Chip>();
  const poured = POURED.map(([word, hex, x, y]): Shape => {
    const p = { x: (x * width * k) / 1500, y: (y * width * k) / 1500 };
    const area = areas.find(({ paths }) => insideEvenOdd(paths.map((path) => flattenPath(path, 0.05)), p))!; // prettier-ignore
    const name = names.has(word) ? numberedName(word, names, 2) : word;
    names.add(name);
    if (!chips.has(hex)) chips.set(hex, { id: `chip-${slug(word)}`, name: word, hex });
    const id = `poured-${slug(name)}`;
    return {
      ...shapeOf(name, [], null),
      id,
      fill: { chip: chips.get(hex)!.id },
      paths: area.paths.map((path, i) => ({ ...path, id: `${id}-${i}` })),
      poured: { between: area.lines.map((line) => lines[line]!.id), gap: POUR_GAP_PX },
    };
  });
  const layers = bare.layers.map((layer) =>
    layer.name === 'Colour' ? { ...layer, children: poured } : layer,
  );
  return {
    name: 'Seed packet',
    picture: 'seed-packet.jpg',
    art: { ...bare, layers, chips: [...chips.values()] },
  };
}

/** Chips of the mosaic. */
const MOSAIC_CHIPS = 9;

/** Fills brought to so few colours as stand best for them. */
function keptToFew(shapes: readonly Shape[], count: number): Shape[] {
  const hexOf = (shape: Shape): string => (shape.fill && 'hex' in shape.fill ? shape.fill.hex : '#000000');
  const colours = shapes.map((shape) => rgbToOklab(parseHex(hexOf(shape))));
  const { middles } = settleMiddles(colours, firstMiddles(colours, count, 3));
  const few = middles.map((m) => formatHex(oklabToRgb(m)));
  return shapes.map((shape) => ({ ...shape, fill: { hex: few[nearestOf(hexOf(shape), few)!.at]! } }));
}

/** Gourd, a third of its mosaic done from the foot up: neighbours share their corners, so there is no gap. */
export function gourdProject(picture: Raster): DemoProject {
  const pieces = GOURD.layers[0]!.shapes;
  const done = pieces.slice(pieces.length - Math.round(pieces.length / 3 / COLUMNS) * COLUMNS);
  const count = new Map<string, number>();
  const spot = (p: Point): string => `${p.x} ${p.y}`;
  const paths = done.map((s) => seenPaths(s, null));
  for (const a of paths.flat().flatMap((p) => p.anchors)) count.set(spot(a), (count.get(spot(a)) ?? 0) + 1);
  const keys = new Map([...count].filter(([, n]) => n > 1).map(([at], i) => [at, `corner-${i + 1}`]));
  const bare = done.map((s, i) =>
    shapeOf(
      s.name,
      paths[i]!.map((p) => ({
        ...p,
        anchors: p.anchors.map((a) => {
          const shared = keys.get(spot(a));
          return shared ? { ...a, shared } : a;
        }),
      })),
      null,
    ),
  );
  const shapes = keptToFew(toned(bare, picture), MOSAIC_CHIPS);
  // Its straight pieces follow no edge of the gourd: they are left out of drift.
  const mosaic = { ...layerOf('Mosaic', shapes), unmeasured: true as const };
  return { name: 'Gourd', picture: 'gourd.jpg', art: artOf(GOURD, 140, [mosaic]) };
}

/** What of the grower's head stands together, by the words its shapes begin with or end on. */
const GROWER_GROUPS: readonly (readonly [group: string, members: RegExp])[] = [
  ['Face tones', /^(Face|Face shade|Cheek|Brim shade|Nose shade)$/],
  ['Left eye group', /^Left (brow|eye|iris|lid)$/],
  ['Right eye group', /^Right (brow|eye|iris|lid)$/],
  ['Mouth', / lip$/],
];

/** Grower, blocked in: every shape on its outline, none filled yet, put in order in layers and groups. */
export function growerProject(): DemoProject {
  const grouped = (shapes: readonly Shape[]): ArtNode[] => {
    const out: ArtNode[] = [];
    for (const shape of shapes) {
      const found = GROWER_GROUPS.find(([, members]) => members.test(shape.name));
      const name = found?.[0].replace(/ group$/, ' with brow');
      const group = out.find((node) => node.type === 'group' && node.name === name);
      if (!name) out.push(shape);
      else if (group?.type === 'group')
        out[out.indexOf(group)] = { ...group, children: [...group.children, shape] };
      else
        out.push({
          id: slug(name),
          type: 'group',
          name,
          shown: true,
          locked: false,
          opacity: 1,
          children: [shape],
        });
    }
    return out;
  };
  const layers = GROWER.layers.map(({ name, shapes }) =>
    layerOf(name, grouped(shapes.map((s) => shapeOf(s.name, seenPaths(s, null), null)))),
  );
  return { name: 'Grower', picture: 'grower.jpg', art: artOf(GROWER, 120, layers) };
}

/** Chips of the line icon, and what they are in its colourways. */
const ICON_CHIPS: readonly Chip[] = [
  { id: 'chip-paper', name: 'Paper', hex: '#f3ead8', role: 'ground' },
  { id: 'chip-bars', name: 'Bars', hex: '#2f6b4f', role: 'line' },
  { id: 'chip-rose', name: 'Rose', hex: '#b9501f', role: 'accent' },
];
const ICON_COLOURWAYS: readonly (readonly [name: string, paper: string, bars: string, rose: string])[] = [
  ['Seed packet', '#f3ead8', '#2f6b4f', '#b9501f'],
  ['Evening', '#22304a', '#f0c27a', '#e8e2d4'],
  ['First frost', '#dfe9ee', '#35506b', '#7a2f52'],
];

/**
 * Glasshouse, a finished line icon of one weight, on a background, with three colourways: its left half is drawn and the rest follows from the axis; of the rose one
 * petal, which stands eight times.
 */
export function glasshouseProject(): DemoProject {
  const k = (140 * 96) / 25.4 / GLASSHOUSE.width;
  const mirror: Axis = { kind: 'mirror', x: MIDDLE * k, y: 0, angle: Math.PI / 2 };
  const ring: Repeat = {
    kind: 'ring',
    count: ROSE.petals,
    x: ROSE.x * k,
    y: ROSE.y * k,
    angle: WHOLE_TURN / ROSE.petals,
  };
  // What lies on the middle line is whole by itself.
  const isWhole = (name: string): boolean => /Ridge|Finial|middle|ring|Petals/.test(name);
  const drawn = (s: OriginalShape): ArtNode => {
    const shape: Shape = {
      ...shapeOf(s.name, seenPaths(s, null), null),
      stroke: plainStroke(
        { chip: s.name === 'Petals' ? 'chip-rose' : 'chip-bars' },
        Number((BAR * k).toFixed(3)),
      ),
      ...(isWhole(s.name) ? {} : { axis: mirror }),
    };
    if (s.name !== 'Petals') return shape;
    const { shown, locked, opacity } = shape;
    const petal: Shape = { ...shape, id: 'petal', name: 'Petal' };
    return {
      id: 'petals',
      type: 'group',
      name: 'Petals',
      shown,
      locked,
      opacity,
      repeat: ring,
      children: [petal],
    };
  };
  const layers = GLASSHOUSE.layers.map(({ name, shapes }) => layerOf(name, shapes.map(drawn)));
  const drawing: Art = {
    ...artOf(GLASSHOUSE, 140, layers),
    axis: mirror,
    chips: ICON_CHIPS,
    colourways: ICON_COLOURWAYS.map(([name, ...hexes], i) => ({
      id: `colourway-${i + 1}`,
      name,
      hexes: Object.fromEntries(ICON_CHIPS.map(({ id }, k) => [id, hexes[k]!])),
    })),
  };
  const { width, height } = drawing.sheet;
  const ids = { shape: 'background', path: 'background-1' };
  const { art } = changeArt(drawing, layBackground({ x0: 0, y0: 0, x1: width, y1: height }, { chip: 'chip-paper' }, ids)); // prettier-ignore
  return { name: 'Glasshouse', picture: 'glasshouse.jpg', art };
}
