import { ellipse, type Original } from './original';

// An enamel sign of three colours, seen straight on. The photograph shows it small, tilted and at an angle.

const SIZE = 1200;

const PLATE = ellipse(600, 600, 560, 560);
const FIELD = ellipse(600, 600, 480, 480);
/** Where the plate is screwed on: holes in it. */
const SCREWS = [
  [600, 78],
  [600, 1122],
] as const;
const SCREW = 15;
const SUN = 'M360 640C360 508 468 400 600 400C732 400 840 508 840 640Z';
const GROUND = 'M148 764C300 706 460 690 600 690C740 690 900 706 1052 764C990 954 812 1080 600 1080C388 1080 210 954 148 764Z';
/** A gate: two posts with round heads, a rail that sags, five bars. */
const POST_LEFT = 'M292 900L292 470C292 420 372 420 372 470L372 900Z';
const POST_RIGHT = 'M828 900L828 470C828 420 908 420 908 470L908 900Z';
const RAIL = 'M372 560C440 640 760 640 828 560L828 622C760 704 440 704 372 622Z';
const FOOT = 'M372 800L828 800L828 850L372 850Z';
const bar = (x: number, top: number): string =>
  `M${x - 22} 800L${x - 22} ${top}C${x - 22} ${top - 34} ${x + 22} ${top - 34} ${x + 22} ${top}L${x + 22} 800Z`;
const RAYS = [-66, -33, 0, 33, 66]
  .map((degrees) => {
    const turn = (r: number, off: number): string => {
      const a = ((degrees + off - 90) * Math.PI) / 180;
      return `${(600 + r * Math.cos(a)).toFixed(1)} ${(640 + r * Math.sin(a)).toFixed(1)}`;
    };
    return `M${turn(270, -6)}L${turn(390, 0)}L${turn(270, 6)}Z`;
  })
  .join('');

export const GATE_BADGE: Original = {
  name: 'gate-badge',
  width: SIZE,
  height: SIZE,
  layers: [
    {
      name: 'Plate',
      shapes: [
        { name: 'Plate', d: PLATE + SCREWS.map(([x, y]) => ellipse(x, y, SCREW, SCREW)).join(''), sample: [232, 232] },
        { name: 'Field', d: FIELD, sample: [300, 380] },
      ],
    },
    {
      name: 'Scene',
      shapes: [
        { name: 'Rays', d: RAYS, sample: [600, 330] },
        { name: 'Sun', d: SUN, sample: [562, 450] },
        { name: 'Ground', d: GROUND, sample: [600, 960] },
      ],
    },
    {
      name: 'Gate',
      shapes: [
        { name: 'Bars', d: [450, 525, 600, 675, 750].map((x, i) => bar(x, [520, 480, 462, 480, 520][i]!)).join(''), sample: [600, 740] },
        { name: 'Rail', d: RAIL, sample: [500, 640] },
        { name: 'Foot rail', d: FOOT, sample: [560, 826] },
        { name: 'Left post', d: POST_LEFT, sample: [332, 700] },
        { name: 'Right post', d: POST_RIGHT, sample: [868, 700] },
      ],
    },
  ],
  photograph: () => `
<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}" viewBox="0 0 ${SIZE} ${SIZE}">
<defs>
  <linearGradient id="shine" x1="0" y1="0" x2="1" y2="1">
    <stop offset="0.2" stop-color="#fff" stop-opacity="0.22"/><stop offset="0.42" stop-color="#fff" stop-opacity="0.03"/>
    <stop offset="0.5" stop-color="#fff" stop-opacity="0.16"/><stop offset="0.56" stop-color="#fff" stop-opacity="0"/>
    <stop offset="1" stop-color="#000" stop-opacity="0.2"/>
  </linearGradient>
  <filter id="soft"><feGaussianBlur stdDeviation="5"/></filter>
</defs>
<path d="${PLATE}" fill="#ece2c6"/>
<path d="${FIELD}" fill="#23634a"/>
<path d="${RAYS}${SUN}" fill="#d9722e"/>
<path d="${GROUND}" fill="#d9722e"/>
<g fill="#ece2c6"><path d="${[450, 525, 600, 675, 750].map((x, i) => bar(x, [520, 480, 462, 480, 520][i]!)).join('')}"/><path d="${RAIL}"/><path d="${FOOT}"/><path d="${POST_LEFT}"/><path d="${POST_RIGHT}"/></g>
<path d="${ellipse(600, 600, 552, 552)}" fill="none" stroke="#b9ad8c" stroke-width="10" filter="url(#soft)"/>
<path d="${PLATE}" fill="url(#shine)"/>
<g fill="#6d675a">${SCREWS.map(([x, y]) => `<circle cx="${x}" cy="${y}" r="${SCREW}"/><circle cx="${x - 4}" cy="${y - 5}" r="5" fill="#d9d4c6"/>`).join('')}</g>
</svg>`,
};

/** What the sign hangs on: painted boards with a hedge behind, `width` × `height` pixels. */
export const boards = (width: number, height: number): string => `
<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">
<defs>
  <filter id="far" filterUnits="userSpaceOnUse" x="-200" y="-200" width="${width + 400}" height="${height + 400}"><feGaussianBlur stdDeviation="40"/></filter>
  <filter id="paint" x="0" y="0" width="100%" height="100%">
    <feTurbulence type="fractalNoise" baseFrequency="0.05 0.003" numOctaves="4" seed="5"/>
    <feColorMatrix values="0 0 0 0 0.2  0 0 0 0 0.25  0 0 0 0 0.27  1.2 0 0 0 -0.42"/>
  </filter>
  <linearGradient id="board" x1="0" x2="1">
    <stop offset="0" stop-color="#8fa6ad"/><stop offset="0.1" stop-color="#b3c5c9"/><stop offset="0.9" stop-color="#a5b9be"/><stop offset="1" stop-color="#7d949b"/>
  </linearGradient>
  <clipPath id="fence"><rect x="-80" y="190" width="${width + 160}" height="${height}"/></clipPath>
  <filter id="line" filterUnits="userSpaceOnUse" x="-200" y="-200" width="${width + 400}" height="${height + 400}"><feGaussianBlur stdDeviation="3"/></filter>
</defs>
<rect width="${width}" height="${height}" fill="#6d8a58"/>
<g filter="url(#far)">
  <ellipse cx="300" cy="60" rx="420" ry="220" fill="#8aa667"/><ellipse cx="${width - 260}" cy="90" rx="460" ry="200" fill="#4f7242"/>
  <ellipse cx="${width / 2}" cy="20" rx="300" ry="130" fill="#a9bd84"/>
</g>
<g transform="rotate(-1.2 ${width / 2} ${height / 2})">
${Array.from({ length: 9 }, (_, i) => {
  const w = (width + 160) / 9;
  const x = -80 + i * w;
  return `<rect x="${x}" y="190" width="${w - 9}" height="${height}" rx="8" fill="url(#board)"/>`;
}).join('')}
<g clip-path="url(#fence)"><rect x="-80" y="190" width="${width + 160}" height="${height}" filter="url(#paint)" opacity="0.55"/></g>
<g stroke="#35454a" stroke-width="8" opacity="0.8" filter="url(#line)">
${Array.from({ length: 10 }, (_, i) => `<path d="M${-84 + (i * (width + 160)) / 9} 190V${height + 60}"/>`).join('')}
</g>
</g>
</svg>`;
