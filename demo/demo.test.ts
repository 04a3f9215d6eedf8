import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import {
  anchorCount,
  bodyTone,
  contrastRatio,
  hexesApart,
  cutoutParts,
  nearestOf,
  nearPairs,
  apply,
  cubicPoint,
  drawnTwice,
  findings,
  flatHex,
  formatHex,
  paintedLeaves,
  paintList,
  paletteOf,
  homography,
  invert,
  nearestOnPath,
  parsePathData,
  pathCubics,
  project,
  readArt,
  sampleDisc,
  shapesOf,
  squareUp,
  transformPath,
  warpRaster,
  wholePaths,
  type Art,
  type PaintedShape,
  type Shape,
  TOLERANCES,
} from '@mirrot/core';
import { cornersOf, grain } from './camera';
import { FERN } from './originals/fern';
import { GATE_BADGE } from './originals/gate-badge';
import { BAR, GLASSHOUSE, MIDDLE, ROSE } from './originals/glasshouse';
import { GOURD } from './originals/gourd';
import { GROWER } from './originals/grower';
import { PEN, PLANT_LABELS } from './originals/plant-labels';
import { WATERING_CAN } from './originals/watering-can';
import { BADGE_CORNERS } from './scene';

const here = import.meta.dirname;
const load = (name: string): { name: string; picture: string; art: Art } => {
  const value = JSON.parse(readFileSync(join(here, 'projects', `${name}.json`), 'utf8')) as { name: string; picture: string; art: unknown }; // prettier-ignore
  return { ...value, art: readArt(value.art) };
};
const pixels = async (file: string) => {
  const { data, info } = await sharp(join(here, 'pictures', file)).ensureAlpha().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
};
const shapeIn = (art: Art, name: string): Shape =>
  shapesOf(art).find(({ shape }) => shape.name === name)!.shape;

describe.each([
  'watering-can',
  'gate-badge',
  'fern',
  'plant-labels',
  'seed-packet',
  'gourd',
  'glasshouse',
  'grower',
])('%s', (name) => {
  it('ships a picture at least 1600 px wide, and a document that can be read', async () => {
    const { picture, art } = load(name);
    expect(existsSync(join(here, 'pictures', picture))).toBe(true);
    const meta = await sharp(join(here, 'pictures', picture)).metadata();
    expect(meta.width).toBeGreaterThanOrEqual(1600);
    expect(art.pictures[0]).toMatchObject({ width: meta.width, height: meta.height, locked: true });
  });
});

describe('Watering can, finished', () => {
  const { art } = load('watering-can');
  const shapes = shapesOf(art).map((p) => p.shape);

  it('has at least eight filled shapes on several layers, one with a hole, and few anchors', () => {
    expect(shapes.length).toBeGreaterThanOrEqual(8);
    expect(shapes.every((s) => s.fill)).toBe(true);
    expect(art.layers.length).toBeGreaterThanOrEqual(3);
    expect(shapeIn(art, 'Handle').paths).toHaveLength(2);
    expect(shapes.reduce((n, s) => n + anchorCount(s), 0) / shapes.length).toBeLessThan(5);
  });

  it('is filled with what its photograph shows', async () => {
    const picture = await pixels('watering-can.jpg');
    const palette = paletteOf(art.chips);
    // Near ones are merged into one chip; none of these is near another.
    expect(nearPairs(art.chips.map((c) => c.hex))).toEqual([]);
    const back = invert(art.pictures[0]!.placement)!;
    const lines = shapes.map((shape) =>
      shape.paths.map((p) => transformPath({ ...p, form: undefined }, back)),
    );
    shapes.forEach((shape, i) => {
      const tone = bodyTone(picture, { outlines: lines[i]!, covers: lines.slice(i + 1), trim: 0.2 })!;
      expect(hexesApart(shape.toned!, formatHex(tone.body)), shape.name).toBeLessThan(0.8);
      expect(hexesApart(flatHex(shape.fill, palette)!, formatHex(tone.body)), shape.name).toBeLessThan(2.2);
    });
    // The enamel between its light and its shade, as the vector original has it.
    expect(hexesApart(flatHex(shapeIn(art, 'Body').fill, palette)!, '#246d6e')).toBeLessThan(2);
  });

  it('lies on the original’s outlines to a hundredth of a picture pixel', () => {
    const back = invert(art.pictures[0]!.placement)!;
    for (const { name, d } of WATERING_CAN.layers.flatMap((l) => l.shapes)) {
      const truth = parsePathData(d);
      shapeIn(art, name).paths.forEach((path, i) =>
        transformPath(path, back).anchors.forEach((a, k) =>
          expect(Math.hypot(a.x - truth[i]!.anchors[k]!.x, a.y - truth[i]!.anchors[k]!.y), name).toBeLessThan(
            0.01,
          ),
        ),
      );
    }
  });
});

