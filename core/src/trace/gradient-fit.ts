import type { Gradient, Stop } from '../art/paint';
import { rgbToCielab } from '../colour/cielab';
import { deltaE2000 } from '../colour/difference';
import { formatHex, type Rgb } from '../colour/srgb';
import type { Affine } from '../geometry/affine';
import { solveLinear } from '../geometry/linear';
import type { Raster } from '../picture/raster';
import { borderBlur, type ToneWish } from './body-tone';
import { pixelsIn, regionOf } from './region';

// A gradient laid under a shape so that it comes as near to the picture as one can, by least squares in sRGB: there its
// colours run over into each other (SVG 2, section 14.2.2).

/** A gradient in pixels of the raster, and how near it comes. */
export interface FittedGradient {
  readonly gradient: Gradient;
  /** Mean ΔE (CIEDE2000) of the picture from it, and from the one colour that comes nearest. */
  readonly deltaE: number;
  readonly flatDeltaE: number;
}

interface Pixel {
  readonly x: number;
  readonly y: number;
  readonly colour: Rgb;
}

const FITTED_PIXELS = 1500;
/** Fewer pixels than this tell no gradient. */
const FEWEST_PIXELS = 12;
/** Stops that a gradient may get; another one has to make the fit nearer by this share. */
const FEWEST_FITTED_STOPS = 2;
const MOST_FITTED_STOPS = 5;
const WORTH_A_STOP = 0.12;
/** Pulls a stop that no pixel speaks for towards its neighbours. */
const TIED = 1e-6;
/** A sum of squares that is lost in the rounding to bytes, for each pixel. */
const ROUNDING = 3 * (0.5 / 255) ** 2;
/** Rounds in which the middle of a radial gradient is moved, and by what share of its radius at first. */
const MIDDLE_ROUNDS = 40;
const FIRST_MOVE = 0.35;
const WAYS = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [0.7, 0.7],
  [-0.7, -0.7],
  [0.7, -0.7],
  [-0.7, 0.7],
] as const;

/** Colours of stops evenly from 0 to 1, by least squares over pixels at `t`, and the sum of squares that is left. */
function stopsFor(
  pixels: readonly Pixel[],
  t: readonly number[],
  count: number,
): { colours: Rgb[]; left: number } | null {
  const rows = Array.from({ length: count }, () => new Array<number>(count).fill(0));
  const right = [0, 1, 2].map(() => new Array<number>(count).fill(0));
  const placed = t.map((at) => {
    const place = Math.min(1, Math.max(0, at)) * (count - 1);
    const low = Math.min(count - 2, Math.floor(place));
    return { low, share: place - low };
  });
  placed.forEach(({ low, share }, i) => {
    const [a, b] = [1 - share, share];
    rows[low]![low]! += a * a;
    rows[low]![low + 1]! += a * b;
    rows[low + 1]![low]! += a * b;
    rows[low + 1]![low + 1]! += b * b;
    for (let c = 0; c < 3; c++) {
      right[c]![low]! += a * pixels[i]!.colour[c]!;
      right[c]![low + 1]! += b * pixels[i]!.colour[c]!;
    }
  });
  const tie = TIED * pixels.length;
  for (let k = 0; k + 1 < count; k++) {
    rows[k]![k]! += tie;
    rows[k + 1]![k + 1]! += tie;
    rows[k]![k + 1]! -= tie;
    rows[k + 1]![k]! -= tie;
  }
  const channels = right.map((values) => solveLinear(rows, values));
  if (channels.some((c) => c === null)) return null;
  const colours = Array.from(
    { length: count },
    (_, k) => channels.map((c) => Math.min(1, Math.max(0, c![k]!))) as unknown as Rgb,
  );
  let left = 0;
  placed.forEach(({ low, share }, i) => {
    for (let c = 0; c < 3; c++)
      left += ((1 - share) * colours[low]![c]! + share * colours[low + 1]![c]! - pixels[i]!.colour[c]!) ** 2;
  });
  return { colours, left };
}

/** As few stops as hold the pixels. */
function fewestStops(
  pixels: readonly Pixel[],
  t: readonly number[],
): { colours: Rgb[]; left: number } | null {
  let best = stopsFor(pixels, t, FEWEST_FITTED_STOPS);
  for (let count = FEWEST_FITTED_STOPS + 1; best && count <= MOST_FITTED_STOPS; count++) {
    const next = stopsFor(pixels, t, count);
    const gain = next ? best.left - next.left : 0;
    if (next && gain > Math.max(WORTH_A_STOP * best.left, ROUNDING * pixels.length)) best = next;
  }
  return best;
}

interface Fit {
  readonly kind: Gradient['kind'];
  readonly placement: Affine;
  readonly t: readonly number[];
  readonly colours: readonly Rgb[];
  readonly left: number;
}

const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;

