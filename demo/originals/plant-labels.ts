import {
  compose,
  formatPathData,
  parsePathData,
  rotation,
  scaling,
  transformPath,
  translation,
  type Affine,
} from '@mirrot/core';
import type { Original, OriginalShape } from './original';

// Three card labels on a scanner's glass, written on with a round pen: every letter is one or more single strokes.

const [WIDTH, HEIGHT] = [2000, 1640];
/** Width of the pen's line in the scan, pixels. */
export const PEN = 12;

/** Strokes of the hand's letters: the baseline at 0, small letters a hundred high; and how far the next one stands. */
const LETTERS: Readonly<Record<string, { readonly strokes: readonly string[]; readonly room: number }>> = {
  m: {
    strokes: [
      'M0 -92C6 -100 16 -100 19 -86C22 -66 17 -28 18 0',
      'M18 -60C30 -96 58 -108 67 -84C72 -70 68 -28 69 0',
      'M69 -60C81 -96 112 -108 121 -84C126 -66 118 -22 127 -5C131 2 140 0 147 -9',
    ],
    room: 154,
  },
  i: { strokes: ['M0 -90C7 -99 15 -98 16 -86C18 -68 9 -24 17 -6C21 2 30 0 37 -9', 'M17 -141C18 -140 18 -138 18 -136'], room: 44 },
  n: {
    strokes: [
      'M0 -92C6 -100 16 -100 19 -86C22 -66 17 -28 18 0',
      'M18 -60C32 -98 62 -108 72 -82C77 -64 69 -22 78 -5C82 2 91 0 98 -9',
    ],
    room: 105,
  },
  t: { strokes: ['M21 -162C14 -112 8 -52 17 -17C22 1 39 2 52 -11', 'M-10 -97C10 -103 34 -104 53 -99'], room: 62 },
  s: { strokes: ['M63 -82C55 -104 16 -106 14 -78C12 -50 65 -57 63 -27C61 4 14 6 2 -19'], room: 78 },
  o: { strokes: ['M46 -98C10 -102 -5 -62 6 -28C15 3 63 6 75 -30C85 -66 70 -97 37 -97'], room: 94 },
  r: { strokes: ['M0 -92C6 -100 16 -100 19 -86C22 -66 17 -28 18 0', 'M18 -56C28 -88 47 -106 67 -92'], room: 76 },
  e: { strokes: ['M8 -53C32 -48 68 -55 67 -78C66 -105 22 -108 10 -66C0 -26 22 5 51 -2C63 -5 71 -13 77 -23'], room: 86 },
  l: { strokes: ['M20 -196C11 -132 5 -60 12 -20C16 1 30 2 41 -10'], room: 50 },
  d: {
    strokes: [
      'M72 -84C56 -107 18 -103 8 -64C-2 -25 18 7 44 -4C60 -11 71 -36 75 -56',
      'M85 -196C78 -132 70 -60 75 -20C78 2 92 3 102 -9',
    ],
    room: 110,
  },
};

interface Label {
  readonly word: string;
  /** Where the card's middle lies, and its turn in degrees. */
  readonly x: number;
  readonly y: number;
  readonly turn: number;
  readonly card: string;
}
const LABELS: readonly Label[] = [
  { word: 'mint', x: 700, y: 330, turn: -3.2, card: '#f1e7d0' },
  { word: 'sorrel', x: 1240, y: 830, turn: 2.4, card: '#ece6d6' },
  { word: 'dill', x: 720, y: 1310, turn: -1.5, card: '#f3e9d3' },
];
const SIZE = 1.68;
const [CARD_W, CARD_H] = [1240, 470];

const placed = ({ x, y, turn }: Label): Affine => compose(translation(x, y), rotation((turn * Math.PI) / 180));
const moved = (d: string, map: Affine): string => formatPathData(parsePathData(d).map((p) => transformPath(p, map)));

