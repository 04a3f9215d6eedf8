import { clampChroma, converter, filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit, formatHex as culoriHex, parse } from 'culori'; // prettier-ignore
import { describe, expect, it } from 'vitest';
import { seeded } from '../testing';
import { suggestColourways, swapHues, takeHexes, turnHues, turnLightness } from './colourways';
import { readCssColour } from './css';
import { deal } from './deal';
import { DEFICIENCIES, seenWith } from './deficiency';
import { inGamut, intoGamut, MOST_CHROMA, mostChroma } from './gamut';
import { oklabToOklch, oklabToRgb, oklchToOklab, rgbToOklab, type Oklab, type Oklch } from './oklab';
import { hexesApart, nearestOf, nearPairs, rangeOf } from './palette';
import { PALETTE_FORMS, readPalette, writePalette } from './palette-text';
import { firstMiddles, settleMiddles } from './middles';
import { formatHex, fromLinear, parseHex, toLinear, type Rgb } from './srgb';

const random = seeded(5);
const anyHex = (): string => formatHex([random(), random(), random()]);
const lchOf = (hex: string): Oklch => oklabToOklch(rgbToOklab(parseHex(hex)));

describe('the gamut of sRGB', () => {
  it('holds as much chroma at a lightness and hue as culori finds', () => {
    // Source outside: culori, clampChroma (CSS Color 4, section 13.2, by bisection of chroma).
    for (let i = 0; i < 200; i++) {
      const [l, h] = [0.05 + 0.9 * random(), 360 * random()];
      const theirs = clampChroma({ mode: 'oklch', l, c: 0.4, h }, 'oklch');
      // Ours counts a colour that rounds to a byte of sRGB as held: among dark ones that is a little more.
      expect(mostChroma(l, h)).toBeGreaterThan(theirs.c - 1e-3);
      expect(mostChroma(l, h) - theirs.c).toBeLessThan(0.03);
    }
    expect(mostChroma(0, 90)).toBeLessThan(0.1);
    expect(mostChroma(-0.5, 90)).toBe(0);
    expect(mostChroma(1.2, 90)).toBe(0);
  });

  it('takes what it does not hold to less chroma at the same lightness and hue, and leaves the rest', () => {
    for (let i = 0; i < 200; i++) {
      const colour: Oklch = [random(), MOST_CHROMA * random(), 360 * random()];
      const [l, c, h] = intoGamut(colour);
      expect(inGamut([l, c, h])).toBe(true);
      expect([l, h]).toEqual([colour[0], colour[2]]);
      if (inGamut(colour)) expect(c).toBe(colour[1]);
    }
  });
});

it('sees colours as eyes with a deficiency do, by the matrices that culori has of the same paper', () => {
  const theirs = { protanopia: filterDeficiencyProt(1), deuteranopia: filterDeficiencyDeuter(1), tritanopia: filterDeficiencyTrit(1) }; // prettier-ignore
  for (let i = 0; i < 100; i++) {
    const colour: Rgb = [random(), random(), random()];
    for (const deficiency of DEFICIENCIES) {
      // culori puts the matrix over whatever it is given: it is given linear light, as the paper has it.
      const [r, g, b] = colour.map(toLinear) as [number, number, number];
      const seen = theirs[deficiency]({ mode: 'rgb', r, g, b }) as { r: number; g: number; b: number };
      const expected = [seen.r, seen.g, seen.b].map((v) => fromLinear(Math.min(1, Math.max(0, v))));
      seenWith(deficiency, colour).forEach((v, k) => expect(v).toBeCloseTo(expected[k]!, 3));
    }
  }
  for (const deficiency of DEFICIENCIES)
    seenWith(deficiency, [0.5, 0.5, 0.5]).forEach((v) => expect(v).toBeCloseTo(0.5, 3));
});

it('reads colours as CSS writes them', () => {
  // Source: W3C CSS Color 4, section 6.1 (words), 5 (rgb), 9.3 (oklch); rebeccapurple is #663399 there.
  expect(readCssColour('rebeccapurple')).toEqual({ hex: '#663399', alpha: 1 });
  expect(readCssColour(' Teal ')?.hex).toBe('#008080');
  expect(readCssColour('rgb(255 0 0 / 50%)')).toEqual({ hex: '#ff0000', alpha: 0.5 });
  expect(readCssColour('oklch(62.8% 0.2577 29.23)')?.hex).toBe('#ff0000');
  for (const none of ['', 'carrot', '#12', 'rgb(', 'none']) expect(readCssColour(none)).toBeNull();
});

