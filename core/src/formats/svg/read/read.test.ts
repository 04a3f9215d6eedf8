import { Resvg } from '@resvg/resvg-js';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import type { ArtNode, Group, Shape } from '../../../art/schema';
import { shapesIn } from '../../../art/tree';
import { MirrotError } from '../../../error';
import { readElements } from './elements';
import { writeSvg } from '../write';
import { readSvg } from './read';

const NAMESPACE = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"';
const svg = (inner: string, size = 'width="80" height="60"'): string =>
  `<svg ${NAMESPACE} ${size}>${inner}</svg>`;

/** Pixels a drawing is made of for each one compared: steps of anti-aliasing are no difference. */
const FINER = 4;

/** A drawing `width` pixels wide, each the mean of sixteen. Source outside: resvg. */
function seen(text: string, width: number): Float64Array {
  const options = {
    fitTo: { mode: 'width', value: width * FINER },
    font: { loadSystemFonts: false },
  } as const;
  const { width: w, height: h, pixels } = new Resvg(text, options).render();
  const across = Math.ceil(w / FINER);
  const out = new Float64Array(across * Math.ceil(h / FINER) * 4);
  for (let i = 0; i < pixels.length; i++) {
    const [x, y] = [(i >> 2) % w, Math.floor((i >> 2) / w)];
    out[4 * (Math.floor(y / FINER) * across + Math.floor(x / FINER)) + (i & 3)]! += pixels[i]! / FINER ** 2;
  }
  return out;
}

/** The largest difference of a pixel's value between a file and the drawing that is read from it, of 255. */
function difference(text: string, width = 80): number {
  const [before, after] = [seen(text, width), seen(writeSvg(readSvg(text).art), width)];
  expect(after.length).toBe(before.length);
  return before.reduce((worst, v, i) => Math.max(worst, Math.abs(v - after[i]!)), 0);
}

const nodesOf = (text: string): readonly ArtNode[] =>
  readSvg(text, { layers: false }).art.layers[0]!.children;
const leftOf = (text: string): string[] => readSvg(text).left.map(({ what }) => what);

