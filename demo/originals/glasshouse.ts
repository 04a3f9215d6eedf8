import { ellipse, type Original } from './original';

// The front of the seed room: a white iron glasshouse on a brick plinth. Its lines are the middles of its bars; of what
// is the same on both sides the left half is drawn.

export const GLASSHOUSE_SIZE = { width: 2000, height: 1600 } as const;
const { width: WIDTH, height: HEIGHT } = GLASSHOUSE_SIZE;

/** The middle of the front, and how wide its bars are, in picture pixels. */
export const MIDDLE = 1000;
export const BAR = 24;
/** The rose in the gable: its centre and how many petals it has. */
export const ROSE = { x: MIDDLE, y: 574, petals: 8 } as const;

const HALVES = [
  ['House', 'M1000 296C818 326 540 500 400 800L400 1316L1000 1316'],
  ['Eaves', 'M400 800L1000 800'],
  ['Roof bar', 'M1000 424C880 470 742 620 690 800'],
  ['Outer mullion', 'M545 800L545 1316'],
  ['Inner mullion', 'M690 800L690 1316'],
  ['Transom', 'M400 1030L836 1030'],
  ['Door', 'M836 1316L836 1060C836 964 908 902 1000 902'],
  ['Door pane', 'M892 1316L892 1068C892 1002 936 958 1000 958'],
  ['Step', 'M352 1316L352 1400L1000 1400'],
] as const;
const RING = ellipse(ROSE.x, ROSE.y, 104, 104);
const PETAL = 'M1000 540C978 526 974 500 1000 486C1026 500 1022 526 1000 540Z';
const WHOLE = [
  ['Ridge bar', 'M1000 296L1000 424'],
  ['Finial', ellipse(MIDDLE, 252, 30, 30)],
  ['Door middle', 'M1000 958L1000 1316'],
  ['Rose ring', RING],
] as const;

const line = ([name, d]: readonly [string, string]) => {
  const [x, y] = /M(\d+\.?\d*) (\d+\.?\d*)/.exec(d)!.slice(1).map(Number) as [number, number];
  return { name, d, sample: [x, y] as const };
};

const both = (drawn: string): string => `${drawn}<g transform="translate(${2 * MIDDLE} 0) scale(-1 1)">${drawn}</g>`;
const petals = Array.from(
  { length: ROSE.petals },
  (_, k) => `<path d="${PETAL}" transform="rotate(${(360 * k) / ROSE.petals} ${ROSE.x} ${ROSE.y})"/>`,
).join('');
const BARS = `${both(HALVES.filter(([name]) => name !== 'Step').map(([, d]) => `<path d="${d}"/>`).join(''))}${WHOLE.map(([, d]) => `<path d="${d}"/>`).join('')}${petals}`;
const FRONT = 'M1000 296C818 326 540 500 400 800L400 1316L1600 1316L1600 800C1460 500 1182 326 1000 296Z';

/** Brickwork of the plinth. */
const bricks = (): string => {
  const out: string[] = [];
  for (let row = 0; row < 4; row++)
    for (let k = -1; k < 17; k++) {
      const x = 352 + k * 82 + (row % 2) * 41;
      const tone = ['#a4583c', '#b36549', '#98503a', '#ad6a4c'][(k * 7 + row * 3 + 40) % 4];
      out.push(`<rect x="${x}" y="${1318 + row * 21}" width="78" height="18" fill="${tone}"/>`);
    }
  return out.join('');
};

