import { cubicDerivative, cubicLength, cubicPoint, type Cubic } from '../geometry/cubic';
import { scale, subtract, unit, type Point } from '../geometry/vector';
import { colourAt, middleColour } from './colour-at';
import { edgeWay, peakAcross } from './edge-peak';
import { acrossAt } from './field-form';
import { tileAbout, type FieldTiles } from './field-tiles';
import { followEdge } from './edge-follow';
import type { Training } from './learnt-edge';
import { leastStrength } from './noise';
import { unlikeness, type Unlikeness } from './unlikeness';

/** So much of what was followed last is learnt from, and places so far apart; pixels of the field. */
const LEARNT_PX = 96;
const APART_PX = 2;
/** Fewer places on an edge teach nothing; about a beginning the edge is learnt from so many to either side. */
const FEWEST = 5;
const ABOUT_BEGINNING = 6;
/** Colours beside an edge are those so far to either side of it: pixels of the field, and blurs of the picture. */
const BESIDE_PX = 2;
const BESIDE_IN_BLURS = 1.6;
/**
 * How much farther a colour may be from the learnt one than most places were, and by how much more it is another's; OKLab with a
 * and b weighted. Edges of fewer than four ΔE are never told apart by it.
 */
const SLACK = 0.04;
const ANOTHER = 0.08;
/** The share of places whose colours are taken to be the edge's own. */
const MOST = 0.8;

/** A stronger edge is looked for so far to either side; nearer than that it is the same one; pixels of the field. */
const NEAR_PX = 8;
const SAME_PX = 2.5;
/** The share of places with a stronger edge beside them from which on there is something to be kept from. */
const CROWDED = 0.25;

/** A place on the edge and the unit way to the left of it, as seen on screen. */
interface Place {
  readonly at: Point;
  readonly left: Point;
}

/** Whether a stronger edge lies close beside a place on one, that way or the other. */
function isBesideStronger(field: FieldTiles, { at, left }: Place): boolean {
  const { off, strength } = peakAcross(field, at, left, NEAR_PX);
  return Math.abs(off) > SAME_PX && strength > acrossAt(field, Math.floor(at.x), Math.floor(at.y)).strength;
}

/** Whether a stronger edge lies close beside the one at a pixel, whole numbers. */
export function isPixelBesideStronger(field: FieldTiles, { x, y }: Point): boolean {
  const { nx, ny } = acrossAt(field, x, y);
  return isBesideStronger(field, { at: { x: x + 0.5, y: y + 0.5 }, left: { x: nx, y: ny } });
}

/** Whether a stronger edge runs along close by: an edge that stands alone is followed whatever its colours become. */
const isCrowded = (field: FieldTiles, places: readonly Place[]): boolean =>
  places.filter((place) => isBesideStronger(field, place)).length >= CROWDED * places.length;

const isOnPicture = ({ raster: { width, height } }: FieldTiles, { x, y }: Point): boolean =>
  x >= 0 && y >= 0 && x < width && y < height;

/** Places along the segments drawn last, the last first. */
function placesDrawn(drawn: readonly Cubic[]): Place[] {
  const out: Place[] = [];
  let still = LEARNT_PX;
  for (let s = drawn.length - 1; s >= 0 && still > 0; s--) {
    const c = drawn[s]!;
    const n = Math.ceil(cubicLength(c) / APART_PX);
    for (let k = n; k >= 0 && still > 0; k--, still -= APART_PX) {
      const way = unit(cubicDerivative(c, k / Math.max(1, n)));
      if (way) out.push({ at: cubicPoint(c, k / Math.max(1, n)), left: { x: way.y, y: -way.x } });
    }
  }
  return out;
}

/** Places along the edge about a beginning: which side is which is not known there, but the same all along. */
function placesAbout(field: FieldTiles, at: Point): Place[] {
  const way = edgeWay(field, at);
  if (!way) return [];
  const back = followEdge(field, at, scale(way, -1), ABOUT_BEGINNING, []).reverse();
  const line = [...back, at, ...followEdge(field, at, way, ABOUT_BEGINNING, back)];
  return line.flatMap((p, i) => {
    const along = unit(subtract(line[Math.min(line.length - 1, i + 1)]!, line[Math.max(0, i - 1)]!));
    return along ? [{ at: p, left: { x: along.y, y: -along.x } }] : [];
  });
}

/**
 * Learns what the edge looks like that has been followed so far, so that the wire keeps to it beside a stronger one: the
 * colours on its two sides. Source: Mortensen and Barrett, "Intelligent scissors for image composition" (1995), training on
 * the fly; "Interactive segmentation with intelligent scissors" (1998), inside and outside pixel values.
 *
 * @param field an edge field
 * @param drawn the segments drawn so far, in the field's pixels; where none lies on an edge the beginning teaches
 * @param from where the wire begins
 * @returns null where there is no edge to learn from, or no stronger one close by
 */
export function trainWire(field: FieldTiles, drawn: readonly Cubic[], from: Point): Training | null {
  const { raster } = field;
  const onEdge = ({ at }: Place): boolean =>
    isOnPicture(field, at) &&
    acrossAt(field, Math.floor(at.x), Math.floor(at.y)).strength >= leastStrength(field, at);
  const followed = placesDrawn(drawn).filter(onEdge);
  const oriented = followed.length >= FEWEST;
  const places = oriented ? followed : placesAbout(field, from).filter(onEdge);
  if (places.length < FEWEST || !isCrowded(field, places)) return null;
  const beside = Math.max(BESIDE_PX, BESIDE_IN_BLURS * tileAbout(field, from).seen);
  const side = (sign: 1 | -1): Unlikeness => {
    const spots = places.map(({ at, left }) => ({ x: at.x + sign * beside * left.x, y: at.y + sign * beside * left.y })); // prettier-ignore
    const unlike = unlikeness(raster, middleColour(spots.map((p) => colourAt(raster, p))));
    const usual = spots.map((p) => unlike(p.x, p.y)).sort((a, b) => a - b)[Math.floor(MOST * (spots.length - 1))]!; // prettier-ignore
    return (x, y) => Math.min(1, Math.max(0, (unlike(x, y) - usual - SLACK) / ANOTHER));
  };
  return { beside, left: side(1), right: side(-1), oriented };
}
