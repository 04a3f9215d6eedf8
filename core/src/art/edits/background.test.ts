import { describe, expect, it } from 'vitest';
import { pathBounds } from '../../path/path-measure';
import { changeArt } from '../change';
import { artSchema } from '../check';
import { plainStroke } from '../paint';
import type { Art, Shape } from '../schema';
import { shapeOf, withShapes } from '../testing';
import { findShape } from '../tree';
import { BACKGROUND_NAME, layBackground, setCovering, setNode, takeLook, together } from './index';

const start = withShapes(shapeOf('a'), shapeOf('b'));
const box = { x0: -10, y0: 5, x1: 90, y1: 45 };
const lay = (art: Art, over = box, hex = '#fbf7ee'): Art => changeArt(art, layBackground(over, { hex }, { shape: 'back', path: 'back-path' })).art; // prettier-ignore
const lowest = (art: Art): Shape => art.layers[0]!.children[0] as Shape;

describe('a background', () => {
  it('lies locked beneath everything, just as large as was asked, and is meant to leave the picture', () => {
    const art = lay(start);
    expect(artSchema.safeParse(art).success).toBe(true);
    expect(art.layers[0]!.children.map((n) => n.name)).toEqual([BACKGROUND_NAME, 'a', 'b']);
    expect(pathBounds(lowest(art).paths[0]!)).toEqual(box);
    expect([lowest(art).locked, lowest(art).meant, lowest(art).fill]).toEqual([true, true, { hex: '#fbf7ee' }]); // prettier-ignore
  });

  it('laid again is the same one, of the new size and colour', () => {
    const art = lay(lay(start), { x0: 0, y0: 0, x1: 30, y1: 20 }, '#2f6b4f');
    expect(art.layers[0]!.children).toHaveLength(3);
    expect(pathBounds(lowest(art).paths[0]!)).toEqual({ x0: 0, y0: 0, x1: 30, y1: 20 });
    expect(lowest(art).fill).toEqual({ hex: '#2f6b4f' });
  });

  it('that was unlocked is a shape like others: another is laid beneath it', () => {
    const art = changeArt(lay(start), setNode('back', { locked: false })).art;
    const more = changeArt(art, layBackground(box, { hex: '#000000' }, { shape: 'two', path: 'two-path' })).art; // prettier-ignore
    expect(more.layers[0]!.children.map((n) => n.id)).toEqual(['two', 'back', 'a', 'b']);
  });
});

describe('the look of another', () => {
  const look = together(
    (draft) => void ((draft.layers[0]!.children[0] as { stroke: unknown }).stroke = { ...plainStroke({ hex: '#a32a21' }, 3), dash: [4, 2] }), // prettier-ignore
    setCovering(['a'], { opacity: 0.4, blend: 'multiply', blur: 2 }),
  );
  const dressed = changeArt(start, look).art;

  it('is its fill, line, opacity, blend and blur, given to several at once', () => {
    const art = changeArt(dressed, takeLook(['b', 'nobody', 'a'], 'a')).art;
    const { fill, stroke, opacity, blend, blur } = findShape(art, 'b')!;
    expect({ fill, stroke, opacity, blend, blur }).toEqual({
      fill: { hex: '#2f6b4f' },
      stroke: { ...plainStroke({ hex: '#a32a21' }, 3), dash: [4, 2] },
      opacity: 0.4,
      blend: 'multiply',
      blur: 2,
    });
    expect(findShape(art, 'b')!.paths).toBe(findShape(dressed, 'b')!.paths);
    expect(findShape(art, 'a')).toBe(findShape(dressed, 'a'));
  });

  it('without blend and blur takes those away, and is a copy of its own', () => {
    const back = changeArt(changeArt(dressed, takeLook(['b'], 'a')).art, setCovering(['a'], { opacity: 1, blend: 'normal', blur: 0 })).art; // prettier-ignore
    const again = changeArt(back, takeLook(['b'], 'a')).art;
    expect('blend' in findShape(again, 'b')! || 'blur' in findShape(again, 'b')!).toBe(false);
    expect(findShape(again, 'b')!.stroke).not.toBe(findShape(again, 'a')!.stroke);
    expect(changeArt(start, takeLook(['b'], 'nobody')).art).toBe(start);
  });
});
