import { expect, it } from 'vitest';
import { ADVICE, type Score } from '@mirrot/core';
import { COACH, explained, percent, px, time, whatNext } from './words';

const GOOD: Score = {
  drawn: 1,
  astray: 0,
  mean: 0.3,
  p95: 0.6,
  worst: { at: { x: 0, y: 0 }, distance: 0.9 },
  anchors: 4,
  own: 4,
  shapes: [{ name: 'Leaf', drawn: 1, mean: 0.3, p95: 0.6, anchors: 4, own: 4, deltaE: null }],
};

it('says what would help most, one thing at a time', () => {
  const next = (change: Partial<Score>): string => whatNext({ ...GOOD, ...change });
  expect(next({})).toMatch(/^As near as a hand comes/);
  expect(next({ drawn: 0.5, shapes: [{ ...GOOD.shapes[0]!, drawn: 0.5 }], mean: 9 })).toBe('50 % of the outline has no line near it: Leaf first.'); // prettier-ignore
  expect(next({ astray: 0.2, mean: 9 })).toMatch(/^20 % of your lines follow nothing/);
  expect(next({ worst: { at: { x: 1, y: 1 }, distance: 8 } })).toMatch(/^One place stands out, 8\.00 px off/);
  expect(next({ mean: 1.4, p95: 3 })).toMatch(/^Zoom in to 400 %/);
  expect(next({ anchors: 9 })).toMatch(/^Try it with 4 anchors/);
  expect(next({ shapes: [{ ...GOOD.shapes[0]!, deltaE: 8 }] })).toMatch(/^The colour of Leaf/);
});

it('has a line of its own for each thing the coach can say, short enough to be read beside the bed', () => {
  const lines = ADVICE.map((code) => COACH[code](3));
  expect(new Set(lines).size).toBe(ADVICE.length);
  for (const line of lines) {
    expect(line.length).toBeLessThan(90);
    expect(line).toMatch(/^[A-Z].*\.$/);
  }
});

it('writes figures and times for reading', () => {
  expect([px(0.345), px(23.7), percent(0.946), time(42), time(135)]).toEqual(['0.34 px', '24 px', '95 %', '42 s', '2 min 15 s']); // prettier-ignore
  expect(explained(GOOD)).toContain('as many anchors as the original has');
  expect(explained({ ...GOOD, anchors: 6, mean: 2.2 })).toContain('about 2 pixels of the picture');
  expect(explained({ ...GOOD, anchors: 6 })).toContain('6 anchors where the original has 4');
});
