import { deltaE2000 } from '../colour/difference';
import { rgbToCielab } from '../colour/cielab';
import { apart2, settleMiddles } from '../colour/middles';
import { oklabOfBytes, oklabToRgb, type Oklab } from '../colour/oklab';
import type { Rgb } from '../colour/srgb';
import { cubicDerivative, cubicPoint } from '../geometry/cubic';
import { unit } from '../geometry/vector';
import { pathCubics, type Path } from '../path/path';
import type { Raster } from '../picture/raster';
import { pixelsIn, regionOf, type Region } from './region';

/** What a shape shows of a picture. */
export interface ToneWish {
  /** Its outlines in pixels of the raster, holes by the even-odd rule. */
  readonly outlines: readonly Path[];
  /** Outlines of what lies above it. */
  readonly covers: readonly (readonly Path[])[];
  /** Share of its lightest and of its darkest pixels that is left out, each, 0 to 0.45. */
  readonly trim: number;
}

/** One colour of several that a shape's area shows. */
export interface ToneGroup {
  readonly colour: Rgb;
  /** Of the area that is looked at. */
  readonly share: number;
}

/** The middle value of what a shape shows of a picture. Colours are sRGB, 0 to 1. */
export interface BodyTone {
  readonly body: Rgb;
  /** Middle values of what was left out as highlight and as shadow; null where nothing was. */
  readonly light: Rgb | null;
  readonly shade: Rgb | null;
  /** Colours that lie clearly apart in it, the largest first; one where it is of one colour. */
  readonly groups: readonly ToneGroup[];
  /** How many pixels have each lightness, from 0 to 1 in even bins, and between which lightnesses was looked. */
  readonly histogram: readonly number[];
  readonly between: readonly [low: number, high: number];
  /** Share of the shape's area that nothing above it covers. */
  readonly open: number;
  /** How far from the border was looked, pixels. */
  readonly inset: number;
}

/** Pixels that are looked at, at most. */
const MOST_PIXELS = 2500;
/** Pixels that groups of colours are looked for among, at most. */
const MOST_GROUPED = 400;
/** Fewer than this tell no middle: then it is looked nearer to the border. */
const FEWEST_PIXELS = 24;
const BINS = 32;
/** Colours nearer than this to each other are one group, ΔE (CIEDE2000); of less than this share none. */
const GROUPS_APART = 9;
const LEAST_GROUP = 0.12;
/** Rounds in which the middles of groups settle. */
const GROUP_ROUNDS = 8;

/** Pixels to either side of an outline along which its blur is looked for, and places along it. */
const PROFILE = 14;
const PROFILES = 20;
/** A border that is fainter than this says nothing of the blur, OKLab lightness. */
const FAINTEST_STEP = 0.05;
/** From 10 to 90 % of a step blurred by a Gaussian are so many of its standard deviations. */
const RISE_OF_GAUSSIAN = 2.563;
/** Where no border tells the blur. */
const USUAL_BLUR = 1.2;

const lightnessAt = (raster: Raster, x: number, y: number): number | null => {
  const [column, row] = [Math.floor(x), Math.floor(y)];
  if (column < 0 || row < 0 || column >= raster.width || row >= raster.height) return null;
  const i = (row * raster.width + column) * 4;
  if (raster.data[i + 3] === 0) return null;
  return oklabOfBytes(raster.data, i)[0];
};

/** Where a profile reaches a share, between the place before `at` and it. */
function riseAt(
  profile: readonly number[],
  share: (v: number) => number,
  wanted: number,
  at: number,
): number {
  if (at < 1) return at;
  const [before, after] = [share(profile[at - 1]!), share(profile[at]!)];
  return after === before ? at : at - 1 + (wanted - before) / (after - before);
}

function median(list: Iterable<number>): number {
  const values = Float64Array.from(list).sort();
  const m = values.length >> 1;
  return values.length % 2 === 1 ? values[m]! : (values[m - 1]! + values[m]!) / 2;
}

/**
 * The blur of the picture across outlines: the standard deviation of the Gaussian that a sharp border would have been
 * blurred by, pixels; the median over places along them. By the way of the rise from 10 to 90 %, since only a width is wanted.
 */
export function borderBlur(raster: Raster, outlines: readonly Path[]): number {
  const cubics = outlines.flatMap((path) => pathCubics(path));
  const each = Math.max(1, Math.floor(cubics.length / PROFILES));
  const perCubic = Math.max(1, Math.ceil(PROFILES / Math.max(1, cubics.length)));
  const blurs: number[] = [];
  for (let k = 0; k < cubics.length; k += each)
    for (let i = 0; i < perCubic; i++) {
      const cubic = cubics[k]!;
      const t = (i + 0.5) / perCubic;
      const p = cubicPoint(cubic, t);
      const along = unit(cubicDerivative(cubic, t));
      if (!along) continue;
      const profile: number[] = [];
      for (let s = -PROFILE; s <= PROFILE; s++) {
        const value = lightnessAt(raster, p.x - along.y * s, p.y + along.x * s);
        if (value !== null) profile.push(value);
      }
      if (profile.length < 2 * PROFILE) continue;
      const ends = 4;
      const low = median(profile.slice(0, ends));
      const high = median(profile.slice(-ends));
      if (Math.abs(high - low) < FAINTEST_STEP) continue;
      const share = (v: number): number => (v - low) / (high - low);
      const last = profile.findLastIndex((v) => share(v) < 0.1);
      const first = profile.findIndex((v) => share(v) > 0.9);
      if (first > last)
        blurs.push(
          (riseAt(profile, share, 0.9, first) - riseAt(profile, share, 0.1, last + 1)) / RISE_OF_GAUSSIAN,
        );
    }
  return blurs.length === 0 ? USUAL_BLUR : median(blurs);
}

