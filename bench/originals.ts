// The demo's pictures with the shapes whose outline is in sight all round, and how their photograph sees them.
import { join } from 'node:path';
import sharp from 'sharp';
import { homography, parsePathData, project, projectPath, type Path, type Raster } from '@mirrot/core';
import { cornersOf } from '../demo/camera';
import { FERN } from '../demo/originals/fern';
import { GATE_BADGE } from '../demo/originals/gate-badge';
import { BAR, GLASSHOUSE } from '../demo/originals/glasshouse';
import type { Original } from '../demo/originals/original';
import { PEN, PLANT_LABELS } from '../demo/originals/plant-labels';
import { WATERING_CAN } from '../demo/originals/watering-can';
import { BADGE_CORNERS } from '../demo/scene';

export const picturePixels = async (file: string): Promise<Raster> => {
  const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
};
export const pixels = (name: string): Promise<Raster> =>
  picturePixels(join(import.meta.dirname, '..', 'demo', 'pictures', `${name}.jpg`));

const map = homography(cornersOf(GATE_BADGE), BADGE_CORNERS);

export interface Case {
  readonly original: Original;
  readonly shapes: RegExp;
  /** Width of the strokes whose middle is followed; null where borders are. */
  readonly width: number | null;
  readonly through?: (p: Path) => Path;
}

export const CASES: readonly Case[] = [
  { original: WATERING_CAN, shapes: /^(Left leaf|Right leaf|Spout|Carry handle)$/, width: null },
  { original: GATE_BADGE, shapes: /^(Field|Sun|Left post|Right post|Ground)$/, width: null, through: (p) => projectPath(p, (q) => project(map, q)).path }, // prettier-ignore
  { original: FERN, shapes: /^Leaflet (3|5|8|12)$|^Rib$|^Stem$/, width: 6 },
  { original: PLANT_LABELS, shapes: /./, width: PEN },
  { original: GLASSHOUSE, shapes: /mullion|Roof bar|^House$|^Rose ring$/, width: BAR },
];

/** The true outlines of a case, by name. */
export const truths = ({ original, shapes, through = (p) => p }: Case): { name: string; truth: Path }[] =>
  original.layers
    .flatMap((l) => l.shapes)
    .filter((s) => shapes.test(s.name))
    .slice(0, 24)
    .map(({ name, d }) => ({ name, truth: through(parsePathData(d)[0]!) }));
