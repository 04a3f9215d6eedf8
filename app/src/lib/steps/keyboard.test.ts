import { beforeEach, describe, expect, it } from 'vitest';
import { addNode, findNode, freeGroups, groupNodes, type Group, type Shape } from '@mirrot/core';
import {
  chooseAnchors,
  chooseNodes,
  chooseShapes,
  choiceInWords,
  NOTHING_CHOSEN,
  chosenNodes,
  stillThere,
} from '$lib/desk/choice';
import { commandForKey } from '$lib/desk/command';
import { STEPS } from '$lib/desk/steps';
import type { Saving } from '$lib/desk/saving.svelte';
import { Workplace } from '$lib/desk/workplace.svelte';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { command, COMMANDS, LEDGE } from './commands';
import type { Keyboard, Place } from '$lib/desk/keyboard';
import { createKeyboard } from './keyboard';

let b: Bench;
let w: Workplace;
let keyboard: Keyboard;
const kept = { state: 'kept', waiting: 0 } as unknown as Saving;
const project = {
  id: 'x',
  name: 'X',
  createdAt: '',
  updatedAt: '',
  revision: 0,
  sheet: { width: 1, height: 1, unit: 'px' as const },
  shapes: 0,
  painted: 0,
  anchors: 0,
  folder: '',
  openedAt: null,
  drift: null,
  practised: null,
};
function begin(step: Parameters<typeof benchWith>[1] = 'refine'): void {
  b = benchWith([shapeWith('s', [square('p', 0, 0, 100)]), shapeWith('t', [square('q', 150, 0, 50)])], step);
  w = new Workplace(b.desk, kept, project);
  keyboard = createKeyboard(w, b.machine);
}
const event = (name: string): Parameters<Keyboard['down']>[0] => {
  const parts = name.split('+');
  const key = parts.at(-1)!;
  return {
    key,
    code: /^\d$/.test(key) ? `Digit${key}` : '',
    ctrlKey: parts.includes('Mod'),
    metaKey: false,
    shiftKey: parts.includes('Shift'),
    altKey: parts.includes('Alt'),
    repeat: false,
  };
};
const down = (name: string, place: Place = 'bed'): boolean => keyboard.down(event(name), place);
const up = (name: string): void => keyboard.up(event(name));

beforeEach(() => begin());

describe('Esc, one layer a press', () => {
  it('takes back a drag, then leaves an offer, sampling, the path, the anchors, the choice', () => {
    b.desk.choose(chooseAnchors([{ shape: 's', path: 'p', index: 0 }]));
    const before = b.desk.art;
    b.press({ x: 0, y: 0 });
    b.move({ x: 40, y: 40 });
    expect(b.desk.art).not.toBe(before);
    down('Escape');
    expect(b.desk.art).toBe(before);
    b.desk.makeOffer({ text: 'offer', label: 'x', recipe: () => {} });
    down('Escape');
    expect(b.desk.offer).toBeNull();
    expect(b.desk.choice.anchors).toHaveLength(1);
    down('Escape');
    expect(b.desk.choice).toMatchObject({ anchors: [], shapes: ['s'] });
    down('Escape');
    expect(b.desk.choice.shapes).toEqual([]);
  });

  it('ends the path being drawn and keeps it', () => {
    begin('block-in');
    b.click({ x: 0, y: 200 });
    b.click({ x: 90, y: 200 });
    down('Escape');
    expect(b.desk.live).toBeNull();
    expect(b.shapes).toHaveLength(3);
  });
});

describe('Enter', () => {
  it('takes an offer before it ends the path', () => {
    begin('block-in');
    b.click({ x: 0, y: 200 });
    b.click({ x: 90, y: 200 });
    let taken = 0;
    b.desk.makeOffer({ text: 'offer', label: 'x', recipe: () => {}, taken: () => void taken++ });
    down('Enter');
    expect([taken, b.desk.offer, b.desk.live !== null]).toEqual([1, null, true]);
    down('Enter');
    expect(b.desk.live).toBeNull();
  });
});

describe('held keys', () => {
  it('last as long as they are held, and end when the window loses the keyboard', () => {
    down('q');
    expect(b.desk.looking.seen.ink).toBe(false);
    up('q');
    expect(b.desk.pointing.held.size).toBe(0);
    down('Shift+Q');
    expect(b.desk.pointing.held.has('shift+q')).toBe(true);
    down(' ');
    keyboard.blur();
    expect(b.desk.pointing.held.size).toBe(0);
  });

  it('T in Refine: held adds, a tap starts a path in Block in', () => {
    down('t');
    b.click({ x: 300, y: 200 });
    b.click({ x: 350, y: 250 });
    up('t');
    expect(b.desk.step).toBe('refine');
    expect(b.desk.live).toBeNull();
    expect(b.shapes).toHaveLength(3);
    down('t');
    up('t');
    expect([b.desk.step, b.desk.next.fresh]).toEqual(['block-in', true]);
  });

  it('A is for Block in only', () => {
    down('a');
    expect(b.desk.pointing.held.size).toBe(0);
    begin('block-in');
    down('a');
    expect(b.desk.pointing.held.has('a')).toBe(true);
  });
});