/** OKLab values of the pixels of a region at least so deep in it. */
const coloursIn = (raster: Raster, region: Region, inset: number): Oklab[] =>
  pixelsIn(raster, region, inset, MOST_PIXELS).map((pixel) => oklabOfBytes(raster.data, 4 * pixel));

/** As many of a list as `most`, evenly over it. */
function everyOf<T>(list: readonly T[], most: number): readonly T[] {
  const every = Math.ceil(list.length / most);
  return every <= 1 ? list : list.filter((_, i) => i % every === 0);
}

/** The middle of colours, channel by channel. */
const middleOf = (colours: readonly Oklab[]): Rgb =>
  oklabToRgb([0, 1, 2].map((c) => median(colours.map((v) => v[c]!))) as unknown as Oklab);

/** Colours that lie apart, by k-means in OKLab from two to four middles, merged while two are near each other. */
function groupsOf(colours: readonly Oklab[]): ToneGroup[] {
  // Begun from the colour nearest to the middle, then each time from the one farthest from all so far.
  const byLightness = [...colours].sort((a, b) => a[0] - b[0]);
  const first: Oklab[] = [byLightness[byLightness.length >> 1]!];
  while (first.length < 4) {
    let [farthest, most] = [first[0]!, -1];
    for (const colour of colours) {
      const near = Math.min(...first.map((m) => apart2(colour, m)));
      if (near > most) [farthest, most] = [colour, near];
    }
    first.push(farthest);
  }
  const { middles, owners } = settleMiddles(colours, first, GROUP_ROUNDS);
  let groups = middles
    .map((_, k) => colours.filter((_c, i) => owners[i] === k))
    .filter((members) => members.length > 0)
    .map((members) => ({ members, colour: middleOf(members) }));
  for (;;) {
    let pair: [number, number] | null = null;
    let least = GROUPS_APART;
    groups.forEach((a, i) =>
      groups.forEach((b, k) => {
        const apart = k > i ? deltaE2000(rgbToCielab(a.colour), rgbToCielab(b.colour)) : Infinity;
        if (apart < least) [pair, least] = [[i, k], apart];
      }),
    );
    if (!pair) break;
    const [i, k] = pair as [number, number];
    const members = [...groups[i]!.members, ...groups[k]!.members];
    groups = [...groups.filter((_, n) => n !== i && n !== k), { members, colour: middleOf(members) }];
  }
  return groups
    .map(({ members, colour }) => ({ colour, share: members.length / colours.length }))
    .filter(({ share }) => share >= LEAST_GROUP)
    .sort((a, b) => b.share - a.share);
}

/**
 * The body tone of a shape: its area minus what lies above it, drawn in from the border by the picture's own blur there, the
 * lightest and darkest pixels left out, then the median of each OKLab channel.
 *
 * @returns null where nothing of the shape is open on the picture: covered, beside it, or over clear pixels only
 */
export function bodyTone(raster: Raster, { outlines, covers, trim }: ToneWish): BodyTone | null {
  const region = regionOf(outlines, covers, raster);
  if (!region || region.open === 0) return null;
  // Two standard deviations past the border a blurred neighbour is a fortieth of what is seen.
  let inset = 2 * borderBlur(raster, outlines) + 0.5;
  let colours = coloursIn(raster, region, inset);
  while (colours.length < FEWEST_PIXELS && inset > 0.2) colours = coloursIn(raster, region, (inset /= 2));
  if (colours.length < FEWEST_PIXELS) colours = coloursIn(raster, region, (inset = 0));
  if (colours.length === 0) return null;
  const sorted = colours.toSorted((a, b) => a[0] - b[0]);
  const cut = Math.min(Math.floor(trim * sorted.length), (sorted.length - 1) >> 1);
  const body = sorted.slice(cut, sorted.length - cut);
  const histogram = new Array<number>(BINS).fill(0);
  for (const [l] of colours) histogram[Math.min(BINS - 1, Math.max(0, Math.floor(l * BINS)))]!++;
  return {
    body: middleOf(body),
    light: cut > 0 ? middleOf(sorted.slice(sorted.length - cut)) : null,
    shade: cut > 0 ? middleOf(sorted.slice(0, cut)) : null,
    groups: groupsOf(everyOf(colours, MOST_GROUPED)),
    histogram,
    between: [body[0]![0], body.at(-1)![0]],
    open: region.open / region.whole,
    inset,
  };
}
