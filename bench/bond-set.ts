// Outlines made for the bench of the bond alone, and the conditions under which each is photographed: seeds fixed, none of
// them used to set a constant of the core by its own figures.
import sharp from 'sharp';
import {
  fieldTiles,
  FINEST_BLUR,
  parsePathData,
  reachLevel,
  rgbToOklab,
  seeded,
  transformPath,
  widen,
  type FieldTiles,
  type Oklab,
  type Path,
  type Point,
  type Raster,
  type ReachField,
  type Rgb,
} from '@mirrot/core';
import { enlarged, painted, photographed, type Area, type Levels } from '../core/src/trace/testing';

export const SIDE = 440;

const OUTLINES: readonly (readonly [name: string, data: string])[] = [
  ['disc', 'M370 220C370 303 303 370 220 370C137 370 70 303 70 220C70 137 137 70 220 70C303 70 370 137 370 220Z'],
  ['egg', 'M352 176C386 246 340 338 258 366C172 396 92 346 84 258C76 176 142 84 226 74C290 66 330 130 352 176Z'],
  ['leaf', 'M84 372C46 226 120 96 372 62C402 226 300 372 84 372Z'],
  ['pot', 'M86 112L358 112L316 352C270 378 170 378 124 352Z'],
  ['star', 'M220 48L262 166L386 170L288 246L322 366L220 296L118 366L152 246L54 170L178 166Z'],
  ['tile', 'M98 154L322 82L366 300L142 372Z'],
  ['wave', 'M70 150C150 60 230 250 370 120L386 300C250 390 180 220 62 324Z'],
  ['bloom', 'M220 60C260 60 280 130 250 170C300 140 372 160 372 206C372 250 300 262 262 240C300 280 300 352 258 362C216 372 196 300 208 258C180 306 110 318 94 276C80 238 140 204 182 206C130 186 92 130 124 96C156 66 206 116 216 166C200 120 190 60 220 60Z'],
  ['drop', 'M220 52C236 140 344 196 344 276C344 340 288 382 220 382C152 382 96 340 96 276C96 196 204 140 220 52Z'],
  ['moon', 'M284 66C190 78 130 150 130 226C130 306 196 374 290 374C212 420 70 366 70 220C70 96 190 28 284 66Z'],
  ['kidney', 'M120 96C210 40 384 92 372 224C362 330 262 392 206 356C160 326 226 270 190 232C148 188 40 150 120 96Z'],
  ['can', 'M130 130L250 130L262 176L352 122C366 116 378 130 370 142L276 262L268 352C230 366 150 366 112 352Z'],
  ['house', 'M96 204L220 84L344 204L344 360L262 360L262 268C262 238 178 238 178 268L178 360L96 360Z'],
  ['bean', 'M104 160C142 64 300 48 354 136C398 212 348 302 286 312C226 322 236 372 170 368C96 362 74 234 104 160Z'],
]; // prettier-ignore

/** So far it is turned and moved, that no side lies on the pixels' grid. */
const placed = (data: string, k: number): Path => {
  const turn = 0.07 + 0.031 * k;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [x, y] = [SIDE / 2, SIDE / 2];
  const scale = 0.9;
  const path = transformPath(parsePathData(data)[0]!, [scale * c, scale * s, -scale * s, scale * c, x - scale * (c * x - s * y) + 0.37, y - scale * (s * x + c * y) - 0.23]); // prettier-ignore
  return { ...path, id: 'truth' };
};
export const truthsOfSet: readonly { readonly name: string; readonly truth: Path }[] = OUTLINES.map(
  ([name, data], k) => ({ name, truth: placed(data, k) }),
);

/** How one condition photographs an outline. */
export interface Condition {
  readonly name: string;
  readonly take: (truth: Path, k: number) => Raster | Promise<Raster>;
  /** Where its borders are: half way in light, but in what was drawn on a screen. */
  readonly light?: 'looks';
  /** Standard deviation of the lens's blur, where the edge lies as it looks is worked out from it. */
  readonly blur: number;
  readonly fill: Levels;
  readonly ground: Levels;
}