describe('keys and places', () => {
  it('leaves text fields alone, and Space, Enter and arrows to controls', () => {
    b.desk.choose(chooseShapes(['s']));
    expect(down('ArrowLeft', 'control')).toBe(false);
    expect(down(' ', 'control')).toBe(false);
    expect(down('3', 'text')).toBe(false);
    expect(down('ArrowLeft')).toBe(true);
    expect(b.shapes[0]!.paths[0]!.anchors[0]!.x).toBe(-1);
  });

  it('keeps Alt and Alt with arrows from the browser', () => {
    expect(down('Alt')).toBe(true);
    expect(down('Alt+ArrowLeft')).toBe(true);
  });

  it('does nothing by single keys when they are switched off; Ctrl, arrows and Esc still work', () => {
    b.desk.choose(chooseShapes(['s']));
    w.singleKeys = false;
    expect([down('h'), down('Shift+V'), down('3'), down('?')]).toEqual([false, false, false, false]);
    expect([down('ArrowLeft'), down('Mod+Z'), down('Escape')]).toEqual([true, true, true]);
  });

  it('digits open steps; 3 opens Refine on the shape under the pointer', () => {
    begin('colour');
    b.desk.pointing.pointerAt = { x: 20 + 170, y: 10 + 20 };
    down('3');
    expect(b.desk.step).toBe('refine');
    expect(b.desk.choice).toMatchObject({ level: 'path', shapes: ['t'] });
    down('6');
    expect(b.desk.step).toBe('export');
  });

  it('does no command in the middle of a drag', () => {
    b.press({ x: 0, y: 0 });
    b.move({ x: 30, y: 30 });
    expect(down('Delete')).toBe(false);
    expect(b.shapes).toHaveLength(2);
  });
});

describe('the registry of commands', () => {
  it('has each id once, and every ledge holds nine at most, all of them known', () => {
    expect(new Set(COMMANDS.map((c) => c.id)).size).toBe(COMMANDS.length);
    for (const step of STEPS) {
      const ids = LEDGE[step].filter((id) => id !== null);
      expect(ids.length, step).toBeLessThanOrEqual(9);
      for (const id of ids) expect(command(id).icon, id).toBeDefined();
    }
    expect(() => command('nothing')).toThrow('nothing');
  });

  it('gives no key to two commands that are offered together', () => {
    for (const step of STEPS) {
      const owners = new Map<string, string>();
      for (const c of COMMANDS.filter((one) => !one.steps || one.steps.includes(step)))
        for (const key of c.keys ?? []) {
          expect(owners.get(key), `${key} in ${step}`).toBeUndefined();
          owners.set(key, c.id);
        }
    }
  });

  it('makes a hole of a shape drawn inside another, and frees it', () => {
    begin();
    b.desk.change(
      'Draw',
      (d) => void d.layers[0]!.children.push(shapeWith('in', [square('i', 20, 20, 30)]) as never),
    );
    b.desk.choose(chooseShapes(['in']));
    command('make-hole').run(w);
    expect(b.shapes.map((s) => s.paths.length)).toEqual([2, 1]);
    command('free-hole').run(w);
    expect(b.shapes.map((s) => [s.name, s.paths.length])).toEqual([
      ['s', 1],
      ['Hole in s', 1],
      ['t', 1],
    ]);
    b.desk.undo();
    b.desk.undo();
    expect(b.shapes.map((s) => s.id)).toEqual(['s', 't', 'in']);
  });

  it('finds a command by its key only where it is offered', () => {
    expect(commandForKey(COMMANDS, 'J', w)).toBeNull();
    b.desk.choose(chooseAnchors([{ shape: 's', path: 'p', index: 0 }]));
    expect(commandForKey(COMMANDS, 'J', w)?.id).toBe('turn-kind');
  });
});

