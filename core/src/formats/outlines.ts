import type { SeenPaint } from '../art/paint';
import type {
  Clip,
  PaintedGroup,
  PaintedPart,
  PaintedPicture,
  PaintedShape,
  SeenStroke,
} from '../art/paint-list';
import { combine } from '../path/combine';
import { keepForm } from '../path/form-path';
import { segmentCount, type Path } from '../path/path';

// What of a drawing goes into files that know lines only: for CAD, cutters and pens.

/** The lines of a shape as they are seen, sheet pixels. */
export interface OutlinedShape {
  readonly id: string;
  readonly name: string;
  readonly layer: LayerName;
  /** All with a segment at least. */
  readonly paths: readonly Path[];
  /** What it is filled and drawn with: of a gradient its first colour. */
  readonly fill: string | null;
  readonly stroke: (Omit<SeenStroke, 'paint'> & { readonly hex: string }) | null;
}

/** The layer that something stands in. */
export interface LayerName {
  readonly id: string;
  readonly name: string;
}

const hexOf = (paint: SeenPaint): string => (paint.kind === 'flat' ? paint.hex : paint.stops[0]!.hex);

function strokeInHex({ paint, ...form }: SeenStroke): OutlinedShape['stroke'] {
  return { ...form, hex: hexOf(paint) };
}

/** A shape that is no area: what cuts it is not carried out in files of lines. */
export const isLine = ({ fill }: PaintedShape): boolean => fill === null;

/** Paths of a shape within the outlines that cut it. */
function within({ paths }: PaintedShape, clips: readonly Clip[]): readonly Path[] {
  if (clips.length === 0) return paths;
  const ids = paths.map(({ id }) => id);
  return combine(
    [paths, ...clips.map((clip) => clip.paths)],
    'overlap',
    (n) => ids[n] ?? `${ids[0]}-${n + 1}`,
  );
}

/** A part that is no group, with what the groups it stands in do to it. */
export interface Leaf {
  readonly part: PaintedShape | PaintedPicture;
  readonly layer: LayerName;
  /** Cut it; what a soft edge cuts is cut at the middle of its softness. */
  readonly clips: readonly Clip[];
  /** Its own opacity times those of what it stands in. */
  readonly opacity: number;
  /** It is blended, blurred, softly cut or throws a shadow, or something it stands in is or does. */
  readonly soft: boolean;
}

/** All that is painted of a drawing, bottom first, but the shadows that cutouts leave. */
export function leavesOf(list: readonly PaintedGroup[]): readonly Leaf[] {
  const leaves: Leaf[] = [];
  const walk = (parts: readonly PaintedPart[], outer: Omit<Leaf, 'part'>): void => {
    for (const part of parts) {
      const { clip, mask, blend, blur, shadow } = part;
      if (mask?.kind === 'shadow') continue;
      const here = {
        layer: outer.layer,
        clips: [...outer.clips, ...(clip ? [clip] : []), ...(mask ? [mask] : [])],
        opacity: outer.opacity * part.opacity,
        soft: outer.soft || blend !== 'normal' || blur > 0 || shadow !== null || mask !== null,
      };
      if (part.type === 'group') walk(part.parts, here);
      else leaves.push({ part, ...here });
    }
  };
  for (const layer of list)
    walk([layer], { layer: { id: layer.id, name: layer.name }, clips: [], opacity: 1, soft: false });
  return leaves;
}

/** The lines of all that is painted of a drawing, bottom first. */
export function outlinesOf(list: readonly PaintedGroup[]): readonly OutlinedShape[] {
  const shapes: OutlinedShape[] = [];
  for (const { part, layer, clips } of leavesOf(list)) {
    if (part.type === 'picture') continue;
    const { id, name, fill, stroke } = part;
    // A line that is not filled would become an area.
    const paths = (isLine(part) ? part.paths : within(part, clips)).filter((path) => segmentCount(path) > 0);
    if (paths.length === 0) continue;
    shapes.push({
      id,
      name,
      layer,
      paths: paths.map(keepForm),
      fill: fill && hexOf(fill),
      stroke: stroke && strokeInHex(stroke),
    });
  }
  return shapes;
}