describe('Grower, blocked in', () => {
  const { art } = load('grower');
  const shapes = shapesOf(art).map((p) => p.shape);

  it('has every shape of the original on its outline, none filled, in layers and groups', () => {
    const originals = GROWER.layers.flatMap((l) => l.shapes);
    expect(shapes.map((s) => s.name).sort()).toEqual(originals.map((s) => s.name).sort());
    expect(shapes.every((s) => s.fill === null)).toBe(true);
    expect(art.layers.map((l) => l.name)).toEqual(['Shoulders', 'Head', 'Hat']);
    const groups = art.layers.flatMap((l) => l.children).filter((node) => node.type === 'group');
    expect(groups.map((g) => g.name)).toEqual([
      'Face tones',
      'Left eye with brow',
      'Right eye with brow',
      'Mouth',
    ]);
    const back = invert(art.pictures[0]!.placement)!;
    for (const { name, d } of originals)
      transformPath(shapeIn(art, name).paths[0]!, back).anchors.forEach((a, k) => {
        const truth = parsePathData(d)[0]!.anchors[k]!;
        expect(Math.hypot(a.x - truth.x, a.y - truth.y), name).toBeLessThan(0.01);
      });
  });

  it('shows each of its parts in the photograph: what is sampled in light and shade differs', async () => {
    const picture = await pixels('grower.jpg');
    const tone = (name: string): number => {
      const { sample } = GROWER.layers.flatMap((l) => l.shapes).find((s) => s.name === name)!;
      return sampleDisc(picture, sample[0], sample[1], 5)!
        .slice(0, 3)
        .reduce((a, b) => a + b, 0);
    };
    for (const [light, shade] of [
      ['Face', 'Face shade'],
      ['Crown', 'Crown shade'],
      ['Shirt', 'Shirt shade'],
      ['Neck', 'Neck shade'],
      ['Face', 'Brim shade'],
    ] as const)
      // prettier-ignore
      expect(tone(light), light).toBeGreaterThan(tone(shade) + 0.12);
  });
});

describe('Can tag', () => {
  const { art } = load('can-tag');

  it('is the photographed can cut out along its true outline, its handles open, its shadow left', () => {
    const group = art.layers.flatMap((l) => l.children).find((node) => node.type === 'group')!;
    const can = shapeIn(art, 'Can');
    expect([group.clip, group.edge?.shadow?.side]).toEqual([can.id, Math.PI / 2]);
    // The outline, and two handles to see through.
    expect(can.paths).toHaveLength(3);
    const body = parsePathData(
      WATERING_CAN.layers[1]!.shapes.find((s) => s.name === 'Body')!.d,
      () => 'b',
    )[0]!;
    const scale = art.pictures[0]!.placement[0];
    // The foot of the body is the foot of the can.
    const foot = body.anchors[1]!;
    const away = nearestOnPath(can.paths[0]!, { x: foot.x * scale, y: foot.y * scale })!.distance;
    expect(away).toBeLessThan(0.01);
    expect(cutoutParts(art, group.id)).toMatchObject({ pictures: [{ id: 'picture' }] });
    // The tag hangs by a hole.
    expect(shapeIn(art, 'Tag').paths).toHaveLength(2);
  });
});

