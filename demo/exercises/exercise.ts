import type { OriginalShape } from '../originals/original';

/** A shape of an exercise's truth. */
export interface ExerciseShape extends Pick<OriginalShape, 'name' | 'd'> {
  /** What it is painted with in the picture: its light side and its shaded one; a line's colour twice. */
  readonly paint: readonly [light: string, shade: string];
  /** Width of the line it is drawn by, picture pixels; an area when left out. */
  readonly line?: number;
  /** Its colour is asked for, too. */
  readonly toned?: boolean;
}

/** An exercise and the picture it is done on. */
export interface ExerciseOriginal {
  readonly id: string;
  readonly title: string;
  readonly minutes: number;
  readonly todo: readonly string[];
  readonly aids: readonly string[];
  readonly ground: Ground;
  readonly shapes: readonly ExerciseShape[];
  /** Drawn over the shapes, by no outline of its own: highlights, veins, holes for nails. */
  readonly over?: string;
  /** Blur of the lens, picture pixels. */
  readonly lens?: number;
  /** Where the corners of the scene lie in the picture, clockwise from its top left, if it is seen at an angle. */
  readonly seenAt?: readonly (readonly [x: number, y: number])[];
}

/** What things lie on. */
export type Ground = 'bench' | 'paper' | 'slate' | 'soil';

export const EXERCISE_WIDTH = 1200;
export const EXERCISE_HEIGHT = 900;

const GROUNDS: Readonly<Record<Ground, { light: string; dark: string; grain: string; tint: string }>> = {
  bench: { light: '#c49a6c', dark: '#9d7448', grain: '0.0025 0.11', tint: '0 0 0 0 0.25  0 0 0 0 0.15  0 0 0 0 0.07' },
  paper: { light: '#efe6d2', dark: '#dccfb4', grain: '0.03 0.03', tint: '0 0 0 0 0.45  0 0 0 0 0.38  0 0 0 0 0.28' },
  slate: { light: '#75807f', dark: '#56605f', grain: '0.02 0.05', tint: '0 0 0 0 0.13  0 0 0 0 0.16  0 0 0 0 0.17' },
  soil: { light: '#6b5139', dark: '#4c3826', grain: '0.07 0.07', tint: '0 0 0 0 0.1  0 0 0 0 0.07  0 0 0 0 0.04' },
}; // prettier-ignore

/** The scene as it is photographed: things on their ground, lit from the upper left. */
export function exerciseScene({ ground, shapes, over = '' }: ExerciseOriginal): string {
  const { light, dark, grain, tint } = GROUNDS[ground];
  const [w, h] = [EXERCISE_WIDTH, EXERCISE_HEIGHT];
  const line = (s: ExerciseShape): string =>
    `fill="none" stroke-width="${s.line}" stroke-linecap="round" stroke-linejoin="round"`;
  const painted = shapes.map((s, i) =>
    s.line === undefined
      ? `<path d="${s.d}" fill="url(#paint-${i})" fill-rule="evenodd"/>`
      : `<path d="${s.d}" ${line(s)} stroke="${s.paint[0]}"/>`,
  );
  const shadows = shapes.map((s) =>
    s.line === undefined
      ? `<path d="${s.d}" fill="#1a120a" fill-rule="evenodd"/>`
      : `<path d="${s.d}" ${line(s)} stroke="#1a120a" opacity="0.3"/>`,
  );
  return `
<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}">
<defs>
  <radialGradient id="ground" cx="0.36" cy="0.3" r="0.9"><stop offset="0" stop-color="${light}"/><stop offset="1" stop-color="${dark}"/></radialGradient>
  <filter id="grain" x="0" y="0" width="100%" height="100%">
    <feTurbulence type="fractalNoise" baseFrequency="${grain}" numOctaves="4" seed="23"/>
    <feColorMatrix values="${tint}  1.1 0 0 0 -0.36"/>
  </filter>
  <filter id="shadow" filterUnits="userSpaceOnUse" x="-100" y="-100" width="${w + 200}" height="${h + 200}"><feGaussianBlur stdDeviation="14"/></filter>
  ${shapes.map((s, i) => `<linearGradient id="paint-${i}" x1="0.1" y1="0" x2="0.9" y2="1"><stop offset="0" stop-color="${s.paint[0]}"/><stop offset="1" stop-color="${s.paint[1]}"/></linearGradient>`).join('')}
</defs>
<rect x="-100" y="-100" width="${w + 200}" height="${h + 200}" fill="url(#ground)"/>
<rect x="-100" y="-100" width="${w + 200}" height="${h + 200}" filter="url(#grain)" opacity="0.55"/>
<g filter="url(#shadow)" opacity="0.42" transform="translate(12 18)">${shadows.join('')}</g>
${painted.join('\n')}
${over}
</svg>`;
}
