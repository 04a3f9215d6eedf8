import { placedPicture } from '@mirrot/core';
import { expect, it } from 'vitest';
import { frameAt, linesOnSheet, standing } from './race';

const frames = [
  { seconds: 4, lines: 'M10 10L20 10', anchors: 2 },
  { seconds: 9, lines: 'M10 10L20 10L20 30', anchors: 3 },
  { seconds: 9, lines: 'M10 10L20 10L20 30L10 30', anchors: 4 },
];

it('shows what was drawn up to a moment: nothing before the first change, all of it after the last', () => {
  expect([0, 3.99, 4, 8.9, 9, 1e9].map((s) => frameAt(frames, s)?.anchors ?? 0)).toEqual([0, 0, 2, 2, 4, 4]);
  expect(frameAt([], 5)).toBeNull();
});

it('lies on the picture as it is placed now', () => {
  const picture = placedPicture({ id: 'p', source: 's', name: 'Leaf', width: 40, height: 30, placement: [2, 0, 0, 2, 100, 50] }); // prettier-ignore
  const [line] = linesOnSheet(frames[0]!, picture);
  expect(line!.anchors.map(({ x, y }) => [x, y])).toEqual([[120, 70], [140, 70]]); // prettier-ignore
});

it('says how the race stands', () => {
  expect(standing(frames, 2, 1)).toBe('After 2 s it had 0 of 4 anchors; you have 1.');
  expect(standing(frames, 5, 3)).toBe('After 5 s it had 2 of 4 anchors; you have 3.');
  expect(standing(frames, 61, 3)).toBe('It was done after 9 s, with 4 anchors.');
  expect(standing([{ ...frames[2]!, seconds: 0 }], 5, 3)).toBe(
    'How it grew is known no more: it stands there whole.',
  );
});
