import { describe, expect, it } from 'vitest';
import { corner, setDrawingAxis, type MirrorAxis, type Path } from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import { canMakeSymmetric } from './axes';
import { offerSymmetric } from './symmetry';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';

const spots = (list: readonly (readonly [number, number])[]): Path => ({
  id: 'kite',
  closed: true,
  anchors: list.map(([x, y]) => corner(x, y)),
});
/** A kite, one side 6 px wider than the other. */
const kite = (): Bench => {
  const b = benchWith([shapeWith('k', [spots([[100, 20], [153, 81], [100, 180], [53, 79]])])], 'refine'); // prettier-ignore
  b.desk.choose(chooseShapes(['k']));
  return b;
};
const anchorsOf = (b: Bench) => b.shapes[0]!.paths[0]!.anchors;

describe('Symmetric again', () => {
  it('is an offer with figures; taken it is one step, left it changes nothing', () => {
    const b = kite();
    b.desk.habits.set({ evenAbout: 'middle' });
    offerSymmetric(b.desk);
    expect(b.desk.offer!.text).toMatch(/mean of both sides: anchors go \d\.\d px at most/);
    expect(anchorsOf(b)[1]).toMatchObject({ x: 153, y: 81 });
    const before = b.desk.history.done.length;
    b.desk.takeOffer();
    const [top, right, foot, left] = anchorsOf(b);
    const across = Math.hypot(right!.x - top!.x, right!.y - top!.y);
    expect(Math.hypot(left!.x - top!.x, left!.y - top!.y)).toBeCloseTo(across, 9);
    expect(foot!.y).toBeGreaterThan(170);
    expect(b.desk.history.done).toHaveLength(before + 1);
    b.desk.undo();
    expect(anchorsOf(b)[1]).toMatchObject({ x: 153, y: 81 });
  });

  it('goes by the axis that is set, and R lets either side lead', () => {
    const b = kite();
    const axis: MirrorAxis = { kind: 'mirror', x: 100, y: 0, angle: Math.PI / 2 };
    b.desk.habits.set({ evenAbout: 'axis' });
    offerSymmetric(b.desk);
    expect(b.desk.offer).toBeNull();
    expect(b.desk.notice!.text).toContain('No axis is set');
    b.desk.change('Place the mirror axis', setDrawingAxis(axis), { choice: b.desk.choice });
    offerSymmetric(b.desk);
    b.desk.offer!.turn!();
    expect(b.desk.offer!.text).toContain('one side leads');
    b.desk.offer!.turn!();
    expect(b.desk.offer!.text).toContain('the other side leads');
    b.desk.takeOffer();
    expect(anchorsOf(b)[3]).toMatchObject({ x: 53, y: 79 });
    expect(anchorsOf(b)[1]!.x).toBeCloseTo(147, 9);
  });

  it('makes a square of what is nearly one, about its centre in four parts', () => {
    const b = benchWith([shapeWith('s', [spots([[0, 0], [101, 2], [99, 98], [-2, 100]])])], 'refine'); // prettier-ignore
    b.desk.choose(chooseShapes(['s']));
    b.desk.habits.set({ evenAbout: 'centre' });
    b.desk.next.axisParts = 4;
    offerSymmetric(b.desk);
    b.desk.takeOffer();
    const a = anchorsOf(b);
    const sides = a.map((p, i) => Math.hypot(p.x - a[(i + 1) % 4]!.x, p.y - a[(i + 1) % 4]!.y));
    for (const s of sides) expect(s).toBeCloseTo(sides[0]!, 9);
  });

  it('says why when it cannot, and is not for what is drawn about an axis', () => {
    const b = kite();
    b.desk.habits.set({ evenAbout: 'axis' });
    b.desk.change('Place the mirror axis', setDrawingAxis({ kind: 'mirror', x: 500, y: 0, angle: 1.5 }), {
      choice: b.desk.choice,
    });
    offerSymmetric(b.desk);
    expect(b.desk.offer).toBeNull();
    expect(b.desk.notice!.text).toContain('Nothing was changed');
    const about = benchWith(
      [shapeWith('m', [square('p', 0, 0, 10)], { axis: { kind: 'mirror', x: 50, y: 0, angle: 0 } })],
      'refine',
    );
    about.desk.choose(chooseShapes(['m']));
    expect(canMakeSymmetric(about.desk)).toBe(false);
  });
});
