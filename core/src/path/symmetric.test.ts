import { describe, expect, it } from 'vitest';
import { apply } from '../geometry/affine';
import { distance } from '../geometry/vector';
import { anchor, pathOf, seeded } from '../testing';
import { axisMaps, mirrorMap, spreadPath, type MirrorAxis, type TurnAxis } from './axis';
import { formPath } from './form-path';
import { plainForm } from './form';
import { insertAnchor } from './insert';
import { nearestOnPath } from './path-measure';
import { pathCubics, type Path } from './path';
import { transformPath } from './path-map';
import { makeSymmetric } from './symmetric';
import { ownCentre, ownMirrorAxis } from './own-axis';
import { cubicPoint } from '../geometry/cubic';

const upright: MirrorAxis = { kind: 'mirror', x: 50, y: 0, angle: Math.PI / 2 };
const random = seeded(31);
const shaken = (path: Path, by: number): Path => ({
  ...path,
  form: undefined,
  anchors: path.anchors.map((a) => ({
    ...a,
    x: a.x + by * (random() - 0.5),
    y: a.y + by * (random() - 0.5),
    in: a.in && { x: a.in.x + by * (random() - 0.5), y: a.in.y },
    out: a.out && { x: a.out.x, y: a.out.y + by * (random() - 0.5) },
    kind: 'corner' as const,
  })),
});
/** A heart-like outline, drawn on one side and spread about the axis. */
const heart = spreadPath(
  pathOf(
    [
      anchor(50, 20, null, [5, -12]),
      anchor(80, 15, [-8, -10], [10, 12]),
      anchor(75, 60, [8, -15], null),
      anchor(50, 90),
    ],
    false,
  ),
  upright,
)[0]!;

/** How far the image of a path under a map lies from the paths, measured densely. */
const offImage = (paths: readonly Path[], map: Parameters<typeof apply>[0]): number =>
  Math.max(
    ...paths.flatMap((p) =>
      pathCubics(p).flatMap((c) =>
        Array.from({ length: 9 }, (_, k) => {
          const q = apply(map, cubicPoint(c, k / 8));
          return Math.min(...paths.map((o) => nearestOnPath(o, q)!.distance));
        }),
      ),
    ),
  );

