import { describe, expect, it } from 'vitest';
import { translation } from '../geometry/affine';
import { enclosedAreas } from '../path/enclosed';
import { nearestOnPath, pathArea } from '../path/path-measure';
import type { Path } from '../path/path';
import { anchor, pathOf } from '../testing';
import { followLines } from './follow-lines';
import { changeArt, type Recipe } from './change';
import { addNode, copiesOf, mapShape, removeNodes, setPath, setPoured, together } from './edits';
import { emptyArt } from './blank';
import { readArt } from './check';
import type { Art, Shape } from './schema';
import { shapeById, shapesOf } from './tree';

const shape = (id: string, paths: readonly Path[]): Shape => ({
  id,
  type: 'shape',
  name: id,
  shown: true,
  locked: false,
  opacity: 1,
  fill: null,
  stroke: null,
  paths,
});
const curve = pathOf([anchor(0, 0, null, [40, -40]), anchor(100, 0, [-40, -40], null)], false, 'top-line');
const base = pathOf([anchor(-10, 0), anchor(110, 0)], false, 'base-line');
const sheet = { width: 200, height: 200, unit: 'px' } as const;

/** A bow over a line, the area between them poured beneath. */
function poured(): Art {
  const [area] = enclosedAreas([curve, base], (n) => `area-${n}`).areas;
  const empty = emptyArt(sheet, 'l');
  return changeArt(
    empty,
    together(
      addNode('l', { ...shape('area', area!.paths), poured: { between: ['top', 'base'], gap: 0 } }),
      addNode('l', shape('top', [curve])),
      addNode('l', shape('base', [base])),
    ),
  ).art;
}
const after = (art: Art, recipe: Recipe): Shape =>
  shapeById(changeArt(art, recipe, followLines).art, 'area')!;
const higher: Path = { ...curve, anchors: curve.anchors.map((a, i) => (i === 0 ? { ...a, out: { x: 40, y: -80 } } : a)) }; // prettier-ignore

describe('a poured area', () => {
  it('keeps up with a line that is refined, its edges on the line’s own curve, in the same step', () => {
    const art = poured();
    const was = pathArea(shapeById(art, 'area')!.paths[0]!);
    const change = changeArt(art, setPath('top', higher), followLines);
    const is = shapeById(change.art, 'area')!;
    expect(pathArea(is.paths[0]!)).toBeGreaterThan(was * 1.2);
    for (const a of is.paths[0]!.anchors)
      expect(Math.min(...[higher, base].map((p) => nearestOnPath(p, a)!.distance))).toBeLessThan(1e-6);
    expect(is.paths[0]!.id).toBe(shapeById(art, 'area')!.paths[0]!.id);
    expect(readArt(JSON.parse(JSON.stringify(change.art)))).toEqual(change.art);
  });

  it('goes along when all is moved, and stands by itself when it is moved away from its lines', () => {
    const art = poured();
    const moved = (ids: readonly string[]): Recipe =>
      together(...ids.map((id) => mapShape(shapeById(art, id)!, translation(30, 40))));
    const along = after(art, moved(['area', 'top', 'base']));
    expect(along.poured).toBeDefined();
    expect(Math.min(...along.paths[0]!.anchors.map((a) => a.x))).toBeCloseTo(30, 6);
    expect(after(art, moved(['area'])).poured).toBeUndefined();
    expect(
      after(art, moved(['top', 'base']))
        .paths[0]!.anchors.map((a) => a.y)
        .sort()[0],
    ).toBeCloseTo(40, 6);
  });

  it('stays as it is where nothing is enclosed any more, or a line goes', () => {
    const art = poured();
    const before = shapeById(art, 'area')!.paths;
    const open = { ...curve, anchors: curve.anchors.map((a) => ({ ...a, y: a.y - 60 })) };
    expect(after(art, setPath('top', open)).paths).toBe(before);
    expect(after(art, removeNodes(['top'])).paths).toBe(before);
    // And comes back to its lines when these enclose something again.
    const away = changeArt(art, setPath('top', open)).art;
    expect(pathArea(after(away, setPath('top', higher)).paths[0]!)).toBeGreaterThan(pathArea(before[0]!));
  });

  it('is let go by a switch, and copied goes on among the copies', () => {
    const art = poured();
    const free = changeArt(art, setPoured('area', null)).art;
    expect(after(free, setPath('top', higher)).paths).toBe(shapeById(art, 'area')!.paths);
    let n = 0;
    const newId = (): string => `n${n++}`;
    const copy = (ids: readonly string[]): Shape => {
      const recipe = copiesOf(art, ids, newId).recipe();
      const made = changeArt(art, recipe).art;
      return shapesOf(made).find(({ shape: s }) => s.name.startsWith('area') && s.id !== 'area')!.shape;
    };
    expect(copy(['area']).poured).toBeUndefined();
    const { poured: kept } = copy(['area', 'top', 'base']);
    expect(kept!.between).toHaveLength(2);
    expect(kept!.between).not.toContain('top');
  });
});