const INK: Levels = [46, 84, 70];
const PAPER: Levels = [228, 218, 196];
/** CIELAB L 60 and chroma 22 both, ΔE2000 10.0 apart in hue alone (worked out with culori). */
const HUE_ONE: Levels = [179, 133, 121];
const HUE_OTHER: Levels = [169, 138, 109];
/** ΔE2000 3.0 apart in lightness alone. */
const FAINT_ONE: Levels = [172, 160, 140];
const FAINT_OTHER: Levels = [182, 170, 150];

/** Wood: streaks along x, of uneven width, and a slow change; levels. */
function wood(seed: number, rgb: Levels): (x: number, y: number) => Levels {
  const random = seeded(seed);
  const waves = Array.from({ length: 9 }, () => ({ k: 0.25 + 1.6 * random(), phase: 6.3 * random(), bow: 0.006 + 0.01 * random(), size: 0.5 + random() })); // prettier-ignore
  return (x, y) => {
    let v = 4 * Math.sin(0.02 * x + 0.035 * y);
    for (const { k, phase, bow, size } of waves)
      v += 1.5 * size * Math.sin(k * (y + 6 * Math.sin(bow * x + phase)) + phase);
    return [rgb[0] + v, rgb[1] + v, rgb[2] + v];
  };
}
const WOOD: Levels = [190, 158, 120];

const plain = (
  name: string,
  camera: { blur: number; grain?: number; colourGrain?: number },
  fill = INK,
  ground = PAPER,
): Condition => ({
  name,
  blur: camera.blur,
  fill,
  ground,
  take: (path, k) =>
    photographed(SIDE, SIDE, [{ path, rgb: fill }], ground, { grain: 1, ...camera, seed: 100 + k }),
});

export async function jpeg(raster: Raster, quality: number): Promise<Raster> {
  const { width, height, data } = raster;
  const file = await sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } }).flatten().jpeg({ quality }).toBuffer(); // prettier-ignore
  const { data: back } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width, height, data: new Uint8ClampedArray(back) };
}

const ENLARGED = 5;

export const CONDITIONS: readonly Condition[] = [
  plain('sharp', { blur: 0 }),
  plain('lens 0.7', { blur: 0.7 }),
  plain('lens 1.5', { blur: 1.5 }),
  plain('lens 2.5', { blur: 2.5 }),
  plain('grain', { blur: 0.7, grain: 10, colourGrain: 4 }),
  plain('faint', { blur: 0.8, grain: 1.5, colourGrain: 0.7 }, FAINT_ONE, FAINT_OTHER),
  plain('soft faint', { blur: 2, grain: 1.5, colourGrain: 0.7 }, FAINT_ONE, FAINT_OTHER),
  plain('hue', { blur: 0.8, grain: 1.5, colourGrain: 0.7 }, HUE_ONE, HUE_OTHER),
  plain('soft hue', { blur: 2, grain: 1.5, colourGrain: 0.7 }, HUE_ONE, HUE_OTHER),
  {
    name: 'wood',
    blur: 0.7,
    fill: INK,
    ground: WOOD,
    take: (path, k) =>
      photographed(SIDE, SIDE, [{ path, rgb: INK }], wood(k + 1, WOOD), {
        blur: 0.7,
        grain: 2,
        seed: 100 + k,
      }),
  },
  {
    name: 'JPEG 40',
    blur: 0.7,
    fill: INK,
    ground: PAPER,
    take: (path, k) =>
      jpeg(photographed(SIDE, SIDE, [{ path, rgb: INK }], PAPER, { blur: 0.7, grain: 2, seed: 100 + k }), 40),
  },
  {
    name: 'field blur',
    blur: NaN,
    fill: INK,
    ground: PAPER,
    take: (path, k) =>
      photographed(SIDE, SIDE, [{ path, rgb: INK }], PAPER, { blur: (x) => 0.5 + (3 * x) / SIDE, grain: 2, seed: 100 + k }), // prettier-ignore
  },
  {
    name: 'shadow',
    blur: 0.7,
    fill: INK,
    ground: PAPER,
    take: (path, k) => {
      const cast = photographed(SIDE, SIDE, [{ path: transformPath(path, [1, 0, 0, 1, 9, 13]), rgb: [150, 142, 126] }], PAPER, { blur: 7 }); // prettier-ignore
      const ground = (x: number, y: number): Levels => {
        const i = 4 * (y * SIDE + x);
        return [cast.data[i]!, cast.data[i + 1]!, cast.data[i + 2]!];
      };
      return photographed(SIDE, SIDE, [{ path, rgb: INK }], ground, { blur: 0.7, grain: 2, seed: 100 + k });
    },
  },
  {
    name: 'rim',
    blur: 0.7,
    fill: INK,
    ground: PAPER,
    // A rim of another colour, four pixels wide, lies about it: its outer edge is the stronger one.
    take: (path, k) => {
      const [[rim]] = widen([path], 4, { joins: 'round', miterLimit: 4 }, (n) => `rim${n}`) as [[Path]];
      const areas: Area[] = [
        { path: rim, rgb: [96, 128, 108] },
        { path, rgb: INK },
      ];
      return photographed(SIDE, SIDE, areas, PAPER, { blur: 0.7, grain: 1, seed: 100 + k });
    },
  },
  {
    name: 'enlarged',
    blur: 0.5 * ENLARGED,
    light: 'looks',
    fill: INK,
    ground: PAPER,
    take: (path) => {
      const small = SIDE / ENLARGED;
      const { data } = painted(small, small, [{ path: transformPath(path, [1 / ENLARGED, 0, 0, 1 / ENLARGED, 0, 0]), rgb: INK }], PAPER); // prettier-ignore
      return enlarged({ width: small, height: small, data }, ENLARGED);
    },
  },
];

