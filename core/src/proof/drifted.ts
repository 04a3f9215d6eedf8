import { polygonOf } from '../art/inside';
import { coversPicture } from '../art/covering';
import { insideEvenOdd } from '../geometry/flatten';
import { boxHas } from '../geometry/bounds';
import type { Check, DriftedPlace, Finding } from './finding';

/** Shorter pieces, picture pixels along the line, are chance. */
const SHORTEST_PX = 12;
/** Places that follow each other within so many lengths of one are one piece. */
const NEXT_WITHIN = 2.5;

/** Places that follow one another along a line. */
function runs(places: readonly DriftedPlace[]): DriftedPlace[][] {
  const out: DriftedPlace[][] = [];
  for (const place of places) {
    const before = out.at(-1)?.at(-1);
    if (before && place.along - before.along <= NEXT_WITHIN * Math.max(place.weight, before.weight))
      out.at(-1)!.push(place); // prettier-ignore
    else out.push([place]);
  }
  return out;
}

/** Pieces of line that leave the picture's edge by more than is allowed. What a shape above covers shows no edge of its own. */
export const drifted: Check = {
  kind: 'drifted',
  find({ shapes, measured }, { drift }) {
    const byId = new Map(shapes.map((one) => [one.shape.id, one] as const));
    const covering = shapes.filter(({ shape }) => coversPicture(shape));
    return measured.flatMap(({ shape: id, path, places }): Finding[] => {
      const own = byId.get(id);
      if (!own) return [];
      const above = covering.filter(({ level }) => level > own.level);
      const seen = places.filter(({ drift: far, at }) =>
        Math.abs(far) > drift &&
        !above.some(({ box, whole }) => boxHas(box, at) && insideEvenOdd(whole.map(polygonOf), at)),
      ); // prettier-ignore
      return runs(seen).flatMap((run): Finding[] => {
        const long = run.reduce((sum, { weight }) => sum + weight, 0);
        if (long < SHORTEST_PX) return [];
        const worst = run.reduce((a, b) => (Math.abs(b.drift) > Math.abs(a.drift) ? b : a));
        return [{ kind: 'drifted', key: `drifted ${path} ${worst.segment}`, shapes: [id], at: worst.at, amount: Math.abs(worst.drift), path, index: worst.segment }]; // prettier-ignore
      });
    });
  },
};
