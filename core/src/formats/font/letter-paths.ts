import { compose, rotation, scaling, translation, type Affine } from '../../geometry/affine';
import { cubicLength, cubicPoint, cubicTangent, type Cubic } from '../../geometry/cubic';
import { evenOddPaths } from '../../path/even-odd';
import { pathCubics, type Path } from '../../path/path';
import { transformPath } from '../../path/path-map';
import { MirrotError } from '../../error';
import type { Lettering } from '../../art/schema';
import type { Font } from './font';

/** A text as outlines, and what of it is not in them. */
export interface LetterPaths {
  /** For the even-odd rule, sheet pixels. */
  readonly paths: readonly Path[];
  /** Characters that the font does not have. */
  readonly missing: readonly string[];
  /** Whether the text is longer than the line it stands on: what is beyond its end is left out. */
  readonly cut: boolean;
}

/** The parameter of a cubic at which it is so long. */
function parameterAt(cubic: Cubic, length: number): number {
  let [low, high] = [0, 1];
  // Halved until a double is exact enough: the length rises with the parameter.
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2;
    if (cubicLength(cubic, middle) < length) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** A line that text stands on: its length, and from a length along it to where that is and how it is turned there. */
interface TextLine {
  readonly whole: number;
  at(length: number): Affine;
}

function textLine(path: Path): TextLine {
  const cubics = pathCubics(path);
  const lengths = cubics.map((c) => cubicLength(c));
  const whole = lengths.reduce((a, b) => a + b, 0);
  return {
    whole,
    at(length) {
      let rest = Math.min(length, whole);
      const last = lengths.length - 1;
      const i = lengths.findIndex(
        (own, k) => (rest <= own && own > 0) || k === last || ((rest -= own), false),
      );
      const t = parameterAt(cubics[i]!, rest);
      const at = cubicPoint(cubics[i]!, t);
      const along = cubicTangent(cubics[i]!, t);
      return compose(translation(at.x, at.y), rotation(Math.atan2(along.y, along.x)));
    },
  };
}

/**
 * A line of text as outlines, with the font's own anchors.
 *
 * @param idOf gives the id of the n-th path
 * @throws MirrotError `lettering` where nothing of the text would be seen
 */
export function letterPaths(font: Font, lettering: Lettering, idOf: (n: number) => string): LetterPaths {
  const { text, size, spacing, placement, along } = lettering;
  const { glyphs, missing } = font.glyphsOf(text);
  const line = along && textLine({ id: 'along', closed: along.closed, anchors: along.anchors });
  let cut = false;
  const outlines = glyphs.flatMap(({ x, advance, paths }, i) => {
    if (paths.length === 0) return [];
    const begin = (x + i * spacing) * size;
    const half = (advance * size) / 2;
    // On a curve a glyph stands by its middle.
    let at = translation(begin + half, 0);
    if (line) {
      const { start, closed } = along;
      // A closed line goes on past its first anchor, once round at most.
      const [reached, room] = closed ? [begin + half, line.whole] : [start + begin + half, line.whole];
      if (reached < 0 || reached > room || line.whole === 0) {
        cut = true;
        return [];
      }
      at = line.at(closed ? (start + reached) % line.whole : reached);
    }
    const map = compose(placement, compose(at, compose(translation(-half, 0), scaling(size))));
    return paths.map((path) => transformPath(path, map));
  });
  if (outlines.length === 0)
    throw new MirrotError(
      'lettering',
      missing.length > 0
        ? `The font ${font.name} has no “${missing.join('')}”. Nothing was changed.`
        : 'There is nothing to be seen in this text. Nothing was changed.',
    );
  // The same glyph twice has the same ids in the font.
  const paths = evenOddPaths(outlines, idOf).map((path, n) => ({ ...path, id: idOf(n) }));
  return { paths, missing, cut };
}