describe('middles of colours', () => {
  const blobs: Oklab[] = [0.2, 0.5, 0.8].flatMap((l) =>
    Array.from({ length: 60 }, (): Oklab => [l + 0.02 * random(), 0.02 * random(), 0.02 * random()]),
  );

  it('are the same for the same seed, and one in each group that lies apart', () => {
    const first = firstMiddles(blobs, 3, 7);
    expect(firstMiddles(blobs, 3, 7)).toEqual(first);
    const { middles, owners } = settleMiddles(blobs, first);
    expect(middles.map(([l]) => l.toFixed(1)).sort()).toEqual(['0.2', '0.5', '0.8']);
    for (let k = 0; k < 3; k++) expect(new Set(owners.slice(60 * k, 60 * k + 60)).size).toBe(1);
  });

  it('are no more than there are different colours', () => {
    expect(firstMiddles([], 4, 1)).toEqual([]);
    expect(firstMiddles([[0.5, 0, 0], [0.5, 0, 0]], 4, 1)).toHaveLength(1); // prettier-ignore
    expect(settleMiddles([], [[0.5, 0, 0]]).middles).toEqual([[0.5, 0, 0]]);
  });
});

describe('a palette', () => {
  it('tells which of its colours lie near each other, as comparing all with all does', () => {
    const hexes = Array.from({ length: 120 }, () => formatHex([0.4 + 0.1 * random(), 0.5 + 0.1 * random(), 0.3])); // prettier-ignore
    const all = hexes.flatMap((a, one) => hexes.slice(one + 1).flatMap((b, k) => (hexesApart(a, b) < 2 ? [`${one} ${one + 1 + k}`] : []))); // prettier-ignore
    expect(all.length).toBeGreaterThan(20);
    const pairs = nearPairs(hexes);
    expect(pairs.map(({ one, other }) => `${one} ${other}`).sort()).toEqual(all.sort());
    expect(pairs.every((p, i) => i === 0 || pairs[i - 1]!.deltaE <= p.deltaE)).toBe(true);
    expect(nearPairs([])).toEqual([]);
  });

  it('gives the nearest of its colours, and how far it is', () => {
    expect(nearestOf('#2f6b50', ['#ffffff', '#2f6b4f', '#000000'])).toMatchObject({ at: 1 });
    expect(nearestOf('#2f6b4f', ['#2f6b4f'])!.deltaE).toBe(0);
    expect(nearestOf('#2f6b4f', [])).toBeNull();
  });

  it('has ranges from light to dark in even steps of lightness, of one hue', () => {
    for (const hex of ['#2f6b4f', '#d4561c', '#6a3fa0']) {
      const range = rangeOf(hex, 7).map(lchOf);
      const steps = range.slice(1).map(([l], i) => range[i]![0] - l);
      for (const step of steps) expect(step).toBeCloseTo(steps[0]!, 1.5);
      const hue = lchOf(hex)[2];
      for (const [, c, h] of range) if (c > 0.03) expect(Math.abs(((h - hue + 540) % 360) - 180)).toBeLessThan(4); // prettier-ignore
    }
    expect(rangeOf('#808080', 2)).toHaveLength(2);
  });

  const colours = [{ hex: '#2f6b4f', name: 'Leaf, deep' }, { hex: '#ffaa00', name: '' }, { hex: '#0a0b0c', name: 'Ночь' }, { hex: '#123456', name: 'Leaf deep' }]; // prettier-ignore

  it.each(PALETTE_FORMS)('comes back from its text as %s', (form) => {
    const back = readPalette(writePalette(colours, form), 1000);
    expect(back.map(({ hex }) => hex)).toEqual(colours.map(({ hex }) => hex));
    if (form !== 'css') expect(back).toEqual(colours);
    // Names of properties are lower case without signs, each another.
    else expect(back.map(({ name }) => name)).toEqual(['leaf deep', 'chip 2', 'ночь', 'leaf deep 2']);
  });

  it('is read from what people write', () => {
    expect(readPalette('2f6b4f\n#FA0, Sun\r\nteal  Water\nrgb(1 2 3) Night\n\n// note', 10)).toEqual([
      { hex: '#2f6b4f', name: '' },
      { hex: '#ffaa00', name: 'Sun' },
      { hex: '#008080', name: 'Water' },
      { hex: '#010203', name: 'Night' },
    ]);
    expect(readPalette('{"sky":"#88bbee","soil":"brown"}', 10)).toEqual([
      { hex: '#88bbee', name: 'sky' },
      { hex: '#a52a2a', name: 'soil' },
    ]);
    expect(readPalette('["#fff"]', 10)).toEqual([{ hex: '#ffffff', name: '' }]);
    expect(readPalette('.x { --a-b: #fff; /* --c: #000; */ --d: hsl(0 100% 50%) }', 10)).toHaveLength(2);
  });

  it('is refused with a sentence that names the line, and takes nothing', () => {
    expect(() => readPalette('', 10)).toThrow('There is no colour');
    expect(() => readPalette('#fff\n#12345 x', 10)).toThrow('Line 2');
    expect(() => readPalette('#fff\n!!!', 10)).toThrow('Line 2: "!!!" does not begin with a colour');
    expect(() => readPalette('[{"name":"x"}]', 10)).toThrow('Entry 1 has no colour');
    expect(() => readPalette('[null]', 10)).toThrow('Entry 1');
    expect(() => readPalette('{"a":', 10)).toThrow('cannot be read');
    expect(() => readPalette('--a: 12px;', 10)).toThrow('--a: "12px" is not a colour');
    expect(() => readPalette('#11223344 x', 10)).toThrow('see-through');
    expect(() => readPalette('#fff\n'.repeat(10_000), 1000)).toThrow(
      'This has 10,000 colours; a palette has 1,000',
    );
    expect(() => readPalette('['.repeat(5000), 10)).toThrow('cannot be read');
  });
});