describe('reading an SVG', () => {
  const FILES: Record<string, string> = {
    'paths and basic shapes': '<rect x="5" y="5" width="20" height="10"/><rect x="30" y="5" width="20" height="12" rx="4"/><rect x="55" y="5" width="20" height="16" rx="8" ry="3"/><circle cx="15" cy="35" r="9" fill="#2f6b4f"/><ellipse cx="40" cy="35" rx="12" ry="6"/><polygon points="60,30 75,45 58,50" fill="red"/><polyline points="5 55, 20 50 30 58" fill="none" stroke="blue"/><line x1="40" y1="55" x2="70" y2="52" stroke="#000" stroke-width="3"/><path d="M2 2l5 1q2 8 8 0t9 3"/>',
    'transforms in each other': '<g transform="translate(20 10) rotate(20)"><rect width="30" height="12" transform="scale(1.2 .7) skewX(15)"/><g transform="matrix(.5 .2 -.1 .6 3 20)"><circle cx="20" cy="15" r="12" fill="teal"/></g></g>',
    'styles, classes and their order': '<style>.a{fill:#c33}rect.b{fill:green}#c{fill:blue}g > rect{stroke:#000;stroke-width:2}g rect[data-x="1"]{opacity:.5}*{stroke-linejoin:round}/* not */@media print{rect{fill:none}}</style><g fill="orange"><rect class="a" x="4" y="4" width="20" height="20"/><rect class="a b" x="30" y="4" width="20" height="20"/><rect id="c" class="a" x="54" y="4" width="20" height="20"/><rect data-x="1" x="4" y="32" width="20" height="20"/><rect style="fill:hsl(280 60% 50%);stroke:none" x="30" y="32" width="20" height="20"/></g>',
    'colours as CSS writes them': '<g color="tomato"><rect x="2" y="2" width="15" height="15" fill="currentColor"/><rect x="20" y="2" width="15" height="15" fill="rgb(10,200,30)"/><rect x="38" y="2" width="15" height="15" fill="#0af"/><rect x="56" y="2" width="15" height="15" fill="rgba(0,0,0,.4)"/><rect x="2" y="30" width="15" height="15" fill="#ff000080"/><rect x="20" y="30" width="15" height="15" fill="slateblue"/><rect x="38" y="30" width="15" height="15" fill="transparent"/></g>',
    'the nonzero rule': '<path d="M5 5h30v30h-30zM12 12h16v16h-16z"/><path d="M45 5h30v30h-30zM52 12v16h16v-16z" fill="navy"/><path d="M10 40h25l-20 16 7-26 8 26z" fill="green"/><path fill-rule="evenodd" d="M50 40h25l-20 16 7-26 8 26z" fill="green"/>',
    'lines beneath fills, shifted dashes, shadows, gradients that go on': '<defs><linearGradient id="a" x2=".2" spreadMethod="reflect"><stop stop-color="red"/><stop offset="1" stop-color="#00f"/></linearGradient><radialGradient id="b" r=".2" spreadMethod="repeat"><stop stop-color="gold"/><stop offset="1" stop-color="green"/></radialGradient><filter id="s" x="-50%" y="-50%" width="200%" height="200%" color-interpolation-filters="sRGB"><feGaussianBlur stdDeviation="1" result="b"/><feGaussianBlur in="b" stdDeviation="2"/><feOffset dx="3" dy="4" result="c"/><feFlood flood-color="#204" flood-opacity=".6"/><feComposite in2="c" operator="in" result="c"/><feMerge><feMergeNode in="c"/><feMergeNode in="b"/></feMerge></filter></defs><rect x="4" y="4" width="30" height="20" fill="url(#a)"/><rect x="44" y="4" width="30" height="20" fill="url(#b)" stroke="#000" stroke-width="6" paint-order="stroke"/><path d="M4 40H80" stroke="#000" stroke-width="4" stroke-dasharray="6 4" stroke-dashoffset="3"/><circle cx="30" cy="60" r="9" fill="#fa0" filter="url(#s)"/>',
    'fills and lines not alike opaque': '<rect x="8" y="8" width="26" height="40" fill="red" fill-opacity=".5" stroke="#000" stroke-width="8"/><rect x="46" y="8" width="26" height="40" fill="gold" stroke="purple" stroke-width="8" stroke-opacity=".5" paint-order="stroke"/>',
    'dashes, ends and joins': '<path d="M6 8h68" stroke="#000" stroke-width="5" stroke-dasharray="9 4 2"/><path d="M6 20h68" stroke="#000" stroke-width="5" stroke-dasharray="0 9" stroke-linecap="round"/><path d="M8 50 20 30 32 50" fill="none" stroke="#000" stroke-width="6" stroke-linejoin="bevel"/><path d="M44 50 50 28 56 50" fill="none" stroke="#000" stroke-width="5" stroke-miterlimit="12"/><path d="M64 40h0" stroke="#000" stroke-width="8" stroke-linecap="round"/>',
    'gradients': '<defs><linearGradient id="a" x2="0" y2="1"><stop offset="0" stop-color="#fff"/><stop offset="50%" stop-color="red" stop-opacity=".5"/><stop offset="1"/></linearGradient><linearGradient id="b" xlink:href="#a" gradientUnits="userSpaceOnUse" x1="30" y1="5" x2="50" y2="30" gradientTransform="rotate(10 40 20)"/><radialGradient id="c" cx=".4" cy=".4" r=".5" href="#a"/></defs><rect x="4" y="4" width="20" height="40" fill="url(#a)"/><rect x="28" y="4" width="22" height="40" fill="url(#b)" fill-opacity=".7"/><g transform="rotate(8 65 24) scale(.9)"><ellipse cx="66" cy="26" rx="12" ry="20" fill="url(#c)" stroke="url(#b)" stroke-width="3"/></g>',
    'uses, symbols and inner viewports': '<defs><g id="leaf"><path d="M0 0q8-12 16 0q-8 12-16 0z"/></g><symbol id="s" viewBox="0 0 10 10"><circle cx="5" cy="5" r="7" fill="teal"/></symbol></defs><use href="#leaf" x="5" y="15" fill="green"/><use xlink:href="#leaf" transform="translate(40 20) scale(1.5)"/><use href="#s" x="5" y="32" width="20" height="20"/><svg x="40" y="35" width="30" height="20" viewBox="0 0 10 10" preserveAspectRatio="xMinYMax meet"><rect width="10" height="10" fill="#ccc"/><circle cx="10" cy="5" r="3"/></svg>',
    'clip paths': '<clipPath id="a"><circle cx="20" cy="20" r="12"/><rect x="20" y="20" width="16" height="8"/></clipPath><clipPath id="b" clipPathUnits="objectBoundingBox"><path d="M0 0h1l-.5 1z"/></clipPath><clipPath id="c"><path clip-rule="evenodd" d="M40 30h30v24h-30zM46 36h18v12h-18z"/></clipPath><g clip-path="url(#a)" opacity=".7"><rect width="30" height="40" fill="red"/><rect x="15" width="30" height="40" fill="blue"/></g><clipPath id="d"><use href="#dot" x="20" y="38"/></clipPath><circle id="dot" cx="0" cy="0" r="7" fill="none"/><rect x="8" y="34" width="30" height="20" clip-path="url(#d)" fill="purple"/><rect x="45" y="4" width="30" height="20" clip-path="url(#b)"/><rect x="36" y="28" width="40" height="30" clip-path="url(#c)" fill="green"/>',
    'opacity, blend and blur of groups': '<rect width="80" height="60" fill="#eda"/><g opacity=".5"><rect x="5" y="5" width="25" height="25" fill="red"/><rect x="18" y="18" width="25" height="25"/></g><g style="mix-blend-mode:multiply"><circle cx="58" cy="20" r="15" fill="#6ac"/></g><filter id="f" x="-1" y="-1" width="3" height="3"><feGaussianBlur stdDeviation="2"/></filter><circle cx="60" cy="45" r="8" filter="url(#f)" color-interpolation-filters="sRGB"/>',
    'what is hidden': '<rect width="20" height="20" display="none"/><g visibility="hidden"><rect x="30" width="20" height="20"/><rect x="55" y="5" width="20" height="20" visibility="visible"/></g><g style="display:none"><circle cx="20" cy="40" r="10"/></g>',
  }; // prettier-ignore

  // Source outside: W3C SVG 2 as resvg draws it.
  it.each(Object.keys(FILES))('draws %s as the file does', (what) => {
    expect(difference(svg(FILES[what]!))).toBeLessThan(what === 'opacity, blend and blur of groups' ? 6 : 12);
  });

  it('takes the size of the sheet from the file, with its unit, and what is in it to scale', () => {
    const sheetOf = (size: string): unknown => readSvg(svg('<rect width="5" height="5"/>', size)).art.sheet;
    expect(sheetOf('width="50mm" height="40mm" viewBox="0 0 100 80"')).toMatchObject({ unit: 'mm', width: (50 * 96) / 25.4 }); // prettier-ignore
    expect(sheetOf('viewBox="0 0 24 12"')).toMatchObject({ unit: 'px', width: 24, height: 12 });
    expect(sheetOf('width="100%" height="100%" viewBox="0 0 24 12"')).toMatchObject({
      width: 24,
      height: 12,
    });
    expect(sheetOf('width="2in" viewBox="0 0 24 12"')).toMatchObject({ unit: 'in', width: 192, height: 96 });
    expect(sheetOf('')).toMatchObject({ width: 300, height: 150 });
    const [node] = nodesOf(svg('<rect x="10" width="50" height="80"/>', 'width="50mm" height="40mm" viewBox="0 0 100 80"')); // prettier-ignore
    expect((node as Shape).paths[0]!.anchors[1]!.x).toBeCloseTo(((60 / 100) * 50 * 96) / 25.4, 9);
    for (const size of [
      'viewBox="0 0 100 50" width="60" height="60" preserveAspectRatio="xMaxYMin slice"',
      'viewBox="-5 -5 50 80" width="60" height="40" preserveAspectRatio="none"',
    ])
      // prettier-ignore
      expect(difference(svg('<circle cx="20" cy="20" r="15"/>', size), 60)).toBeLessThan(12);
  });

  it('goes by CSS where resvg does not: colours named later, and what is said to be important', () => {
    // Sources outside: CSS Color 4, section 6.1; CSS Cascading 4, section 6.4.
    const [purple, blue] = nodesOf(svg('<style>#c{fill:blue!important}</style><rect fill="rebeccapurple" width="9" height="9"/><rect id="c" style="fill:lime" width="9" height="9"/>')) as Shape[]; // prettier-ignore
    expect([purple!.fill, blue!.fill]).toEqual([{ hex: '#663399' }, { hex: '#0000ff' }]);
  });

  it('keeps what is there to be edited: forms, anchors, groups, names, layers', () => {
    const [box, ring] = nodesOf(svg('<rect id="lid" x="2" y="3" width="10" height="6" rx="2"/><circle r="5" cx="20" cy="20"><title>Rim &amp; edge</title></circle>')) as Shape[]; // prettier-ignore
    expect(box!.name).toBe('lid');
    expect(box!.paths[0]!.form).toMatchObject({ kind: 'box', x: 7, y: 6, radii: [2, 2, 2, 2] });
    expect([ring!.name, ring!.paths[0]!.form?.kind]).toEqual(['Rim & edge', 'ellipse']);
    // A form under a map that it does not survive is its outline.
    const [leaning] = nodesOf(svg('<rect transform="skewX(20)" width="10" height="6"/>')) as Shape[];
    expect(leaning!.paths[0]!.form).toBeUndefined();
    const { art, title } = readSvg(svg('<title>Two cans</title><g id="back"><path d="M0 0h9v9z"/><g><path d="M0 0h9v9z"/><path d="M0 0h3v3z"/></g></g><g opacity=".5"><path d="M1 1h3v3z"/><path d="M5 5h3v3z"/></g>')); // prettier-ignore
    expect(title).toBe('Two cans');
    expect(art.layers.map((l) => [l.name, l.opacity, l.children.map((c) => c.name)])).toEqual([['back', 1, ['Shape 1', 'Group 1']], ['Group 2', 0.5, ['Shape 4', 'Shape 5']]]); // prettier-ignore
  });

  it('reads what it writes: the same drawing again', () => {
    const first = readSvg(svg(FILES['clip paths']! + FILES['gradients']! + FILES['lines beneath fills, shifted dashes, shadows, gradients that go on']!)).art; // prettier-ignore
    const again = readSvg(writeSvg(first)).art;
    expect(writeSvg(readSvg(writeSvg(again)).art)).toBe(writeSvg(again));
    const look = ({ name, fill, stroke, paths }: Shape): unknown => ({ name, fill: fill && 'kind' in fill ? fill.kind : fill, stroke: stroke?.width, anchors: paths.map((p) => p.anchors.length) }); // prettier-ignore
    const painted = (art: typeof first): Shape[] =>
      art.layers.flatMap(shapesIn).filter((s) => s.fill ?? s.stroke);
    expect(painted(again).map(look)).toEqual(painted(first).map(look));
  });

  it('reads a drop shadow, turned and scaled with what casts it', () => {
    const [box] = nodesOf(svg('<filter id="s"><feDropShadow dx="3" stdDeviation="2" flood-color="#204060" flood-opacity=".6"/></filter><g transform="rotate(90) scale(2)"><rect width="9" height="9" filter="url(#s)"/></g>')) as Shape[]; // prettier-ignore
    const { x, y, blur, hex, opacity } = box!.shadow!;
    expect([x, y, blur, opacity].map((v) => Number(v.toFixed(6)))).toEqual([-4, 6, 4, 0.6]);
    expect(hex).toBe('#204060');
  });

  it('names what it leaves out, and leaves it out', () => {
    expect(leftOf(svg('<script>alert(1)</script><rect width="9" height="9" onclick="x()"/>'))).toEqual([
      'scripts',
    ]);
    expect(leftOf(svg('<text>mint</text><image href="data:,"/><foreignObject/><mystery/>'))).toEqual(['text', 'pictures', 'parts of other kinds of document', '“mystery”']); // prettier-ignore
    expect(leftOf(svg('<mask id="m"/><rect width="9" height="9" mask="url(#m)" filter="url(#gone)"/>'))).toEqual(['masks', 'filters']); // prettier-ignore
    expect(leftOf(svg('<a href="https://example.org"><rect width="9" height="9"/></a><use href="other.svg#x"/><use href="#gone"/>'))).toEqual(['links', 'uses of other files', 'uses of what is not in the file']); // prettier-ignore
    expect(leftOf(svg('<path d="M0 0L5 wrong"/><pattern id="p"/><rect width="9" height="9" fill="url(#p)"/><g transform="warp(3)"><rect width="9" height="9"/></g>'))).toEqual(['paths with broken data', 'patterns', 'parts with a transform that is not known']); // prettier-ignore
    expect(leftOf(svg('<clipPath id="c"><path d="M0 0Lx"/></clipPath><rect width="9" height="9" clip-path="url(#c)"/>'))).toEqual(['paths with broken data']); // prettier-ignore
    expect(leftOf(svg('<style>@font-face{}</style><path d="M0 0h9v9z" marker-start="url(#m)"/>'))).toEqual(['@font-face rules', 'markers']); // prettier-ignore
    // Other vocabularies are no part of the drawing.
    expect(readSvg(`<v:svg xmlns:v="http://www.w3.org/2000/svg" xmlns:o="urn:other"><o:path d="M0 0h9v9z"/><v:path d="M0 0h9v9z"/></v:svg>`).left).toEqual([]); // prettier-ignore
  });

  it('gives empty drawings for empty files, and nothing for what draws nothing', () => {
    expect(nodesOf(svg(''))).toEqual([]);
    expect(nodesOf(svg('<g/><path/><path d=""/><path d="M5 5"/><rect width="0" height="5"/><circle r="0"/><polygon points="5"/><g transform="scale(0)"><rect width="9" height="9"/></g><defs><rect width="9" height="9"/></defs><clipPath id="n"/><rect width="9" height="9" clip-path="url(#n)"/>'))).toEqual([]); // prettier-ignore
  });
});