describe('symmetric again about a mirror axis', () => {
  it('gives back what is symmetric already, and makes the shaken so to rounding', () => {
    const same = makeSymmetric([heart], upright, 'all');
    expect(same.worst.distance).toBeLessThan(1e-9);
    for (let k = 0; k < 20; k++) {
      const rough = shaken(heart, 4);
      const { paths, worst } = makeSymmetric([rough], upright, 'all');
      expect(offImage(paths, mirrorMap(upright))).toBeLessThan(1e-9);
      expect(worst.distance).toBeGreaterThan(0);
      expect(worst.distance).toBeLessThan(4);
      expect(paths[0]!.anchors).toHaveLength(heart.anchors.length);
    }
  });

  it('is the mean of both sides: nothing else is nearer to what was there, by squares', () => {
    const rough = shaken(heart, 4);
    const even = makeSymmetric([rough], upright, 'all').paths[0]!;
    const cost = (p: Path): number =>
      p.anchors.reduce((s, a, i) => s + distance(a, rough.anchors[i]!) ** 2, 0);
    const n = even.anchors.length;
    const least = cost(even);
    for (let k = 0; k < 50; k++) {
      // Another symmetric outline: one anchor and its counterpart moved alike.
      const i = Math.floor(random() * n);
      const d = { x: random() - 0.5, y: random() - 0.5 };
      const image = apply(mirrorMap(upright), even.anchors[i]!);
      const j = even.anchors.findIndex((a) => distance(a, image) < 1e-9);
      const other = {
        ...even,
        anchors: even.anchors.map((a, m) => {
          if (i === j) return m === i ? { ...a, y: a.y + d.y } : a;
          if (m === i) return { ...a, x: a.x + d.x, y: a.y + d.y };
          return m === j ? { ...a, x: a.x - d.x, y: a.y + d.y } : a;
        }),
      };
      expect(cost(other)).toBeGreaterThanOrEqual(least - 1e-12);
    }
  });

  it('lets either side lead: that side stays where it was', () => {
    const rough = shaken(heart, 4);
    for (const [lead, side] of [
      ['one', (x: number) => x > 53],
      ['other', (x: number) => x < 47],
    ] as const) {
      const { paths } = makeSymmetric([rough], upright, lead);
      const staying = rough.anchors.filter((a) => side(a.x));
      expect(staying.length).toBeGreaterThan(1);
      for (const a of staying) expect(paths[0]!.anchors.some((b) => distance(a, b) < 1e-9)).toBe(true);
      expect(offImage(paths, mirrorMap(upright))).toBeLessThan(1e-9);
    }
  });

  it('keeps smooth anchors smooth, and pairs holes with each other', () => {
    const smooth = {
      ...heart,
      anchors: heart.anchors.map((a) => (a.in && a.out ? { ...a, kind: 'smooth' as const } : a)),
    };
    const eye = formPath({ ...plainForm('ellipse'), x: 40, y: 40, width: 8, height: 6 }, 'left');
    const other = transformPath(
      { ...formPath({ ...plainForm('ellipse'), x: 61, y: 41, width: 9, height: 6 }, 'right') },
      axisMaps({ kind: 'turn', x: 61, y: 41, parts: 2 })[1]!,
    );
    const { paths } = makeSymmetric([smooth, eye, other], upright, 'all');
    expect(offImage(paths, mirrorMap(upright))).toBeLessThan(1e-9);
    expect(paths.map((p) => p.id)).toEqual([smooth.id, 'left', 'right']);
    const [a, b] = [ownCentre([paths[1]!]), ownCentre([paths[2]!])];
    expect(a.x + b.x).toBeCloseTo(100, 9);
    expect(a.y).toBeCloseTo(40.5, 9);
    for (const p of paths[0]!.anchors)
      if (p.kind === 'smooth' && p.in && p.out)
        expect(Math.abs(p.in.x * p.out.y - p.in.y * p.out.x)).toBeLessThan(1e-9);
  });

  it('makes one side anew from the other where anchors do not pair up', () => {
    const uneven = [1, 1, 0].reduce((p, s) => insertAnchor(p, s, 0.4), heart);
    expect(() => makeSymmetric([uneven], upright, 'all')).toThrow(/do not pair up/);
    for (const lead of ['one', 'other'] as const) {
      const { paths } = makeSymmetric([uneven], upright, lead);
      expect(offImage(paths, mirrorMap(upright))).toBeLessThan(1e-9);
      // The outline was symmetric but for its anchors, so it does not change.
      for (const c of pathCubics(paths[0]!))
        expect(nearestOnPath(heart, cubicPoint(c, 0.5))!.distance).toBeLessThan(1e-6);
    }
    const arch = pathOf(
      [anchor(20, 80), anchor(30, 20), anchor(48, 10), anchor(71, 21), anchor(79, 79), anchor(80, 90)],
      false,
    );
    const { paths } = makeSymmetric([arch], upright, 'one');
    expect(offImage(paths, mirrorMap(upright))).toBeLessThan(1e-9);
    expect(paths[0]!.closed).toBe(false);
  });

  it('refuses what lies on one side only, one anchor, and nothing', () => {
    const aside = transformPath(heart, [1, 0, 0, 1, 300, 0]);
    for (const lead of ['all', 'one', 'other'] as const)
      expect(() => makeSymmetric([aside], upright, lead)).toThrow(/Nothing was changed/);
    expect(makeSymmetric([], upright, 'all').paths).toEqual([]);
    const lone = pathOf([anchor(50, 3)], false);
    expect(makeSymmetric([lone], upright, 'all').paths[0]!.anchors[0]).toMatchObject({ x: 50, y: 3 });
  });
});

