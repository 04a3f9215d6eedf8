import {
  combine,
  groundLight,
  IDENTITY,
  parsePathData,
  pathBounds,
  type ArtNode,
  type Group,
  type Path,
  type PictureNode,
  type Raster,
} from '@mirrot/core';
import { artOf, layerOf, shapeOf } from './makers';
import { ellipse } from './originals/original';
import { WATERING_CAN } from './originals/watering-can';
import type { DemoProject } from './projects';

// A hang tag: the photographed can cut out of its bench, with the shadow it throws, on a tag with a punched hole.

/** What the can is made of: all but the shadow it throws, and what is painted on it. */
const PARTS = ['Handle', 'Spout', 'Rose', 'Face of the rose', 'Body', 'Opening', 'Rim', 'Carry handle'];

/** The tag in picture pixels: cut-off corners at the end it hangs by, a round hole there. */
const TAG = 'M210 300L520 150L2240 150L2240 1660L520 1660L210 1510Z';
const PUNCHED = ellipse(330, 905, 62, 62);

/** Softness of the cut and reach of the shadow, millimetres; the side it lies on, radians from the right. */
const SOFT_MM = 0.1;
const REACH_MM = 9;
const SIDE = Math.PI / 2;
const WIDTH_MM = 120;
const PX_PER_MM = 96 / 25.4;

/** Narrowest hole of the can, picture pixels. */
const SMALLEST_HOLE = 60;

export function canTagProject(picture: Raster): DemoProject {
  const outlines = WATERING_CAN.layers
    .flatMap(({ shapes }) => shapes)
    .filter(({ name }) => PARTS.includes(name))
    .map(({ d }) => parsePathData(d, (n) => `part-${n}`));
  const whole = combine(outlines, 'add', (n) => `can-${n + 1}`);
  // Slivers between the body and its handles are part of the can, not holes to see through.
  const silhouette: Path[] = whole.filter((path) => {
    const { x0, x1 } = pathBounds(path);
    return x1 - x0 > SMALLEST_HOLE;
  });
  const reach = REACH_MM * PX_PER_MM;
  const perPixel = (WIDTH_MM * PX_PER_MM) / WATERING_CAN.width;
  const ground = groundLight(picture, IDENTITY, silhouette, SIDE, reach / perPixel)!;
  const stands = { shown: true, locked: false, opacity: 1 } as const;
  const photo: PictureNode = { id: 'photo', type: 'picture', name: 'watering-can.jpg', picture: 'picture', ...stands }; // prettier-ignore
  const cutout: Group = {
    id: 'can-cut-out',
    type: 'group',
    name: 'Can cut out',
    ...stands,
    clip: 'can',
    edge: {
      by: 0,
      soft: Number((SOFT_MM * PX_PER_MM).toFixed(3)),
      shadow: { side: SIDE, reach: Number(reach.toFixed(3)), ground: Number(ground.toFixed(3)) },
    },
    children: [shapeOf('Can', silhouette, null), photo] satisfies ArtNode[],
  };
  const tag = shapeOf(
    'Tag',
    parsePathData(TAG + PUNCHED, (n) => `tag-${n + 1}`),
    '#e8d9b4',
  );
  const layers = [layerOf('Tag', [tag]), layerOf('Can', [cutout])];
  return { name: 'Can tag', picture: 'watering-can.jpg', art: artOf(WATERING_CAN, WIDTH_MM, layers) };
}
