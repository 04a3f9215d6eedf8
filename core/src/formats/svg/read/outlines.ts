import { corner } from '../../../path/anchor';
import { parsePathData } from '../../../path/data';
import { plainForm } from '../../../path/form';
import { formPath } from '../../../path/form-path';
import type { Path } from '../../../path/path';
import type { SvgElement } from './elements';
import { lengthOf, numbersOf, type Viewport } from './values';

// The outlines of paths and basic shapes (SVG 2, chapters 9 and 10), in the element's own coordinates.

type Length = (attribute: string, of: 'width' | 'height' | 'diagonal') => number | null;
type IdOf = () => string;

const polyline = (text: string | undefined, closed: boolean, idOf: IdOf): Path[] => {
  const numbers = numbersOf(text);
  const anchors = Array.from({ length: Math.floor(numbers.length / 2) }, (_, i) => corner(numbers[2 * i]!, numbers[2 * i + 1]!)); // prettier-ignore
  return anchors.length < 2 ? [] : [{ id: idOf(), closed, anchors }];
};

const ellipse = (x: number, y: number, rx: number, ry: number, idOf: IdOf): Path[] =>
  rx > 0 && ry > 0 ? [formPath(plainForm('ellipse', { x, y, width: 2 * rx, height: 2 * ry }), idOf())] : [];

function rect(length: Length, idOf: IdOf): Path[] {
  const [x, y] = [length('x', 'width') ?? 0, length('y', 'height') ?? 0];
  const [width, height] = [length('width', 'width') ?? 0, length('height', 'height') ?? 0];
  if (!(width > 0 && height > 0)) return [];
  // One radius given is both (section 10.2).
  const [across, down] = [length('rx', 'width'), length('ry', 'height')];
  const rx = Math.min(Math.max(0, across ?? down ?? 0), width / 2);
  const ry = Math.min(Math.max(0, down ?? across ?? 0), height / 2);
  if (rx === ry || rx === 0 || ry === 0) {
    const r = Math.min(rx, ry);
    return [formPath(plainForm('box', { x: x + width / 2, y: y + height / 2, width, height, radii: [r, r, r, r] }), idOf())]; // prettier-ignore
  }
  const arc = (dx: number, dy: number): string => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  const [w, h] = [width - 2 * rx, height - 2 * ry];
  return parsePathData(
    `M${x + rx} ${y}h${w}${arc(rx, ry)}v${h}${arc(-rx, ry)}h${-w}${arc(-rx, -ry)}v${-h}${arc(rx, -ry)}z`,
    idOf,
  );
}

function line(length: Length, idOf: IdOf): Path[] {
  const [x1, y1] = [length('x1', 'width') ?? 0, length('y1', 'height') ?? 0];
  const [x2, y2] = [length('x2', 'width') ?? 0, length('y2', 'height') ?? 0];
  const form = plainForm('line', {
    x: (x1 + x2) / 2,
    y: (y1 + y2) / 2,
    width: Math.hypot(x2 - x1, y2 - y1),
    angle: Math.atan2(y2 - y1, x2 - x1),
  });
  // One without length is a dot where its ends are round.
  return form.width > 0 ? [formPath(form, idOf())] : [{ id: idOf(), closed: false, anchors: [corner(x1, y1), corner(x1, y1)] }]; // prettier-ignore
}

type Reader = (attributes: SvgElement['attributes'], length: Length, idOf: IdOf) => Path[];

const READERS: Readonly<Record<string, Reader>> = {
  path: ({ d }, _length, idOf) => parsePathData(d ?? '', idOf),
  rect: (_attributes, length, idOf) => rect(length, idOf),
  circle(_attributes, length, idOf) {
    const r = length('r', 'diagonal') ?? 0;
    return ellipse(length('cx', 'width') ?? 0, length('cy', 'height') ?? 0, r, r, idOf);
  },
  ellipse(_attributes, length, idOf) {
    const [rx, ry] = [length('rx', 'width'), length('ry', 'height')];
    return ellipse(
      length('cx', 'width') ?? 0,
      length('cy', 'height') ?? 0,
      rx ?? ry ?? 0,
      ry ?? rx ?? 0,
      idOf,
    );
  },
  line: (_attributes, length, idOf) => line(length, idOf),
  polyline: ({ points }, _length, idOf) => polyline(points, false, idOf),
  polygon: ({ points }, _length, idOf) => polyline(points, true, idOf),
};

export const isOutline = ({ name }: SvgElement): boolean => name in READERS;

/**
 * The outlines of an element; none where it is drawn without any.
 *
 * @param viewport what percentages are of
 * @throws MirrotError `path-data` where a path's data breaks the grammar
 */
export function outlinesOf(element: SvgElement, viewport: Viewport, idOf: IdOf): Path[] {
  const { attributes } = element;
  // What a percentage along neither axis is of: section 8.9, "Units".
  const diagonal = Math.hypot(viewport.width, viewport.height) / Math.SQRT2;
  const whole = { width: viewport.width, height: viewport.height, diagonal };
  const length: Length = (attribute, of) => lengthOf(attributes[attribute], whole[of]);
  return READERS[element.name]?.(attributes, length, idOf) ?? [];
}
