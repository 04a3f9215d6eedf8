import { describe, expect, it } from 'vitest';
import { parsePathData } from '../path/data';
import type { Path } from '../path/path';
import { coach, ADVICE, type AdviceCode } from './coach';
import type { TruthShape } from './exercise';
import type { DrawnShape } from './score';

const paths = (d: string): Path[] => parsePathData(d, (n) => `p${n}`);
const truth = (d: string, fill: string | null = null, name = 'Shape'): TruthShape => ({
  name,
  paths: paths(d),
  fill,
});
const drawn = (d: string, fill: string | null = null): DrawnShape => ({ paths: paths(d), fill });

const K = 0.5522847498;
const ring = (cx: number, cy: number, r: number): string => {
  const k = K * r;
  return `M${cx + r} ${cy}C${cx + r} ${cy + k} ${cx + k} ${cy + r} ${cx} ${cy + r}C${cx - k} ${cy + r} ${cx - r} ${cy + k} ${cx - r} ${cy}C${cx - r} ${cy - k} ${cx - k} ${cy - r} ${cx} ${cy - r}C${cx + k} ${cy - r} ${cx + r} ${cy - k} ${cx + r} ${cy}Z`;
};
const LEAF = 'M300 660C330 320 620 180 930 210C900 520 640 760 300 660Z';
const BOX = 'M200 200L600 200L600 500L200 500Z';
const WAVE = 'M100 300C250 100 450 500 700 300L700 600L100 600Z';

/** A mistake a hand makes, and the line that says what to do. */
const PLANTED: readonly (readonly [what: string, code: AdviceCode | null, drawn: readonly DrawnShape[], truth: readonly TruthShape[]])[] = [
  ['nothing drawn yet', 'begin', [], [truth(LEAF)]],
  ['a line by nothing', 'astray', [drawn('M900 700L1100 700')], [truth(BOX)]],
  ['the same outline twice', 'twice', [drawn(BOX), drawn(BOX)], [truth(BOX)]],
  ['two anchors on one spot', 'side-by-side', [drawn('M200 200L600 200L600 500L597 500L200 500Z')], [truth(BOX)]],
  ['an anchor off the edge', 'anchor-off', [drawn('M200 200L600 200L612 512L200 500Z')], [truth(BOX)]],
  ['a corner cut', 'corner-cut', [drawn('M200 200L600 400L600 500L200 500Z')], [truth(BOX)]],
  ['a corner of the leaf drawn smooth', 'corner-smooth', [drawn('M300 660C300 320 620 180 930 210C1000 217 900 700 300 660Z')], [truth(LEAF)]],
  ['a kink where the ring is smooth', 'corner-false', [drawn('M500 300C500 410 411 500 300 500C189.5 500 30 400 100 300C100 189.5 189.5 100 300 100C410.5 100 500 189.5 500 300Z')], [truth(ring(300, 300, 200))]],
  ['handles longer than their side', 'crossed', [drawn('M200 200C690 150 110 250 600 200L600 500L200 500Z')], [truth(BOX)]],
  ['a straight side with a bulge', 'straight-bent', [drawn('M200 200C330 180 470 180 600 200L600 500L200 500Z')], [truth(BOX)]],
  ['a bent side left straight', 'pull', [drawn('M300 660L930 210C900 520 640 760 300 660Z')], [truth(LEAF)]],
  ['an arc that the original has in one segment, still straight', 'pull', [drawn('M340 700L860 700Z')], [truth('M340 700C340 120 860 120 860 700Z')]],
  ['the same arc with handles too short', 'handles-short', [drawn('M340 700C340 400 860 400 860 700Z')], [truth('M340 700C340 120 860 120 860 700Z')]],
  ['one straight side over an S', 'bends-twice', [drawn('M100 300L700 300L700 600L100 600Z')], [truth(WAVE)]],
  ['half a ring in one segment', 'turns-far', [drawn('M500 300C500 500 100 500 100 300C100 100 500 100 500 300Z')], [truth(ring(300, 300, 200))]],
  ['a handle off the edge’s direction', 'handle-turned', [drawn('M500 300C440 410 410 500 300 500C189.5 500 100 410.5 100 300C100 189.5 189.5 100 300 100C410.5 100 560 190 500 300Z')], [truth(ring(300, 300, 200))]],
  ['handles too short', 'handles-short', [drawn('M500 300C500 340 340 500 300 500C189.5 500 100 410.5 100 300C100 189.5 189.5 100 300 100C410.5 100 500 189.5 500 300Z')], [truth(ring(300, 300, 200))]],
  ['handles too long', 'handles-long', [drawn('M500 300C500 450 450 500 300 500C189.5 500 100 410.5 100 300C100 189.5 189.5 100 300 100C410.5 100 500 189.5 500 300Z')], [truth(ring(300, 300, 200))]],
  ['an anchor that the curve holds without', 'spare', [drawn('M500 300C500 410.46 410.46 500 300 500C189.54 500 100 410.46 100 300C100 189.54 189.54 100 300 100C353 100 404 121 441.4 158.6C479 196 500 247 500 300Z')], [truth(ring(300, 300, 200))]],
  ['an outline left open', 'close', [drawn('M200 200L600 200L600 500L200 500L200 210')], [truth(BOX)]],
  ['half an outline', 'go-on', [drawn('M200 200L600 200L600 500')], [truth(BOX)]],
  ['a hole forgotten', 'hole', [drawn(ring(300, 300, 200))], [truth(ring(300, 300, 200) + ring(300, 300, 80))]],
  ['a shape still to be drawn', 'next', [drawn(BOX)], [truth(BOX), truth(ring(900, 300, 120), null, 'Ring')]],
  ['a colour that is another one', 'colour', [drawn(BOX, '#6a3fa0')], [truth(BOX, '#2f6b4f')]],
  ['nothing wrong', null, [drawn(LEAF)], [truth(LEAF)]],
]; // prettier-ignore

describe('the coach', () => {
  it.each(PLANTED)('says of %s: %s', (_, code, made, original) => {
    expect(coach(made, original)?.code ?? null).toBe(code);
  });

  it('has a mistake planted for each thing it can say', () => {
    expect(new Set(PLANTED.map(([, code]) => code).filter((code) => code !== null))).toEqual(new Set(ADVICE));
  });

  it('names the anchor, or the one before the side, it is about', () => {
    expect(coach([drawn('M200 200L600 200L612 512L200 500Z')], [truth(BOX)])).toEqual({ code: 'anchor-off', anchor: 3 }); // prettier-ignore
    expect(coach([drawn('M300 660L930 210C900 520 640 760 300 660Z')], [truth(LEAF)])).toEqual({ code: 'pull', anchor: 1 }); // prettier-ignore
  });

  it('says nothing of a drawing that lies well, whichever way round and wherever it begins', () => {
    const other = 'M930 210C620 180 330 320 300 660C640 760 900 520 930 210Z';
    expect(coach([drawn(other)], [truth(LEAF)])).toBeNull();
    expect(coach([drawn('M600 500L200 500L200 200L600 200Z')], [truth(BOX)])).toBeNull();
  });

  it('takes an open line for an open truth, as far as it goes', () => {
    const S = 'M100 300C250 100 450 500 700 300';
    expect(coach([drawn(S)], [truth(S)])).toBeNull();
    expect(coach([drawn('M100 300L700 300')], [truth(S)])?.code).toBe('bends-twice');
  });
});
