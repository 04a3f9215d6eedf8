import type { Check, DriftedPlace, Finding } from './finding';

/** Shorter pieces beyond the tolerance, picture pixels along the line, are chance. */
const SHORTEST_PX = 12;
/** Places that follow each other within so many lengths of one are one piece, */
const NEXT_WITHIN = 2.5;
/** as long as what they drift changes by no more than this for each pixel along: else another edge was taken. */
const STEEPEST = 0.5;
const JITTER_PX = 0.3;

/** Places that follow one another along a line, by the same edge. */
function pieces(places: readonly DriftedPlace[]): DriftedPlace[][] {
  const out: DriftedPlace[][] = [];
  for (const place of places) {
    const before = out.at(-1)?.at(-1);
    const on = before ? place.along - before.along : Infinity;
    const isNext =
      before !== undefined &&
      on <= NEXT_WITHIN * Math.max(place.weight, before.weight) &&
      Math.abs(place.drift - before.drift) <= STEEPEST * on + JITTER_PX;
    if (isNext) out.at(-1)!.push(place);
    else out.push([place]);
  }
  return out;
}

/**
 * Pieces of line that leave the picture's edge by more than is allowed and come back to it. Where what was measured jumps, some
 * other edge was taken for the line's own: that is not told.
 */
export const drifted: Check = {
  kind: 'drifted',
  find({ shapes, measured }, { drift }) {
    const shown = new Set(shapes.map(({ shape }) => shape.id));
    return measured.flatMap(({ shape: id, path, places }): Finding[] => {
      if (!shown.has(id)) return [];
      return pieces(places).flatMap((piece): Finding[] => {
        const beyond = piece.filter((place) => Math.abs(place.drift) > drift);
        const comesBack = [piece[0]!, piece.at(-1)!].every((place) => Math.abs(place.drift) <= drift);
        if (!comesBack || beyond.reduce((sum, { weight }) => sum + weight, 0) < SHORTEST_PX) return [];
        const worst = beyond.reduce((a, b) => (Math.abs(b.drift) > Math.abs(a.drift) ? b : a));
        return [{ kind: 'drifted', key: `drifted ${path} ${worst.segment}`, shapes: [id], at: worst.at, amount: Math.abs(worst.drift), path, index: worst.segment }]; // prettier-ignore
      });
    });
  },
};