/** The strokes of a label's word as they lie in the scan. */
function strokesOf(label: Label): OriginalShape[] {
  const letters = [...label.word].map((c) => LETTERS[c]!);
  const long = letters.reduce((sum, l) => sum + l.room, 0);
  let at = (-long * SIZE) / 2 + 70;
  const out: OriginalShape[] = [];
  letters.forEach((letter, i) => {
    const map = compose(placed(label), compose(translation(at, 112 + 4 * Math.sin(3 * i)), scaling(SIZE)));
    letter.strokes.forEach((d, k) => {
      const stroke = moved(d, map);
      const [, x, y] = /M(-?[\d.]+) (-?[\d.]+)/.exec(stroke)!.map(Number) as [number, number, number];
      out.push({ name: `${label.word} ${i + 1}${label.word[i]}${k + 1}`, d: stroke, sample: [x, y] });
    });
    at += letter.room * SIZE;
  });
  return out;
}

/** A card with one pointed end and a hole for the string. */
function cardOf(label: Label): { outline: string; hole: string } {
  const [w, h] = [CARD_W / 2, CARD_H / 2];
  const outline = `M${-w} 0L${-w + 130} ${-h + 14}C${-w + 140} ${-h} ${-w + 150} ${-h} ${-w + 170} ${-h}L${w - 26} ${-h}C${w - 8} ${-h} ${w} ${-h + 8} ${w} ${-h + 26}L${w} ${h - 26}C${w} ${h - 8} ${w - 8} ${h} ${w - 26} ${h}L${-w + 170} ${h}C${-w + 150} ${h} ${-w + 140} ${h} ${-w + 130} ${h - 14}Z`;
  const hole = 'M28 0C28 15 15 28 0 28C-15 28 -28 15 -28 0C-28 -15 -15 -28 0 -28C15 -28 28 -15 28 0Z';
  return { outline: moved(outline, placed(label)), hole: moved(hole, compose(placed(label), translation(-w + 92, 0))) };
}

const STROKES = LABELS.map((label) => ({ name: label.word, shapes: strokesOf(label) }));

export const PLANT_LABELS: Original = {
  name: 'plant-labels',
  width: WIDTH,
  height: HEIGHT,
  layers: STROKES.map(({ name, shapes }) => ({ name: name[0]!.toUpperCase() + name.slice(1), shapes })),
  // The noise that roughens the line is opaque: seen through its own opacity it would be half as bright, and shift all of the line.
  photograph: () => `
<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
<defs>
  <filter id="shade" x="-0.1" y="-0.2" width="1.2" height="1.4"><feGaussianBlur stdDeviation="9"/></filter>
  <filter id="fibre" x="0" y="0" width="1" height="1">
    <feTurbulence type="fractalNoise" baseFrequency="0.09 0.5" numOctaves="3" seed="4"/>
    <feColorMatrix values="0 0 0 0 0.4  0 0 0 0 0.33  0 0 0 0 0.2  0.4 0.2 0 0 -0.2"/>
    <feComposite in2="SourceAlpha" operator="in"/>
  </filter>
  <filter id="ink" x="-0.1" y="-0.1" width="1.2" height="1.2">
    <feTurbulence type="fractalNoise" baseFrequency="0.12" numOctaves="2" seed="9"/>
    <feColorMatrix values="1 0 0 0 0  0 1 0 0 0  0 0 1 0 0  0 0 0 0 1" result="rough"/>
    <feDisplacementMap in="SourceGraphic" in2="rough" scale="3" xChannelSelector="R" yChannelSelector="G"/>
  </filter>
</defs>
<rect width="${WIDTH}" height="${HEIGHT}" fill="#8f9a93"/>
<rect width="${WIDTH}" height="${HEIGHT}" filter="url(#fibre)" opacity="0.35"/>
${LABELS.map((label) => {
  const { outline, hole } = cardOf(label);
  return `<path d="${outline}" fill="#20261f" opacity="0.55" filter="url(#shade)" transform="translate(9 14)"/>
<path d="${outline}${hole}" fill="${label.card}" fill-rule="evenodd"/><path d="${outline}${hole}" fill="${label.card}" fill-rule="evenodd" filter="url(#fibre)" opacity="0.7"/>
<path d="${outline}" fill="none" stroke="#fffaf0" stroke-width="3" opacity="0.7" transform="translate(1 1)"/>
<path d="${hole}" fill="none" stroke="#9a8a66" stroke-width="7"/>`;
}).join('\n')}
<g filter="url(#ink)" fill="none" stroke="#22315c" stroke-width="${PEN}" stroke-linecap="round" stroke-linejoin="round">${STROKES.flatMap((w) => w.shapes).map((s) => `<path d="${s.d}"/>`).join('')}</g>
</svg>`,
};
