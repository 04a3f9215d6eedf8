import { ellipse, type Original, type OriginalShape } from './original';

// A grower in a straw hat, invented, in the flat light of the glasshouse. Drawn looking straight ahead: what is said of the
// left half is said of the right one too, unless the light tells them apart.

const [WIDTH, HEIGHT] = [1640, 2000];
const MIDDLE = 820;

/** Path data seen in a mirror on the middle line; it has absolute M, L, C and Z only. */
const mirrored = (d: string): string =>
  d.replace(/(-?[\d.]+) (-?[\d.]+)/g, (_, x: string, y: string) => `${2 * MIDDLE - Number(x)} ${y}`);

const SHIRT = 'M668 1424C566 1466 404 1500 300 1600C214 1690 186 1850 176 2000L1464 2000C1454 1850 1426 1690 1340 1600C1236 1500 1074 1466 972 1424C930 1506 710 1506 668 1424Z';
const SHIRT_SHADE = 'M300 1600C214 1690 186 1850 176 2000L438 2000C420 1880 424 1740 470 1532C408 1548 350 1566 300 1600Z';
const STRAP = 'M478 1512L566 1482L640 1772L548 1772Z';
const BIB = 'M520 1752C700 1774 940 1774 1120 1752L1150 2000L490 2000Z';
const COLLAR = 'M664 1412C640 1446 618 1474 596 1498L738 1632L820 1520C748 1500 700 1470 664 1412Z';
const NECK = 'M706 1170C708 1280 702 1370 664 1424C740 1522 900 1522 976 1424C938 1370 932 1280 934 1170Z';
const NECK_SHADE = 'M704 1214C750 1316 890 1316 936 1214C932 1296 934 1336 946 1388C882 1352 758 1352 694 1388C706 1336 708 1296 704 1214Z';
const HAIR = 'M566 730C492 900 494 1130 552 1246C592 1304 664 1280 668 1196L972 1196C976 1280 1048 1304 1088 1246C1146 1130 1148 900 1074 730Z';
const EAR = 'M604 900C566 862 530 886 538 952C546 1022 582 1068 618 1054Z';
const FACE = 'M592 752C584 900 592 1040 640 1150C684 1246 752 1304 820 1304C888 1304 956 1246 1000 1150C1048 1040 1056 900 1048 752C1040 660 600 660 592 752Z';
const FACE_SHADE = 'M592 752C584 900 592 1040 640 1150C684 1246 752 1304 820 1304C764 1262 716 1184 694 1094C672 1000 676 884 652 700C618 712 594 728 592 752Z';
const CHEEK = 'M930 1012C968 988 1012 992 1024 1026C1016 1078 976 1110 936 1096C912 1070 910 1030 930 1012Z';
const BROW = 'M642 876C678 842 732 838 776 860L771 882C730 866 690 870 652 896Z';
const EYE = 'M652 940C682 906 738 906 768 944C740 966 686 966 652 940Z';
const LID = 'M646 936C680 892 742 892 774 944C738 912 684 912 646 936Z';
const NOSE = 'M838 936C852 1000 876 1052 876 1086C864 1112 800 1116 778 1098C812 1098 836 1090 842 1068C848 1030 838 986 838 936Z';
const UPPER_LIP = 'M736 1166C768 1152 800 1148 820 1160C840 1148 872 1152 904 1166C872 1186 768 1186 736 1166Z';
const LOWER_LIP = 'M736 1166C768 1186 872 1186 904 1166C884 1222 756 1222 736 1166Z';
const BRIM_SHADE = 'M592 752C600 700 1040 700 1048 752L1050 806C990 864 650 864 590 806Z';
const BRIM = 'M232 676C300 560 560 520 820 520C1080 520 1340 560 1408 676C1352 756 1120 798 820 798C520 798 288 756 232 676Z';
const CROWN = 'M552 588C532 400 620 236 820 236C1020 236 1108 400 1088 588C1000 634 640 634 552 588Z';
const CROWN_SHADE = 'M552 588C532 400 620 236 820 236C700 300 650 440 664 614C622 608 586 600 552 588Z';
const BAND = 'M548 500C640 548 1000 548 1092 500L1088 588C1000 634 640 634 552 588Z';