/** Along the direction in which the colours change most: the main axis of the slopes of the three channels. */
function linearFit(pixels: readonly Pixel[]): Fit | null {
  const [mx, my] = [mean(pixels.map((p) => p.x)), mean(pixels.map((p) => p.y))];
  const rows = [
    [pixels.length, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (const { x, y } of pixels) {
    rows[1]![1]! += (x - mx) ** 2;
    rows[1]![2]! += (x - mx) * (y - my);
    rows[2]![2]! += (y - my) ** 2;
  }
  rows[2]![1] = rows[1]![2]!;
  let [xx, xy, yy] = [0, 0, 0];
  for (let c = 0; c < 3; c++) {
    const slope = solveLinear(rows, [
      pixels.reduce((s, p) => s + p.colour[c]!, 0),
      pixels.reduce((s, p) => s + (p.x - mx) * p.colour[c]!, 0),
      pixels.reduce((s, p) => s + (p.y - my) * p.colour[c]!, 0),
    ]);
    if (!slope) return null;
    xx += slope[1]! ** 2;
    xy += slope[1]! * slope[2]!;
    yy += slope[2]! ** 2;
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  const along = pixels.map(({ x, y }) => (x - mx) * ux + (y - my) * uy);
  const [low, high] = [Math.min(...along), Math.max(...along)];
  const long = high - low;
  if (!(long > 0)) return null;
  const t = along.map((v) => (v - low) / long);
  const stops = fewestStops(pixels, t);
  if (!stops) return null;
  const from = [mx + low * ux, my + low * uy] as const;
  return { kind: 'linear', placement: [ux * long, uy * long, -uy * long, ux * long, ...from], t, ...stops };
}

/** About a middle that is looked for: begun in the middle of the pixels, moved while the fit comes nearer. */
function radialFit(pixels: readonly Pixel[]): Fit | null {
  const at = (x: number, y: number): Fit | null => {
    const far = pixels.map((p) => Math.hypot(p.x - x, p.y - y));
    const radius = Math.max(...far);
    if (!(radius > 0)) return null;
    const t = far.map((d) => d / radius);
    const stops = stopsFor(pixels, t, 3);
    return stops && { kind: 'radial', placement: [radius, 0, 0, radius, x, y], t, ...stops };
  };
  let best = at(mean(pixels.map((p) => p.x)), mean(pixels.map((p) => p.y)));
  if (!best) return null;
  let move = FIRST_MOVE * best.placement[0];
  for (let round = 0; round < MIDDLE_ROUNDS; round++) {
    const [x, y] = [best.placement[4], best.placement[5]];
    let nearer: Fit = best;
    for (const [ux, uy] of WAYS) {
      const [dx, dy] = [ux * move, uy * move];
      const next = at(x + dx, y + dy);
      if (next && next.left < nearer.left) nearer = next;
    }
    if (nearer === best) move /= 2;
    best = nearer;
  }
  const stops = fewestStops(pixels, best.t);
  return stops && { ...best, ...stops };
}

const colourAt = ({ colours }: Fit, t: number): Rgb => {
  const place = Math.min(1, Math.max(0, t)) * (colours.length - 1);
  const low = Math.min(colours.length - 2, Math.floor(place));
  return [0, 1, 2].map((c) => colours[low]![c]! + (place - low) * (colours[low + 1]![c]! - colours[low]![c]!)) as unknown as Rgb; // prettier-ignore
};

/**
 * The gradient that comes nearest to what a shape shows of a picture, linear or radial, with two to five stops. The border is
 * left out by the picture's blur there, as for a body tone.
 *
 * @returns null where too little of it is open on the picture to tell
 */
export function fitGradient(raster: Raster, { outlines, covers }: ToneWish): FittedGradient | null {
  const region = regionOf(outlines, covers, raster);
  if (!region || region.open === 0) return null;
  let inset = 2 * borderBlur(raster, outlines);
  let places = pixelsIn(raster, region, inset, FITTED_PIXELS);
  while (places.length < FEWEST_PIXELS && inset > 0.2)
    places = pixelsIn(raster, region, (inset /= 2), FITTED_PIXELS);
  if (places.length < FEWEST_PIXELS) return null;
  const { data, width } = raster;
  const pixels = places.map((at): Pixel => {
    const i = 4 * at;
    return {
      x: (at % width) + 0.5,
      y: Math.floor(at / width) + 0.5,
      colour: [data[i]! / 255, data[i + 1]! / 255, data[i + 2]! / 255],
    };
  });
  const [linear, radial] = [linearFit(pixels), radialFit(pixels)];
  // A radial one has to be clearly nearer: it bends everything that is straight.
  const fit = !linear || (radial && radial.left < 0.9 * linear.left) ? radial : linear;
  if (!fit) return null;
  const labs = pixels.map((p) => rgbToCielab(p.colour));
  const flat = rgbToCielab([0, 1, 2].map((c) => mean(pixels.map((p) => p.colour[c]!))) as unknown as Rgb);
  const stops = fit.colours.map((colour, k): Stop => ({
    at: k / (fit.colours.length - 1),
    colour: { hex: formatHex(colour) },
    opacity: 1,
  }));
  return {
    gradient: { kind: fit.kind, placement: fit.placement, stops },
    deltaE: mean(labs.map((lab, i) => deltaE2000(lab, rgbToCielab(colourAt(fit, fit.t[i]!))))),
    flatDeltaE: mean(labs.map((lab) => deltaE2000(lab, flat))),
  };
}
