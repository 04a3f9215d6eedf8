import { addNode, removeNodes, styleShapes, type Recipe } from '@mirrot/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';

let b: Bench;
const RED = { hex: '#c01818' };
const paint: Recipe = styleShapes(['first'], { fill: RED });
const fillOf = (id: string) => b.desk.shapeOf(id)?.fill;
beforeEach(() => {
  b = benchWith([
    shapeWith('first', [square('p1', 10, 10, 40)]),
    shapeWith('second', [square('p2', 10, 10, 40)]),
  ]);
  b.sent.length = 0;
  b.desk.makeOffer({ text: 'Paint it', label: 'Paint', recipe: paint, preview: true });
});

describe('an offer that is previewed', () => {
  it('is seen, and neither kept nor sent until it is taken; then it is one step', () => {
    expect(fillOf('first')).toEqual(RED);
    expect(b.desk.history.done).toHaveLength(0);
    expect(b.sent).toHaveLength(0);
    b.desk.takeOffer();
    expect(b.desk.offer).toBeNull();
    expect(fillOf('first')).toEqual(RED);
    expect(b.desk.history.done.map((s) => s.label)).toEqual(['Paint']);
    expect(b.sent).toHaveLength(1);
    b.desk.undo();
    expect(fillOf('first')).toBeNull();
  });

  it('leaves no trace when it is left, and shows the drawing before it while Q is held', () => {
    b.desk.pointing.hold('q', true);
    expect(fillOf('first')).toBeNull();
    b.desk.pointing.hold('q', false);
    expect(fillOf('first')).toEqual(RED);
    b.desk.leaveOffer();
    expect(fillOf('first')).toBeNull();
    expect([b.desk.history.done.length, b.sent.length]).toEqual([0, 0]);
  });

  it('is left by any other change, by a gesture, by undo, and by another offer', () => {
    const again = (): void =>
      b.desk.makeOffer({ text: 'Paint it', label: 'Paint', recipe: paint, preview: true });
    for (const other of [
      () => b.desk.change('Name', (draft) => void (draft.layers[0]!.name = 'Mine')),
      () => b.desk.gesture('Drag').drop(),
      () => b.desk.undo(),
      () => b.desk.makeOffer({ text: 'Else', label: 'Else', recipe: () => {} }),
    ]) {
      again();
      expect(fillOf('first')).toEqual(RED);
      other();
      expect(fillOf('first')).toBeNull();
      expect(b.desk.offer?.label).not.toBe('Paint');
    }
  });

  it('keeps the gesture that was open when it was made', () => {
    b.desk.leaveOffer();
    const drag = b.desk.gesture('Drag');
    drag.show((draft) => void (draft.layers[0]!.name = 'Dragged'));
    b.desk.makeOffer({ text: 'Paint it', label: 'Paint', recipe: paint, preview: true });
    expect(b.desk.drawing.kept.layers[0]!.name).toBe('Dragged');
    expect(fillOf('first')).toEqual(RED);
    b.desk.leaveOffer();
    expect(b.desk.art.layers[0]!.name).toBe('Dragged');
  });

  it('is shown anew over what others change meanwhile, and withdrawn with a word where nothing is left of it', () => {
    const theirs = benchWith([
      shapeWith('first', [square('p1', 10, 10, 40)]),
      shapeWith('second', [square('p2', 10, 10, 40)]),
    ]);
    theirs.desk.change('Add', addNode('layer', shapeWith('third', [square('p3', 10, 10, 40)])));
    b.desk.replaceArt(theirs.desk.art);
    expect(b.shapes.map((s) => s.id)).toEqual(['first', 'second', 'third']);
    expect(fillOf('first')).toEqual(RED);
    theirs.desk.change('Remove', removeNodes(['first']));
    b.desk.replaceArt(theirs.desk.art);
    expect(b.desk.offer).toBeNull();
    expect(b.desk.notice?.text).toContain('the offer is withdrawn');
    expect(b.desk.art).toBe(theirs.desk.art);
  });
});

it('an offer that would change nothing where it is made is no lost one: it stands, and nothing is said', () => {
  b.desk.makeOffer({ text: 'x', label: 'x', recipe: () => {}, preview: true, passing: true });
  expect(b.desk.offer?.text).toBe('x');
  expect(b.desk.notice).toBeNull();
  b.desk.leaveOffer();
  expect([b.desk.offer, b.desk.notice]).toEqual([null, null]);
});
