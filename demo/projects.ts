import {
  ART_VERSION,
  emptyArt,
  formatHex,
  homography,
  parsePathData,
  placedPicture,
  project,
  projectPath,
  sampleDisc,
  scaling,
  transformPath,
  type Art,
  type Chip,
  type Layer,
  type Path,
  type Point,
  type Raster,
  type Shape,
} from '@mirrot/core';
import { cornersOf } from './camera';
import { GATE_BADGE } from './originals/gate-badge';
import type { Original, OriginalShape } from './originals/original';
import { WATERING_CAN } from './originals/watering-can';
import { BADGE_CORNERS } from './scene';

export interface DemoProject {
  readonly name: string;
  readonly picture: string;
  readonly art: Art;
}

const slug = (name: string): string => name.toLowerCase().replaceAll(' ', '-');

/** The original's paths as they lie in the photograph. */
export function seenPaths(shape: OriginalShape, through: ((p: Path) => Path) | null): Path[] {
  const paths = parsePathData(shape.d, (n) => `${slug(shape.name)}-${n + 1}`);
  return through ? paths.map(through) : paths;
}

/** A colour sampled from the photograph. */
const sampled = (picture: Raster, at: Point): string => formatHex(sampleDisc(picture, at.x, at.y, 5)!);

const shapeOf = (name: string, paths: readonly Path[], fill: string | null): Shape => ({
  id: slug(name),
  type: 'shape',
  name,
  shown: true,
  locked: false,
  opacity: 1,
  fill: fill === null ? null : { kind: 'flat', hex: fill },
  stroke: null,
  paths,
});

const layerOf = (name: string, children: readonly Shape[]): Layer => ({
  id: `layer-${slug(name)}`,
  type: 'layer',
  name,
  shown: true,
  locked: false,
  ink: null,
  children,
});

function chipsOf(layers: readonly Layer[]): Chip[] {
  const named = new Map<string, string>();
  for (const layer of layers)
    for (const node of layer.children)
      if (node.type === 'shape' && node.fill && !named.has(node.fill.hex))
        named.set(node.fill.hex, node.name);
  return [...named].map(([hex, name]) => ({ id: `chip-${slug(name)}`, name, hex }));
}

/** The document: a sheet as wide as asked, the picture filling it, the drawing on it. */
function artOf(
  original: Pick<Original, 'name' | 'width' | 'height'>,
  millimetres: number,
  layers: readonly Layer[],
): Art {
  const width = (millimetres * 96) / 25.4;
  const k = width / original.width;
  const height = original.height * k;
  const onSheet = (p: Path): Path => rounded(transformPath(p, scaling(k)));
  const picture = placedPicture({
    id: 'picture',
    source: 'picture',
    name: `${original.name}.jpg`,
    width: original.width,
    height: original.height,
    placement: [k, 0, 0, k, 0, 0],
    credit: {
      source: 'Photographed for the demo',
      author: 'Quillmere Seed Room',
      licence: 'CC0',
      address: '',
    },
  });
  const placed = layers.map((l) => ({
    ...l,
    children: l.children.map((s) => (s.type === 'shape' ? { ...s, paths: s.paths.map(onSheet) } : s)),
  }));
  return {
    ...emptyArt({ width, height, unit: 'mm' }, 'unused'),
    version: ART_VERSION,
    pictures: [picture],
    traced: picture.id,
    layers: placed,
    chips: chipsOf(placed),
  };
}

/** Coordinates to a thousandth of a sheet pixel, as a file would hold them. */
function rounded(path: Path): Path {
  const short = (v: number): number => Number(v.toFixed(3));
  const handle = (h: Point | null): Point | null => h && { x: short(h.x), y: short(h.y) };
  return {
    ...path,
    anchors: path.anchors.map((a) => ({
      ...a,
      x: short(a.x),
      y: short(a.y),
      in: handle(a.in),
      out: handle(a.out),
    })),
  };
}

/** Watering can, finished: every shape of the original on its outline, filled with what was sampled. */
export function wateringCanProject(picture: Raster): DemoProject {
  const layers = WATERING_CAN.layers.map(({ name, shapes }) =>
    layerOf(
      name,
      shapes.map((s) =>
        shapeOf(s.name, seenPaths(s, null), sampled(picture, { x: s.sample[0], y: s.sample[1] })),
      ),
    ),
  );
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
