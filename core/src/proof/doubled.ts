import { removeNodes } from '../art/edits';
import { boxesMeet, growBox } from '../geometry/bounds';
import { drawnTwice } from '../path/double';
import { pathLength } from '../path/path-measure';
import { shapeFound, type Check, type Finding } from './finding';

/** A line this near another, for its whole length but this share, is the same line once more. */
const WHOLE_SHARE = 0.9;

/** Lines, without a fill, that run along others within their width: a pen goes there twice. */
export const doubled: Check = {
  kind: 'doubled',
  find({ shapes }) {
    const lines = shapes.filter(
      ({ shape }) => shape.fill === null && shape.stroke !== null && !shape.lettering,
    );
    return lines.flatMap(({ shape, whole, box }, i): Finding[] => {
      const { width } = shape.stroke!;
      const near = growBox(box, width);
      let by: string | null = null;
      const found = lines.slice(0, i).flatMap((other) => {
        if (!boxesMeet(other.box, near)) return [];
        const twice = whole.flatMap((path) => drawnTwice(path, other.whole, width / 2));
        if (twice.length > 0) by ??= other.shape.id;
        return twice;
      });
      const [first] = found;
      if (!first) return [];
      const amount = found.reduce((sum, { length }) => sum + length, 0);
      return [{ kind: 'doubled', key: `doubled ${shape.id}`, shapes: [shape.id, by!], at: first.at, amount }];
    });
  },
  // Only a line that is there twice from end to end can go as a whole.
  fix(art, finding) {
    const shape = shapeFound(art, finding);
    if (!shape) return null;
    const whole = shape.paths.reduce((sum, path) => sum + pathLength(path), 0);
    return finding.amount >= WHOLE_SHARE * whole ? removeNodes([shape.id]) : null;
  },
};
