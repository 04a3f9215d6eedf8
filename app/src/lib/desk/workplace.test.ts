import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { changeArt, addChip, FIRST_MACHINE, PLAIN_LINES, setNode, type Art } from '@mirrot/core';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { currentHex } from '$lib/edits/painting';
import { receiverInWords } from './receivers';
import { FIRST_EXPORT } from './exporting';
import { linesNow, previewUrl, queryOf } from '$lib/steps/export/asking';
import { canBeMadeHere, leftOutWords, USES, useOf } from '$lib/steps/export/kinds';
import { command } from '$lib/steps/commands';
import { chooseShapes } from './choice';
import type { SetAside } from './kept-changes';
import type { Saving } from './saving.svelte';
import { Workplace } from './workplace.svelte';

const project = { id: 'prj', name: 'Seeds', createdAt: '', updatedAt: '', revision: 0, sheet: { width: 1, height: 1, unit: 'px' as const }, shapes: 0, painted: 0, anchors: 0, folder: '', openedAt: null, drift: null, practised: null }; // prettier-ignore
let b: Bench;
let w: Workplace;
let settled: boolean;
let answers: Record<string, () => Response>;
const refusal = (status: number, message: string): Response => Response.json({ error: { code: 'x', message } }, { status }); // prettier-ignore

beforeEach(() => {
  settled = true;
  answers = {};
  b = benchWith([shapeWith('Leaf', [square('l', 0, 0, 50)], { fill: { hex: '#2f6b4f' } })], 'colour');
  w = new Workplace(
    b.desk,
    { state: 'kept', waiting: 0, revision: 7, settled: async () => settled } as unknown as Saving,
    project,
  );
  vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => {
    const answer = answers[`${init?.method ?? 'GET'} ${url}`];
    if (!answer) throw new TypeError('Failed to fetch');
    return answer();
  });
});
afterEach(() => vi.unstubAllGlobals());

describe('kept copies', () => {
  it('are named in turn, once the server has everything', async () => {
    const copy = { id: 'c1', name: 'Copy 1', revision: 3, createdAt: '2026-01-01T00:00:00Z' };
    answers['POST /api/projects/prj/copies'] = () => Response.json(copy, { status: 201 });
    await w.keepCopy();
    expect(w.copies).toEqual([copy]);
    expect(b.desk.notice).toMatchObject({ tone: 'good', text: expect.stringContaining('Copy 1') });
    settled = false;
    await w.keepCopy();
    expect(b.desk.notice).toMatchObject({ tone: 'bad', text: expect.stringContaining('no copy was kept') });
    expect(w.copies).toHaveLength(1);
  });

  it('bring the drawing back as one step, and say when they cannot', async () => {
    const before = b.desk.art;
    const then: Art = changeArt(before, addChip({ id: 'c', name: '', hex: '#112233' })).art;
    answers['GET /api/projects/prj/copies/c1'] = () => Response.json({ art: then });
    const copy = { id: 'c1', name: 'Copy 1', note: '', byItself: false, revision: 3, createdAt: '' };
    await w.goBackTo(copy);
    expect(b.desk.art.chips).toHaveLength(1);
    b.desk.undo();
    expect(b.desk.art.chips).toHaveLength(0);
    answers = {};
    await w.goBackTo(copy);
    expect(b.desk.notice).toMatchObject({ tone: 'bad', text: expect.stringContaining('cannot be reached') });
  });

  it('cost the journal what differs, not the drawing twice', async () => {
    const many = Array.from({ length: 60 }, (_, i) => shapeWith(`s${i}`, [square(`q${i}`, i, 0, 9)]));
    b = benchWith(many, 'proof');
    w = new Workplace(b.desk, w.saving, project);
    const then = JSON.parse(JSON.stringify(b.desk.art)) as Art;
    b.desk.change('Rename', setNode('s7', { name: 'Leaf' }));
    answers['GET /api/projects/prj/copies/c1'] = () => Response.json({ art: then });
    await w.goBackTo({ id: 'c1', name: 'Copy 1', note: '', byItself: false, revision: 3, createdAt: '' });
    expect(b.desk.art).toEqual(then);
    expect(b.sent.at(-1)).toEqual([{ op: 'replace', path: '/layers/0/children/7/name', value: 's7' }]);
    b.desk.undo();
    expect(b.desk.shapeOf('s7')!.name).toBe('Leaf');
  });
});

