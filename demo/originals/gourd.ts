import { flattenPath, formatPathData, seeded, deriveFlow, type Path, type Point } from '@mirrot/core';
import { ellipse, type Original, type OriginalShape } from './original';

// A striped gourd on linen by a window. The mosaic's pieces follow its stripes and go round it.

const [WIDTH, HEIGHT] = [2000, 1640];
const MIDDLE = 1010;

/** The right side of the body, from the neck down; the left is its mirror image. */
const SIDE: readonly Point[] = [
  { x: 96, y: 330 },
  { x: 128, y: 430 },
  { x: 208, y: 620 },
  { x: 400, y: 900 },
  { x: 408, y: 1160 },
  { x: 250, y: 1366 },
  { x: 70, y: 1424 },
];
const flowing = (p: Point): Path['anchors'][number] => ({ ...p, kind: 'flowing', in: null, out: null });
const BODY: Path = deriveFlow({
  id: 'body',
  closed: true,
  anchors: [
    ...SIDE.map((p) => flowing({ x: MIDDLE + p.x, y: p.y })),
    ...[...SIDE].reverse().map((p) => flowing({ x: MIDDLE - p.x, y: p.y })),
  ],
});
const OUTLINE = formatPathData([BODY]);

const RIM = flattenPath(BODY, 0.05).filter((p) => p.x >= MIDDLE);
/** Half the body's width at a height. */
function halfAt(y: number): number {
  for (let i = 0; i + 1 < RIM.length; i++) {
    const [a, b] = [RIM[i]!, RIM[i + 1]!];
    if (a.y <= y && b.y > y) return a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y) - MIDDLE;
  }
  return 0;
}

const ROWS = 12;
export const COLUMNS = 7;
const rowAt = (i: number): number => 336 + (1416 - 336) * (i / ROWS) ** 0.92;
const acrossAt = (j: number): number => Math.sin((j / COLUMNS - 0.5) * Math.PI);

/** Corners of the mosaic: on the rim where a row ends, a little off the grid inside. */
const CORNERS: readonly (readonly Point[])[] = (() => {
  const random = seeded(77);
  return Array.from({ length: ROWS + 1 }, (_, i) =>
    Array.from({ length: COLUMNS + 1 }, (_, j) => {
      const rim = j === 0 || j === COLUMNS || i === 0 || i === ROWS;
      const off = (): number => (rim ? 0 : 22 * (random() - 0.5));
      const y = rowAt(i) + off();
      return { x: MIDDLE + halfAt(y) * acrossAt(j) + off(), y };
    }),
  );
})();

const text = (p: Point): string => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`;
const PIECES: readonly OriginalShape[] = Array.from({ length: ROWS * COLUMNS }, (_, n) => {
  const [i, j] = [Math.floor(n / COLUMNS), n % COLUMNS];
  const four = [CORNERS[i]![j]!, CORNERS[i]![j + 1]!, CORNERS[i + 1]![j + 1]!, CORNERS[i + 1]![j]!];
  const mean = (axis: 'x' | 'y'): number => four.reduce((s, p) => s + p[axis], 0) / 4;
  return { name: `Piece ${n + 1}`, d: `M${four.map(text).join('L')}Z`, sample: [mean('x'), mean('y')] };
});

/** A stripe between two meridians, wavy like a grown thing's. */
function stripe(from: number, to: number, seed: number): string {
  const random = seeded(seed);
  const steps = 16;
  const edge = (u: number): Point[] =>
    Array.from({ length: steps + 1 }, (_, k) => {
      const y = 332 + ((1420 - 332) * k) / steps;
      return { x: MIDDLE + halfAt(y) * Math.sin(u * 0.5 * Math.PI) + 16 * (random() - 0.5), y };
    });
  const path: Path = {
    id: 's',
    closed: true,
    anchors: [...edge(from), ...edge(to).reverse()].map((p) => ({ ...p, kind: 'flowing', in: null, out: null })),
  };
  return formatPathData([deriveFlow(path)]);
}
const STRIPES = [[-0.93, -0.78], [-0.62, -0.46], [-0.24, -0.06], [0.14, 0.31], [0.5, 0.66], [0.8, 0.94]].map(
  ([a, b], i) => stripe(a!, b!, 5 + i),
);
const SPECKS = (() => {
  const random = seeded(19);
  return Array.from({ length: 130 }, () => {
    const y = 380 + 1010 * random();
    const x = MIDDLE + halfAt(y) * 0.94 * (2 * random() - 1);
    return `<ellipse cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" rx="${(2 + 6 * random()).toFixed(1)}" ry="${(4 + 9 * random()).toFixed(1)}"/>`;
  }).join('');
})();
const STALK = 'M940 344C938 290 962 250 958 196C955 150 930 128 902 120L912 84C966 92 1006 128 1012 186C1016 238 1046 286 1082 342C1040 362 980 362 940 344Z';

