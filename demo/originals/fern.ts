import {
  apply,
  compose,
  cubicPoint,
  cubicTangent,
  formatPathData,
  parsePathData,
  rotation,
  scaling,
  seeded,
  transformPath,
  translation,
  type Cubic,
  type Point,
} from '@mirrot/core';
import type { Original, OriginalShape } from './original';

// A page of a sketchbook: a fern's frond in pencil, with two young ones still rolled up beside it.

const [WIDTH, HEIGHT] = [2000, 1700];

const RIB: Cubic = [
  { x: 430, y: 1560 },
  { x: 620, y: 1060 },
  { x: 980, y: 560 },
  { x: 1600, y: 250 },
];
const STEM = `M430 1560C620 1060 980 560 1600 250`;

/** A leaflet lying along x from its foot at the origin, a hundred long: round at the foot, pointed at the tip. */
const LEAFLET = 'M0 0C6 -13 26 -23 48 -19C70 -15 88 -6 100 2C86 12 66 20 44 18C24 16 6 10 0 0Z';
const VEIN = 'M4 0C34 -3 66 -2 92 2';

interface Leaflet {
  readonly name: string;
  readonly d: string;
  readonly vein: string;
  /** Short strokes of shade across it. */
  readonly hatch: string;
}

const PAIRS = 11;

/** Leaflets in pairs up the rib, longest in the lower middle, leaning to the tip, and one at the end. */
const LEAFLETS: readonly Leaflet[] = (() => {
  const random = seeded(31);
  const made: Leaflet[] = [];
  const put = (name: string, at: Point, angle: number, long: number, side: number): void => {
    const k = long / 100;
    const map = compose(translation(at.x, at.y), compose(rotation(angle), scaling(k, k * side)));
    const moved = (d: string): string => formatPathData(parsePathData(d).map((p) => transformPath(p, map)));
    const hatch = Array.from({ length: Math.round(long / 14) }, (_, i) => {
      const x = 16 + (i * 62) / (long / 14);
      const [a, b] = [
        { x, y: 3 },
        { x: x - 7, y: 13 - Math.abs(x - 45) / 8 },
      ].map((p) => apply(map, p)) as [Point, Point];
      return `M${a.x.toFixed(1)} ${a.y.toFixed(1)}L${b.x.toFixed(1)} ${b.y.toFixed(1)}`;
    }).join('');
    made.push({ name, d: moved(LEAFLET), vein: moved(VEIN), hatch });
  };
  for (let i = 0; i < PAIRS; i++) {
    const t = 0.2 + (0.73 * i) / (PAIRS - 1);
    const along = cubicTangent(RIB, t);
    const way = Math.atan2(along.y, along.x);
    const long = 330 * Math.sin(Math.PI * Math.min(0.98, 0.24 + 0.74 * (i / (PAIRS - 1)))) + 40;
    for (const side of [-1, 1]) {
      const lean = 1.12 - 0.34 * (i / PAIRS) + 0.06 * (random() - 0.5);
      put(`${side < 0 ? 'Left' : 'Right'} leaflet ${i + 1}`, cubicPoint(RIB, t + (side < 0 ? 0 : 0.012)), way + side * lean, long * (0.95 + 0.1 * random()), side);
    }
  }
  const end = cubicTangent(RIB, 1);
  put('Last leaflet', RIB[3], Math.atan2(end.y, end.x), 120, 1);
  return made;
})();

/** A young frond: a stalk that ends in a coil. */
function coil(x: number, y: number, high: number, turns: number, radius: number, side: 1 | -1): string {
  const centre = { x: x + side * radius, y: y - high };
  const points: Point[] = [];
  const steps = Math.round(turns * 8);
  for (let i = 0; i <= steps; i++) {
    const a = Math.PI + side * ((i / 8) * 2 * Math.PI) * 1;
    const r = radius * (1 - (0.86 * i) / steps);
    points.push({ x: centre.x + side * r * Math.cos(side > 0 ? a : -a + Math.PI * 2), y: centre.y + r * Math.sin(a) * side });
  }
  // Catmull and Rom's tangents: smooth through every point.
  const all = [{ x: x - side * 24, y }, { x: x - side * 4, y: y - high * 0.5 }, ...points];
  let d = `M${all[0]!.x.toFixed(1)} ${all[0]!.y.toFixed(1)}`;
  for (let i = 0; i + 1 < all.length; i++) {
    const [a, b, c, e] = [all[Math.max(0, i - 1)]!, all[i]!, all[i + 1]!, all[Math.min(all.length - 1, i + 2)]!];
    const one = { x: b.x + (c.x - a.x) / 6, y: b.y + (c.y - a.y) / 6 };
    const two = { x: c.x - (e.x - b.x) / 6, y: c.y - (e.y - b.y) / 6 };
    d += `C${one.x.toFixed(1)} ${one.y.toFixed(1)} ${two.x.toFixed(1)} ${two.y.toFixed(1)} ${c.x.toFixed(1)} ${c.y.toFixed(1)}`;
  }
  return d;
}
const COILS: readonly OriginalShape[] = [
  { name: 'Young frond', d: coil(170, 1500, 640, 2.1, 112, 1), sample: [170, 1400] },
  { name: 'Small young frond', d: coil(1180, 1560, 360, 1.8, 76, 1), sample: [1180, 1500] },
];

