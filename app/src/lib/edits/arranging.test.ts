import { beforeEach, describe, expect, it } from 'vitest';
import { boxCentre, findNode, groupNodes, nodeBox, shapesOf } from '@mirrot/core';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseNodes, chooseShapes } from '$lib/desk/choice';
import { arrangingRecipe, frameOf, matching, placing, spreading } from './arranging';
import { duplicateChosen } from './copying';

let b: Bench;
const left = (id: string): number => nodeBox(b.desk.art, id).x0;
beforeEach(() => {
  b = benchWith(
    [
      shapeWith('a', [square('pa', 10, 10, 40)]),
      shapeWith('b', [square('pb', 100, 60, 20)]),
      shapeWith('c', [square('pc', 200, 0, 10)]),
    ],
    'refine',
  );
  b.desk.choose(chooseShapes(['a', 'b', 'c']));
});

describe('arranging what is chosen', () => {
  it('goes by the box round it, by the sheet where it is one, and by the one that stays', () => {
    expect(frameOf(b.desk, 'choice')).toBe('choice');
    expect(frameOf(b.desk, 'sheet')).toBe('sheet');
    b.click({ x: 110, y: 70 });
    expect(b.desk.choosing.stays).toBe('b');
    expect(b.desk.choice.shapes).toEqual(['a', 'b', 'c']);
    expect(frameOf(b.desk, 'choice')).toEqual({ stays: 'b' });
    b.desk.change('x', arrangingRecipe(b.desk, placing({ across: 0.5, down: 0.5 }), 'choice', 'outline'));
    for (const id of ['a', 'b', 'c']) expect(boxCentre(nodeBox(b.desk.art, id))).toEqual({ x: 110, y: 70 });
    // Pressed once more it is let go; another choice forgets it.
    b.desk.undo();
    b.click({ x: 110, y: 70 });
    expect(b.desk.choosing.stays).toBeNull();
    b.click({ x: 110, y: 70 });
    b.desk.choose(chooseShapes(['a']));
    expect([b.desk.choosing.stays, frameOf(b.desk, 'choice')]).toEqual([null, 'sheet']);
    // Pressed later, it comes before the sheet that was picked.
    b.desk.choose(chooseShapes(['a', 'b', 'c']));
    b.desk.choosing.stays = 'a';
    expect(frameOf(b.desk, 'sheet')).toEqual({ stays: 'a' });
  });

  it('names what it does', () => {
    expect(placing({ across: 0, down: null }).label).toBe('Arrange left');
    expect(placing({ across: null, down: 1 }).label).toBe('Arrange bottom');
    expect(placing({ across: 1, down: 0 }).label).toBe('Arrange top right');
    expect(placing({ across: 0.5, down: 0.5 }).label).toBe('Arrange into the middle');
    expect(placing({ across: 0.5, down: null }).label).toBe('Arrange middle across');
    expect(placing({ across: null, down: 0.5 }).label).toBe('Arrange middle down');
    expect(spreading('down').label).toBe('Even gaps down');
    expect(matching('across').label).toBe('Same width');
  });

  it('a preview that is dropped changes nothing, and a group goes as a whole', () => {
    b.desk.change('Group', groupNodes(['b', 'c'], { id: 'g', type: 'group', name: 'G', shown: true, locked: false, opacity: 1 })); // prettier-ignore
    b.desk.choose(chooseNodes([findNode(b.desk.art, 'a')!.node, findNode(b.desk.art, 'g')!.node]));
    const before = b.desk.art;
    const what = placing({ across: 0, down: null });
    const recipe = arrangingRecipe(b.desk, what, 'choice', 'outline');
    b.desk.makeOffer({ text: what.label, label: what.label, recipe, preview: true, passing: true });
    expect([left('g'), left('c') - left('b')]).toEqual([10, 100]);
    b.desk.leaveOffer();
    expect(b.desk.art).toBe(before);
  });
});

describe('duplicating', () => {
  it('copies in place, and repeats the step the copies were moved by', () => {
    b.desk.choose(chooseShapes(['a']));
    duplicateChosen(b.desk);
    const [first] = b.desk.choice.shapes;
    expect([left(first!), shapesOf(b.desk.art).length]).toEqual([10, 4]);
    b.drag({ x: 30, y: 30 }, { x: 50, y: 33 });
    duplicateChosen(b.desk);
    const [second] = b.desk.choice.shapes;
    expect(nodeBox(b.desk.art, second!)).toMatchObject({ x0: 50, y0: 16 });
    duplicateChosen(b.desk);
    expect(nodeBox(b.desk.art, b.desk.choice.shapes[0]!)).toMatchObject({ x0: 70, y0: 19 });
    expect(shapesOf(b.desk.art).map((p) => p.shape.name)).toEqual(['a', 'a 2', 'a 3', 'a 4', 'b', 'c']);
    b.desk.undo();
    b.desk.undo();
    expect(b.desk.choice.shapes).toEqual([first]);
  });

  it('by a drag with Alt: the copy goes along, what it is of stays, one undo', () => {
    b.desk.choose(chooseShapes(['a']));
    b.drag({ x: 30, y: 30 }, { x: 80, y: 90 }, { alt: true });
    expect(left('a')).toBe(10);
    expect(nodeBox(b.desk.art, b.desk.choice.shapes[0]!)).toMatchObject({ x0: 60, y0: 70 });
    const [copy] = b.desk.choice.shapes;
    duplicateChosen(b.desk);
    expect(nodeBox(b.desk.art, b.desk.choice.shapes[0]!)).toMatchObject({ x0: 110, y0: 130 });
    b.desk.undo();
    b.desk.undo();
    expect(b.desk.choice.shapes).toEqual(['a']);
    b.desk.redo();
    expect(b.desk.choice.shapes).toEqual([copy]);
    b.desk.undo();
    expect(shapesOf(b.desk.art)).toHaveLength(3);
  });
});
