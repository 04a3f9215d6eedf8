import { outputOf, type OutputRange } from '../art/output';
import { paintedBox } from '../art/paint-list';
import type { Art } from '../art/schema';
import { ancestorsOf, parentOf, shapesOf } from '../art/tree';
import { boxesMeet } from '../geometry/bounds';
import { isLine, leavesOf, type Leaf } from './outlines';

/** Kinds of files that a drawing is written as, by their endings. */
export type FileKind = 'svg' | 'png' | 'webp' | 'pdf' | 'eps' | 'dxf' | 'plt';

/** What of a drawing a file does not hold, or not as it is seen, by how many. */
export interface LeftOut {
  /** Shapes that are hidden, or stand in something that is. */
  readonly hidden: number;
  /** Shapes shown that have neither fill nor stroke, and cut nothing out. */
  readonly unpainted: number;
  /** Pictures that are traced, where they do not go along. */
  readonly traced: number;
  /** Shapes and pictures that lie wholly outside what is shown. */
  readonly outside: number;
  /** Pictures that are part of the drawing, in files that know lines and areas only. */
  readonly pictures: number;
  /** Shapes with gradients: written as steps, or in files of lines not at all. */
  readonly gradients: number;
  /** See-through shapes: their colours are mixed with the ground's. */
  readonly seeThrough: number;
  /** Shapes blended, blurred, softly cut or with a shadow: written sharp and plain. */
  readonly soft: number;
  /** Lines that a group cuts: written whole. */
  readonly cutLines: number;
}

/** Kinds that know lines only, and kinds that hold pictures, see-through paint and softness. */
const OF_LINES: readonly FileKind[] = ['dxf', 'plt'];
const WHOLE: readonly FileKind[] = ['svg', 'png', 'webp', 'pdf'];

const isFading = ({ part, opacity }: Leaf): boolean =>
  opacity < 1 ||
  (part.type === 'shape' &&
    [part.fill, part.stroke?.paint].some(
      (p) => p && p.kind !== 'flat' && p.stops.some((s) => s.opacity < 1),
    ));

const isGradient = ({ part }: Leaf): boolean =>
  part.type === 'shape' && [part.fill, part.stroke?.paint].some((paint) => paint && paint.kind !== 'flat');

/** What a file of some kind leaves out of a drawing, so that it can be said beforehand. */
export function leftOut(
  art: Art,
  kind: FileKind,
  { pictures = false, ...range }: OutputRange & { readonly pictures?: boolean } = {},
): LeftOut {
  const { list, box } = outputOf(art, range);
  const leaves = leavesOf(list);
  const wanted = shapesOf(art).filter(
    ({ shape }) =>
      !range.only || [shape, ...ancestorsOf(art, shape.id)].some(({ id }) => range.only!.has(id)),
  );
  const isEdge = (id: string): boolean => {
    const parent = parentOf(art, id);
    return parent?.type === 'group' && parent.clip === id;
  };
  const count = (when: (leaf: Leaf) => boolean): number => leaves.filter(when).length;
  const countIf = (applies: boolean, when: (leaf: Leaf) => boolean): number => (applies ? count(when) : 0);
  const lines = OF_LINES.includes(kind);
  const poor = !WHOLE.includes(kind);
  return {
    hidden: wanted.filter(({ shown }) => !shown).length,
    unpainted: wanted.filter(({ shape, shown }) => shown && !shape.fill && !shape.stroke && !isEdge(shape.id))
      .length,
    traced: pictures && !poor ? 0 : art.pictures.filter((p) => p.shown).length,
    outside: count(({ part }) => !boxesMeet(paintedBox([part]), box)),
    pictures: countIf(poor, ({ part }) => part.type === 'picture'),
    gradients: countIf(poor, isGradient),
    seeThrough: countIf(poor && !lines, isFading),
    soft: countIf(poor, ({ soft }) => soft),
    cutLines: countIf(lines, ({ part, clips }) => part.type === 'shape' && isLine(part) && clips.length > 0),
  };
}
