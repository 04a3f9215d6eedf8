import {
  ART_VERSION,
  bodyTone,
  hexesApart,
  emptyArt,
  formatHex,
  parsePathData,
  placedPicture,
  sampleDisc,
  scaling,
  transformPath,
  type Art,
  type ArtNode,
  type Chip,
  type Layer,
  type Path,
  type Point,
  type Raster,
  type Shape,
} from '@mirrot/core';
import type { Original, OriginalShape } from './originals/original';

// What the demo's projects are made of: shapes, layers, the document about them, their colours.

export const slug = (name: string): string => name.toLowerCase().replaceAll(' ', '-');

/** The original's paths as they lie in the photograph. */
export function seenPaths(shape: OriginalShape, through: ((p: Path) => Path) | null): Path[] {
  const paths = parsePathData(shape.d, (n) => `${slug(shape.name)}-${n + 1}`);
  return through ? paths.map(through) : paths;
}

/** A colour sampled from the photograph. */
export const sampled = (picture: Raster, at: Point): string => formatHex(sampleDisc(picture, at.x, at.y, 5)!);

export const shapeOf = (name: string, paths: readonly Path[], fill: string | null): Shape => ({
  id: slug(name),
  type: 'shape',
  name,
  shown: true,
  locked: false,
  opacity: 1,
  fill: fill === null ? null : { hex: fill },
  stroke: null,
  paths,
});

export const layerOf = (name: string, children: readonly ArtNode[]): Layer => ({
  id: `layer-${slug(name)}`,
  type: 'layer',
  name,
  shown: true,
  locked: false,
  opacity: 1,
  ink: null,
  children,
});

/** A chip for each colour that is filled with, named after the first shape that has it. */
export function chipsOf(layers: readonly Layer[]): Chip[] {
  const named = new Map<string, string>();
  for (const layer of layers)
    for (const node of layer.children)
      if (node.type === 'shape' && node.fill && 'hex' in node.fill && !named.has(node.fill.hex))
        named.set(node.fill.hex, node.name);
  return [...named].map(([hex, name]) => ({ id: `chip-${slug(name)}`, name, hex }));
}

/** The shape with its fill taken from the chip of that colour. */
export function fromPalette(shape: Shape, chips: readonly Chip[]): Shape {
  const { fill } = shape;
  const chip = fill && 'hex' in fill && chips.find((c) => c.hex === fill.hex);
  return chip ? { ...shape, fill: { chip: chip.id } } : shape;
}

/** The document: a sheet as wide as asked, the picture filling it, the drawing on it. */
export function artOf(
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
  const chips = chipsOf(layers);
  const place = (node: ArtNode): ArtNode =>
    node.type === 'shape'
      ? { ...fromPalette(node, chips), paths: node.paths.map(onSheet) }
      : node.type === 'group'
        ? { ...node, children: node.children.map(place) }
        : node;
  const placed = layers.map((l) => ({ ...l, children: l.children.map(place) }));
  return {
    ...emptyArt({ width, height, unit: 'mm' }, 'unused'),
    version: ART_VERSION,
    pictures: [picture],
    traced: picture.id,
    layers: placed,
    chips,
  };
}

/** Coordinates to a thousandth of a sheet pixel, as a file would hold them. */
export function rounded(path: Path): Path {
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

/** Share of the lightest and of the darkest pixels that a body tone leaves out. */
export const TRIM = 0.2;

/** Shapes filled with the body tones of what each shows of the photograph, bottom first. */
export function toned(shapes: readonly Shape[], picture: Raster): Shape[] {
  return shapes.map((shape, i) => {
    const covers = shapes.slice(i + 1).map(({ paths }) => paths);
    const tone = bodyTone(picture, { outlines: shape.paths, covers, trim: TRIM });
    if (!tone) return shape;
    const hex = formatHex(tone.body);
    return { ...shape, fill: { hex }, toned: hex };
  });
}

/** Colours that are hardly told apart become one: that of the first of them. */
export function mergeNear(shapes: readonly Shape[], within: number): Shape[] {
  const kept: string[] = [];
  return shapes.map((shape) => {
    const { fill } = shape;
    if (!fill || !('hex' in fill)) return shape;
    const near = kept.find((hex) => hexesApart(hex, fill.hex) < within);
    if (near) return { ...shape, fill: { hex: near } };
    kept.push(fill.hex);
    return shape;
  });
}
