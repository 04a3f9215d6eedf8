import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readArt, type Art } from '@mirrot/core';
import type { Step } from '$lib/desk/steps';
import { chooseShapes } from '$lib/desk/choice';
import { takeBack, turnLast } from './block-in';
import { closeLive, endPath } from './ending';
import {
  addInMiddle,
  closeOrOpen,
  deleteChosen,
  flowChosen,
  flowKinds,
  straighten,
  turnKinds,
} from '$lib/edits/shaping';
import { nudge } from '$lib/edits/nudging';
import { benchWith, shapeWith, square, type Bench } from './testing';

// Properties: whatever a hand does, the document stays valid, undo brings back the identical one, redo the other.

const grid = fc.integer({ min: -4, max: 24 }).map((n) => n * 20);
const point = fc.record({ x: grid, y: grid });
const keys = fc.record({
  shift: fc.boolean(),
  alt: fc.boolean(),
  type: fc.constantFrom('mouse', 'pen', 'touch'),
});
const deed = fc.oneof(
  { weight: 8, arbitrary: fc.record({ do: fc.constant('click' as const), at: point, keys }) },
  { weight: 6, arbitrary: fc.record({ do: fc.constant('drag' as const), at: point, to: point, keys }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('again' as const), at: point }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('broken' as const), at: point, to: point }) },
  {
    weight: 6,
    arbitrary: fc.record({
      do: fc.constant('key' as const),
      key: fc.constantFrom(
        'end', 'close', 'back', 'turn', 'undo', 'redo', 'offer', 'other', 'delete', 'flow', 'kinds', 'flowing',
        'middle', 'straighten', 'open', 'nudge', 'fresh',
      ), // prettier-ignore
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constant('set' as const),
      what: fc.constantFrom('a', 't', 'c', 'box', 'ellipse', 'polygon', 'line', 'mirror', 'turned', 'straight', 'snap', 'carry', 'flowing', 'pen'), // prettier-ignore
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constant('step' as const),
      step: fc.constantFrom<Step>('block-in', 'refine'),
    }),
  },
);
type Deed = typeof deed extends fc.Arbitrary<infer T> ? T : never;

const KEYS: Readonly<Record<string, (b: Bench) => void>> = {
  end: (b) => endPath(b.desk),
  close: (b) => closeLive(b.desk),
  back: (b) => takeBack(b.desk),
  turn: (b) => turnLast(b.desk),
  undo: (b) => b.desk.undo(),
  redo: (b) => b.desk.redo(),
  offer: (b) => b.desk.takeOffer(),
  other: (b) => b.desk.offer?.turn?.(),
  delete: (b) => !b.desk.live && deleteChosen(b.desk),
  flow: (b) => !b.desk.live && flowChosen(b.desk),
  kinds: (b) => turnKinds(b.desk),
  flowing: (b) => flowKinds(b.desk),
  middle: (b) => addInMiddle(b.desk),
  straighten: (b) => straighten(b.desk),
  open: (b) => !b.desk.live && closeOrOpen(b.desk),
  nudge: (b) => nudge(b.desk, { x: 1, y: -1 }),
  fresh: (b) => void (b.desk.next.fresh = true),
};

function carryOut(b: Bench, d: Deed): void {
  const { desk } = b;
  if (d.do === 'click') b.click(d.at, d.keys);
  else if (d.do === 'drag') b.drag(d.at, d.to, d.keys);
  else if (d.do === 'again') b.doubleClick(d.at);
  else if (d.do === 'broken') {
    b.press(d.at);
    b.move(d.to);
    b.machine.cancel();
  } else if (d.do === 'key') KEYS[d.key]!(b);
  else if (d.do === 'step') desk.open(d.step);
  else if (['a', 't', 'c'].includes(d.what)) desk.pointing.hold(d.what, !desk.pointing.held.has(d.what));
  else if (d.what === 'box' || d.what === 'ellipse' || d.what === 'polygon' || d.what === 'line')
    desk.next.form = desk.next.form === d.what ? null : d.what;
  else if (d.what === 'mirror')
    desk.pointing.task = desk.pointing.task ? null : { kind: 'mirror-axis', from: null, own: null };
  else if (d.what === 'turned') desk.pointing.task = desk.pointing.task ? null : { kind: 'turn-axis' };
  else if (d.what === 'straight') desk.habits.set({ straightOnly: !desk.habits.straightOnly });
  else if (d.what === 'snap') desk.habits.set({ snapOn: !desk.habits.snapOn });
  else if (d.what === 'carry') desk.habits.set({ carry: !desk.habits.carry });
  else if (d.what === 'flowing') desk.habits.set({ flowingClicks: !desk.habits.flowingClicks });
  else desk.habits.set({ pen: !desk.habits.pen });
}

const text = (art: Art): string => JSON.stringify(art);

describe('any series of presses, moves, releases and keys', () => {
  it.each([0.25, 1, 16])(
    'leaves a valid document, and undo and redo give the identical ones, at %f px to the px',
    (scale) => {
      fc.assert(
        fc.property(fc.array(deed, { maxLength: 40 }), (deeds) => {
          const b = benchWith(
            [shapeWith('s', [square('p', 100, 100, 120)]), shapeWith('t', [square('q', 220, 100, 120)])],
            'block-in',
            scale,
          );
          b.desk.habits.set({ snapOn: true, pen: false, straightOnly: false });
          b.desk.choose(chooseShapes([]));
          const start = text(b.desk.art);
          for (const d of deeds) {
            carryOut(b, d);
            expect(() => readArt(JSON.parse(text(b.desk.art)))).not.toThrow();
          }
          b.machine.cancel();
          const end = text(b.desk.art);
          const steps = b.desk.history.done.length;
          while (b.desk.history.done.length > 0) b.desk.undo();
          expect(text(b.desk.art)).toBe(start);
          for (let i = 0; i < steps; i++) b.desk.redo();
          expect(text(b.desk.art)).toBe(end);
        }),
        { numRuns: 90, seed: 20261125 },
      );
    },
    60_000,
  );
});