describe('what the server did not take', () => {
  const before = (): Art => b.desk.art;
  const asideOf = (art: Art, after: Art): SetAside => ({
    id: 'a1',
    project: 'prj',
    at: '2026-01-01T00:00:00Z',
    label: 'Rename',
    reason: 'Too long.',
    version: 5,
    changes: [],
    before: art,
    after,
  });

  it('is told by name, tried again on the drawing as it is then, or says that it is there already', async () => {
    const after = changeArt(before(), setNode('Leaf', { name: 'Frond' })).art;
    const aside = asideOf(before(), after);
    w.replaceDrawing(before(), { why: 'set-aside', aside });
    expect(b.desk.notice).toMatchObject({ tone: 'bad', text: expect.stringContaining('“Rename”: Too long. It is set aside') }); // prettier-ignore
    b.desk.notice!.action!.run();
    expect([w.dialog, w.asides]).toEqual(['set-aside', [aside]]);
    b.desk.change('Colour', addChip({ id: 'k', name: '', hex: '#112233' }));
    await w.tryAside(aside);
    expect(b.desk.shapeOf('Leaf')!.name).toBe('Frond');
    expect(b.desk.art.chips).toHaveLength(1);
    expect([w.dialog, w.asides]).toEqual([null, []]);
    await w.tryAside(aside);
    expect(b.desk.notice!.text).toContain('Nothing of it is left');
  });

  it('and what both tabs changed is named when they are brought together', () => {
    w.replaceDrawing(before(), { why: 'taken-over', conflicts: ['Leaf', 'Stem'] });
    expect(b.desk.notice!.text).toContain('Both had changed Leaf, Stem');
    w.replaceDrawing(before(), { why: 'taken-over', conflicts: [] });
    expect(b.desk.notice!.text).toContain('Nothing was changed by both');
  });
});

describe('the project', () => {
  it('is renamed by the server, or keeps its name with a sentence', async () => {
    answers['PATCH /api/projects/prj'] = () => Response.json({ ...project, name: 'Beans' });
    await w.rename('Beans');
    expect(w.project.name).toBe('Beans');
    answers['PATCH /api/projects/prj'] = () => refusal(400, 'A name needs at least one character.');
    await w.rename('');
    expect(w.project.name).toBe('Beans');
    expect(b.desk.notice?.text).toBe('A name needs at least one character.');
  });
});

describe('what receives a colour is always said', () => {
  it('a shape, several, the path just ended, or the next path', () => {
    const { desk } = b;
    expect(receiverInWords(desk)).toBe('next path');
    desk.choose(chooseShapes(['Leaf']));
    expect(receiverInWords(desk)).toBe('fill of Leaf');
    expect(currentHex(desk)).toBe('#2f6b4f');
    desk.colouring.receiving = 'stroke';
    expect(receiverInWords(desk)).toBe('stroke of Leaf');
    expect(currentHex(desk)).toBeNull();
    desk.choose(chooseShapes([]));
    expect(receiverInWords(desk)).toBe('nothing chosen');
    desk.colouring.receiving = 'fill';
    desk.open('block-in');
    b.click({ x: 100, y: 100 });
    b.click({ x: 200, y: 100 });
    b.click({ x: 150, y: 200 });
    b.click({ x: 100, y: 100 });
    expect(receiverInWords(desk)).toBe('fill of Shape 1');
    b.press({ x: 300, y: 250 });
    expect(desk.choosing.justEnded).toBeNull();
  });

  it('a chip is kept once, and fills go off', () => {
    const keep = command('keep-chip');
    b.desk.choose(chooseShapes(['Leaf']));
    expect(keep.when!(w)).toBe(true);
    keep.run(w);
    expect(b.desk.art.chips.map((c) => c.hex)).toEqual(['#2f6b4f']);
    expect(keep.when!(w)).toBe(false);
    command('no-fill').run(w);
    expect(b.shapes[0]!.fill).toBeNull();
    expect(command('no-fill').when!(w)).toBe(false);
  });
});

