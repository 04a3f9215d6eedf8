import { describe, expect, it } from 'vitest';
import { seeded } from '../testing';
import { applyChecked, changeArt, type Recipe } from './change';
import { setNode, addNode, styleShapes } from './edits';
import { canExtend, emptyHistory, extend, recall, record, redo, undo, type History, type Moved, type Noted } from './history'; // prettier-ignore
import { mergeArt } from './merge';
import type { Art } from './schema';
import { anyRecipe, blank, idsOf, shapeOf, withShapes } from './testing';
import { findShape } from './tree';

describe('history', () => {
  it('goes back and forth step by step with what was looked at', () => {
    let art = blank;
    let history = emptyHistory<string>();
    for (const id of ['a', 'b', 'c']) {
      const change = changeArt(art, addNode('layer', shapeOf(id)));
      history = record(history, `Draw ${id}`, { ...change, from: art }, `before ${id}`, `after ${id}`);
      art = change.art;
    }
    const full = art;
    for (const id of ['c', 'b', 'a']) {
      const back = undo(history, art, mergeArt)!;
      expect(back).toMatchObject({ label: `Draw ${id}`, context: `before ${id}` });
      ({ history, art } = back);
    }
    expect(art).toEqual(blank);
    expect(undo(history, art, mergeArt)).toBeNull();
    for (let i = 0; i < 3; i++) ({ history, art } = redo(history, art, mergeArt)!);
    expect(art).toEqual(full);
    expect(redo(history, art, mergeArt)).toBeNull();
  });

  it('forgets what was taken back once something new is done', () => {
    const change = changeArt(blank, addNode('layer', shapeOf('a')));
    const done = record(emptyHistory<null>(), 'Draw', { ...change, from: blank }, null, null);
    const back = undo(done, change.art, mergeArt)!;
    expect(record(back.history, 'Other', { ...change, from: blank }, null, null).undone).toEqual([]);
  });
});

describe('history recalled from a journal', () => {
  const named = (name: string): Recipe => setNode('one', { name });
  /** Random steps, steps back and forth, each noted as a journal would. */
  const run = (seed: number) => {
    const random = seeded(seed);
    let now = withShapes(shapeOf('one'));
    let history: History<number> = emptyHistory();
    const journal: Noted<number>[] = [];
    for (let k = 0; k < 60; k++) {
      const r = random();
      if (r < 0.25 && history.done.length > 0) {
        const back = undo(history, now, mergeArt)!;
        [now, history] = [back.art, back.history];
        journal.push({ patches: back.patches, note: { did: 'undo' } });
      } else if (r < 0.4 && history.undone.length > 0) {
        const forth = redo(history, now, mergeArt)!;
        [now, history] = [forth.art, forth.history];
        const { patches, run: _run, ...step } = history.done.at(-1)!;
        journal.push({ patches, note: { did: 'redo', ...step } });
      } else {
        const change = { ...changeArt(now, named(`Name ${k}`)), from: now };
        const { patches, inverse } = change;
        const more = r > 0.85 && canExtend(history, now);
        history = more ? extend(history, change, k) : record(history, `Step ${k}`, change, k, k);
        now = change.art;
        journal.push({
          patches,
          note: { did: more ? 'more' : 'step', label: `Step ${k}`, inverse, before: k, after: k },
        });
      }
    }
    return { now, history, journal };
  };

  it('is the history that was', () => {
    for (let seed = 1; seed < 12; seed++) {
      const { now, history, journal } = run(seed);
      const { done, undone } = recall(journal, now);
      const bare = (steps: typeof done) => steps.map((step) => ({ ...step, run: 0 }));
      expect([done, undone]).toEqual([bare(history.done), bare(history.undone)]);
    }
  });

  it('from the middle on takes back what it knows and no more, and always fits the drawing', () => {
    for (let seed = 1; seed < 12; seed++) {
      const { now, history, journal } = run(seed);
      for (const from of [5, 20, 40]) {
        const known = recall(journal.slice(from), now);
        expect(known.done.length).toBeLessThanOrEqual(history.done.length);
        let [one, two] = [now, now];
        for (
          let h: History<number> | null = known, g: History<number> | null = history;
          h!.done.length > 0;
        ) {
          const [a, b]: [Moved<number>, Moved<number>] = [undo(h!, one, mergeArt)!, undo(g!, two, mergeArt)!];
          [one, two, h, g] = [a.art, b.art, a.history, b.history];
          expect(one).toEqual(two);
        }
      }
    }
  });

  it('begins anew after a change from elsewhere, and is empty for none', () => {
    const { now, journal } = run(3);
    expect(recall([...journal, { patches: [], note: null }], now)).toEqual(emptyHistory());
    expect(recall([], now)).toEqual(emptyHistory());
  });
});

