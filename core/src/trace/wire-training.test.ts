import { describe, expect, it } from 'vitest';
import { pathCubics } from '../path/path';
import { nearestOnPath } from '../path/path-measure';
import { circlePath, squarePath } from '../testing';
import { clickAlong, pointsAlong } from './clicking';
import { edgeTiles, fieldTiles, FINEST_BLUR, type FieldTiles } from './field-tiles';
import { halved } from '../picture/halve';
import type { ReachField } from './reach';
import { photographed, type Levels } from './testing';
import { learntInLarger, strangeTo } from './learnt-edge';
import { isPixelBesideStronger, trainWire } from './wire-training';

const INK: Levels = [46, 84, 70];
const RIM: Levels = [96, 128, 108];
const PAPER: Levels = [228, 218, 196];
const disc = (radius: number) => circlePath(100, 100, radius);
/** A disc with a rim about it, whose outer edge is twice as strong. */
const rimmed = (rim: number, blur: number) =>
  edgeTiles(photographed(200, 200, [{ path: disc(60 + rim), rgb: RIM }, { path: disc(60), rgb: INK }], PAPER, { blur, grain: 1 })); // prettier-ignore
const at = (radius: number) => ({ x: 100 + radius, y: 100 });
const OUT = { x: 1, y: 0 };

// Truth: the outlines that the picture was painted from. Source: Mortensen and Barrett (1995, 1998), training on the fly.
describe('what a wire has learnt', () => {
  it('keeps it to its own edge beside one twice as strong, six pixels off, by a hand that strays', () => {
    for (const blur of [0, 0.7])
      for (const strays of [0, 1.5]) {
        const field = rimmed(6, blur);
        const { path, whole } = clickAlong({ fine: field, coarse: field, ratio: 1 }, disc(60), 0.6, 8, {
          light: 'true',
          strays,
        });
        const offs = pointsAlong(path).map((p) => nearestOnPath(disc(60), p)!.distance);
        expect(whole).toBe(true);
        expect(Math.max(...offs)).toBeLessThan(2);
        expect(path.anchors.length).toBeLessThanOrEqual(4);
      }
  });

  it('keeps it to its own edge beside one twice as strong, four pixels off, by the picture looked at with the least blur', () => {
    const fine = rimmed(4, 0.7);
    const least = fieldTiles(fine.raster, 'edge', FINEST_BLUR);
    const plain = { fine, coarse: fine, ratio: 1 };
    const field = { ...plain, finest: () => ({ fine: least, coarse: least, ratio: 1 }) };
    const clicked = (of: ReachField) => clickAlong(of, disc(60), 0.6, 8, { light: 'true', strays: 1.5 });
    const { path, whole, log } = clicked(field);
    const offs = pointsAlong(path).map((p) => nearestOnPath(disc(60), p)!.distance);
    expect(whole, log.join('\n')).toBe(true);
    expect(Math.max(...offs)).toBeLessThan(1.5);
    expect(path.anchors.length).toBeLessThanOrEqual(4);
    // With more blur both are one hill, whose top lies near the stronger one.
    const merged = pointsAlong(clicked(plain).path).map((p) => nearestOnPath(disc(60), p)!.distance);
    expect(Math.max(...merged)).toBeGreaterThan(3);
    // A stronger one lies beside the inner edge, none beside the outer.
    expect(isPixelBesideStronger(least, { x: 160, y: 100 })).toBe(true);
    expect(isPixelBesideStronger(least, { x: 164, y: 100 })).toBe(false);
  });

  it('is the same in the whole picture as in one made smaller: seen from far out a rim ten pixels wide is told apart, too', () => {
    const fine = rimmed(10, 0.7);
    const coarse = edgeTiles(halved(fine.raster));
    const least = [fine, coarse].map(({ raster }) => fieldTiles(raster, 'edge', FINEST_BLUR)) as [FieldTiles, FieldTiles]; // prettier-ignore
    const field = { fine, coarse, ratio: 2, finest: () => ({ fine: least[0], coarse: least[1], ratio: 2 }) };
    const { path, whole, log } = clickAlong(field, disc(60), 1.2, 12, { light: 'true', strays: 2 });
    expect(whole, log.join('\n')).toBe(true);
    const offs = pointsAlong(path).map((p) => nearestOnPath(disc(60), p)!.distance);
    expect(Math.max(...offs)).toBeLessThan(2.5);
    const small = trainWire(coarse, pathCubics(circlePath(50, 50, 30)), { x: 80, y: 50 })!;
    const large = learntInLarger(small, 2);
    expect(large.beside).toBe(2 * small.beside);
    expect(strangeTo(large, at(60), OUT)).toEqual(strangeTo(small, { x: 80, y: 50 }, OUT));
  });

  it('is the colours on both sides of what was drawn: another edge is strange, and its own the other way round', () => {
    const field = rimmed(8, 0.7);
    // Clockwise, as seen on screen, the disc lies to the right.
    const training = trainWire(field, pathCubics(disc(60)), at(60))!;
    expect(training.oriented).toBe(true);
    const [own, turned] = strangeTo(training, at(60), OUT);
    expect(own).toBeLessThan(0.1);
    expect(turned).toBeGreaterThan(0.9);
    const [other, otherTurned] = strangeTo(training, at(68), OUT);
    expect(other).toBeGreaterThan(0.9);
    // The other way round it shares the rim with its own.
    expect(otherTurned).toBeGreaterThan(0.4);
  });

  it('is learnt where the path begins while nothing is drawn, or what is drawn follows no edge', () => {
    const field = rimmed(8, 0.7);
    for (const drawn of [[], pathCubics(squarePath(70, 70, 20))]) {
      const training = trainWire(field, drawn, at(60))!;
      expect(training.oriented).toBe(false);
      expect(Math.max(...strangeTo(training, at(60), OUT))).toBeLessThan(0.1);
      expect(Math.min(...strangeTo(training, at(68), OUT))).toBeGreaterThan(0.4);
    }
  });

  it('is nothing where there is no edge, or none beside it that is stronger', () => {
    const field = rimmed(8, 0.7);
    expect(trainWire(field, [], { x: 100, y: 100 })).toBeNull();
    expect(trainWire(field, [], { x: -40, y: 260 })).toBeNull();
    expect(trainWire(field, [], at(68))).toBeNull();
    expect(trainWire(field, pathCubics(disc(68)), at(68))).toBeNull();
    const faint = edgeTiles(photographed(200, 200, [{ path: disc(60), rgb: [176, 164, 144] }], [182, 170, 150], { blur: 0.7 })); // prettier-ignore
    expect(trainWire(faint, [], at(60))).toBeNull();
  });
});
