import { beforeEach, describe, expect, it } from 'vitest';
import { createPressMachine, type BedPointer } from './behaviour';

let log: string[];
let again: boolean[];
const machine = () =>
  createPressMachine(
    (p) => {
      again.push(p.again);
      log.push('press');
      return {
        drag: () => log.push('drag'),
        release: () => log.push('release'),
        click: () => log.push('click'),
        cancel: () => log.push('cancel'),
        key: (k) => k === 'j',
      };
    },
    (busy) => log.push(busy ? 'busy' : 'free'),
  );
const at = (x: number, time: number, type: BedPointer['type'] = 'mouse'): Omit<BedPointer, 'again'> => ({
  screen: { x, y: 0 },
  sheet: { x, y: 0 },
  shift: false,
  alt: false,
  type,
  time,
});

beforeEach(() => {
  log = [];
  again = [];
});

describe('a press', () => {
  it('is a click when it does not move', () => {
    const m = machine();
    m.down(at(0, 0));
    m.up(at(0, 50));
    expect(log).toEqual(['press', 'busy', 'click', 'free']);
  });

  it.each([
    ['mouse', 3],
    ['pen', 5],
    ['touch', 8],
  ] as const)('is a drag from the threshold of a %s, %i px', (type, threshold) => {
    const m = machine();
    m.down(at(0, 0, type));
    m.move(at(threshold - 0.5, 1, type));
    expect(log).not.toContain('drag');
    m.move(at(threshold, 2, type));
    // Once it is a drag it stays one, back at the start too.
    m.move(at(0, 3, type));
    m.up(at(0, 4, type));
    expect(log).toEqual(['press', 'busy', 'drag', 'drag', 'release', 'free']);
  });

  it('can be cancelled as a whole, and then lifting does nothing', () => {
    const m = machine();
    m.down(at(0, 0));
    m.move(at(9, 1));
    expect(m.busy).toBe(true);
    expect(m.cancel()).toBe(true);
    m.up(at(9, 2));
    expect(log).toEqual(['press', 'busy', 'drag', 'cancel', 'free']);
    expect(m.cancel()).toBe(false);
  });

  it('hands keys to its grip only while it lasts', () => {
    const m = machine();
    expect(m.key('j')).toBe(false);
    m.down(at(0, 0));
    expect(m.key('j')).toBe(true);
    expect(m.key('x')).toBe(false);
  });
});

describe('two clicks', () => {
  const pairs: [string, number, number, boolean][] = [
    ['within 300 ms and 4 px are one double-click', 4, 300, true],
    ['farther apart are two', 4.5, 100, false],
    ['later are two', 0, 301, false],
  ];
  it.each(pairs)('%s', (_what, x, time, double) => {
    const m = machine();
    m.down(at(0, 0));
    m.up(at(0, 0));
    m.down(at(x, time));
    expect(again).toEqual([false, double]);
  });

  it('a third begins anew, and a drag between them ends it', () => {
    const m = machine();
    for (const time of [0, 100, 200]) {
      m.down(at(0, time));
      m.up(at(0, time));
    }
    expect(again).toEqual([false, true, false]);
    m.down(at(0, 2000));
    m.move(at(20, 2010));
    m.up(at(20, 2020));
    m.down(at(20, 2030));
    expect(again.at(-1)).toBe(false);
  });
});