const foot = (d: string): [number, number] => {
  const [, x, y] = /M(-?[\d.]+) (-?[\d.]+)/.exec(d)!.map(Number) as [number, number, number];
  return [x, y];
};

export const FERN: Original = {
  name: 'fern',
  width: WIDTH,
  height: HEIGHT,
  layers: [
    { name: 'Stems', shapes: [{ name: 'Rib', d: STEM, sample: [430, 1560] }, ...COILS] },
    { name: 'Leaflets', shapes: LEAFLETS.map(({ name, d }) => ({ name, d, sample: foot(d) })) },
  ],
  // The noise that roughens the line is opaque: seen through its own opacity it would be half as bright, and shift all of the line.
  photograph: () => `
<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
<defs>
  <filter id="paper" x="0" y="0" width="1" height="1">
    <feTurbulence type="fractalNoise" baseFrequency="0.55 0.6" numOctaves="3" seed="7"/>
    <feColorMatrix values="0 0 0 0 0.34  0 0 0 0 0.3  0 0 0 0 0.24  0.5 0.3 0 0 -0.28"/>
  </filter>
  <filter id="stains" x="0" y="0" width="1" height="1">
    <feTurbulence type="fractalNoise" baseFrequency="0.004" numOctaves="2" seed="12"/>
    <feColorMatrix values="0 0 0 0 0.55  0 0 0 0 0.44  0 0 0 0 0.26  0.5 0 0 0 -0.16"/>
  </filter>
  <filter id="pencil" x="-0.05" y="-0.05" width="1.1" height="1.1">
    <feTurbulence type="fractalNoise" baseFrequency="0.35" numOctaves="2" seed="5"/>
    <feColorMatrix values="1 0 0 0 0  0 1 0 0 0  0 0 1 0 0  0 0 0 0 1" result="rough"/>
    <feDisplacementMap in="SourceGraphic" in2="rough" scale="3.4" xChannelSelector="R" yChannelSelector="G" result="line"/>
    <feTurbulence type="fractalNoise" baseFrequency="0.8" numOctaves="2" seed="21"/>
    <feColorMatrix values="0 0 0 0 0  0 0 0 0 0  0 0 0 0 0  0 0 3.2 0 -0.72" result="grain"/>
    <feComposite in="line" in2="grain" operator="in"/>
  </filter>
</defs>
<rect width="${WIDTH}" height="${HEIGHT}" fill="#f3ecdc"/>
<rect width="${WIDTH}" height="${HEIGHT}" filter="url(#stains)" opacity="0.5"/>
<g filter="url(#pencil)" fill="none" stroke="#2f2f35" stroke-linecap="round" stroke-linejoin="round">
  <g stroke-width="7"><path d="${STEM}"/>${COILS.map((c) => `<path d="${c.d}"/>`).join('')}</g>
  <g stroke-width="5.4">${LEAFLETS.map((l) => `<path d="${l.d}"/>`).join('')}</g>
  <g stroke-width="2.6" opacity="0.7" transform="translate(3 -2)">${LEAFLETS.map((l) => `<path d="${l.d}"/>`).join('')}<path d="${STEM}"/></g>
  <g stroke-width="2.4" opacity="0.75">${LEAFLETS.map((l) => `<path d="${l.vein}"/>`).join('')}</g>
  <g stroke-width="3" opacity="0.5">${LEAFLETS.map((l) => `<path d="${l.hatch}"/>`).join('')}</g>
</g>
<rect width="${WIDTH}" height="${HEIGHT}" filter="url(#paper)" opacity="0.55"/>
</svg>`,
};
