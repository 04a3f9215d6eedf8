import { describe, expect, it } from 'vitest';
import { CIRCLE_HANDLE, cubicDerivative, cubicPoint } from '../geometry/cubic';
import { cross, distance, dot, length } from '../geometry/vector';
import { rotation, scaling, compose } from '../geometry/affine';
import { anchor, pathOf, seeded } from '../testing';
import { flowAll, flows, freezeFlow, freezeSegment, hobbyLength, deriveFlow } from './flow';
import { moveHandle } from './handle';
import { insertAnchor } from './insert';
import { pullSegment } from './pull';
import { flattenPath, nearestOnPath } from './path-measure';
import { pathCubics, segmentCubic, segmentIsLine } from './path';
import { transformPath } from './path-map';
import type { Anchor } from './anchor'; // prettier-ignore
import { removeAnchors } from './remove';

const random = seeded(19);
const flow = (x: number, y: number): Anchor => anchor(x, y, null, null, 'flowing');
const inLine = (a: Anchor): boolean => Math.abs(cross(a.in!, a.out!)) < 1e-9 * length(a.in!) * length(a.out!) && dot(a.in!, a.out!) < 0; // prettier-ignore

// Source: Hobby (1986); The METAFONTbook, chapter 14.
describe('flowing anchors', () => {
  it('have handles as long as the published formula gives', () => {
    // f(θ, φ) written out with sines and cosines of 30° and 45°.
    const [s3, c3, r2] = [0.5, Math.sqrt(3) / 2, Math.SQRT1_2];
    const above = 2 + Math.SQRT2 * (s3 - r2 / 16) * (r2 - s3 / 16) * (c3 - r2);
    const below = 3 * (1 + 0.5 * (Math.sqrt(5) - 1) * c3 + 0.5 * (3 - Math.sqrt(5)) * r2);
    expect(hobbyLength(Math.PI / 6, Math.PI / 4)).toBeCloseTo(above / below, 14);
    expect(hobbyLength(0, 0)).toBeCloseTo(1 / 3, 14);
  });

  it('make a circle of four points: handles 0.5523 of the radius', () => {
    const r = 50;
    const circle = deriveFlow(pathOf([flow(r, 0), flow(0, r), flow(-r, 0), flow(0, -r)], true));
    for (const a of circle.anchors) {
      expect(length(a.out!) / r).toBeCloseTo(CIRCLE_HANDLE, 3);
      expect(Math.abs(dot(a.out!, a))).toBeLessThan(1e-9);
    }
    for (const c of pathCubics(circle))
      for (let t = 0; t <= 1; t += 0.1) expect(Math.abs(length(cubicPoint(c, t)) - r)).toBeLessThan(0.02);
  });

  it('make an arc of a circle of three points with free ends', () => {
    const arc = deriveFlow(pathOf([flow(-30, 0), flow(0, -30), flow(30, 0)]));
    for (const c of pathCubics(arc))
      for (let t = 0; t <= 1; t += 0.1) expect(Math.abs(length(cubicPoint(c, t)) - 30)).toBeLessThan(0.05);
  });

  it('keep mock curvature the same on both sides, handles in one line', () => {
    for (let i = 0; i < 40; i++) {
      const closed = i % 2 === 0;
      const path = deriveFlow(pathOf(Array.from({ length: 3 + (i % 6) }, (_, k) => flow(k * 40 + random() * 30, random() * 120)), closed)); // prettier-ignore
      const cubics = pathCubics(path);
      path.anchors.forEach((a, k) => {
        if (!closed && (k === 0 || k === path.anchors.length - 1)) return;
        expect(inLine(a)).toBe(true);
        const before = cubics[(k - 1 + cubics.length) % cubics.length]!;
        const after = cubics[k % cubics.length]!;
        // Hobby's mock curvature: the curvature's linear part in the angles, (2θ − φ) over the chord.
        const angle = (u: { x: number; y: number }, v: { x: number; y: number }): number =>
          Math.atan2(cross(u, v), dot(u, v));
        const chord = (c: typeof before) => ({ x: c[3].x - c[0].x, y: c[3].y - c[0].y });
        const start = (c: typeof before): number => angle(chord(c), cubicDerivative(c, 0));
        const end = (c: typeof before): number => angle(cubicDerivative(c, 1), chord(c));
        const left = (2 * end(before) - start(before)) / length(chord(before));
        const right = (2 * start(after) - end(after)) / length(chord(after));
        expect(left).toBeCloseTo(right, 9);
      });
    }
  });

  it('leave a smooth neighbour in its direction, a straight segment in its own, and keep what does not flow', () => {
    const path = deriveFlow(
      pathOf([anchor(0, 0), anchor(50, 0, null, null, 'smooth'), flow(90, 40), anchor(140, 40, null, [20, 20], 'smooth'), anchor(200, 90, [-20, 0])]), // prettier-ignore
    );
    expect(segmentIsLine(path, 0)).toBe(true);
    expect(path.anchors[1]!.out!.y).toBeCloseTo(0, 9);
    expect(path.anchors[1]!.out!.x).toBeGreaterThan(0);
    expect(Math.abs(cross(path.anchors[3]!.in!, { x: 20, y: 20 }))).toBeLessThan(1e-9);
    expect(path.anchors[3]!.out).toEqual({ x: 20, y: 20 });
    expect(path.anchors[4]!.in).toEqual({ x: -20, y: 0 });
  });

  it('turn and grow with the path', () => {
    const map = compose(rotation(0.7), scaling(2.5));
    const path = deriveFlow(pathOf([flow(0, 0), flow(40, 30), flow(90, 10)]));
    const [one, other] = [deriveFlow(transformPath(path, map)), transformPath(path, map)];
    one.anchors.forEach((a, i) => {
      if (a.out) expect(distance(a.out, other.anchors[i]!.out!)).toBeLessThan(1e-9);
    });
  });

  it('are defined at the edges: none, one, two, on one spot, closed on two', () => {
    expect(deriveFlow(pathOf([])).anchors).toEqual([]);
    expect(deriveFlow(pathOf([flow(1, 2)])).anchors).toEqual([flow(1, 2)]);
    const two = deriveFlow(pathOf([flow(0, 0), flow(30, 0)]));
    expect(distance(cubicPoint(segmentCubic(two, 0), 0.5), { x: 15, y: 0 })).toBeLessThan(1e-9);
    for (const closed of [true, false])
      for (const a of deriveFlow(pathOf([flow(0, 0), flow(0, 0), flow(30, 5), flow(30, 5)], closed)).anchors)
        for (const h of [a.in, a.out]) expect(h === null || Number.isFinite(h.x + h.y)).toBe(true);
    for (const a of deriveFlow(pathOf([flow(0, 0), flow(30, 0)], true)).anchors)
      expect(Number.isFinite(a.out!.x)).toBe(true);
    const plain = pathOf([anchor(0, 0), anchor(5, 5)]);
    expect(deriveFlow(plain)).toBe(plain);
    expect(flows(plain)).toBe(false);
  });
});