describe('what is broken or meant to do harm', () => {
  const refusal = (text: string): string => {
    try {
      readSvg(text);
      return 'read';
    } catch (error) {
      expect(error).toBeInstanceOf(MirrotError);
      return (error as Error).message;
    }
  };

  it('is refused with a sentence', () => {
    expect(refusal('')).toMatch(/not an SVG.*Nothing was added/);
    expect(refusal('hello')).toMatch(/not an SVG/);
    expect(refusal('<html><body/></html>')).toMatch(/no <svg> element/);
    expect(refusal('<svg><g>')).toMatch(/broken at line 1/);
    expect(refusal('<svg>\n<g></p></svg>')).toMatch(/broken at line 2/);
    expect(refusal(svg('', 'width="0" height="5"'))).toMatch(/size of this SVG/);
    expect(refusal(svg('<path d="M0 0L9999999 5"/>'))).toMatch(/reaches farther/);
    expect(refusal(`<svg>${'<g>'.repeat(300)}${'</g>'.repeat(300)}</svg>`)).toMatch(/256 deep/);
    const deep = Array.from({ length: 70 }, (_, i) => `<g id="g${i}">`).join('');
    expect(refusal(svg(`${deep}<rect width="9" height="9"/>${'</g>'.repeat(70)}`))).toMatch(/64 deep/);
    expect(refusal(`<svg>${' '.repeat(40_000_001)}</svg>`)).toMatch(/over 40 million characters/);
    expect(refusal(svg('<path d="M0 0h1v1z"/>'.repeat(20_001)))).toMatch(/over 20,000 shapes/);
  });

  it('text that defines itself again and again costs nothing', () => {
    const laughs = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].map((name, i) => `<!ENTITY ${name} "${i === 0 ? 'lol' : `&${'abcdefgh'[i - 1]};`.repeat(10)}">`).join(''); // prettier-ignore
    const grown = (() => {
      try {
        return readElements(`<!DOCTYPE svg [${laughs}]><svg><title>&h;</title></svg>`).children[0]!.text
          .length;
      } catch (error) {
        return (error as Error).message;
      }
    })();
    if (typeof grown === 'number') expect(grown).toBeLessThan(1000);
    else expect(grown).toMatch(/again and again/);
    // As much through uses of uses.
    const doubled = Array.from({ length: 30 }, (_, i) => `<g id="u${i + 1}"><use href="#u${i}"/><use href="#u${i}"/></g>`).join(''); // prettier-ignore
    expect(refusal(svg(`<rect id="u0" width="1" height="1"/>${doubled}`))).toMatch(
      /over 20,000 shapes|again and again/,
    );
    expect(leftOf(svg('<g id="x"><use href="#x"/><rect width="5" height="5"/></g>'))).toEqual(['parts that use themselves']); // prettier-ignore
    // And what an office file names for itself is read.
    const file = `<!DOCTYPE svg [<!ENTITY st "fill:#ff0000">]>${svg('<rect style="&st;" width="5" height="5"/>')}`;
    expect((nodesOf(file)[0] as Shape).fill).toEqual({ hex: '#ff0000' });
  });
});

