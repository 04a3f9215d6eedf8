import { readSvg, type SvgReading } from '@mirrot/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { benchWith, type Bench } from '$lib/bed/testing';
import { isSvg, leftOut, svgInText } from '$lib/desk/svg-file';
import { nodesBox } from '@mirrot/core';
import { takeAsDrawing } from './svg-drawing';

// The worker's part is done here, as it does it.
let reading: (text: string) => Promise<SvgReading | null>;
vi.mock('$lib/workers/reading', () => ({
  readingWorker: {
    ask: (question: (work: { svg: (text: string) => unknown }) => unknown) => question({ svg: (text) => reading(text) }),
    end: () => {},
  },
})); // prettier-ignore

const svg = (inner: string, size = 'width="20" height="10"'): File =>
  new File([`<svg xmlns="http://www.w3.org/2000/svg" ${size}>${inner}</svg>`], 'leaf.svg');
let b: Bench;
const said: string[] = [];
const place = { progress: null, say: (text: string) => void said.push(text) };
beforeEach(() => {
  b = benchWith([], 'refine');
  reading = async (text) => readSvg(text, { layers: false });
  said.length = 0;
});
const names = (): string[] => b.desk.art.layers[0]!.children.map((n) => n.name);

describe('an SVG taken as drawing', () => {
  it('lies in the middle of the sheet, or where it was dropped, chosen, and is one step', async () => {
    await takeAsDrawing(b.desk, place, svg('<rect id="lid" width="8" height="4"/><g id="two"><circle r="2"/><circle r="1" cx="3"/></g>'), null); // prettier-ignore
    expect(names()).toEqual(['lid', 'two']);
    const { width, height } = b.desk.art.sheet;
    const box = nodesBox(b.desk.art, b.desk.choice.nodes.concat(b.desk.choice.shapes));
    expect((box.x0 + box.x1) / 2).toBeCloseTo(width / 2, 6);
    expect((box.y0 + box.y1) / 2).toBeCloseTo(height / 2, 6);
    b.desk.undo();
    expect(names()).toEqual([]);
    await takeAsDrawing(b.desk, place, svg('<rect width="8" height="4"/>'), { x: 30, y: 40 });
    expect(nodesBox(b.desk.art, b.desk.choice.shapes)).toMatchObject({ x0: 26, x1: 34, y0: 38, y1: 42 });
  });

  it('stands where it stands in a file whose page is the sheet’s', async () => {
    const { width, height } = b.desk.art.sheet;
    await takeAsDrawing(b.desk, place, svg('<rect x="3" width="8" height="4"/>', `width="${width}" height="${height}"`), null); // prettier-ignore
    expect(nodesBox(b.desk.art, b.desk.choice.shapes)).toMatchObject({ x0: 3, x1: 11, y0: 0 });
  });

  it('says what it leaves out; empty or broken it adds nothing and says why', async () => {
    await takeAsDrawing(b.desk, place, svg('<rect width="8" height="4"/><text/><text/><image/>'), null);
    expect(b.desk.notice?.text).toBe('leaf.svg lies on the sheet. Left out: text (2), pictures.');
    const before = b.desk.art;
    await takeAsDrawing(b.desk, place, svg('<text/>'), null);
    expect(b.desk.notice?.text).toBe('There is no drawing in leaf.svg. Nothing was added. Left out: text.');
    await takeAsDrawing(b.desk, place, svg('<g>'), null);
    expect(said.at(-1)).toMatch(/broken.*Nothing was added/);
    expect(b.desk.art).toBe(before);
  });

  it('stopped while it is read, or with every layer locked, it adds nothing', async () => {
    const before = b.desk.art;
    reading = async () => null;
    await takeAsDrawing(b.desk, place, svg('<rect width="8" height="4"/>'), null);
    expect(b.desk.art).toBe(before);
  });

  it('does not land in the middle of a path that is being drawn', async () => {
    const drawing = benchWith([]);
    drawing.click({ x: 10, y: 10 });
    drawing.click({ x: 50, y: 10 });
    const before = drawing.desk.art;
    await takeAsDrawing(drawing.desk, place, svg('<rect width="8" height="4"/>'), null);
    expect(drawing.desk.art).toBe(before);
    expect(drawing.desk.notice?.text).toContain('Nothing was added');
  });

  it('is told by its type, its name, or what the text is', () => {
    expect(isSvg({ type: 'image/svg+xml', name: 'a' })).toBe(true);
    expect(isSvg({ type: '', name: 'A.SVG' })).toBe(true);
    expect(isSvg({ type: 'image/png', name: 'a.svg' })).toBe(false);
    for (const text of [
      '<svg>',
      '<?xml version="1.0"?>\n<!-- x --><!DOCTYPE svg [<!ENTITY a "b">]>\n<svg:svg xmlns:svg="">',
      ' <svg\nid="a">',
    ])
      // prettier-ignore
      expect(svgInText(text)?.type, text).toBe('image/svg+xml');
    for (const text of ['', 'plain words', '<p><svg></p>', '<svgs>'])
      expect(svgInText(text), text).toBeNull();
    expect(leftOut([])).toBe('');
  });
});
