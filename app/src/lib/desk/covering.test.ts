import { addNode, changeArt, emptyArt, restack, seeded, setNode, together, type Shape } from '@mirrot/core';
import { expect, it } from 'vitest';
import { shapeWith, square } from '$lib/bed/testing';
import { coverersAbove } from './covering';

const box = (id: string, x: number, size: number, values: Partial<Shape> = {}): Shape =>
  shapeWith(id, [square(`${id}-p`, x, 0, size)], { fill: { hex: '#2f6b4f' }, ...values });
const drawing = (...shapes: Shape[]) =>
  changeArt(emptyArt({ width: 500, height: 500, unit: 'px' }, 'layer'), together(...shapes.map((s) => addNode('layer', s)))).art; // prettier-ignore
const above = (art: ReturnType<typeof drawing>, shape: Shape): string[] =>
  coverersAbove(art, shape).map(({ id }) => id);

it('what stands above, lies there and hides the picture covers a shape; what stands below, elsewhere, or as a line does not', () => {
  const low = box('low', 0, 100);
  const line = box('line', 20, 30, { fill: null, stroke: { paint: { hex: '#22252b' }, width: 2, ends: 'round', joins: 'round', miterLimit: 4, dash: [] } }); // prettier-ignore
  const art = drawing(box('beneath', 10, 50), low, box('high', 50, 100), box('far', 300, 50), line, box('bare', 60, 20, { fill: null, stroke: null }), box('gone', 0, 100, { shown: false }), box('meant', 0, 100, { meant: true })); // prettier-ignore
  expect(above(art, low)).toEqual(['high', 'bare']);
  expect(above(art, art.layers[0]!.children[2] as Shape)).toEqual(['bare']);
  // Moved away, it is measured where nothing covers it.
  expect(above(art, { ...low, place: [1, 0, 0, 1, 5, 5] })).toEqual([]);
});

it('hiding and restacking change it at once', () => {
  const [low, high] = [box('low', 0, 100), box('high', 50, 100)];
  const art = drawing(low, high);
  expect(above(art, low)).toEqual(['high']);
  expect(above(changeArt(art, setNode('high', { shown: false })).art, low)).toEqual([]);
  const turned = changeArt(art, restack(['low'], 'up')).art;
  expect([above(turned, low), above(turned, high)]).toEqual([[], ['low']]);
});

it('is what looking at each pair finds', () => {
  const random = seeded(8);
  const shapes = Array.from({ length: 120 }, (_, i) => box(`s${i}`, 400 * random(), 5 + 60 * random()));
  const art = drawing(...shapes);
  const edge = ({ paths }: Shape): [number, number] => [paths[0]!.anchors[0]!.x, paths[0]!.anchors[1]!.x];
  shapes.forEach((shape, i) => {
    const [a, b] = edge(shape);
    const wanted = shapes.slice(i + 1).filter((other) => edge(other)[0] <= b && edge(other)[1] >= a);
    expect(above(art, shape)).toEqual(wanted.map(({ id }) => id));
  });
});
