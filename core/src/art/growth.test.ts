import { describe, expect, it } from 'vitest';
import { anchor, pathOf, seeded, squarePath } from '../testing';
import { emptyArt } from './blank';
import { changeArt, type Patch } from './change';
import { addNode } from './edits';
import { followGrowth, PAUSE_MS, withTracedLines, type GrownChange } from './growth';
import { ART_VERSION } from './limits';
import type { Art } from './schema';
import { anyRecipe, groupOf, shapeOf } from './testing';
import { shapesOf } from './tree';
import { artText } from './write';

const blank = emptyArt({ width: 100, height: 80, unit: 'mm' }, 'layer');
const START = Date.parse('2026-03-01T10:00:00.000Z');
const change = (revision: number, patches: readonly Patch[], ms: number, version = ART_VERSION): GrownChange => ({ revision, version, at: new Date(START + ms).toISOString(), patches }); // prettier-ignore

describe('the growth of a drawing', () => {
  it('passes through every state and ends at the identical drawing, however many changes there are', () => {
    for (const many of [3, 40, 700]) {
      const random = seeded(many);
      let [art, ids] = [blank, 0];
      const states: Art[] = [blank];
      const changes: GrownChange[] = [];
      while (changes.length < many) {
        const made = changeArt(
          art,
          anyRecipe(random, art, () => `n${ids++}`),
        );
        if (made.patches.length === 0) continue;
        art = made.art;
        states.push(art);
        changes.push(change(changes.length + 1, made.patches, 1000 * changes.length));
      }
      const grown = followGrowth({ beginning: blank, changes: JSON.parse(JSON.stringify(changes)) as GrownChange[] }); // prettier-ignore
      expect(grown.count).toBe(many);
      expect(artText(grown.artAt(many))).toBe(artText(art));
      for (const n of [0, 1, many >> 1, many - 1]) expect(artText(grown.artAt(n))).toBe(artText(states[n]!));
      states.forEach((state, n) => {
        const count = shapesOf(state).reduce((sum, { shape }) => sum + shape.paths.reduce((k, p) => k + p.anchors.length, 0), 0); // prettier-ignore
        expect(grown.anchors[n]).toBe(count);
      });
      // Beyond either end there is nothing else.
      expect(grown.artAt(-5)).toBe(grown.artAt(0));
      expect(artText(grown.artAt(1e6))).toBe(artText(art));
    }
  });

  it('leaves pauses out of the work, and clocks that jump', () => {
    const rename = (name: string): Patch[] => [{ op: 'replace', path: '/layers/0/name', value: name }];
    const at = [0, 4000, 4000 + PAUSE_MS + 1, 4000 + PAUSE_MS + 2001, 9000, 10_000];
    const grown = followGrowth({ beginning: blank, changes: at.map((ms, i) => change(i + 1, rename(`n${i}`), ms)) }); // prettier-ignore
    expect([...grown.workMs]).toEqual([0, 0, 4000, 4000, 6000, 6000, 7000]);
  });

  it('begins with a document of an older version, whose changes fit that one', () => {
    const { aside: _, ...before } = blank;
    const old = { ...before, version: 10 };
    const shape = shapeOf('s', { paths: [squarePath(0, 0, 10, 's-p')] });
    const grown = followGrowth({
      beginning: old,
      changes: [
        change(1, changeArt(blank, addNode('layer', shape)).patches, 0, 10),
        change(2, [{ op: 'add', path: '/aside/0', value: { id: 'kink s-p 1', reason: '' } }], 10),
      ],
    });
    expect(grown.artAt(1).version).toBe(ART_VERSION);
    expect(grown.artAt(2)).toMatchObject({ version: ART_VERSION, aside: [{ id: 'kink s-p 1' }] });
    expect(() => followGrowth({ beginning: old, changes: [change(1, [{ op: 'remove', path: '/nothing/7' }], 0)] })).toThrow(/does not have/); // prettier-ignore
  });

  it('shows what is not painted yet as lines, and leaves the rest as it is', () => {
    const bare = shapeOf('bare', { fill: null, stroke: null, paths: [pathOf([anchor(0, 0), anchor(9, 9)], false, 'b')] }); // prettier-ignore
    const filled = shapeOf('filled', { fill: { hex: '#2f6b4f' } });
    const art = changeArt(changeArt(blank, addNode('layer', filled)).art, addNode('layer', groupOf('g', bare))).art; // prettier-ignore
    const [first, second] = shapesOf(withTracedLines(art)).map(({ shape }) => shape);
    expect(first).toBe(shapesOf(art)[0]!.shape);
    expect(second!.stroke?.width).toBeGreaterThan(0);
  });
});
