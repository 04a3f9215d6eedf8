import { formatPathData, parsePathData, scaling, transformPath } from '@mirrot/core';
import type { Original, OriginalShape } from './original';

// An inked sketch of a packet of poppy seed: single lines that cross, run past each other, and now and then stop short.

/** The sketch is drawn on 1500 × 1900; the scan is so much larger. */
const SCAN = 1.14;
const [WIDTH, HEIGHT] = [1710, 2166];
/** Width of the pen's line in the scan, pixels. */
export const PACKET_PEN = 10;

const [FLOWER_X, FLOWER_Y] = [750, 650];
const at = (angle: number, far: number): string =>
  `${(FLOWER_X + far * Math.cos(angle)).toFixed(1)} ${(FLOWER_Y + far * Math.sin(angle)).toFixed(1)}`;

/** A petal from the seed head out and back to it, a little past its edge at both ends. */
function petal(i: number): string {
  const middle = ((90 + 72 * i) * Math.PI) / 180;
  const [one, other] = [middle - 0.53, middle + 0.53];
  const far = 232 + 14 * Math.sin(2.1 * i + 1);
  return `M${at(one, 58)}C${at(one - 0.28, 168)} ${at(one - 0.02, far + 18)} ${at(middle, far)}C${at(other + 0.04, far + 26)} ${at(other + 0.26, 160)} ${at(other, 57)}`;
}

/** The crimped edge at the top. */
const crimp = `M344 262${Array.from({ length: 14 }, (_, i) => `L${344 + 58 * (i + 0.5)} ${i % 2 === 0 ? 236 : 238}L${344 + 58 * (i + 1)} ${261 + (i % 3)}`).join('')}`;

const LINES: readonly (readonly [name: string, d: string])[] = [
  ['Left side', 'M346 252C338 700 346 1200 336 1654'],
  ['Right side', 'M1154 250C1162 700 1152 1240 1164 1652'],
  ['Foot', 'M326 1641C600 1653 900 1649 1175 1639'],
  ['Crimped edge', crimp],
  ['Fold', 'M336 372C600 385 900 363 1168 376'],
  ['Band', 'M330 1500C620 1513 880 1489 1170 1504'],
  ['Seed head', 'M814 650C814 684 786 710 750 710C714 710 686 684 686 650C686 616 714 590 750 590C786 590 814 616 814 650Z'],
  ...[0, 1, 2, 3, 4].map((i) => [`Petal ${i + 1}`, petal(i)] as const),
  ['Stem left', 'M738 850C744 980 738 1090 730 1198'],
  ['Stem right', 'M764 848C772 980 768 1090 762 1197'],
  ['Leaf above', 'M744 1092C690 1000 604 944 498 930'],
  ['Leaf below', 'M738 1130C640 1116 536 1040 494 933'],
  ['Right leaf above', 'M764 1050C826 970 900 934 1004 928'],
  ['Right leaf below', 'M760 1102C866 1084 968 1030 1007 931'],
  ['Right leaf vein', 'M763 1078C850 1032 920 980 984 944'],
  ['Label', 'M452 1250C452 1216 474 1200 506 1200L996 1196C1030 1196 1050 1214 1050 1248L1052 1370C1052 1406 1030 1422 998 1422L504 1426C470 1426 450 1408 450 1374Z'],
  ['Ruled line', 'M524 1286C660 1278 840 1292 982 1281'],
  ['Ruled line below', 'M526 1348C680 1341 830 1354 980 1344'],
]; // prettier-ignore

const scanned = (d: string): string => formatPathData(parsePathData(d).map((p) => transformPath(p, scaling(SCAN))));
const shapes = LINES.map(([name, d]): OriginalShape => {
  const [, x, y] = /M(-?[\d.]+) (-?[\d.]+)/.exec(d)!.map(Number) as [number, number, number];
  return { name, d: scanned(d), sample: [x * SCAN, y * SCAN] };
});

export const SEED_PACKET: Original = {
  name: 'seed-packet',
  width: WIDTH,
  height: HEIGHT,
  layers: [{ name: 'Ink', shapes }],
  // The noise that roughens the line is opaque: seen through its own opacity it would be half as bright, and shift all of the line.
  photograph: () => `
<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
<defs>
  <filter id="fibre" x="0" y="0" width="1" height="1">
    <feTurbulence type="fractalNoise" baseFrequency="0.03 0.3" numOctaves="3" seed="12"/>
    <feColorMatrix values="0 0 0 0 0.45  0 0 0 0 0.38  0 0 0 0 0.24  0.3 0.2 0 0 -0.18"/>
  </filter>
  <filter id="ink" x="-0.1" y="-0.1" width="1.2" height="1.2">
    <feTurbulence type="fractalNoise" baseFrequency="0.1" numOctaves="2" seed="3"/>
    <feColorMatrix values="1 0 0 0 0  0 1 0 0 0  0 0 1 0 0  0 0 0 0 1" result="rough"/>
    <feDisplacementMap in="SourceGraphic" in2="rough" scale="2.4" xChannelSelector="R" yChannelSelector="G"/>
  </filter>
  <linearGradient id="light" x1="0" y1="0" x2="1" y2="1">
    <stop offset="0" stop-color="#fffaf0" stop-opacity=".5"/><stop offset="1" stop-color="#8d7a52" stop-opacity=".22"/>
  </linearGradient>
</defs>
<rect width="${WIDTH}" height="${HEIGHT}" fill="#efe6d2"/>
<rect width="${WIDTH}" height="${HEIGHT}" filter="url(#fibre)" opacity=".8"/>
<g fill="none" stroke="#77706a" stroke-width="3" opacity=".35" stroke-linecap="round" filter="url(#ink)">
  <path d="M855 180L855 1960M300 741L1420 741M560 1500L560 1200M420 1580L1290 1574"/>
  <path d="M${855 + 292} 741A292 292 0 1 1 ${855 - 292} 741A292 292 0 1 1 ${855 + 292} 741"/>
</g>
<g filter="url(#ink)" fill="none" stroke="#1f2430" stroke-width="${PACKET_PEN}" stroke-linecap="round" stroke-linejoin="round">${shapes.map((s) => `<path d="${s.d}"/>`).join('')}</g>
<path d="M1290 1890c38 14 74 -6 96 22s66 6 92 30" fill="none" stroke="#1f2430" stroke-width="7" opacity=".75" stroke-linecap="round" filter="url(#ink)"/>
<rect width="${WIDTH}" height="${HEIGHT}" fill="url(#light)"/>
</svg>`,
};
