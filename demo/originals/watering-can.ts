import { ellipse, type Original } from './original';

// An enamelled can on a potting bench. Its true outlines, in picture pixels, are what tracings are measured by.

const WIDTH = 2400;
const HEIGHT = 1800;

const BODY =
  'M792 706C780 880 748 1130 738 1392C820 1476 1500 1476 1582 1392C1572 1130 1540 880 1528 706C1500 790 820 790 792 706Z';
const HANDLE =
  'M1470 716C1600 560 1800 520 1930 612C2080 718 2052 962 1916 1104C1820 1204.2 1690 1270 1540 1290Z' +
  'M1530 806C1640 690 1770 638 1860 700C1950 762 1924 930 1830 1036C1759.5 1115.5 1670 1166 1560 1190Z';
const SPOUT = 'M770 1330C640 1290 560 1180 512 1040C476 935 440 806 372 664L452 616C530 736 590 826 642 900C690 968.3 730 1010 776 1030Z';
const ROSE = 'M268 690C250 640 470 480 516 512C540 552 508 606 456 640L388 684C344 712 294 726 268 690Z';
const FACE = 'M268 690C296 722 540 558 516 512C470 480 250 640 268 690Z';
const CARRY =
  'M880 742C890 520 1010 420 1160 420C1310 420 1430 520 1440 742L1376 752C1362 570 1280 494 1160 494C1040 494 958 570 944 752Z';
const BAND = 'M750 1230C836 1312 1484 1312 1570 1230L1575 1296C1490 1380 830 1380 745 1296Z';
const LEAF_LEFT = 'M1150 1090C1070 1080 990 1020 984 924C1080 926 1146 990 1150 1090Z';
const LEAF_RIGHT = 'M1166 1040C1160 930 1228 860 1330 846C1336 950 1270 1030 1166 1040Z';
const STEM = 'M1140 1190C1150 1090 1150 990 1130 880L1152 876C1176 990 1176 1090 1164 1190Z';

