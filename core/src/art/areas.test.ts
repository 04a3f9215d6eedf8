import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { writeSvg } from '../formats/svg/write';
import { coveredShare } from '../trace/covered-share';
import { circlePath, pathOf, seeded, squarePath, anchor } from '../testing';
import { areaByColour } from './area-by-colour';
import { changeArt } from './change';
import { addChip } from './edits';
import { neighboursOf } from './neighbours';
import { groupOf, shapeOf, withShapes } from './testing';

describe('area by colour', () => {
  it('is what a count of the drawn pixels gives', () => {
    // Source outside: resvg, its pixels counted.
    const random = seeded(31);
    const hexes = ['#2f6b4f', '#d4561c', '#6a3fa0', '#f0c27a'];
    for (let round = 0; round < 6; round++) {
      const shapes = Array.from({ length: 12 }, (_, i) =>
        shapeOf(`s${i}`, {
          fill: { hex: hexes[Math.floor(random() * 4)]! },
          paths: [circlePath(40 + 300 * random(), 40 + 220 * random(), 20 + 40 * random(), `p${i}`)],
        }),
      );
      const art = withShapes(...shapes);
      const { pixels } = new Resvg(writeSvg({ ...art, sheet: { ...art.sheet, width: 400, height: 320 } }), { fitTo: { mode: 'width', value: 1200 } }).render(); // prettier-ignore
      const counts = new Map<string, number>();
      let all = 0;
      for (let i = 0; i < pixels.length; i += 4) {
        if (pixels[i + 3] !== 255) continue;
        const hex = `#${[0, 1, 2].map((c) => pixels[i + c]!.toString(16).padStart(2, '0')).join('')}`;
        if (!hexes.includes(hex)) continue;
        all++;
        counts.set(hex, (counts.get(hex) ?? 0) + 1);
      }
      for (const { hex, share } of areaByColour(art)) expect(share).toBeCloseTo(counts.get(hex)! / all, 2);
    }
  });

  it('counts holes and hidden shapes not, chips by their colour, and nothing in an empty drawing', () => {
    const ring = shapeOf('ring', { fill: { chip: 'c' }, paths: [squarePath(0, 0, 40, 'a'), squarePath(10, 10, 20, 'b')] }); // prettier-ignore
    const beside = shapeOf('beside', { paths: [squarePath(50, 0, 20, 'd')] });
    const hidden = shapeOf('hidden', { shown: false, paths: [squarePath(0, 0, 400, 'e')] });
    const art = withShapes(beside, hidden);
    const chip = changeArt(art, addChip({ id: 'c', name: '', hex: '#123456' })).art;
    const all = { ...chip, layers: [{ ...chip.layers[0]!, children: [...chip.layers[0]!.children, ring] }] };
    expect(areaByColour(all)[0]!.hex).toBe('#123456');
    expect(areaByColour(all)[0]!.share).toBeCloseTo(0.75, 2);
    expect(areaByColour(withShapes())).toEqual([]);
    expect(areaByColour(withShapes(groupOf('g')))).toEqual([]);
    expect(areaByColour(withShapes(shapeOf('dot', { paths: [pathOf([anchor(3, 3)], true)] })))).toEqual([]);
  });
});

it('neighbours lie along each other; a shared corner or a gap makes none', () => {
  const at = (x: number, y: number) => shapeOf(`${x} ${y}`, { paths: [squarePath(x, y, 10, `p${x} ${y}`)] });
  expect(neighboursOf([at(0, 0), at(10, 0), at(10, 10), at(22, 0)], 0.5)).toEqual([[1], [0, 2], [1], []]);
  expect(neighboursOf([at(0, 0), at(10.3, 0)], 0.5)).toEqual([[1], [0]]);
  // A small one along a large one.
  const large = shapeOf('large', { paths: [squarePath(0, 0, 400, 'l')] });
  expect(neighboursOf([large, at(400, 30)], 0.5)).toEqual([[1], [0]]);
  expect(neighboursOf([], 1)).toEqual([]);
  expect(neighboursOf([shapeOf('dot', { paths: [pathOf([anchor(3, 3)], true)] })], 1)).toEqual([[]]);
});

it('the share of a picture that is covered counts what lies over each other once', () => {
  const picture = [squarePath(0, 0, 100, 'p')];
  const share = coveredShare(
    picture,
    [[squarePath(0, 0, 50, 'a')], [squarePath(25, 0, 50, 'b')], [squarePath(90, 90, 50, 'c')]],
    { width: 100, height: 100 },
  );
  expect(share).toBeCloseTo(0.375 + 0.01, 2);
  expect(coveredShare([squarePath(200, 0, 10, 'x')], [], { width: 100, height: 100 })).toBeNull();
  expect(coveredShare(picture, [], { width: 100, height: 100 })).toBe(0);
});
