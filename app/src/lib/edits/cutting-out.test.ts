import { findNode, shapesOf, writeSvg, type Group } from '@mirrot/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { benchWith, shapeWith, square, withPicture, type Bench } from '$lib/bed/testing';
import { chooseShapes } from '$lib/desk/choice';
import { chooseIds } from './copying';
import { cutOut, cutoutsChosen, edgeOf, leaveShadow, releaseCutouts, setEdges, setShadowReach, shapeToCut } from './cutting-out'; // prettier-ignore

let b: Bench;
beforeEach(() => {
  b = benchWith(
    [
      shapeWith('ground', [square('g', 0, 0, 400)], { fill: { hex: '#d9cfb8' } }),
      shapeWith('can', [square('outer', 100, 100, 200), square('hole', 150, 150, 40)], { fill: { hex: '#2f6b4f' } }),
    ],
    'colour',
  ); // prettier-ignore
});
const top = (): Group => b.desk.art.layers[0]!.children.at(-1) as Group;

describe('a cutout', () => {
  it('is the traced picture clipped by the shape with its holes, the paint kept aside; released all is as before', () => {
    withPicture(b);
    const before = b.desk.art;
    b.desk.choose(chooseShapes(['can']));
    cutOut(b.desk);
    const group = top();
    expect(group).toMatchObject({ type: 'group', clip: 'can' });
    expect(group.children.map((n) => n.type)).toEqual(['shape', 'picture']);
    expect(b.desk.shapeOf('can')).toMatchObject({ fill: null, aside: { fill: { hex: '#2f6b4f' } } });
    // The picture is painted within the two outlines, by the even-odd rule.
    expect(writeSvg(b.desk.art, { pictureHref: () => 'can.jpg' })).toMatch(
      /clip-rule="evenodd"[^]*href="can.jpg"/,
    );
    expect(b.desk.history.done.at(-1)!.label).toBe('Cut out');
    expect(cutoutsChosen(b.desk).map((g) => g.id)).toEqual([group.id]);
    releaseCutouts(b.desk);
    expect(b.desk.art.layers).toEqual(before.layers);
    expect(b.desk.choice.shapes).toEqual(['can']);
    b.desk.undo();
    b.desk.undo();
    expect(b.desk.art).toEqual(before);
  });

  it('of other things is by the topmost chosen, and gives them back', () => {
    // In whichever order they were pressed.
    b.desk.choose(chooseShapes(['can', 'ground']));
    cutOut(b.desk);
    const group = top();
    expect(group.children.map((n) => n.id)).toEqual(['can', 'ground']);
    expect(group.clip).toBe('can');
    b.desk.choose(chooseIds(b.desk.art, [group.id]));
    releaseCutouts(b.desk);
    expect(findNode(b.desk.art, group.id)).toBeNull();
    expect(shapesOf(b.desk.art).map((p) => p.shape.id)).toEqual(['ground', 'can']);
    expect(b.desk.shapeOf('can')!.fill).toEqual({ hex: '#2f6b4f' });
  });

  it('needs a closed shape and something to cut', () => {
    b.desk.choose(chooseShapes(['can']));
    expect(shapeToCut(b.desk)).toBeNull();
    cutOut(b.desk);
    expect(b.desk.history.done).toHaveLength(0);
  });

  it('has an edge that is moved and softened, each one step, and sharp again it is as at first', () => {
    withPicture(b);
    b.desk.choose(chooseShapes(['can']));
    cutOut(b.desk);
    const sharp = b.desk.art;
    setEdges(b.desk, cutoutsChosen(b.desk), { by: -2 });
    setEdges(b.desk, cutoutsChosen(b.desk), { soft: 1.5 });
    expect(top().edge).toEqual({ by: -2, soft: 1.5 });
    expect(writeSvg(b.desk.art, { pictureHref: () => 'can.jpg' })).toMatch(/<mask [^]*mask="url\(#/);
    expect(b.desk.history.done.slice(1).map((step) => step.label)).toEqual([
      'Cut out',
      'Move the cutout’s edge',
      'Soften the cutout’s edge',
    ]);
    setEdges(b.desk, cutoutsChosen(b.desk), { by: 0, soft: 0 });
    expect(b.desk.art).toEqual(sharp);
    // Released, nothing of the edge is left.
    setEdges(b.desk, cutoutsChosen(b.desk), { by: 3 });
    releaseCutouts(b.desk);
    expect(JSON.stringify(b.desk.art.layers)).not.toContain('edge');
  });

  it('keeps no shadow where there is no picture to take it from, and says so', async () => {
    b.desk.choose(chooseShapes(['can', 'ground']));
    cutOut(b.desk);
    const before = b.desk.art;
    await leaveShadow(b.desk, top(), 0);
    setShadowReach(b.desk, [top()], 12);
    expect(edgeOf(top()).shadow).toBeUndefined();
    expect(b.desk.art).toEqual(before);
    expect(b.desk.notice?.text).toMatch(/no picture in this cutout/);
  });
});