export const WATERING_CAN: Original = {
  name: 'watering-can',
  width: WIDTH,
  height: HEIGHT,
  layers: [
    {
      name: 'Ground',
      shapes: [{ name: 'Shadow', d: 'M680 1420C800 1350 1560 1340 1800 1390C1960 1424 1900 1496 1640 1510C1200 1532 740 1500 680 1420Z', sample: [1700, 1440] }],
    },
    {
      name: 'Can',
      shapes: [
        { name: 'Handle', d: HANDLE, sample: [1960, 800] },
        { name: 'Spout', d: SPOUT, sample: [560, 1000] },
        { name: 'Rose', d: ROSE, sample: [440, 640] },
        { name: 'Face of the rose', d: FACE, sample: [380, 606] },
        { name: 'Body', d: BODY, sample: [1010, 1160] },
        {
          name: 'Body shade',
          d: 'M1392 762C1412 1000 1426 1250 1428 1444C1500 1436 1556 1420 1582 1392C1572 1130 1540 880 1528 706C1512 736 1462 752 1392 762Z',
          sample: [1530, 1180],
        },
        { name: 'Body light', d: 'M962 764C944 1000 932 1240 926 1446L1006 1452C1006 1240 1012 1000 1022 768Z', sample: [985, 1010] },
        { name: 'Band', d: BAND, sample: [1060, 1340] },
        { name: 'Opening', d: ellipse(1160, 706, 368, 84), sample: [1160, 742] },
        { name: 'Rim', d: ellipse(1160, 706, 384, 98) + ellipse(1160, 700, 346, 74), sample: [1100, 797] },
        { name: 'Carry handle', d: CARRY, sample: [1160, 455] },
      ],
    },
    {
      name: 'Sprig',
      shapes: [
        { name: 'Stem', d: STEM, sample: [1150, 1120] },
        { name: 'Left leaf', d: LEAF_LEFT, sample: [1080, 1010] },
        { name: 'Right leaf', d: LEAF_RIGHT, sample: [1250, 940] },
      ],
    },
  ],
  photograph: () => `
<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
<defs>
  <linearGradient id="wall" x1="0" y1="0" x2="0" y2="1">
    <stop offset="0" stop-color="#8fa48a"/><stop offset="0.55" stop-color="#b9c3a2"/><stop offset="1" stop-color="#98a184"/>
  </linearGradient>
  <linearGradient id="bench" x1="0" y1="0" x2="0" y2="1">
    <stop offset="0" stop-color="#8a6a4a"/><stop offset="0.35" stop-color="#b08a60"/><stop offset="1" stop-color="#8d6a47"/>
  </linearGradient>
  <linearGradient id="enamel" x1="0" x2="1">
    <stop offset="0" stop-color="#16474a"/><stop offset="0.16" stop-color="#236a6b"/><stop offset="0.3" stop-color="#4f9c98"/>
    <stop offset="0.37" stop-color="#3b8a88"/><stop offset="0.62" stop-color="#246d6e"/><stop offset="0.86" stop-color="#154a4d"/>
    <stop offset="0.95" stop-color="#123f43"/><stop offset="1" stop-color="#20595b"/>
  </linearGradient>
  <linearGradient id="tube" x1="0.2" y1="0.7" x2="0.75" y2="0.35">
    <stop offset="0" stop-color="#123f43"/><stop offset="0.42" stop-color="#266f70"/><stop offset="0.62" stop-color="#4d9a96"/><stop offset="1" stop-color="#1d5d5f"/>
  </linearGradient>
  <linearGradient id="loop" x1="0" y1="0" x2="1" y2="1">
    <stop offset="0" stop-color="#3d8b89"/><stop offset="0.4" stop-color="#1f6163"/><stop offset="1" stop-color="#123e42"/>
  </linearGradient>
  <linearGradient id="cream" x1="0" x2="1">
    <stop offset="0" stop-color="#b9ac8c"/><stop offset="0.3" stop-color="#f4ecd6"/><stop offset="0.6" stop-color="#ded2b4"/><stop offset="1" stop-color="#9d9174"/>
  </linearGradient>
  <linearGradient id="inside" x1="0" y1="0" x2="0" y2="1">
    <stop offset="0" stop-color="#0c2629"/><stop offset="1" stop-color="#1b4a4d"/>
  </linearGradient>
  <filter id="far" filterUnits="userSpaceOnUse" x="-300" y="-300" width="3000" height="2400"><feGaussianBlur stdDeviation="46"/></filter>
  <filter id="mid" x="-20%" y="-20%" width="140%" height="140%"><feGaussianBlur stdDeviation="22"/></filter>
  <filter id="soft" x="-40%" y="-40%" width="180%" height="180%"><feGaussianBlur stdDeviation="26"/></filter>
  <filter id="gloss" x="-40%" y="-40%" width="180%" height="180%"><feGaussianBlur stdDeviation="9"/></filter>
  <filter id="wood" x="0" y="0" width="100%" height="100%">
    <feTurbulence type="fractalNoise" baseFrequency="0.0016 0.09" numOctaves="4" seed="11"/>
    <feColorMatrix values="0 0 0 0 0.22  0 0 0 0 0.13  0 0 0 0 0.06  1.1 0 0 0 -0.32"/>
  </filter>
  <clipPath id="in-body"><path d="${BODY}"/></clipPath>
  <clipPath id="in-handle"><path d="${HANDLE}" clip-rule="evenodd"/></clipPath>
  <clipPath id="in-spout"><path d="${SPOUT}"/></clipPath>
  <clipPath id="in-carry"><path d="${CARRY}"/></clipPath>
</defs>
<rect x="-200" y="-200" width="${WIDTH + 400}" height="${HEIGHT + 400}" fill="url(#wall)"/>
<g filter="url(#far)">
  <rect x="-300" y="-300" width="3000" height="1700" fill="#a8b694"/>
  <rect x="1180" y="-60" width="560" height="760" fill="#e9edd8"/><rect x="1440" y="-60" width="40" height="760" fill="#9aa68a"/>
  <rect x="1180" y="250" width="560" height="34" fill="#9aa68a"/>
  <ellipse cx="160" cy="420" rx="430" ry="470" fill="#5c7f4a"/><ellipse cx="520" cy="160" rx="240" ry="230" fill="#7d9a5c"/>
  <ellipse cx="2260" cy="420" rx="430" ry="520" fill="#668a54"/><ellipse cx="1980" cy="140" rx="200" ry="180" fill="#88a566"/>
  <ellipse cx="860" cy="700" rx="190" ry="260" fill="#86966a"/>
</g>
<g filter="url(#mid)">
  <path d="M1990 1090L2290 1090L2250 800L2030 800Z" fill="#b4643a"/><rect x="2010" y="770" width="260" height="60" fill="#c67545"/>
  <ellipse cx="2120" cy="640" rx="170" ry="170" fill="#4d7440"/><ellipse cx="2240" cy="560" rx="110" ry="130" fill="#5f8a4b"/>
  <circle cx="330" cy="760" r="80" fill="#c9a24e"/><circle cx="180" cy="860" r="66" fill="#d0b05c"/>
</g>
<rect x="-200" y="1096" width="${WIDTH + 400}" height="${HEIGHT - 1096}" fill="url(#bench)"/>
<rect x="-200" y="1096" width="${WIDTH + 400}" height="${HEIGHT - 1096}" filter="url(#wood)" opacity="0.6"/>
<g stroke="#4b3420" stroke-width="7" opacity="0.55">
  <path d="M0 1246L2400 1240M0 1512L2400 1522" fill="none"/>
</g>
<rect x="-200" y="1080" width="${WIDTH + 400}" height="40" fill="#6b5138" filter="url(#gloss)" opacity="0.7"/>
<path d="M660 1400C740 1340 1500 1330 1780 1372C1990 1404 1950 1500 1660 1518C1240 1540 720 1510 660 1400Z" fill="#2c1d10" opacity="0.7" filter="url(#soft)"/>
<path d="M736 1404C860 1476 1480 1476 1590 1400C1600 1450 1480 1486 1160 1486C840 1486 720 1450 736 1404Z" fill="#1a0f07" opacity="0.85" filter="url(#gloss)"/>
<g>
  <path d="${HANDLE}" fill="url(#loop)" fill-rule="evenodd"/>
  <g clip-path="url(#in-handle)" fill="none" stroke-linecap="round" filter="url(#gloss)">
    <path d="M1490 744C1620 600 1800 560 1906 640C2020 730 2000 930 1880 1070" stroke="#7dbdb6" stroke-width="16" opacity="0.75"/>
    <path d="M1540 1288C1690 1262 1830 1200 1916 1104C2052 962 2080 718 1930 612" stroke="#0b2c2f" stroke-width="26" opacity="0.6"/>
  </g>
  <path d="${SPOUT}" fill="url(#tube)"/>
  <g clip-path="url(#in-spout)" filter="url(#gloss)">
    <path d="M438 634C510 760 590 880 700 1030" fill="none" stroke="#8cc7c0" stroke-width="16" opacity="0.7"/>
    <path d="M380 690C470 900 500 1180 770 1325" fill="none" stroke="#0b2c2f" stroke-width="34" opacity="0.55"/>
    <path d="M800 1000L730 1360" stroke="#0b2c2f" stroke-width="60" opacity="0.5"/>
  </g>
  <path d="${ROSE}" fill="#1f6163"/>
  <path d="${FACE}" fill="#5ea39d"/>
  <g fill="#123f43">
    ${[
      [322, 668], [372, 640], [420, 606], [466, 566], [494, 532], [346, 622], [394, 590], [440, 552], [298, 684],
    ].map(([x, y]) => `<ellipse cx="${x}" cy="${y}" rx="9" ry="6" transform="rotate(-34 ${x} ${y})"/>`).join('')}
  </g>
  <path d="${BODY}" fill="url(#enamel)"/>
  <g clip-path="url(#in-body)">
    <path d="M720 1392C820 1500 1500 1500 1600 1392L1600 1520L720 1520Z" fill="#0b2c2f" opacity="0.55" filter="url(#soft)"/>
    <path d="M1000 800C990 1000 985 1150 980 1230" stroke="#cfe9e2" stroke-width="30" opacity="0.55" fill="none" stroke-linecap="round" filter="url(#gloss)"/>
    <path d="M1556 760C1566 940 1572 1150 1574 1392" stroke="#3b8a88" stroke-width="12" opacity="0.6" fill="none" filter="url(#gloss)"/>
    <path d="M800 760C900 830 1420 830 1520 760L1520 800C1420 872 900 872 800 800Z" fill="#0b2c2f" opacity="0.35" filter="url(#gloss)"/>
  </g>
  <path d="${BAND}" fill="url(#cream)"/>
  <path d="${STEM}" fill="#e7dcc0"/><path d="${LEAF_LEFT}" fill="#e7dcc0"/><path d="${LEAF_RIGHT}" fill="#d9cdae"/>
  <path d="${ellipse(1160, 706, 368, 84)}" fill="url(#inside)"/>
  <path d="M830 706C860 650 1000 634 1160 634C1320 634 1460 650 1490 706C1440 664 1300 650 1160 650C1020 650 880 664 830 706Z" fill="#2d7375" opacity="0.8" filter="url(#gloss)"/>
  <path d="${ellipse(1160, 706, 384, 98)}${ellipse(1160, 700, 346, 74)}" fill="url(#cream)" fill-rule="evenodd"/>
  <path d="M830 746C900 800 1010 796 1080 800" stroke="#fffaf0" stroke-width="7" fill="none" opacity="0.8" stroke-linecap="round" filter="url(#gloss)"/>
  <path d="${CARRY}" fill="url(#enamel)"/>
  <g clip-path="url(#in-carry)" filter="url(#gloss)" fill="none">
    <path d="M906 742C914 548 1026 444 1160 444C1294 444 1406 548 1414 742" stroke="#86c3bc" stroke-width="14" opacity="0.7"/>
    <path d="M944 752C958 570 1040 494 1160 494C1280 494 1362 570 1376 752" stroke="#0b2c2f" stroke-width="22" opacity="0.6"/>
  </g>
</g>
</svg>`,
};