/** Ground without any edge: whatever is found on it is false. */
export const GROUNDS: readonly { readonly name: string; readonly raster: () => Raster | Promise<Raster> }[] =
  [
    { name: 'grain', raster: () => photographed(SIDE, SIDE, [], PAPER, { grain: 10, colourGrain: 4 }) },
    { name: 'wood', raster: () => photographed(SIDE, SIDE, [], wood(5, WOOD), { blur: 0.7, grain: 2 }) },
    {
      name: 'JPEG',
      raster: () => jpeg(photographed(SIDE, SIDE, [], PAPER, { grain: 4, colourGrain: 2 }), 40),
    },
  ];

/** Lines over a ground, as somebody may draw them where nothing is. */
export const strayLines = (): readonly Path[] => truthsOfSet.map(({ truth }) => ({ ...truth, closed: true }));

/** A rough pass: anchors and handles as a hurried hand leaves them. */
export function roughly(path: Path, size: number, seed: number): Path {
  const random = seeded(seed);
  const off = (): number => size * (2 * random() - 1);
  const moved = (h: Point | null): Point | null => h && { x: h.x + off(), y: h.y + off() };
  return {
    ...path,
    anchors: path.anchors.map((a) => ({ ...a, x: a.x + off(), y: a.y + off(), in: a.kind === 'corner' ? moved(a.in) : a.in, out: a.kind === 'corner' ? moved(a.out) : a.out })), // prettier-ignore
  };
}

/** The colour of a condition's outlines. */
export const filledAs = ({ fill }: Condition): Oklab =>
  rgbToOklab(fill.map((v) => v / 255) as unknown as Rgb);

const finest = new WeakMap<FieldTiles, FieldTiles>();
/** The same picture with the least blur, made where it is asked for. */
export function finestOf(tiles: FieldTiles): FieldTiles {
  let found = finest.get(tiles);
  if (!found) finest.set(tiles, (found = fieldTiles(tiles.raster, 'edge', FINEST_BLUR)));
  return found;
}
/**
 * What Reach looks at, as the worker puts it together: a picture, and the same made smaller by halves.
 *
 * @param far from the last anchor to the pointer, picture pixels
 */
export function pyramid(fields: readonly FieldTiles[], far = 0): ReachField {
  const [fine, ...smaller] = fields as [FieldTiles, ...FieldTiles[]];
  const level = Math.min(smaller.length, reachLevel(1, far));
  const coarse = fields[level]!;
  const ratio = 2 ** level;
  return {
    fine,
    coarse,
    ratio,
    ...(fine.kind === 'edge' && {
      finest: () => ({ fine: finestOf(fine), coarse: finestOf(coarse), ratio }),
      ...(smaller.length > 0 && { halved: () => pyramid(smaller, far / 2) }),
    }),
  };
}