describe('what is written', () => {
  it('is asked for by an address that says all of it', () => {
    w.exporting = {
      ...FIRST_EXPORT,
      format: 'png',
      area: 'drawing',
      ground: '#ffffff',
      ppi: 600,
      picture: true,
    };
    const asked = { area: 'drawing', ground: '#ffffff', picture: '1' };
    expect(queryOf(w)).toEqual({ ...asked, ppi: '600' });
    const preview = new URL(previewUrl(w), 'http://x');
    expect(preview.pathname).toBe('/api/projects/prj/export.png');
    expect(Object.fromEntries(preview.searchParams)).toEqual({ ...asked, width: '460', of: '7' });
    w.exporting.format = 'svg';
    expect(queryOf(w)).toEqual(asked);
    Object.assign(w.exporting, { margin: 12, scale: 2, plain: true });
    expect(queryOf(w)).toEqual({ ...asked, margin: '12', scale: '2', plain: '1' });
    // Files of lines have neither ground nor pictures; what they draw is shown as lines.
    Object.assign(w.exporting, { format: 'plt', area: 'chosen' });
    b.desk.choose(chooseShapes([b.shapes[0]!.id]));
    const lines = { area: 'drawing', margin: '12', scale: '2', only: b.shapes[0]!.id };
    expect(queryOf(w)).toEqual({ ...lines, order: 'short', join: '0.15' });
    w.exporting.shortWay = false;
    // What is done to the lines, for machines and for curves alike.
    const layer = b.desk.art.layers[0]!.id;
    Object.assign(w.exporting, { lines: { ...PLAIN_LINES, seen: true, thinned: 0.5, marks: true, uses: { [layer]: 'cut' } }, machine: { ...FIRST_MACHINE, tool: 'knife' }, leadBlade: true }); // prettier-ignore
    const done = { seen: '1', thinned: '0.5', marks: '1', uses: `${layer}:cut` };
    expect(queryOf(w)).toEqual({ ...lines, ...done, inner: '1', lead: '0.25' });
    expect(linesNow(w)).toMatchObject({ kind: 'plot', wish: { innerFirst: true, join: 0, lead: 0.25, order: 'kept' } }); // prettier-ignore
    w.exporting.format = 'svg';
    expect(queryOf(w)).not.toHaveProperty('seen');
    expect(linesNow(w)).toBeNull();
    w.exporting.hairlines = true;
    expect(queryOf(w)).toMatchObject({ ...done, hairlines: '1', plain: '1' });
    expect(linesNow(w)).toMatchObject({ kind: 'curves', lines: { seen: true } });
    // Several files at once; the whole project and its palette are asked nothing of.
    Object.assign(w.exporting, { format: 'png', each: 'layer', widths: [16, 48] });
    expect(queryOf(w)).toMatchObject({ each: 'layer', widths: '16,48' });
    expect(canBeMadeHere(w.exporting)).toBe(false);
    Object.assign(w.exporting, { format: 'zip' });
    expect(queryOf(w)).toEqual({});
    expect(canBeMadeHere(w.exporting)).toBe(true);
  });

  it('is told by what it is made for, and what it leaves out', () => {
    for (const [use, asks] of USES) {
      w.exporting = { ...FIRST_EXPORT, ...asks };
      expect(useOf(w.exporting)).toBe(use);
    }
    expect(useOf({ ...FIRST_EXPORT, ground: '#123456' })).toBeNull();
    const none = { hidden: 0, unpainted: 0, traced: 0, outside: 0, pictures: 0, gradients: 0, seeThrough: 0, soft: 0, cutLines: 0 }; // prettier-ignore
    expect(leftOutWords(none, 'svg', 'sheet')).toEqual([]);
    expect(leftOutWords({ ...none, hidden: 1, traced: 1, outside: 2 }, 'svg', 'sheet')).toEqual(['1 shape hidden', '2 off the sheet', 'the traced picture']); // prettier-ignore
    expect(leftOutWords({ ...none, gradients: 2, soft: 1 }, 'eps', 'drawing')).toEqual(['2 gradients, written as steps of colour', '1 soft or blended: written sharp and plain']); // prettier-ignore
  });
});