export const GLASSHOUSE: Original = {
  name: 'glasshouse',
  width: WIDTH,
  height: HEIGHT,
  layers: [
    { name: 'Frame', shapes: [...HALVES.map(line), line(WHOLE[0]), line(WHOLE[1]), line(WHOLE[2])] },
    { name: 'Rose', shapes: [line(WHOLE[3]), line(['Petals', PETAL])] },
  ],
  photograph: () => `
<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
<defs>
  <linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#7fa3bd"/><stop offset="1" stop-color="#dbe4df"/></linearGradient>
  <linearGradient id="gravel" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#a99c82"/><stop offset="1" stop-color="#8a7c63"/></linearGradient>
  <linearGradient id="glass" x1="0" y1="0" x2="1" y2="1">
    <stop offset="0" stop-color="#cfe0e2" stop-opacity="0.62"/><stop offset="0.45" stop-color="#8fb0ac" stop-opacity="0.2"/><stop offset="1" stop-color="#28433c" stop-opacity="0.5"/>
  </linearGradient>
  <filter id="far" filterUnits="userSpaceOnUse" x="-200" y="-200" width="2400" height="2000"><feGaussianBlur stdDeviation="34"/></filter>
  <filter id="inside" filterUnits="userSpaceOnUse" x="-200" y="-200" width="2400" height="2000"><feGaussianBlur stdDeviation="13"/></filter>
  <filter id="shade" filterUnits="userSpaceOnUse" x="-200" y="-200" width="2400" height="2000"><feGaussianBlur stdDeviation="7"/></filter>
  <filter id="stones" x="0" y="0" width="100%" height="100%">
    <feTurbulence type="fractalNoise" baseFrequency="0.05 0.09" numOctaves="3" seed="7"/>
    <feColorMatrix values="0 0 0 0 0.2  0 0 0 0 0.17  0 0 0 0 0.12  1.3 0 0 0 -0.5"/>
  </filter>
  <clipPath id="plinth"><rect x="352" y="1316" width="1296" height="84"/></clipPath>
  <clipPath id="front"><path d="${FRONT}"/></clipPath>
</defs>
<rect x="-200" y="-200" width="2400" height="2000" fill="url(#sky)"/>
<g filter="url(#far)">
  <ellipse cx="120" cy="900" rx="420" ry="620" fill="#4f7146"/><ellipse cx="1930" cy="960" rx="380" ry="660" fill="#587a4a"/>
  <ellipse cx="520" cy="1080" rx="330" ry="360" fill="#6f8f57"/><ellipse cx="1500" cy="1100" rx="380" ry="330" fill="#66874f"/>
  <ellipse cx="300" cy="260" rx="260" ry="90" fill="#eef1ea"/><ellipse cx="1560" cy="180" rx="330" ry="80" fill="#e6ebe6"/>
</g>
<rect x="-200" y="1392" width="2400" height="500" fill="url(#gravel)"/>
<rect x="-200" y="1392" width="2400" height="500" filter="url(#stones)" opacity="0.7"/>
<path d="M300 1410C700 1388 1300 1388 1720 1412L1790 1470L240 1470Z" fill="#3a3324" opacity="0.5" filter="url(#shade)"/>
<path d="${FRONT}" fill="#33493f"/>
<g clip-path="url(#front)" filter="url(#inside)">
  <rect x="380" y="280" width="1240" height="1060" fill="#41594a"/>
  <ellipse cx="560" cy="1180" rx="150" ry="210" fill="#4f7d43"/><ellipse cx="760" cy="1230" rx="120" ry="150" fill="#7fa35c"/>
  <ellipse cx="1220" cy="1190" rx="150" ry="190" fill="#3f6b3b"/><ellipse cx="1450" cy="1150" rx="140" ry="240" fill="#5f8d4e"/>
  <path d="M470 1250L650 1250L630 1316L490 1316Z" fill="#a85b39"/><path d="M1360 1240L1540 1240L1520 1316L1380 1316Z" fill="#b4663f"/>
  <circle cx="720" cy="1090" r="34" fill="#d98a3a"/><circle cx="800" cy="1150" r="26" fill="#e0a04a"/><circle cx="1330" cy="1060" r="30" fill="#c7523a"/>
  <ellipse cx="900" cy="640" rx="260" ry="150" fill="#93aa9a"/><ellipse cx="1240" cy="560" rx="200" ry="190" fill="#6f8c7e"/>
  <path d="M620 700L780 520L860 600L700 800Z" fill="#cfdcd8" opacity="0.6"/>
</g>
<path d="${FRONT}" fill="url(#glass)"/>
<g clip-path="url(#front)" fill="#eef5f3" opacity="0.28"><path d="M430 800L560 800L420 1010L400 1010Z"/><path d="M720 1040L830 1040L640 1316L560 1316Z"/><path d="M1250 820L1400 820L1180 1030L1170 930Z"/><path d="M1000 440L1120 520L960 700L860 700Z"/></g>
<rect x="352" y="1316" width="1296" height="84" fill="#6f6353"/><g clip-path="url(#plinth)">${bricks()}</g>
<g fill="none">
  <g stroke="#1d2a22" stroke-width="${BAR}" opacity="0.55" filter="url(#shade)" transform="translate(7 9)">${BARS}</g>
  <g stroke="#f1ecdd" stroke-width="${BAR}" stroke-linejoin="round">${BARS}${both(`<path d="${HALVES[8][1]}"/>`)}</g>
  <g stroke="#fffdf4" stroke-width="6" opacity="0.7" transform="translate(-4 -4)">${BARS}</g>
  <circle cx="${MIDDLE}" cy="252" r="16" fill="#b7c4bd"/>
</g>
</svg>`,
};