describe('what touches a flowing anchor', () => {
  const path = deriveFlow(pathOf([flow(0, 0), flow(40, 30), flow(90, 10), flow(120, 60)]));

  it('freezes it: a handle that is turned, a segment that is pulled', () => {
    const turned = moveHandle(path, 1, 'out', { x: 60, y: 60 });
    expect(turned.anchors.map((a) => a.kind)).toEqual(['flowing', 'smooth', 'smooth', 'flowing']);
    const pulled = pullSegment(path, 2, 0.5, { x: 110, y: 20 });
    expect(pulled.anchors.map((a) => a.kind)).toEqual(['flowing', 'flowing', 'smooth', 'smooth']);
    const again = deriveFlow(pulled);
    expect(distance(cubicPoint(segmentCubic(again, 2), 0.5), { x: 110, y: 20 })).toBeLessThan(1e-9);
    expect(freezeSegment(freezeFlow(path), 0)).toEqual(freezeFlow(path));
  });

  it('stretching it one way freezes it, so that the curve is the stretched one', () => {
    const wide = transformPath(path, [2, 0, 0, 1, 0, 0]);
    expect(wide.anchors.every((a) => a.kind === 'smooth')).toBe(true);
    expect(deriveFlow(wide)).toBe(wide);
    expect(transformPath(path, [-1, 0, 0, 1, 0, 0]).anchors[0]!.kind).toBe('flowing');
  });

  it('adding an anchor leaves the line where it was', () => {
    const more = deriveFlow(insertAnchor(path, 1, 0.4));
    expect(
      distance(cubicPoint(segmentCubic(more, 1), 1), cubicPoint(segmentCubic(path, 1), 0.4)),
    ).toBeLessThan(1e-9);
    expect(
      distance(cubicPoint(segmentCubic(more, 2), 0.5), cubicPoint(segmentCubic(path, 1), 0.7)),
    ).toBeLessThan(1e-9);
  });
});

