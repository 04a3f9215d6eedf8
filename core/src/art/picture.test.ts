import { writeSvg } from '../formats/svg/write';
import { artSchema, readArt } from './check';
import { describe, expect, it } from 'vitest';
import { about, apply, compose, rotation, scaling, translation, type Affine } from '../geometry/affine';
import { cubicPoint } from '../geometry/cubic';
import { project } from '../geometry/homography';
import { squareUp } from '../geometry/square';
import { nearestOnPath } from '../path/path-measure';
import { pathCubics, segmentCubic } from '../path/path';
import { projectPath } from '../path/project';
import { circlePath, squarePath } from '../testing';
import { changeArt } from './change';
import {
  addGuide,
  addNode,
  addPicture,
  lockGuides,
  movePicture,
  removeGuides,
  setGuide,
  shiftAll,
  together,
} from './edits';
import { migrateArt } from './migrate';
import { followPicture, pictureMove, tracedOn } from './follow-picture';
import { fitOnSheet, picturePpi, seenBox, seenSize, shownCorners, squareMap } from './placed-picture';
import type { Art, PlacedPicture, Shape } from './schema';
import { ART_VERSION } from './limits';
import { emptyArt, placedPicture } from './blank';
import { findShape } from './tree';

const shape = (id: string, paths: Shape['paths']): Shape => ({
  id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths,
}); // prettier-ignore
const picture = placedPicture({ id: 'pic', source: 'src', name: 'Photo', width: 400, height: 300, placement: [0.5, 0, 0, 0.5, 10, 20] }); // prettier-ignore
const art: Art = changeArt(
  emptyArt({ width: 300, height: 200, unit: 'px' }, 'layer'),
  together(
    addPicture(picture),
    addNode('layer', shape('on', [circlePath(100, 90, 30)])),
    addNode('layer', shape('off', [squarePath(250, 180, 10, 'q')])),
  ),
).art;
const quad = [{ x: 60, y: 40 }, { x: 330, y: 70 }, { x: 310, y: 260 }, { x: 40, y: 250 }] as const; // prettier-ignore
const squared = (p: PlacedPicture): PlacedPicture => {
  const { width, height } = squareUp(quad, 1.3);
  return { ...p, square: { corners: [...quad], width, height } };
};

describe('the place of pictures', () => {
  const three = changeArt(
    art,
    together(addPicture({ ...picture, id: 'two' }), addPicture({ ...picture, id: 'three' })),
  ).art;
  const places = (now: Art): string => now.pictures.map((p) => (p.above ? `^${p.id}` : p.id)).join(' ');
  const moved = (now: Art, id: string, move: 'up' | 'down'): Art => changeArt(now, movePicture(id, move)).art;

  it('is among each other, beneath the drawing or above it, a step at a time', () => {
    expect(places(three)).toBe('pic two three');
    let now = moved(three, 'two', 'up');
    expect(places(now)).toBe('pic three two');
    now = moved(now, 'two', 'up');
    expect(places(now)).toBe('pic three ^two');
    expect(moved(now, 'two', 'up')).toBe(now);
    now = moved(now, 'three', 'up');
    expect(places(now)).toBe('pic ^three ^two');
    now = moved(moved(now, 'two', 'down'), 'two', 'down');
    expect(places(now)).toBe('pic two ^three');
    expect(moved(three, 'pic', 'down')).toBe(three);
    expect(moved(three, 'nobody', 'up')).toBe(three);
    expect(artSchema.safeParse(now).success).toBe(true);
    // Back where it was, nothing is left of it.
    expect(moved(moved(three, 'three', 'up'), 'three', 'down')).toEqual(three);
  });

  it('is where the file has them', () => {
    const filled = addNode('layer', {
      ...shape('leaf', [squarePath(9, 9, 5, 'l')]),
      fill: { hex: '#336699' },
    });
    const now = moved(moved(changeArt(three, filled).art, 'two', 'up'), 'two', 'up');
    const svg = writeSvg(now, { pictures: true, pictureHref: () => 'x' });
    expect([...svg.matchAll(/<(use|path)\b/g)].map(([, what]) => what)).toEqual([
      'use',
      'use',
      'path',
      'use',
    ]);
  });
});

describe('migration', () => {
  it('reads a document of version 1: pictures plain, 300 ppi for print', () => {
    const old = JSON.parse(JSON.stringify({ ...art, version: 1 })) as {
      sheet: Record<string, unknown>;
      pictures: Record<string, unknown>[];
    };
    delete (old as { guides?: unknown }).guides;
    const { ppi: _ppi, ...sheet } = old.sheet;
    const { square: _s, crop: _c, view: _v, tones: _t, veil: _e, credit: _k, ...plain } = old.pictures[0]!;
    Object.assign(old, { sheet, pictures: [plain] });
    const now = readArt(old);
    expect(now).toEqual(art);
    expect(now.version).toBe(ART_VERSION);
  });

  it('leaves alone what it does not know', () => {
    expect(migrateArt(null)).toBeNull();
    expect(migrateArt({ version: 77 })).toEqual({ version: 77 });
    expect(migrateArt(art)).toBe(art);
  });
});