describe('keys of Block in', () => {
  beforeEach(() => {
    begin('block-in');
    b.desk.choose(chooseShapes([]));
  });

  it('C held suspends snapping, tapped it switches it; a hold that drew something does not', () => {
    b.desk.habits.set({ snapOn: true });
    down('C');
    expect(b.desk.pointing.held.has('c')).toBe(true);
    b.wait(500);
    up('C');
    expect(b.desk.habits.snapOn).toBe(true);
    down('C');
    b.wait(50);
    up('C');
    expect(b.desk.habits.snapOn).toBe(false);
    down('C');
    b.press({ x: 300, y: 200 });
    b.lift({ x: 300, y: 200 });
    up('C');
    expect(b.desk.habits.snapOn).toBe(false);
  });

  it('arrows move the crosshair, Enter presses there, Esc ends the path and then puts the crosshair away', () => {
    b.desk.looking.bed = { width: 800, height: 600 };
    down('→');
    const first = b.desk.pointing.cross!;
    down('Enter');
    down('Shift+→');
    expect(b.desk.pointing.cross!.x - first.x).toBeCloseTo(100, 9);
    down('Alt+↓');
    expect(b.desk.pointing.cross!.y - first.y).toBeCloseTo(1, 9);
    down('Enter');
    expect(b.desk.livePath!.anchors).toHaveLength(2);
    down('Escape');
    expect(b.desk.live).toBeNull();
    down('Escape');
    expect(b.desk.pointing.cross).toBeNull();
    // With something chosen they nudge it.
    b.desk.choose(chooseShapes(['s']));
    down('→');
    expect(b.desk.pointing.cross).toBeNull();
    expect(b.shapes[0]!.paths[0]!.anchors[0]!.x).toBe(1);
  });

  it('what is offered only in passing neither takes Enter nor Esc', () => {
    begin('refine');
    b.desk.choose(chooseShapes(['s']));
    b.desk.makeOffer({
      text: 'x',
      label: 'x',
      recipe: () => {},
      passing: true,
      taken: () => expect.fail('taken'),
    });
    down('Enter');
    down('Escape');
    expect(b.desk.choice.shapes).toEqual([]);
  });

  describe('the bed by keys alone', () => {
    const at = (x: number, y: number): void => void (b.desk.pointing.cross = { x, y });
    /** Presses and holds, goes there by arrows as a hand would, and lets go. */
    function dragTo(x: number, y: number): void {
      down('Shift+Enter');
      const from = b.desk.pointing.cross!;
      const ways = [['→', x - from.x], ['↓', y - from.y]] as const; // prettier-ignore
      for (const [way, far] of ways)
        for (let gone = 0; gone < Math.abs(far); gone += 10) down(far > 0 ? way : way === '→' ? '←' : '↑');
      down('Enter');
    }
    it('a choosing box is pressed, drawn by arrows and let go; Esc takes a press back', () => {
      begin('refine');
      b.desk.choose(NOTHING_CHOSEN);
      at(-20, -20);
      down('Shift+Enter');
      down('Shift+↓');
      down('Shift+→');
      expect(b.desk.pointing.box).not.toBeNull();
      down('Escape');
      expect([b.desk.pointing.box, b.desk.choice.shapes]).toEqual([null, []]);
      at(-20, -20);
      dragTo(180, 180);
      expect(b.desk.choice.shapes).toEqual(['s']);
      expect(b.desk.pointing.cross).not.toBeNull();
      // The crosshair goes first, the choice after it.
      down('Escape');
      expect([b.desk.pointing.cross, b.desk.choice.shapes]).toEqual([null, ['s']]);
    });
    it('the crosshair comes and goes by its key where something is chosen', () => {
      begin('refine');
      b.desk.choose(chooseShapes(['s']));
      down('.');
      expect(b.desk.pointing.cross).not.toBeNull();
      const { x } = b.shapes[0]!.paths[0]!.anchors[0]!;
      down('→');
      expect(b.shapes[0]!.paths[0]!.anchors[0]!.x).toBe(x);
      down('.');
      expect(b.desk.pointing.cross).toBeNull();
      down('→');
      expect(b.shapes[0]!.paths[0]!.anchors[0]!.x).toBe(x + 1);
    });
    it('a measured line, and a move of a shape, are drags too', () => {
      begin('refine');
      command('measure').run(w);
      at(10, 20);
      dragTo(110, 60);
      expect(b.desk.pointing.task).toMatchObject({ kind: 'measure', line: { from: { x: 10, y: 20 }, to: { x: 110, y: 60 } } }); // prettier-ignore
      b.desk.pointing.task = null;
      b.desk.choose(chooseShapes(['s']));
      const [first] = b.shapes[0]!.paths[0]!.anchors;
      const inside = b.desk.choosing.box!;
      at((inside.x0 + inside.x1) / 2, (inside.y0 + inside.y1) / 2);
      dragTo(b.desk.pointing.cross!.x + 30, b.desk.pointing.cross!.y);
      expect(b.shapes[0]!.paths[0]!.anchors[0]!.x).toBeCloseTo(first!.x + 30, 6);
    });
    it('goes from an anchor to its handles and back, and takes further anchors', () => {
      begin('refine');
      b.desk.choose(chooseShapes(['s'], 'path'));
      down('N');
      down('Alt+N');
      expect(b.desk.choice.anchors.map((a) => a.index)).toEqual([0, 1]);
      down('M');
      expect(b.desk.choice.handle).toBeNull();
      expect(b.desk.notice?.text).toContain('no handles');
      down('Shift+J');
      down('M');
      expect(b.desk.choice.handle).toMatchObject({ index: 1, side: 'out' });
      down('M');
      expect(b.desk.choice.handle).toMatchObject({ index: 1, side: 'in' });
      down('M');
      expect(b.desk.choice.handle).toBeNull();
      expect(b.desk.choice.anchors).toHaveLength(1);
    });
  });

  it('R turns an offer round, and does nothing without one', () => {
    let turned = 0;
    down('R');
    b.desk.makeOffer({ text: 'offer', label: 'x', recipe: () => {}, turn: () => void turned++ });
    down('R');
    expect(turned).toBe(1);
  });

  it('forms, switches and axes are commands; T goes back to paths', () => {
    command('draw-box').run(w);
    expect(b.desk.next.form).toBe('box');
    command('draw-box').run(w);
    expect(b.desk.next.form).toBeNull();
    command('draw-line').run(w);
    down('T');
    expect(b.desk.next.form).toBeNull();
    command('straight-only').run(w);
    expect(b.desk.habits.straightOnly).toBe(true);
    command('pen-strokes').run(w);
    expect(command('pen-strokes').on!(w)).toBe(true);
    command('grid').run(w);
    expect(b.desk.art.grid.shown).toBe(true);
    command('turn-axis').run(w);
    expect(b.desk.pointing.task?.kind).toBe('turn-axis');
    down('Escape');
    expect(b.desk.pointing.task).toBeNull();
    expect(command('release-axis').when!(w)).toBe(false);
    b.desk.pointing.task = { kind: 'turn-axis' };
    b.click({ x: 200, y: 150 });
    command('release-axis').run(w);
    expect(b.desk.art.axis).toBeNull();
  });
});

