import { expect, it } from 'vitest';
import { evenSpots, insertAnchors, parsePathData, segmentCount, thinOut, type Path } from '@mirrot/core';
import { chooseAnchors, chooseShapes } from '$lib/desk/choice';
import { offersThinning, offerThinOut, type Thinner } from './thinning';
import { benchWith, shapeWith } from '$lib/bed/testing';

const leaf = parsePathData(
  'M10 60C20 10 80 0 120 40C150 70 180 60 200 20C190 90 150 130 90 120C50 115 20 95 10 60Z',
  () => 'p',
)[0]!;
const crowded: Path = insertAnchors(
  leaf,
  Array.from({ length: segmentCount(leaf) }, (_, i) => evenSpots(leaf, i, 8)).flat(),
);
const here: Thinner = (wishes) => Promise.resolve(wishes.map((w) => thinOut(w.path, w.options)));
const begin = (scale = 1) => {
  const b = benchWith([shapeWith('s', [crowded])], 'refine', scale);
  b.desk.choose(chooseShapes(['s'], 'path'));
  b.desk.habits.set({ thinWithin: 1 });
  return b;
};

it('is offered with counts, the worst deviation and the spare anchors; taken as one step', async () => {
  const b = begin();
  await offerThinOut(b.desk, here);
  expect(b.desk.offer!.text).toMatch(/^Thin out: 36 → \d anchors, 0\.\d\d px off at worst \(0\.\d{3} px\)$/);
  expect(offersThinning(b.desk)).toBe(true);
  expect(b.desk.offer!.spare!.length).toBeGreaterThan(25);
  expect(b.shapes[0]!.paths[0]!.anchors).toHaveLength(36);
  b.desk.takeOffer();
  expect(b.shapes[0]!.paths[0]!.anchors.length).toBeLessThan(8);
  b.desk.undo();
  expect(b.shapes[0]!.paths[0]!.anchors).toHaveLength(36);
});

it('holds the line nearer when seen nearer: the tolerance is the screen’s', async () => {
  const [far, near] = [begin(1), begin(64)];
  far.desk.habits.set({ thinWithin: 3 });
  await offerThinOut(far.desk, here);
  await offerThinOut(near.desk, here);
  expect(near.desk.offer!.spare!.length).toBeLessThanOrEqual(far.desk.offer!.spare!.length);
});

it('takes chosen anchors only when some are chosen, and says when none can go', async () => {
  const b = begin();
  b.desk.choose({
    ...chooseAnchors([1, 2, 3].map((index) => ({ shape: 's', path: 'p', index }))),
    shapes: ['s'],
  });
  await offerThinOut(b.desk, here);
  expect(b.desk.offer!.spare!.length).toBeLessThanOrEqual(3);
  const c = benchWith([shapeWith('s', [{ ...leaf, id: 'p' }])], 'refine', 100);
  c.desk.habits.set({ thinWithin: 0.1 });
  c.desk.choose(chooseShapes(['s'], 'path'));
  await offerThinOut(c.desk, here);
  expect(c.desk.offer).toBeNull();
  expect(c.desk.notice?.text).toContain('No anchor can go');
});

it('an edit meanwhile, or a stop, offers nothing', async () => {
  const b = begin();
  const late = offerThinOut(b.desk, async (wishes) => {
    await Promise.resolve();
    return here(wishes);
  });
  b.desk.change('Other', (d) => void (d.grid.shown = true));
  await late;
  expect(b.desk.offer).toBeNull();
  await offerThinOut(b.desk, () => Promise.resolve(null));
  expect(b.desk.offer).toBeNull();
});