describe('what is seen of a picture', () => {
  it('is all of it, the straightened size when squared up, and the crop', () => {
    expect(seenSize(picture)).toEqual({ width: 400, height: 300 });
    const square = squared(picture);
    expect(seenSize(square)).toEqual({ width: square.square!.width, height: square.square!.height });
    expect(seenBox({ ...picture, crop: { x0: 10, y0: 10, x1: 60, y1: 40 } })).toEqual({ x0: 10, y0: 10, x1: 60, y1: 40 }); // prettier-ignore
    expect(shownCorners({ ...picture, crop: { x0: 10, y0: 10, x1: 60, y1: 40 } })[0]).toEqual({
      x: 15,
      y: 25,
    });
    expect(squareMap(picture)).toBeNull();
    expect(picturePpi(picture)).toBe(192);
  });

  it('fits in the sheet or covers it, in its middle', () => {
    const sheet = { width: 200, height: 200 };
    expect(fitOnSheet(picture, sheet)).toEqual([0.5, 0, 0, 0.5, 0, 25]);
    const fill = fitOnSheet(picture, sheet, 'fill');
    expect(fill[0]).toBeCloseTo(2 / 3, 12);
    expect(fill[4]).toBeCloseTo(-100 / 3, 9);
  });
});

describe('paths that follow their picture', () => {
  const moves: [string, Affine][] = [
    ['moved', translation(12, -7)],
    ['scaled', about(scaling(1.7), { x: 30, y: 40 })],
    ['turned', about(rotation(0.4), { x: 80, y: 10 })],
    ['flipped', scaling(-1, 1)],
  ];
  it.each(moves)('are exact when it is %s', (_what, map) => {
    const after = { ...picture, placement: compose(map, picture.placement) };
    const { recipe, error, shapes } = followPicture(art, picture, after);
    expect([error, shapes]).toEqual([0, 1]);
    const next = changeArt(art, recipe).art;
    const before = findShape(art, 'on')!.paths[0]!;
    findShape(next, 'on')!.paths[0]!.anchors.forEach((a, i) => {
      const q = apply(map, before.anchors[i]!);
      expect(Math.hypot(a.x - q.x, a.y - q.y)).toBeLessThan(1e-9);
    });
    expect(findShape(next, 'off')).toBe(findShape(art, 'off'));
  });

  it('lie where they are seen when it is squared up, and say how far off they are at most', () => {
    const after = { ...squared(picture), placement: [0.6, 0, 0, 0.6, 5, 5] as Affine };
    const { recipe, error } = followPicture(art, picture, after);
    const drawn = findShape(changeArt(art, recipe).art, 'on')!.paths[0]!;
    const move = pictureMove(picture, after)!;
    let worst = 0;
    for (const c of pathCubics(findShape(art, 'on')!.paths[0]!))
      for (let t = 0; t <= 1; t += 0.05)
        worst = Math.max(worst, nearestOnPath(drawn, move(cubicPoint(c, t)))!.distance);
    expect(worst).toBeLessThanOrEqual(error + 1e-9);
    expect(error).toBeLessThan(0.02);
    // And back again.
    const again = changeArt(
      changeArt(art, recipe).art,
      followPicture(changeArt(art, recipe).art, after, picture).recipe,
    ).art;
    const home = findShape(again, 'on')!.paths[0]!;
    findShape(art, 'on')!.paths[0]!.anchors.forEach((a, i) => expect(Math.hypot(a.x - home.anchors[i]!.x, a.y - home.anchors[i]!.y)).toBeLessThan(1e-6)); // prettier-ignore
  });

  it('stay when nothing of the picture’s place changes', () => {
    expect(pictureMove(picture, { ...picture, wash: 50, crop: { x0: 0, y0: 0, x1: 9, y1: 9 } })).toBeNull();
    expect(followPicture(art, picture, { ...picture, view: 'grey' }).shapes).toBe(0);
    expect(tracedOn(art, picture).map((s) => s.id)).toEqual(['on']);
  });
});

describe('a path seen in perspective', () => {
  it('keeps kinds, straight segments straight, and ends; a lone anchor and an empty path go through', () => {
    const map = squareUp(quad, 1).map;
    const through = (p: { x: number; y: number }) => project(map, p);
    const { path } = projectPath(circlePath(180, 150, 60), through);
    expect(path.anchors.every((a) => a.kind === 'smooth')).toBe(true);
    path.anchors.forEach((a) => expect(Math.abs(a.in!.x * a.out!.y - a.in!.y * a.out!.x)).toBeLessThan(1e-3 * Math.hypot(a.in!.x, a.in!.y) * Math.hypot(a.out!.x, a.out!.y))); // prettier-ignore
    const box = projectPath(squarePath(100, 100, 50), through);
    expect(box.error).toBe(0);
    expect(box.path.anchors.every((a) => a.in === null && a.out === null)).toBe(true);
    expect(segmentCubic(box.path, 0)[0]).toMatchObject(through({ x: 100, y: 100 }));
    expect(projectPath({ id: 'e', closed: false, anchors: [] }, through).path.anchors).toEqual([]);
  });
});

it('moves everything there is', () => {
  const next = changeArt(art, shiftAll({ x: 3, y: -4 })).art;
  expect(findShape(next, 'off')!.paths[0]!.anchors[0]).toMatchObject({ x: 253, y: 176 });
  expect(next.pictures[0]!.placement).toEqual([0.5, 0, 0, 0.5, 13, 16]);
});

it('keeps guides: added, moved, locked, taken away', () => {
  const two = changeArt(art, together(addGuide({ id: 'g', x: 5, y: 0, angle: 0 }), addGuide({ id: 'h', x: 0, y: 7, angle: 1.2 }), setGuide('g', { y: 9 }), lockGuides(true))).art; // prettier-ignore
  expect(readArt(two).guides).toEqual({ locked: true, lines: [{ id: 'g', x: 5, y: 9, angle: 0 }, { id: 'h', x: 0, y: 7, angle: 1.2 }] }); // prettier-ignore
  expect(changeArt(two, shiftAll({ x: 1, y: 1 })).art.guides.lines[0]).toMatchObject({ x: 6, y: 10 });
  expect(changeArt(two, removeGuides('g')).art.guides.lines.map((g) => g.id)).toEqual(['h']);
  expect(changeArt(two, removeGuides()).art.guides.lines).toEqual([]);
});
