import type { Shape } from '../art/schema';
import { distance } from '../geometry/vector';
import type { Cubic } from '../geometry/cubic';
import { segmentCount, segmentCubic, segmentIsLine, type Path } from '../path/path';
import type { ProofShape } from './finding';

/** Segments whose ends are nearer than this are told as crumbs, not by their handles; sheet pixels. */
const SHORTEST_PX = 0.5;

/** A segment with handles. */
export interface CurvedSegment {
  readonly shape: Shape;
  readonly path: Path;
  readonly index: number;
  readonly cubic: Cubic;
  /** Between its ends, sheet pixels. */
  readonly chord: number;
}

/** All segments that have handles, but for letters' and crumbs. */
export const curvedSegments = (shapes: readonly ProofShape[]): CurvedSegment[] =>
  shapes.flatMap(({ shape }) =>
    (shape.lettering ? [] : shape.paths).flatMap((path) =>
      Array.from({ length: segmentCount(path) }, (_, index) => index).flatMap((index) => {
        if (segmentIsLine(path, index)) return [];
        const cubic = segmentCubic(path, index);
        const chord = distance(cubic[0], cubic[3]);
        return chord < SHORTEST_PX ? [] : [{ shape, path, index, cubic, chord }];
      }),
    ),
  );
