import { rgbToCielab, type Cielab } from '../colour/cielab';
import { deltaE2000 } from '../colour/difference';
import { parseHex } from '../colour/srgb';
import type { Raster } from './raster';

/** How far two pictures of one size differ, place by place. */
export interface ColourDifference {
  readonly width: number;
  readonly height: number;
  /** CIEDE2000, row by row; NaN where one of both shows nothing. */
  readonly deltaE: Float32Array;
  /** Mean of what was compared; NaN where nothing was. */
  readonly mean: number;
  /** Shares of what was compared: of what differs by more than `EYE_CATCHING`, and of all places that were compared. */
  readonly beyond: number;
  readonly compared: number;
}

/** A difference that catches the eye at a glance, ΔE (common practice, no source). */
export const EYE_CATCHING = 5;
/** Pixels less opaque than this lie on the border of what is drawn: they are neither. */
const LEAST_OPACITY = 250;
/** Colours whose CIELAB is kept while two pictures are compared: about as many as a picture has. */
const MOST_KNOWN = 200_000;

/**
 * Compares what is drawn with the picture beneath, pixel by pixel. What is clear in either is left out.
 *
 * @throws RangeError for pictures of unlike size
 */
export function colourDifference(drawn: Raster, picture: Raster): ColourDifference {
  const { width, height } = drawn;
  if (picture.width !== width || picture.height !== height)
    throw new RangeError(`Pictures of one size are compared; they were ${width} × ${height} and ${picture.width} × ${picture.height}.`); // prettier-ignore
  const known = new Map<number, Cielab>();
  const labAt = ({ data }: Raster, i: number): Cielab => {
    const [r, g, b] = [data[i]!, data[i + 1]!, data[i + 2]!];
    const key = (r << 16) | (g << 8) | b;
    let lab = known.get(key);
    if (!lab) {
      if (known.size >= MOST_KNOWN) known.clear();
      known.set(key, (lab = rgbToCielab([r / 255, g / 255, b / 255])));
    }
    return lab;
  };
  const deltaE = new Float32Array(width * height).fill(NaN);
  let [count, sum, beyond] = [0, 0, 0];
  for (let at = 0; at < deltaE.length; at++) {
    const i = 4 * at;
    if (drawn.data[i + 3]! < LEAST_OPACITY || picture.data[i + 3]! < LEAST_OPACITY) continue;
    const far = deltaE2000(labAt(drawn, i), labAt(picture, i));
    deltaE[at] = far;
    sum += far;
    count++;
    if (far > EYE_CATCHING) beyond++;
  }
  return {
    width,
    height,
    deltaE,
    mean: sum / count,
    beyond: beyond / count,
    compared: count / deltaE.length,
  };
}

/** Differences as large as this, ΔE, are drawn darkest. */
export const DARKEST_DIFFERENCE = 20;

/** Paper where nothing differs, over straw and clay to soot: light to dark, so that it reads without colours too. Hex, evenly up to `DARKEST_DIFFERENCE`. */
export const DIFFERENCE_LADDER = ['#fffdf6', '#f0ce82', '#c46034', '#4a1e1e'] as const;

/** A difference as pixels: light where there is little, dark where there is much, clear where nothing was compared. */
export function differencePixels({ width, height, deltaE }: ColourDifference): Raster {
  const data = new Uint8ClampedArray(4 * width * height);
  const ladder = DIFFERENCE_LADDER.map((hex) => parseHex(hex).map((v) => 255 * v));
  deltaE.forEach((far, at) => {
    if (Number.isNaN(far)) return;
    const up = Math.min(1, far / DARKEST_DIFFERENCE) * (ladder.length - 1);
    const step = Math.min(ladder.length - 2, Math.floor(up));
    for (let c = 0; c < 3; c++)
      data[4 * at + c] = ladder[step]![c]! + (up - step) * (ladder[step + 1]![c]! - ladder[step]![c]!);
    data[4 * at + 3] = 255;
  });
  return { width, height, data };
}