describe('flowing all', () => {
  it('keeps corners sharper than asked, and ends', () => {
    const rough = pathOf([
      anchor(0, 0),
      anchor(40, 10),
      anchor(80, 0),
      anchor(80, -60),
      anchor(120, -70),
      anchor(160, -60),
    ]);
    const kinds = (degrees: number): string[] =>
      flowAll(rough, { sharpest: (degrees * Math.PI) / 180 }).anchors.map((a) => a.kind[0]!);
    expect(kinds(60).join('')).toBe('cfccfc');
    expect(kinds(100).join('')).toBe('cffffc');
    expect(kinds(5).join('')).toBe('cccccc');
  });

  it('keeps straight runs straight and leaves them in their direction', () => {
    const run = pathOf([anchor(0, 0), anchor(30, 0), anchor(60, 0), anchor(100, 20), anchor(130, 60)]);
    const flowed = flowAll(run, { sharpest: 1.2 });
    expect([0, 1].every((s) => segmentIsLine(flowed, s))).toBe(true);
    expect(flowed.anchors[2]!.kind).toBe('smooth');
    expect(flowed.anchors[2]!.out!.y).toBeCloseTo(0, 9);
    expect(flowed.anchors[3]!.kind).toBe('flowing');
  });

  it('makes only those flow that are named', () => {
    const rough = pathOf([anchor(0, 0), anchor(40, 10), anchor(80, 0), anchor(120, 10), anchor(160, 0)]);
    expect(
      flowAll(rough, { sharpest: 2, only: [2] })
        .anchors.map((a) => a.kind[0])
        .join(''),
    ).toBe('ccfcc');
  });
});

it('a flowing path is the same line when it is run the other way', () => {
  const points = [flow(0, 0), flow(35, 40), flow(90, 5), flow(130, 70)];
  const there = deriveFlow(pathOf(points));
  const back = deriveFlow(pathOf([...points].reverse()));
  there.anchors.forEach((a, i) => {
    const b = back.anchors[points.length - 1 - i]!;
    for (const [one, other] of [
      [a.in, b.out],
      [a.out, b.in],
    ] as const) {
      expect(one === null).toBe(other === null);
      if (one && other) expect(distance(one, other)).toBeLessThan(1e-9);
    }
  });
});

describe('flow at its edges', () => {
  it('gives handles of four thirds of the chord at most, also where both directions point away', () => {
    expect(hobbyLength(Math.PI, Math.PI)).toBe(4 / 3);
    for (let k = 0; k < 400; k++) {
      const [theta, phi] = [(k % 20) * 0.3307 - Math.PI, Math.floor(k / 20) * 0.3307 - Math.PI];
      const length = hobbyLength(theta, phi);
      expect(Number.isFinite(length)).toBe(true);
      expect(length).toBeLessThanOrEqual(4 / 3);
    }
    const away = pathOf([
      anchor(0, 0, [10, 0], [-10, 0], 'smooth'),
      anchor(50, 0, null, null, 'flowing'),
      anchor(100, 0, [10, 0], [-10, 0], 'smooth'),
    ]);
    for (const a of deriveFlow(away).anchors)
      for (const h of [a.in, a.out]) if (h) expect(Number.isFinite(h.x + h.y)).toBe(true);
  });

  it('stays near where an anchor of it is taken away: what is refitted does not flow again', () => {
    const wave = deriveFlow(
      pathOf(Array.from({ length: 9 }, (_, i) => anchor(20 * i, 12 * Math.sin(i), null, null, 'flowing'))),
    );
    const less = deriveFlow(removeAnchors(wave, [4])!);
    const worst = Math.max(...flattenPath(wave, 0.05).map((p) => nearestOnPath(less, p)!.distance));
    const refitted = removeAnchors(freezeFlow(wave), [4])!;
    const best = Math.max(...flattenPath(wave, 0.05).map((p) => nearestOnPath(refitted, p)!.distance));
    expect(worst).toBeCloseTo(best, 9);
  });
});