describe('recolourings', () => {
  const palettes = Array.from({ length: 40 }, () => Array.from({ length: 6 }, anyHex));
  const order = (hexes: readonly string[]): number[] => hexes.map((_, i) => i).sort((a, b) => lchOf(hexes[a]!)[0] - lchOf(hexes[b]!)[0]); // prettier-ignore

  it('turn hues and keep lightness, and come back by the other turn as far as sRGB holds them', () => {
    for (const hexes of palettes) {
      const turned = turnHues(hexes, 120);
      turned.forEach((hex, i) => expect(lchOf(hex)[0]).toBeCloseTo(lchOf(hexes[i]!)[0], 1.7));
      turned.forEach((hex, i) => {
        const [was, now] = [lchOf(hexes[i]!), lchOf(hex)];
        if (now[1] > 0.04) expect(Math.abs(((now[2] - was[2] - 120 + 900) % 360) - 180)).toBeLessThan(5);
      });
    }
    expect(turnHues(['#808080', '#ffffff'], 90)).toEqual(['#808080', '#ffffff']);
  });

  it('hand hues on and keep which of two is the lighter', () => {
    for (const hexes of palettes) {
      swapHues(hexes).forEach((hex, i) => expect(lchOf(hex)[0]).toBeCloseTo(lchOf(hexes[i]!)[0], 1.7));
      expect(order(takeHexes(hexes, palettes[0]!))).toEqual(order(hexes));
      expect(order(turnLightness(hexes))).toEqual(order(hexes).reverse());
    }
    expect(swapHues(['#111111', '#eeeeee'])).toEqual(['#111111', '#eeeeee']);
    expect(takeHexes(['#111111'], [])).toEqual(['#111111']);
    expect(takeHexes(['#111111'], ['#ff0000', '#00ff00'])).toHaveLength(1);
  });

  it('are suggested each once, and never the palette itself', () => {
    for (const hexes of [...palettes, ['#808080'], []]) {
      const all = suggestColourways(hexes).map(({ hexes: own }) => own.join());
      expect(new Set(all).size).toBe(all.length);
      expect(all).not.toContain(hexes.join());
    }
  });
});

describe('dealing a range', () => {
  it('gives light places to light shapes', () => {
    expect(deal([0.9, 0.1, 0.5, null], 5).places).toEqual([0, 4, 2, 2]);
    expect(deal([0.4, 0.4], 3).places).toEqual([1, 1]);
    expect(deal([], 3)).toEqual({ places: [], alike: 0 });
  });

  it('leaves no neighbours alike on any map of areas in rows of bricks, with four places or more', () => {
    for (let round = 0; round < 40; round++) {
      const [wide, high] = [4 + Math.floor(8 * random()), 3 + Math.floor(8 * random())];
      const at = (x: number, y: number): number[] => (x >= 0 && y >= 0 && x < wide && y < high ? [y * wide + x] : []); // prettier-ignore
      const neighbours = Array.from({ length: wide * high }, (_, i) => {
        const [x, y] = [i % wide, Math.floor(i / wide)];
        const shift = y % 2 === 0 ? -1 : 1;
        return [at(x - 1, y), at(x + 1, y), at(x, y - 1), at(x, y + 1), at(x + shift, y - 1), at(x + shift, y + 1)].flat(); // prettier-ignore
      });
      const lightness = neighbours.map(() => random());
      const { places, alike } = deal(lightness, 4, neighbours);
      expect(alike).toBe(0);
      neighbours.forEach((others, i) => others.forEach((k) => expect(places[i]).not.toBe(places[k])));
    }
  });

  it('says how many stay alike where the range is too short', () => {
    expect(deal([0.1, 0.2, 0.3], 2, [[1, 2], [0, 2], [0, 1]]).alike).toBe(1); // prettier-ignore
  });
});

it('of oklch and hex agree with culori', () => {
  const oklch = converter('oklch');
  for (let i = 0; i < 50; i++) {
    const hex = anyHex();
    const theirs = oklch(parse(hex)!);
    expect(culoriHex({ mode: 'oklch', l: theirs.l, c: theirs.c, h: theirs.h ?? 0 })).toBe(formatHex(oklabToRgb(oklchToOklab(lchOf(hex))))); // prettier-ignore
  }
});