describe('files of others', () => {
  const folder = (name: string, inside: string): string =>
    join(dirname(createRequire(import.meta.url).resolve(`${name}/package.json`)), inside);
  /** Names of the files in a folder, `most` of them evenly picked. */
  const filesOf = (path: string, most = Infinity): string[] => {
    const all = readdirSync(path).filter((file) => file.endsWith('.svg')).sort(); // prettier-ignore
    return all.length <= most
      ? all
      : Array.from({ length: most }, (_, i) => all[Math.floor((i * all.length) / most)]!);
  };

  // Sources outside: all of bootstrap-icons and lucide-static, 300 of openmoji, drawn by resvg. A hundredth of them may
  // differ where lines turn back on themselves: there a thousandth of rounding changes what a join covers.
  it.each([
    ['bootstrap-icons', 'icons', 12],
    ['lucide-static', 'icons', 12],
    ['openmoji', 'color/svg', 24],
  ])('of %s look as they did', (name, inside, width) => {
    const path = folder(name, inside);
    const files = filesOf(path, name === 'openmoji' ? 300 : Infinity);
    expect(files.length).toBeGreaterThanOrEqual(300);
    const far = files.filter((file) => difference(readFileSync(join(path, file), 'utf8'), width) > 24);
    expect(far.length, far.join(', ')).toBeLessThanOrEqual(Math.floor(files.length / 100));
  }, 120_000); // prettier-ignore

  it('of openmoji keep their groups and colours', () => {
    const path = folder('openmoji', 'color/svg');
    for (const file of filesOf(path, 20)) {
      const text = readFileSync(join(path, file), 'utf8');
      const { art } = readSvg(text);
      const hexes = new Set(art.layers.flatMap(shapesIn).flatMap(({ fill }) => (fill && 'hex' in fill ? [fill.hex] : []))); // prettier-ignore
      for (const [, hex] of text.matchAll(/fill="(#[0-9a-fA-F]{6})"/g))
        expect(hexes, file).toContain(hex!.toLowerCase());
      const named = [...text.matchAll(/^ {2}<g id="([^"]+)"[^/]*>/gm)].map(([, id]) => id);
      expect(art.layers.map(({ name }) => name)).toEqual(named);
      expect((art.layers as unknown as Group[]).every((layer) => layer.children.length > 0)).toBe(true);
    }
  });
});
