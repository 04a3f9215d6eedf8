import { cubicPoint } from '../geometry/cubic';
import { segmentCubic } from '../path/path';
import { crossingPlaces } from '../path/weed';
import type { Check } from './finding';

/** An area whose outline crosses itself: what is inside turns over there. Lines may cross themselves. */
export const selfCrossing: Check = {
  kind: 'self-crossing',
  find: ({ shapes }) =>
    shapes.flatMap(({ shape }) =>
      shape.fill === null || shape.lettering
        ? []
        : shape.paths.flatMap((path) => {
            const places = path.closed ? crossingPlaces([path]) : [];
            const [first] = places;
            if (!first) return [];
            const at = cubicPoint(segmentCubic(path, first.segment), first.t);
            // Each crossing lies on two segments.
            const amount = Math.ceil(places.length / 2);
            return [{ kind: 'self-crossing' as const, key: `self-crossing ${path.id}`, shapes: [shape.id], at, amount, path: path.id, index: first.segment }]; // prettier-ignore
          }),
    ),
};