describe('Gate badge, half traced', () => {
  const { art } = load('gate-badge');
  const map = homography(cornersOf(GATE_BADGE), BADGE_CORNERS);
  const back = invert(art.pictures[0]!.placement)!;
  /** How far what is drawn lies from where the original is seen, in picture pixels: mean over dense points. */
  const off = (name: string): number => {
    const [drawn] = shapeIn(art, name).paths;
    const path = transformPath(drawn!, back);
    const truth = parsePathData(
      GATE_BADGE.layers.flatMap((l) => l.shapes).find((s) => s.name === name)!.d,
    )[0]!;
    const points = pathCubics(truth).flatMap((c) =>
      Array.from({ length: 20 }, (_, i) => project(map, cubicPoint(c, i / 20))),
    );
    return points.reduce((s, p) => s + nearestOnPath(path, p)!.distance, 0) / points.length;
  };

  it('follows what is done to a tenth of a pixel, and leaves drift to be seen on the rest', () => {
    for (const name of ['Plate', 'Field', 'Sun']) expect(off(name), name).toBeLessThan(0.1);
    for (const name of ['Ground', 'Left post', 'Right post']) {
      expect(off(name), name).toBeGreaterThan(2);
      expect(shapeIn(art, name).fill).toBeNull();
    }
  });

  it('is seen at an angle and small: its square is no square', () => {
    const [a, b, c, d] = BADGE_CORNERS;
    const side = (p: typeof a, q: typeof a): number => Math.hypot(p!.x - q!.x, p!.y - q!.y);
    expect(Math.abs(side(a, b) - side(c, d))).toBeGreaterThan(10);
    expect(side(a, b)).toBeLessThan(900);
    expect(apply(back, { x: 0, y: 0 })).toEqual({ x: 0, y: 0 });
  });
});

describe('Fern, rough pass done', () => {
  const { art } = load('fern');
  const shapes = shapesOf(art).map((p) => p.shape);
  const back = invert(art.pictures[0]!.placement)!;

  it('has every line of the sketch, none filled, most anchors flowing, tips still corners', () => {
    expect(shapes).toHaveLength(FERN.layers.reduce((n, l) => n + l.shapes.length, 0));
    expect(shapes.every((s) => s.fill === null && s.paths.length === 1)).toBe(true);
    const anchors = shapes.flatMap((s) => s.paths[0]!.anchors);
    const flowing = anchors.filter((a) => a.kind === 'flowing').length;
    expect(flowing / anchors.length).toBeGreaterThan(0.6);
    expect(flowing).toBeLessThan(anchors.length);
  });

  it('leaves a rough hand’s drift from the pencil’s line, two pixels or so, not more than six', () => {
    for (const { name, d } of FERN.layers.flatMap((l) => l.shapes)) {
      const truth = parsePathData(d)[0]!;
      const drawn = transformPath(shapeIn(art, name).paths[0]!, back);
      const off = pathCubics(truth).map((c) => nearestOnPath(drawn, cubicPoint(c, 0.4))!.distance);
      const mean = off.reduce((s, v) => s + v, 0) / off.length;
      expect(mean, name).toBeGreaterThan(0.3);
      expect(mean, name).toBeLessThan(6);
    }
  });

  it('is drawn in graphite on paper: the rib is darker than the page beside it', async () => {
    const picture = await pixels('fern.jpg');
    const rib = pathCubics(parsePathData(FERN.layers[0]!.shapes[0]!.d)[0]!)[0]!;
    const light = (x: number, y: number): number => sampleDisc(picture, x, y, 3)![0];
    for (const t of [0.05, 0.1, 0.14]) {
      const p = cubicPoint(rib, t);
      expect(light(p.x, p.y)).toBeLessThan(light(p.x + 40, p.y) - 0.15);
    }
  });
});

