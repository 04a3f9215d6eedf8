import { describe, expect, it } from 'vitest';
import { changeArt, type Recipe } from '../art/change';
import { addNode, setPaths } from '../art/edits';
import { emptyArt, placedPicture } from '../art/blank';
import type { GrownChange } from '../art/growth';
import { ART_VERSION } from '../art/limits';
import { shapeOf } from '../art/testing';
import type { Art } from '../art/schema';
import { formatPathData, parsePathData } from '../path/data';
import type { KeptAttempt } from './attempt';
import { ghostOf } from './ghost';
import { pathsInPicture } from './exercise';
import { scoreDrawing, type Score } from './score';

const START = '2026-03-01T10:00:00.000Z';
const at = (seconds: number): string => new Date(Date.parse(START) + 1000 * seconds).toISOString();
const PICTURE = placedPicture({ id: 'pic', source: 'x', name: 'Tray', width: 400, height: 300, placement: [0.5, 0, 0, 0.5, 10, 20] }); // prettier-ignore
const beginning: Art = { ...emptyArt({ width: 400, height: 300, unit: 'px' }, 'layer'), pictures: [PICTURE], traced: 'pic' }; // prettier-ignore
const CORNERS = [[20, 30], [80, 30], [80, 90], [20, 90], [15, 60]] as const; // prettier-ignore
const data = (n: number): string => CORNERS.slice(0, n).map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join(''); // prettier-ignore
const paths = (d: string) => parsePathData(d, () => 'line');

/** A line of as many anchors as times are given, one more with each change. */
function grownAt(times: readonly number[]): { changes: GrownChange[]; art: Art } {
  let art = beginning;
  const changes = times.map((seconds, i): GrownChange => {
    const recipe: Recipe =
      i === 0
        ? addNode('layer', shapeOf('shape', { paths: paths(data(2)) }))
        : setPaths('shape', paths(data(i + 2)));
    const made = changeArt(art, recipe);
    ({ art } = made);
    return { revision: i + 1, version: ART_VERSION, at: at(seconds), patches: made.patches };
  });
  return { changes, art };
}
const linesOf = (n: number): string => formatPathData(pathsInPicture(paths(data(n)), PICTURE));
const attempt = (more: Partial<KeptAttempt>): KeptAttempt => {
  const drawn = pathsInPicture(paths(data(4)), PICTURE);
  const score = scoreDrawing([{ paths: drawn, fill: null }], [{ name: 'Line', paths: drawn, fill: null }]) as Score; // prettier-ignore
  return { createdAt: at(20), revision: 3, seconds: 20, presses: 9, score, lines: linesOf(4), ...more };
};

describe('a ghost', () => {
  it('grows as the attempt did, each change at its second of work, in pixels of the picture', () => {
    const { changes } = grownAt([4, 9, 15]);
    expect(ghostOf({ beginning, changes }, START, 'pic', attempt({}))).toEqual([
      { seconds: 4, lines: linesOf(2), anchors: 2 },
      { seconds: 9, lines: linesOf(3), anchors: 3 },
      { seconds: 15, lines: linesOf(4), anchors: 4 },
    ]);
  });

  it('ends with what was handed in, not with what was drawn afterwards, also where only the time tells', () => {
    const { changes } = grownAt([4, 9, 15, 60]);
    for (const revision of [3, null]) {
      const frames = ghostOf({ beginning, changes }, START, 'pic', attempt({ revision }));
      expect(frames.at(-1)).toEqual({ seconds: 15, lines: linesOf(4), anchors: 4 });
      expect(frames).toHaveLength(3);
    }
  });

  it('leaves out pauses and a clock that jumped, and takes as long as was counted', () => {
    // Half a minute of the hour counts, and nothing of the way back.
    const { changes } = grownAt([10, 3610, 3600]);
    const frames = ghostOf(
      { beginning, changes },
      START,
      'pic',
      attempt({ createdAt: at(3610), seconds: 100 }),
    );
    expect(frames.map(({ seconds }) => seconds)).toEqual([20, 80, 80]);
  });

  it('stands whole from the start where nothing is known of the way, and where the picture was not there', () => {
    const whole = [{ seconds: 0, lines: linesOf(4), anchors: 4 }];
    expect(ghostOf({ beginning, changes: [] }, START, 'pic', attempt({}))).toEqual(whole);
    const { changes } = grownAt([4, 9, 15]);
    expect(ghostOf({ beginning, changes }, START, 'another', attempt({}))).toEqual(whole);
    expect(ghostOf({ beginning, changes: [] }, 'never', 'pic', attempt({ seconds: 0 }))).toEqual(whole);
  });

  it('shows a long growth in a bounded number of moments, the last among them', () => {
    const { changes } = grownAt([4, 9, 15]);
    // The last anchor goes and comes a thousand times.
    const many = Array.from({ length: 1000 }, (_, k) => {
      const made = changeArt(grownAt([4, 9]).art, setPaths('shape', paths(data(k % 2 ? 4 : 5))));
      return { revision: 3 + k, version: ART_VERSION, at: at(15 + k), patches: made.patches };
    });
    const all = [...changes.slice(0, 2), ...many];
    const frames = ghostOf({ beginning, changes: all }, START, 'pic', attempt({ revision: 1002, createdAt: at(1016), seconds: 1016 })); // prettier-ignore
    expect(frames.length).toBeLessThanOrEqual(241);
    expect(frames.at(-1)!.lines).toBe(linesOf(4));
    expect(frames.every((f, i) => i === 0 || f.seconds >= frames[i - 1]!.seconds)).toBe(true);
  });
});