export const GOURD: Original = {
  name: 'gourd',
  width: WIDTH,
  height: HEIGHT,
  layers: [
    { name: 'Mosaic', shapes: PIECES },
    { name: 'Outlines', shapes: [{ name: 'Body', d: OUTLINE, sample: [MIDDLE, 1000] }, { name: 'Stalk', d: STALK, sample: [985, 240] }] },
  ],
  photograph: () => `
<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
<defs>
  <linearGradient id="wall" x1="0" y1="0" x2="1" y2="0.3"><stop offset="0" stop-color="#d8cfbd"/><stop offset="0.5" stop-color="#b9ae9b"/><stop offset="1" stop-color="#8d8474"/></linearGradient>
  <linearGradient id="cloth" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#cbbd9f"/><stop offset="1" stop-color="#e6dcc4"/></linearGradient>
  <radialGradient id="round" cx="0.36" cy="0.46" r="0.72"><stop offset="0" stop-color="#fff" stop-opacity="0.3"/><stop offset="0.42" stop-color="#fff" stop-opacity="0.02"/><stop offset="0.7" stop-color="#1c1608" stop-opacity="0.28"/><stop offset="1" stop-color="#120d04" stop-opacity="0.68"/></radialGradient>
  <linearGradient id="stalk" x1="0" y1="0" x2="1" y2="0"><stop offset="0" stop-color="#8a7146"/><stop offset="0.4" stop-color="#6b5632"/><stop offset="1" stop-color="#3a2d18"/></linearGradient>
  <filter id="far"><feGaussianBlur stdDeviation="26"/></filter><filter id="near"><feGaussianBlur stdDeviation="22"/></filter>
  <filter id="glint"><feGaussianBlur stdDeviation="14"/></filter><filter id="soft"><feGaussianBlur stdDeviation="2.6"/></filter>
  <filter id="weave" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.22 0.42" numOctaves="2" seed="8"/><feColorMatrix values="0 0 0 0 0.3  0 0 0 0 0.24  0 0 0 0 0.14  0.6 0 0 0 -0.24"/></filter>
  <clipPath id="body"><path d="${OUTLINE}"/></clipPath>
</defs>
<rect x="-200" y="-200" width="2400" height="2040" fill="url(#wall)"/>
<g filter="url(#far)"><rect x="90" y="-200" width="420" height="900" fill="#f2ecdc"/><rect x="150" y="-200" width="20" height="900" fill="#a9a08f"/><rect x="300" y="-200" width="16" height="900" fill="#b5ac9b"/><rect x="60" y="420" width="480" height="18" fill="#a9a08f"/><ellipse cx="1730" cy="930" rx="210" ry="260" fill="#6f7f5c"/><rect x="1560" y="1000" width="340" height="240" rx="30" fill="#8b5b3c"/></g>
<rect x="-200" y="1130" width="2400" height="800" fill="url(#cloth)"/><rect x="-200" y="1130" width="2400" height="800" filter="url(#weave)" opacity="0.6"/>
<path d="${ellipse(1160, 1436, 560, 92)}" fill="#2c2412" opacity="0.55" filter="url(#near)"/><path d="${ellipse(1030, 1424, 260, 34)}" fill="#1a1408" opacity="0.7" filter="url(#glint)"/>
<path d="${STALK}" fill="url(#stalk)"/><path d="M962 330C968 270 984 230 978 176" fill="none" stroke="#a88d5c" stroke-width="6" opacity="0.6"/>
<path d="${OUTLINE}" fill="#d8a63c"/>
<g clip-path="url(#body)"><g fill="#39633a" filter="url(#soft)">${STRIPES.map((d) => `<path d="${d}"/>`).join('')}</g><g fill="#f1d27c" opacity="0.6">${SPECKS}</g>
<path d="${OUTLINE}" fill="url(#round)"/><path d="M850 760C800 880 790 1010 830 1120" fill="none" stroke="#fffbe8" stroke-width="54" stroke-linecap="round" opacity="0.4" filter="url(#glint)"/><path d="M935 420C930 470 926 500 918 540" fill="none" stroke="#fffbe8" stroke-width="22" stroke-linecap="round" opacity="0.4" filter="url(#glint)"/>
<path d="M1250 1330C1140 1416 1010 1430 900 1400" fill="none" stroke="#f0d9a0" stroke-width="26" opacity="0.34" filter="url(#glint)"/></g>
</svg>`,
};