describe('Plant labels, two words done', () => {
  const { art } = load('plant-labels');
  const shapes = shapesOf(art).map((p) => p.shape);

  it('has “mint” and “sorrel” in single strokes of one pen, “dill” still to do', () => {
    expect(art.layers.map((l) => l.name)).toEqual(['Mint', 'Sorrel']);
    expect(PLANT_LABELS.layers.map((l) => l.name)).toEqual(['Mint', 'Sorrel', 'Dill']);
    const width = PEN * art.pictures[0]!.placement[0];
    for (const s of shapes) {
      expect(s.paths.every((p) => !p.closed)).toBe(true);
      expect(s.stroke!.width).toBeCloseTo(width, 2);
      expect(s.fill).toBeNull();
    }
  });

  it('draws nothing twice', () => {
    for (const s of shapes) {
      const others = shapes.filter((o) => o !== s).flatMap((o) => o.paths);
      expect(drawnTwice(s.paths[0]!, others, s.stroke!.width), s.name).toEqual([]);
    }
  });
});

describe('Gourd, a third of its mosaic done', () => {
  const { art } = load('gourd');
  const shapes = shapesOf(art).map((p) => p.shape);

  it('is left out of drift as a whole: its sides follow no edge', () => {
    expect(shapesOf(art).some((p) => p.measured)).toBe(false);
  });

  it('has a third of the pieces, filled with what the photograph shows', async () => {
    const all = GOURD.layers[0]!.shapes;
    expect(shapes).toHaveLength(all.length / 3);
    const picture = await pixels('gourd.jpg');
    // Kept to a palette of nine: each the nearest to what its piece shows.
    expect(art.chips.length).toBeLessThanOrEqual(9);
    for (const s of shapes) {
      const tone = bodyTone(picture, { outlines: s.paths.map((p) => transformPath(p, invert(art.pictures[0]!.placement)!)), covers: [], trim: 0.2 })!; // prettier-ignore
      const nearest = nearestOf(formatHex(tone.body), art.chips.map((c) => c.hex))!; // prettier-ignore
      const off = hexesApart(flatHex(s.fill, paletteOf(art.chips))!, formatHex(tone.body));
      // Two chips can be as near: the paths were rounded since.
      expect(off).toBeLessThan(nearest.deltaE + 0.5);
      expect(off).toBeLessThan(10);
    }
    expect(all.length).toBe(3 * shapes.length);
  });

  it('has no gap: every side between two pieces is in both, corner for corner, and its corners share a key', () => {
    const sides = new Map<string, number>();
    for (const s of shapes) {
      const { anchors } = s.paths[0]!;
      anchors.forEach((a, i) => {
        const b = anchors[(i + 1) % anchors.length]!;
        const key = [`${a.x} ${a.y} ${a.shared}`, `${b.x} ${b.y} ${b.shared}`].sort().join('|');
        sides.set(key, (sides.get(key) ?? 0) + 1);
      });
    }
    const inner = [...sides].filter(([, n]) => n === 2);
    // Four rows of seven pieces: 3 × 7 sides between rows, 4 × 6 within them.
    expect(inner).toHaveLength(3 * 7 + 4 * 6);
    expect(inner.every(([key]) => !key.includes('undefined'))).toBe(true);
  });
});

