import { beforeEach, describe, expect, it, vi } from 'vitest';
import { addNodes, groupNodes, nodesBox, setNode, type Point, type TreeNode } from '@mirrot/core';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseNodes, chooseShapes, chosenNodes } from '$lib/desk/choice';
import { copyChosen, cutChosen, CUTTING_TYPE, pasteInto, type Clipboard } from './clipboard';
import { goInto } from './grouping';

const clipboard = (given: Record<string, string> = {}): Clipboard & { data: Map<string, string> } => {
  const data = new Map(Object.entries(given));
  return {
    data,
    setData: (type, text) => void data.set(type, text),
    getData: (type) => data.get(type) ?? '',
  };
};
// The worker's part is done here, as it does it.
vi.mock('$lib/workers/reading', async () => {
  const { readArt } = await import('@mirrot/core');
  const copied = async (text: string) => readArt(JSON.parse(text));
  return {
    readingWorker: { ask: (question: (work: unknown) => unknown) => question({ copied }), end: () => {} },
  };
});

let b: Bench;
let other: Bench;
const said: string[] = [];
const place = { progress: null, say: (text: string) => void said.push(text) };
const paste = async (into: Bench, on: Pick<Clipboard, 'getData'>, at: Point | null = null): Promise<void> =>
  void (await pasteInto(into.desk, place, on, at));
beforeEach(() => {
  b = benchWith(['a', 'b', 'c'].map((id, i) => shapeWith(id, [square(`p${id}`, 100 * i, 10, 40)])), 'refine'); // prettier-ignore
  other = benchWith([], 'refine');
  b.desk.choose(chooseShapes(['a', 'b']));
});
const names = (bench: Bench, at = 0): string[] => bench.desk.art.layers[at]!.children.map((n) => n.name);

describe('the clipboard', () => {
  it('takes shapes to another project, where they stood, and chooses them there', async () => {
    const on = clipboard();
    expect(copyChosen(b.desk, on)).toBe(true);
    expect(on.data.get('text/plain')).toMatch(/^<svg xmlns/);
    await paste(other, on);
    expect(names(other)).toEqual(['a', 'b']);
    expect(nodesBox(other.desk.art, other.desk.choice.shapes)).toEqual({ x0: 0, y0: 10, x1: 140, y1: 50 });
    other.desk.undo();
    expect(names(other)).toEqual([]);
  });

  it('pasted with a point, its middle comes there; in the group that is worked in', async () => {
    const on = clipboard();
    copyChosen(b.desk, on);
    const group = { id: 'g', type: 'group', name: 'Wheel', shown: true, locked: false, opacity: 1 } as const;
    b.desk.change('Group', groupNodes(['c'], group));
    goInto(b.desk, 'g');
    await paste(b, on, { x: 200, y: 200 });
    expect(nodesBox(b.desk.art, b.desk.choice.shapes)).toEqual({ x0: 130, y0: 180, x1: 270, y1: 220 });
    const wheel = b.desk.art.layers[0]!.children.at(-1)! as TreeNode & { children: TreeNode[] };
    expect(wheel.children.map((n) => n.name)).toEqual(['c', 'a 2', 'b 2']);
  });

  it('cut, they are gone and come back', async () => {
    const on = clipboard();
    b.desk.choose({ ...chooseShapes(['b'], 'path'), anchors: [{ shape: 'b', path: 'pb', index: 0 }] });
    expect(cutChosen(b.desk, on)).toBe(true);
    expect(names(b)).toEqual(['a', 'c']);
    await paste(b, on);
    expect(names(b)).toEqual(['a', 'c', 'b']);
    expect(chosenNodes(b.desk.choice, b.desk.art)).toHaveLength(1);
  });

  it('pasted as plain text, what was copied here last comes back whole; other text is left to others', async () => {
    const on = clipboard();
    copyChosen(b.desk, on);
    await paste(other, clipboard({ 'text/plain': on.data.get('text/plain')! }));
    expect(names(other)).toEqual(['a', 'b']);
    expect(pasteInto(other.desk, place, clipboard({ 'text/plain': 'mint, sorrel, dill' }), null)).toBeNull();
    expect(names(other)).toHaveLength(2);
  });

  it('with nothing chosen, or layers, leaves the clipboard as it was', async () => {
    const on = clipboard({ 'text/plain': 'kept' });
    b.desk.choose(chooseShapes([]));
    expect([copyChosen(b.desk, on), cutChosen(b.desk, on)]).toEqual([false, false]);
    b.desk.choose(chooseNodes([b.desk.art.layers[0]!]));
    expect(copyChosen(b.desk, on)).toBe(false);
    expect([b.desk.notice?.text, on.getData('text/plain')]).toEqual(['Layers are not copied. Choose shapes or groups.', 'kept']); // prettier-ignore
  });

  it.each([
    ['{"version":', /cut short or changed/],
    ['{"version":99999}', /cannot be read/],
    ['[]', /cannot be read/],
    [JSON.stringify({ version: 1, layers: [{ children: 'none' }] }), /cannot be read/],
    ['x'.repeat(40_000_001), /too large/],
  ])('that is broken or hostile is refused with a sentence, and changes nothing', async (text, sentence) => {
    const before = b.desk.art;
    await paste(b, clipboard({ [CUTTING_TYPE]: text }));
    expect(b.desk.art).toBe(before);
    expect(said.at(-1)).toMatch(sentence);
    expect(said.at(-1)).toMatch(/\. Nothing was added\./);
  });

  it('has nowhere to go where every layer is locked', async () => {
    const on = clipboard();
    copyChosen(b.desk, on);
    b.desk.change('Lock', setNode('layer', { locked: true }));
    await paste(b, on);
    expect(b.desk.notice?.text).toMatch(/Every layer is hidden or locked/);
  });

  it('waits for a path that was begun while it was read, and adds nothing then', async () => {
    const on = clipboard();
    copyChosen(b.desk, on);
    // Not what was copied here last, which comes back at once.
    const pasting = paste(other, clipboard({ [CUTTING_TYPE]: `${on.getData(CUTTING_TYPE)} ` }));
    other.desk.change('Draw', addNodes('layer', [shapeWith('live', [square('lp', 0, 0, 5)])]), { live: { shape: 'live', path: 'lp' } }); // prettier-ignore
    await pasting;
    expect(names(other)).toEqual(['live']);
    expect(other.desk.notice?.text).toMatch(/paste again. Nothing was added/);
  });

  it('takes 5,000 shapes', async () => {
    const many = Array.from({ length: 5000 }, (_, i) => shapeWith(`m${i}`, [square(`mp${i}`, i, 0, 9)]));
    b.desk.change('Draw', addNodes('layer', many));
    b.desk.choose(chooseShapes(many.map(({ id }) => id)));
    const on = clipboard();
    copyChosen(b.desk, on);
    await paste(other, on);
    expect(names(other)).toHaveLength(5000);
  });
});
