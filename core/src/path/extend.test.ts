import { describe, expect, it } from 'vitest';
import { lineCubic, type Cubic } from '../geometry/cubic';
import { anchor, pathOf } from '../testing';
import { closePath, extendPath } from './extend';
import { segmentCubic, segmentIsLine } from './path';

const curve: Cubic = [{ x: 10, y: 0 }, { x: 14, y: 0 }, { x: 20, y: 6 }, { x: 20, y: 10 }]; // prettier-ignore
const path = pathOf([anchor(0, 0), anchor(10, 0)]);

describe('a path that goes on', () => {
  it('has the very segment added, after a smooth anchor or a corner', () => {
    const next = extendPath(path, { cubic: curve, straight: false }, 'smooth');
    expect(segmentCubic(next, 1)).toEqual(curve);
    expect(next.anchors[2]).toMatchObject({ x: 20, y: 10, kind: 'smooth', out: null });
    const line = { cubic: lineCubic({ x: 10, y: 0 }, { x: 30, y: 0 }), straight: true };
    const straight = extendPath(path, line, 'corner');
    expect(segmentIsLine(straight, 1)).toBe(true);
    expect(straight.anchors[2]!.kind).toBe('corner');
    expect(path.anchors.length).toBe(2);
  });

  it('closes with a segment back to its beginning', () => {
    const back: Cubic = [{ x: 10, y: 0 }, { x: 10, y: 9 }, { x: 0, y: 9 }, { x: 0, y: 0 }]; // prettier-ignore
    const closed = closePath(path, { cubic: back, straight: false });
    expect(closed.closed).toBe(true);
    expect(segmentCubic(closed, 1)).toEqual(back);
    expect(segmentIsLine(closed, 0)).toBe(true);
  });

  it('is open and has anchors', () => {
    expect(() => extendPath({ ...path, closed: true }, { cubic: curve, straight: false }, 'corner')).toThrow(
      'open',
    );
    expect(() => extendPath(pathOf([]), { cubic: curve, straight: false }, 'corner')).toThrow('open');
    expect(() => closePath(pathOf([anchor(0, 0)]), { cubic: curve, straight: false })).toThrow('two anchors');
  });
});