describe('steps of a drawing that others changed meanwhile', () => {
  const start = withShapes(shapeOf('a'), shapeOf('b'));
  const red = { hex: '#ff0000' };
  const step = (history: History<null>, from: Art, recipe: Recipe): [History<null>, Art] => {
    const change = changeArt(from, recipe);
    return [record(history, 'Step', { ...change, from }, null, null), change.art];
  };

  it('are taken back and done again beside what the others did', () => {
    let [history, art] = step(emptyHistory<null>(), start, addNode('layer', shapeOf('c'), 0));
    [history, art] = step(history, art, styleShapes(['b'], { fill: red }));
    const theirs = changeArt(art, addNode('layer', shapeOf('x'), 0)).art;
    let moved = undo(history, theirs, mergeArt)!;
    expect(moved).toMatchObject({ merged: true, conflicts: [] });
    expect(findShape(moved.art, 'b')!.fill).not.toEqual(red);
    moved = undo(moved.history, moved.art, mergeArt)!;
    expect(idsOf(moved.art)).toEqual(['x', 'a', 'b']);
    expect(applyChecked(theirs, []).art).toEqual(theirs);
    moved = redo(moved.history, moved.art, mergeArt)!;
    moved = redo(moved.history, moved.art, mergeArt)!;
    expect(moved.art).toEqual(theirs);
  });

  it('say so where nothing is left to take back', () => {
    const [history, art] = step(emptyHistory<null>(), start, styleShapes(['b'], { fill: red }));
    const theirs = changeArt(art, (d) => void d.layers[0]!.children.pop()).art;
    const moved = undo(history, theirs, mergeArt)!;
    // The shape that is gone comes back with nothing but its colour changed: its taker took it whole.
    expect(moved.patches.length === 0 || findShape(moved.art, 'b')).toBeTruthy();
  });

  it('lead back to what only the others did, over random interleavings', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const random = seeded(seed);
      let n = 0;
      let art = start;
      let others = start;
      let history = emptyHistory<null>();
      const newId = (): string => `s${seed}n${n++}`;
      for (let k = 0; k < 14; k++) {
        const pick = random();
        if (pick < 0.3) {
          // The others' hand: a shape of its own, coloured later, so that nothing conflicts.
          const recipe = addNode('layer', shapeOf(newId()), 0);
          art = changeArt(art, recipe).art;
          others = mergeArt(start, others, changeArt(others, recipe).art).art;
        } else if (pick < 0.5 && history.done.length > 0) {
          ({ history, art } = undo(history, art, mergeArt)!);
        } else if (pick < 0.65 && history.undone.length > 0) {
          ({ history, art } = redo(history, art, mergeArt)!);
        } else [history, art] = step(history, art, anyRecipe(random, art, newId));
      }
      const full = art;
      let back = 0;
      while (history.done.length > 0) {
        ({ history, art } = undo(history, art, mergeArt)!);
        back++;
      }
      expect(idsOf(art).sort(), `seed ${seed}`).toEqual(idsOf(others).sort());
      while (back-- > 0) ({ history, art } = redo(history, art, mergeArt)!);
      expect(idsOf(art).sort()).toEqual(idsOf(full).sort());
    }
  });
});