describe('symmetric again about a centre', () => {
  const centre: TurnAxis = { kind: 'turn', x: 10, y: 20, parts: 5 };
  const star = spreadPath(
    pathOf([anchor(10, 0, null, [2, 1]), anchor(16, 11, [-1, -4], null)], false),
    centre,
  )[0]!;

  it('evens a star out, on its mean or on its first part', () => {
    for (let k = 0; k < 10; k++) {
      const rough = shaken(star, 1.5);
      for (const lead of ['all', 'one'] as const) {
        const { paths } = makeSymmetric([rough], centre, lead);
        for (const map of axisMaps(centre)) expect(offImage(paths, map)).toBeLessThan(1e-9);
        if (lead === 'one') expect(distance(paths[0]!.anchors[0]!, rough.anchors[0]!)).toBeLessThan(1e-9);
      }
    }
  });

  it('is right at twelve and at two parts, and run backwards', () => {
    const gear = spreadPath(pathOf([anchor(30, 0), anchor(34, 4)], false), {
      kind: 'turn',
      x: 0,
      y: 0,
      parts: 12,
    })[0]!;
    for (const parts of [12, 6, 4, 3, 2]) {
      const axis: TurnAxis = { kind: 'turn', x: 0, y: 0, parts };
      const back = { ...shaken(gear, 1), anchors: [...shaken(gear, 1).anchors].reverse() };
      expect(offImage(makeSymmetric([back], axis, 'all').paths, axisMaps(axis)[1]!)).toBeLessThan(1e-9);
    }
  });

  it('makes all parts anew also where anchors lie near each other but do not go round', () => {
    // Sixteen anchors of a ring in five parts: every one has another near, and none comes back to itself.
    const ring = spreadPath(pathOf([anchor(10, 0)], false), { ...centre, parts: 16 })[0]!;
    expect(() => makeSymmetric([ring], centre, 'all')).toThrow(/do not pair up/);
    const { paths } = makeSymmetric([ring], centre, 'one');
    for (const map of axisMaps(centre)) expect(offImage(paths, map)).toBeLessThan(1e-9);
  });

  it('makes all parts anew from the first where the counts do not fit', () => {
    const odd = insertAnchor(star, 7, 0.5);
    expect(() => makeSymmetric([odd], centre, 'all')).toThrow(/do not pair up/);
    const { paths } = makeSymmetric([odd], centre, 'one');
    for (const map of axisMaps(centre)) expect(offImage(paths, map)).toBeLessThan(1e-9);
    for (const c of pathCubics(paths[0]!))
      expect(nearestOnPath(star, cubicPoint(c, 0.5))!.distance).toBeLessThan(1e-6);
  });
});

describe('a drawing’s own axis', () => {
  it('is found to rounding where it is exact, and near it where it is shaken', () => {
    for (const angle of [0, 0.3, 1.2, Math.PI / 2, 2.7]) {
      const about: MirrorAxis = { kind: 'mirror', x: 50, y: 50, angle };
      const turned = transformPath(heart, [
        Math.sin(angle),
        -Math.cos(angle),
        Math.cos(angle),
        Math.sin(angle),
        3,
        7,
      ]);
      const exact = ownMirrorAxis([turned])!;
      expect(makeSymmetric([turned], exact, 'all').worst.distance).toBeLessThan(1e-9);
      const rough = ownMirrorAxis([shaken(turned, 2)])!;
      const apart = Math.abs(Math.sin(rough.angle - exact.angle));
      expect(apart).toBeLessThan(0.05);
      expect(about.kind).toBe(rough.kind);
    }
  });
  it('needs three anchors', () => {
    expect(ownMirrorAxis([])).toBeNull();
    expect(ownMirrorAxis([pathOf([anchor(0, 0), anchor(1, 1)], false)])).toBeNull();
  });
});