const shape = (name: string, d: string, x: number, y: number): OriginalShape => ({ name, d, sample: [x, y] });
/** A shape and its like on the right, the right one's colour taken at the mirrored place. */
const both = (name: string, d: string, x: number, y: number): OriginalShape[] => [
  shape(`Left ${name}`, d, x, y),
  shape(`Right ${name}`, mirrored(d), 2 * MIDDLE - x, y),
];
const IRIS = ellipse(711, 938, 23, 24);

export const GROWER: Original = {
  name: 'grower',
  width: WIDTH,
  height: HEIGHT,
  layers: [
    {
      name: 'Shoulders',
      shapes: [
        shape('Shirt', SHIRT, 1240, 1800),
        shape('Shirt shade', SHIRT_SHADE, 320, 1760),
        shape('Neck', NECK, 860, 1430),
        shape('Neck shade', NECK_SHADE, 820, 1320),
        ...both('collar', COLLAR, 700, 1540),
        ...both('strap', STRAP, 560, 1620),
        shape('Bib', BIB, 820, 1880),
      ],
    },
    {
      name: 'Head',
      shapes: [
        shape('Hair', HAIR, 540, 1160),
        ...both('ear', EAR, 566, 960),
        shape('Face', FACE, 960, 1160),
        shape('Face shade', FACE_SHADE, 640, 1040),
        shape('Cheek', CHEEK, 970, 1046),
        shape('Brim shade', BRIM_SHADE, 820, 826),
        ...both('brow', BROW, 712, 864),
        ...both('eye', EYE, 676, 938),
        ...both('iris', IRIS, 711, 938),
        ...both('lid', LID, 714, 910),
        shape('Nose shade', NOSE, 856, 1072),
        shape('Upper lip', UPPER_LIP, 820, 1170),
        shape('Lower lip', LOWER_LIP, 820, 1194),
      ],
    },
    {
      name: 'Hat',
      shapes: [
        shape('Brim', BRIM, 1180, 680),
        shape('Crown', CROWN, 920, 420),
        shape('Crown shade', CROWN_SHADE, 610, 440),
        shape('Band', BAND, 900, 580),
      ],
    },
  ],
  photograph: () => {
    const soft = (d: string, fill: string, blur: string, opacity = 1): string =>
      `<path d="${d}" fill="${fill}" opacity="${opacity}" filter="url(#${blur})"/>`;
    const pair = (d: string, fill: string): string =>
      `<path d="${d}" fill="${fill}"/><path d="${mirrored(d)}" fill="${fill}"/>`;
    return `
<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
<defs>
  <linearGradient id="air" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#7d9a72"/><stop offset="0.5" stop-color="#b6c7a4"/><stop offset="1" stop-color="#dfe4cc"/></linearGradient>
  <linearGradient id="straw" x1="0" y1="0" x2="1" y2="0.2"><stop offset="0" stop-color="#c9a65b"/><stop offset="0.55" stop-color="#e2c47e"/><stop offset="1" stop-color="#ecd393"/></linearGradient>
  <linearGradient id="skin" x1="0" y1="0" x2="1" y2="0.1"><stop offset="0" stop-color="#bf8459"/><stop offset="0.6" stop-color="#c98f63"/><stop offset="1" stop-color="#cf966b"/></linearGradient>
  <linearGradient id="cloth" x1="0" y1="0" x2="1" y2="0.2"><stop offset="0" stop-color="#4c6f8c"/><stop offset="1" stop-color="#5a7f9c"/></linearGradient>
  <filter id="far"><feGaussianBlur stdDeviation="34"/></filter><filter id="edge"><feGaussianBlur stdDeviation="1.6"/></filter><filter id="deep"><feGaussianBlur stdDeviation="16"/></filter>
  <filter id="weave" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.05 0.42" numOctaves="2" seed="14"/><feColorMatrix values="0 0 0 0 0.42  0 0 0 0 0.28  0 0 0 0 0.08  0.9 0 0 0 -0.4"/></filter>
  <filter id="thread" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.5 0.18" numOctaves="2" seed="3"/><feColorMatrix values="0 0 0 0 0.1  0 0 0 0 0.16  0 0 0 0 0.24  0.7 0 0 0 -0.34"/></filter>
  <clipPath id="hat"><path d="${BRIM}"/><path d="${CROWN}"/></clipPath><clipPath id="shirt"><path d="${SHIRT}"/></clipPath><clipPath id="face"><path d="${FACE}"/></clipPath>
  <clipPath id="hair"><path d="${HAIR}"/></clipPath>
</defs>
<rect x="-200" y="-200" width="2040" height="2400" fill="url(#air)"/>
<g filter="url(#far)"><rect x="120" y="-200" width="60" height="2400" fill="#eef0e2"/><rect x="1330" y="-200" width="50" height="2400" fill="#eef0e2"/><rect x="-200" y="420" width="2040" height="30" fill="#e6ead6"/><ellipse cx="220" cy="1260" rx="230" ry="320" fill="#4f7a4a"/><ellipse cx="1480" cy="1120" rx="220" ry="380" fill="#5f8c55"/><ellipse cx="1560" cy="700" rx="150" ry="180" fill="#7ba36a"/><circle cx="1410" cy="900" r="52" fill="#c9562b"/><circle cx="1530" cy="1010" r="46" fill="#d2683a"/><circle cx="150" cy="980" r="44" fill="#d9a640"/></g>
<path d="${HAIR}" fill="#4a2f22"/><g clip-path="url(#hair)" stroke="#6b4530" stroke-width="7" opacity="0.5" fill="none"><path d="M560 900C536 1020 548 1140 590 1240"/><path d="M600 960C580 1060 590 1160 628 1250"/><path d="M1080 900C1104 1020 1092 1140 1050 1240"/><path d="M1040 960C1060 1060 1050 1160 1012 1250"/></g>
<path d="${NECK}" fill="#bd8359"/>${soft(NECK_SHADE, '#94603f', 'edge')}
<path d="${SHIRT}" fill="url(#cloth)"/>${soft(SHIRT_SHADE, '#3b5871', 'edge')}<g clip-path="url(#shirt)"><rect width="1640" height="2000" filter="url(#thread)" opacity="0.5"/></g>
${pair(COLLAR, '#6a8fab')}<path d="M664 1412C640 1446 618 1474 596 1498L738 1632" fill="none" stroke="#38546c" stroke-width="5" opacity="0.5"/><path d="M976 1412C1000 1446 1022 1474 1044 1498L902 1632" fill="none" stroke="#38546c" stroke-width="5" opacity="0.5"/>
${pair(STRAP, '#a8552f')}<path d="${BIB}" fill="#b25c34"/><path d="M526 1780C700 1800 940 1800 1114 1780" fill="none" stroke="#d98b5f" stroke-width="6" stroke-dasharray="22 12" opacity="0.8"/><circle cx="594" cy="1760" r="17" fill="#d9c48d"/><circle cx="1046" cy="1760" r="17" fill="#d9c48d"/>
${pair(EAR, '#b67c54')}
<path d="${FACE}" fill="url(#skin)"/>${soft(FACE_SHADE, '#a36d48', 'edge')}
<g clip-path="url(#face)">${soft(CHEEK, '#d98f6c', 'edge')}${soft(BRIM_SHADE, '#8a5a3b', 'edge')}<path d="M770 1232C800 1246 840 1246 870 1232" fill="none" stroke="#a36d48" stroke-width="9" stroke-linecap="round" opacity="0.55" filter="url(#edge)"/></g>
${pair(BROW, '#43291d')}${pair(EYE, '#efe6d8')}${pair(IRIS, '#4f5b36')}<circle cx="718" cy="930" r="6" fill="#fff" opacity="0.8"/><circle cx="936" cy="930" r="6" fill="#fff" opacity="0.8"/>${pair(LID, '#6f4630')}
${soft(NOSE, '#a36d48', 'edge')}
<path d="${UPPER_LIP}" fill="#8f4a3c"/><path d="${LOWER_LIP}" fill="#a95b49"/>
<path d="${BRIM}" fill="url(#straw)"/><path d="${CROWN}" fill="url(#straw)"/>${soft(CROWN_SHADE, '#b48f49', 'edge')}
<path d="M552 588C640 650 1000 650 1088 588C1090 640 1000 676 820 676C640 676 548 640 552 588Z" fill="#7d5f28" opacity="0.45" filter="url(#deep)"/>
<g clip-path="url(#hat)"><rect width="1640" height="820" filter="url(#weave)" opacity="0.55"/></g>
<path d="${BAND}" fill="#7c2f2a"/><path d="M548 500C640 548 1000 548 1092 500" fill="none" stroke="#a4524a" stroke-width="5" opacity="0.6"/>
</svg>`;
  },
};
