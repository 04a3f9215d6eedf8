import type { Path } from '../path/path';
import type { Raster } from '../picture/raster';
import { measureDrift, type Follow } from './drift';
import { EDGE_BLUR, type FieldTiles } from './field-tiles';
import type { FieldKind } from './field';

/** Blur with which strokes are looked for when their width is not known. */
const LINE_BLUR = 2.5;
/** How far beside a stroke's middle its ground is looked at, in blurs of the field. */
const BESIDE = 2.5;

/**
 * Blur of a line field for strokes of a width in picture pixels (null when not known): a width / (2 √3) at least, as Steger
 * (1998) asks, and a little more.
 */
export const lineBlur = (width: number | null): number =>
  width === null ? LINE_BLUR : Math.min(20, Math.max(1.2, width / (2 * Math.sqrt(3)) + 0.4));

/** Strokes at least so wide, in picture pixels, are followed by both their borders. */
const WIDE = 6;

/** The field by which something is followed, and the width of the stroke when its borders are. */
export const fieldFor = (
  follow: Follow,
  width: number | null,
): { readonly kind: FieldKind; readonly blur: number; readonly stroke?: number } =>
  follow === 'edge'
    ? { kind: 'edge', blur: EDGE_BLUR }
    : width !== null && width >= WIDE
      ? { kind: 'edge', blur: EDGE_BLUR, stroke: width }
      : { kind: 'line', blur: lineBlur(width) };

/** Lightness of a pixel, 0 to 255, by sRGB's weights; the border's pixels stand for what lies beyond. */
function lightAt({ width, height, data }: Raster, x: number, y: number): number {
  const px = Math.min(width - 1, Math.max(0, Math.floor(x)));
  const py = Math.min(height - 1, Math.max(0, Math.floor(y)));
  const i = (py * width + px) * 4;
  return 0.2126 * data[i]! + 0.7152 * data[i + 1]! + 0.0722 * data[i + 2]!;
}

/**
 * What a path seems to follow when nobody said: a stroke's middle where most of it has both sides alike and the middle
 * unlike them, else the border of an area.
 *
 * @param line a line field of the picture
 * @param path in picture pixels
 */
export function likelyFollow(path: Path, line: FieldTiles, reach: number): Follow {
  const drift = measureDrift(path, line, { reach });
  const { raster, blur } = line;
  const beside = BESIDE * blur;
  let [stroke, border] = [0, 0];
  for (let i = 0; i < drift.value.length; i += 3) {
    const v = drift.value[i]!;
    if (Number.isNaN(v)) continue;
    const light = (o: number): number =>
      lightAt(raster, drift.x[i]! + (v + o) * drift.nx[i]!, drift.y[i]! + (v + o) * drift.ny[i]!);
    const [left, middle, right] = [light(-beside), light(0), light(beside)];
    if (Math.abs(middle - (left + right) / 2) > Math.abs(left - right)) stroke++;
    else border++;
  }
  return stroke > border && stroke * 6 > drift.value.length ? 'middle' : 'edge';
}