describe('Glasshouse, a finished line icon', () => {
  const { art } = load('glasshouse');
  const [background, ...shapes] = shapesOf(art).map((p) => p.shape);
  const [k] = art.pictures[0]!.placement;

  it('has a background and three colourways, each with a colour for every chip, their contrast enough for marks', () => {
    expect(background).toMatchObject({ name: 'Background', locked: true, fill: { chip: 'chip-paper' } });
    expect(art.colourways).toHaveLength(3);
    for (const { hexes } of art.colourways) {
      expect(Object.keys(hexes)).toEqual(art.chips.map((c) => c.id));
      const [paper, bars, rose] = Object.values(hexes);
      // Source: WCAG 2.2, success criterion 1.4.11: 3 : 1 for graphical objects.
      for (const line of [bars!, rose!]) expect(contrastRatio(paper!, line)).toBeGreaterThan(3);
    }
  });

  it('has one weight, bars of one chip and the rose of another, no fill, and few anchors', () => {
    for (const s of shapes) {
      expect(s.fill).toBeNull();
      expect(s.stroke!.paint).toEqual({ chip: s.name === 'Petal' ? 'chip-rose' : 'chip-bars' });
      expect(s.stroke!.width).toBeCloseTo(BAR * k, 2);
    }
    expect(shapes.reduce((n, s) => n + anchorCount(s), 0)).toBeLessThan(50);
  });

  it('is the same on both sides, and its rose has eight petals, all alike', () => {
    const lines = shapes.flatMap((s) => wholePaths(s));
    for (const c of lines.flatMap((p) => pathCubics(p)))
      for (const t of [0, 0.3, 0.7]) {
        const p = cubicPoint(c, t);
        const other = { x: 2 * MIDDLE * k - p.x, y: p.y };
        expect(Math.min(...lines.map((l) => nearestOnPath(l, other)!.distance))).toBeLessThan(0.01);
      }
    // Ring copies: one petal is drawn and leads the others.
    const petals = paintedLeaves(paintList(art))
      .map(({ part }) => part as PaintedShape)
      .filter(({ name }) => name === 'Petal')
      .flatMap(({ paths }) => paths);
    expect(petals).toHaveLength(ROSE.petals);
    const reach = petals.map((p) =>
      Math.max(...p.anchors.map((a) => Math.hypot(a.x - ROSE.x * k, a.y - ROSE.y * k))),
    );
    for (const r of reach) expect(r).toBeCloseTo(reach[0]!, 6);
  });

  it('lies on the middles of the photograph’s white bars: as light there, darker a bar’s width aside', async () => {
    const picture = await pixels('glasshouse.jpg');
    const light = (x: number, y: number): number => sampleDisc(picture, x, y, 2)![1];
    const bars = GLASSHOUSE.layers[0]!.shapes.filter((s) => /mullion|Roof bar|Ridge/.test(s.name));
    for (const { name, d } of bars)
      for (const c of pathCubics(parsePathData(d)[0]!))
        for (const t of [0.3, 0.7]) {
          const p = cubicPoint(c, t);
          expect(light(p.x, p.y), name).toBeGreaterThan(light(p.x - 1.2 * BAR, p.y) + 0.1);
          expect(light(p.x, p.y), name).toBeGreaterThan(light(p.x + 1.2 * BAR, p.y) + 0.1);
        }
  });
});

it('comes straight again: posts of the squared-up photograph stand where the original has them, within half a pixel', async () => {
  const photo = await pixels('gate-badge.jpg');
  const { map } = squareUp(BADGE_CORNERS, 1);
  const size = GATE_BADGE.width;
  const scale = squareUp(BADGE_CORNERS, 1).width / size;
  const grow = [1 / scale, 0, 0, 0, 1 / scale, 0, 0, 0, 1] as const;
  const straight = warpRaster(photo, homography(BADGE_CORNERS, cornersOf(GATE_BADGE)), size, size);
  expect(project(map, BADGE_CORNERS[2]!).x * grow[0]).toBeCloseTo(size, 6);
  // Blue of the cream posts against the orange ground and green field, at heights where nothing else is near.
  const off: number[] = [];
  for (const y of [660, 720, 780, 860])
    for (const edge of [292, 372, 828, 908]) {
      const at = (x: number): number => straight.data[(y * size + x) * 4 + 2]!;
      const [low, high] = [edge - 12, edge + 12];
      const middle = (at(low) + at(high)) / 2;
      let x = low;
      while (x < high && at(x + 1) > middle === at(low) > middle) x++;
      off.push(x + 0.5 + (middle - at(x)) / (at(x + 1) - at(x)) - edge);
    }
  expect(off.reduce((s, v) => s + Math.abs(v), 0) / off.length).toBeLessThan(0.5);
});

it('makes the same grain every time', () => {
  const grey = { width: 8, height: 8, data: new Uint8ClampedArray(256).fill(128) };
  expect(grain(grey, 12, 3).data).toEqual(grain(grey, 12, 3).data);
  expect(grain(grey, 12, 3).data).not.toEqual(grain(grey, 12, 4).data);
});

describe('the finished projects', () => {
  it('have nothing that the proof takes for a mistake', () => {
    for (const name of ['watering-can', 'glasshouse'])
      for (const by of ['screen', 'print'] as const)
        expect(findings(load(name).art, TOLERANCES[by]), `${name} ${by}`).toEqual([]);
  });
});
