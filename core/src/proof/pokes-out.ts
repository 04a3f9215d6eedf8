import { setPath, styleShapes } from '../art/edits';
import type { Stroke } from '../art/paint';
import { boxesMeet, growBox } from '../geometry/bounds';
import { cubicLength, cubicTangent, subCubic } from '../geometry/cubic';
import { cubicIntersections } from '../geometry/intersect';
import { cross, distance, subtract, unit, type Point } from '../geometry/vector';
import { handleOrNone, type Anchor } from '../path/anchor';
import { segmentCubic, segmentCount, segmentIsLine, tangentAt, type Path } from '../path/path';
import { nearestOnPath, pathBounds } from '../path/path-measure';
import { joinPoints } from '../path/stroke-bounds';
import { pathFound, shapeFound, type Check, type Finding, type ProofShape } from './finding';

/** An end that goes on by more than so many widths of both lines together goes somewhere. */
const MOST_WIDTHS = 1.5;
/** Lines that meet at less than this sine run along each other. */
const LEAST_SINE = 0.2;
/** Corners as blunt as this, by how many half widths their tip lies away, poke out nowhere: a right angle has 1.41. */
const BLUNT_HALF_WIDTHS = 1.5;

interface Line {
  readonly own: ProofShape;
  readonly stroke: Stroke;
}

/** Where the last piece of a line goes over another line, next to its end. */
interface Over {
  /** Parameter on the end's segment, and how far the line goes on from there. */
  readonly t: number;
  readonly rest: number;
  /** How far the paint reaches beyond the other line's far edge. */
  readonly beyond: number;
}

function overOther(path: Path, last: boolean, stroke: Stroke, { own, stroke: other }: Line): Over | null {
  const segment = last ? segmentCount(path) - 1 : 0;
  const cubic = segmentCubic(path, segment);
  let nearest: Over | null = null;
  for (const there of own.whole) {
    if (there === path || !boxesMeet(pathBounds(there), pathBounds(path))) continue;
    for (let i = 0; i < segmentCount(there); i++) {
      const crossed = segmentCubic(there, i);
      for (const { t, u } of cubicIntersections(cubic, crossed)) {
        const [a, b] = [unit(cubicTangent(cubic, t)), unit(cubicTangent(crossed, u))];
        const sine = a && b ? Math.abs(cross(a, b)) : 0;
        if (sine < LEAST_SINE) continue;
        const rest = cubicLength(last ? subCubic(cubic, t, 1) : subCubic(cubic, 0, t));
        if (rest > MOST_WIDTHS * (stroke.width + other.width)) continue;
        const cap = stroke.ends === 'butt' ? 0 : stroke.width / 2;
        const beyond = rest + cap - other.width / 2 / sine;
        if (!nearest || rest < nearest.rest) nearest = { t, rest, beyond };
      }
    }
  }
  return nearest;
}

/** The tip of a mitred corner; null where it has none to speak of. */
function tipAt(path: Path, index: number, stroke: Stroke): Point | null {
  const [arriving, leaving] = [tangentAt(path, index, 'in'), tangentAt(path, index, 'out')];
  if (stroke.joins !== 'miter' || !arriving || !leaving) return null;
  const at = path.anchors[index]!;
  const [tip] = joinPoints(at, arriving, leaving, stroke);
  return tip && distance(tip, at) > (BLUNT_HALF_WIDTHS * stroke.width) / 2 ? tip : null;
}

/** The line cut off where it goes over the other, at its first or its last segment. */
function cutAtEnd(path: Path, last: boolean, t: number): Path {
  const n = path.anchors.length;
  const segment = last ? n - 2 : 0;
  const straight = segmentIsLine(path, segment);
  const [from, b, c, to] = last ? subCubic(segmentCubic(path, segment), 0, t) : subCubic(segmentCubic(path, segment), t, 1); // prettier-ignore
  const [out, into] = straight ? [null, null] : [handleOrNone(subtract(b, from)), handleOrNone(subtract(c, to))]; // prettier-ignore
  const anchors = path.anchors.map((anchor, i): Anchor => {
    if (i === segment) return { ...anchor, x: from.x, y: from.y, out };
    if (i === segment + 1) return { ...anchor, x: to.x, y: to.y, in: into };
    return anchor;
  });
  return { ...path, anchors };
}

/** Ends of lines that go over the line they meet by a little, and mitred corners whose tips stick out of it. */
export const pokesOut: Check = {
  kind: 'pokes-out',
  find({ shapes }, { gap }) {
    const lines: Line[] = shapes.flatMap(
      (own) =>
      own.shape.stroke && own.shape.fill === null && !own.shape.lettering ? [{ own, stroke: own.shape.stroke }] : [], // prettier-ignore
    );
    const found: Finding[] = [];
    for (const line of lines) {
      const { shape } = line.own;
      const near = lines.filter(({ own }) => boxesMeet(own.box, growBox(line.own.box, line.stroke.width)));
      for (const path of shape.paths) {
        const put = (index: number, other: Line, amount: number): void =>
          void found.push({ kind: 'pokes-out', key: `pokes-out ${path.id} ${index}`, shapes: [...new Set([shape.id, other.own.shape.id])], at: path.anchors[index]!, amount, path: path.id, index }); // prettier-ignore
        const ends = path.closed || path.anchors.length < 2 ? [] : [0, path.anchors.length - 1];
        for (const index of ends)
          for (const other of near) {
            const over = overOther(path, index > 0, line.stroke, other);
            if (!over || over.beyond <= gap) continue;
            put(index, other, over.beyond);
            break;
          }
        path.anchors.forEach((anchor, index) => {
          const tip = tipAt(path, index, line.stroke);
          if (!tip) return;
          for (const other of near) {
            if (other.own.shape.id === shape.id) continue;
            const half = other.stroke.width / 2;
            const off = (p: Point): number => Math.min(...other.own.whole.map((there) => nearestOnPath(there, p)?.distance ?? Infinity)); // prettier-ignore
            if (off(anchor) > half || off(tip) - half <= gap) continue;
            put(index, other, off(tip) - half);
            break;
          }
        });
      }
    }
    return found;
  },
  fix(art, finding) {
    const found = pathFound(art, finding);
    const { index = -1 } = finding;
    if (!found?.shape.stroke) return null;
    const { shape, path } = found;
    const stroke = shape.stroke!;
    if (tipAt(path, index, stroke)) return styleShapes([shape.id], { stroke: { ...stroke, joins: 'round' } });
    if (path.closed || path.anchors.length < 2 || (index !== 0 && index !== path.anchors.length - 1)) return null; // prettier-ignore
    const other = shapeFound(art, { ...finding, shapes: finding.shapes.slice(-1) });
    if (!other?.stroke) return null;
    const line = { own: { shape: other, whole: other.paths, box: pathBounds(path), level: 0 }, stroke: other.stroke }; // prettier-ignore
    const over = overOther(path, index > 0, stroke, line);
    return over ? setPath(shape.id, cutAtEnd(path, index > 0, over.t)) : null;
  },
};