describe('a group that is chosen as a whole', () => {
  const nodeIds = (): string[] => b.desk.art.layers[0]!.children.map((n) => n.id);
  const group = (): Group => findNode(b.desk.art, 'g')!.node as Group;
  beforeEach(() => {
    begin();
    b.desk.change('Group', groupNodes(['s', 't'], { id: 'g', type: 'group', name: 'Petals', shown: true, locked: false, opacity: 1 })); // prettier-ignore
    b.desk.change('Draw', addNode('layer', shapeWith('u', [square('r', 250, 0, 20)])));
    b.desk.choose(chooseNodes([group()]));
  });

  it('is hidden, locked, restacked and deleted as one, its shapes as they are', () => {
    expect(b.desk.choice).toMatchObject({ nodes: ['g'], shapes: ['s', 't'] });
    expect(choiceInWords(b.desk.choice, b.desk.art)).toBe('Petals, 2 shapes');
    keyboard.down(event('h'), 'bed');
    expect([group().shown, ...group().children.map((c) => c.shown)]).toEqual([false, true, true]);
    keyboard.down(event('y'), 'bed');
    expect([group().locked, ...group().children.map((c) => c.locked)]).toEqual([true, false, false]);
    keyboard.down(event('Mod+ArrowUp'), 'bed');
    expect(nodeIds()).toEqual(['u', 'g']);
    keyboard.down(event('Delete'), 'bed');
    expect(nodeIds()).toEqual(['u']);
    expect(b.desk.choice.nodes).toEqual([]);
    b.desk.undo();
    expect(nodeIds()).toEqual(['u', 'g']);
  });

  it('moves with all its shapes, and is let go when it is gone', () => {
    keyboard.down(event('Shift+ArrowRight'), 'bed');
    expect(group().children.map((c) => (c as Shape).paths[0]!.anchors[0]!.x)).toEqual([10, 160]);
    b.desk.change('Free', freeGroups(['g']));
    b.desk.choose(stillThere(b.desk.choice, b.desk.art));
    expect(b.desk.choice).toMatchObject({ nodes: [], shapes: ['s', 't'] });
    expect(chosenNodes(b.desk.choice, b.desk.art)).toEqual(['s', 't']);
  });
});
