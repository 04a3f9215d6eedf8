import { expect, it } from 'vitest';
import { emptyArt, placedPicture } from '../art/blank';
import { parsePathData } from '../path/data';
import type { Art, Shape } from '../art/schema';
import { exerciseSchema, pathsInPicture, pathsOnSheet, truthOf, type Exercise } from './exercise';

const shape = (id: string, d: string, fill: string | null): Shape =>
  ({
    id,
    type: 'shape',
    name: id,
    shown: true,
    locked: false,
    opacity: 1,
    fill: fill === null ? null : { hex: fill },
    stroke: fill === null ? { paint: { hex: '#2a2722' }, width: 2, cap: 'round', join: 'round', mitre: 4, dash: [], beneath: false } : null, // prettier-ignore
    paths: parsePathData(d, (n) => `${id}-${n}`),
  }) as Shape;
const PICTURE = placedPicture({ id: 'picture', source: 'x', name: 'Leaf', width: 400, height: 300, placement: [0.5, 0, 0, 0.5, 10, 20] }); // prettier-ignore
const artWith = (...shapes: Shape[]): Art => {
  const art = emptyArt({ width: 400, height: 300, unit: 'px' }, 'layer');
  return {
    ...art,
    layers: [{ ...art.layers[0]!, children: shapes }],
    pictures: [PICTURE],
    traced: 'picture',
  };
};

it('takes closed shapes and lone lines of a finished drawing as the truth, with their colours', () => {
  const truth = truthOf(artWith(shape('box', 'M0 0L90 0L90 90Z', '#d4561c'), shape('line', 'M0 0C9 9 20 9 40 0', null))); // prettier-ignore
  expect(truth.map(({ name, fill }) => [name, fill])).toEqual([['box', '#d4561c'], ['line', null]]); // prettier-ignore
});

it('tells the truth in the picture’s own pixels, squared up or not', () => {
  const drawn = shape('box', 'M40 40L120 44L110 120C90 130 60 128 44 118Z', '#d4561c');
  const [whole] = truthOf(artWith(drawn));
  expect(whole!.paths[0]!.anchors[0]).toMatchObject({ x: 60, y: 40 });
  // Squared up: a corner of the straight rectangle lay at a corner of the one seen at an angle.
  const corners = [{ x: 60, y: 40 }, { x: 300, y: 60 }, { x: 280, y: 250 }, { x: 40, y: 230 }] as const; // prettier-ignore
  const squared = { ...PICTURE, square: { corners, width: 240, height: 200 } } as typeof PICTURE;
  const [box] = pathsInPicture(parsePathData('M10 20L130 20L130 120L10 120Z'), squared);
  box!.anchors.forEach((a, i) => {
    expect(a.x).toBeCloseTo(corners[i]!.x, 6);
    expect(a.y).toBeCloseTo(corners[i]!.y, 6);
  });
  // And back.
  const back = pathsOnSheet([box!], squared)[0]!.anchors;
  expect(back.map(({ x, y }) => [Math.round(1e6 * x) / 1e6, Math.round(1e6 * y) / 1e6])).toEqual([[10, 20], [130, 20], [130, 120], [10, 120]]); // prettier-ignore
});

it('refuses a drawing without a picture', () => {
  expect(() => truthOf({ ...artWith(shape('box', 'M0 0L90 0L90 90Z', '#d4561c')), pictures: [], traced: null })).toThrow('needs a picture'); // prettier-ignore
});

it('leaves out what is hidden, and refuses a drawing that has nothing closed, with a sentence', () => {
  const hidden = { ...shape('box', 'M0 0L90 0L90 90Z', '#d4561c'), shown: false };
  expect(() => truthOf(artWith(hidden))).toThrow('An exercise needs a finished drawing');
  expect(() => truthOf(artWith(shape('open', 'M0 0L90 0L90 90', '#d4561c')))).toThrow('a closed shape');
  expect(() => truthOf(artWith())).toThrow('Nothing was made.');
});

it('checks what comes from a file: ids, lines of words, and lines that can be traced', () => {
  const good: Exercise = {
    id: 'own',
    title: 'A leaf',
    minutes: 3,
    todo: ['Draw the leaf.'],
    aids: ['Carry'],
    truth: [{ name: 'Leaf', paths: parsePathData('M0 0L90 0L90 90Z', (n) => `p${n}`), fill: null }],
  };
  expect(exerciseSchema.safeParse(good).success).toBe(true);
  const bad = (change: object): boolean => !exerciseSchema.safeParse({ ...good, ...change }).success;
  expect(bad({ id: '../etc' })).toBe(true);
  expect(bad({ todo: [] })).toBe(true);
  const said = (change: object): string =>
    exerciseSchema.safeParse({ ...good, ...change }).error!.issues[0]!.message;
  expect(said({ todo: ['a', 'b', 'c', 'd'] })).toBe('Say what to do in 1 to 3 lines.');
  expect(said({ todo: ['x'.repeat(91)] })).toBe('A line of what to do has 1 to 90 characters.');
  for (const minutes of [0, 61, 2.5, null]) expect(said({ minutes })).toBe('Say how long it takes in whole minutes, 1 to 60.'); // prettier-ignore
  expect(bad({ minutes: 0 })).toBe(true);
  expect(bad({ truth: [] })).toBe(true);
  expect(bad({ truth: [{ name: 'Dot', paths: [{ id: 'p', closed: true, anchors: [] }], fill: null }] })).toBe(
    true,
  );
  expect(bad({ script: '1' })).toBe(true);
});
