import { ART_VERSION } from './limits';
import type { Art, PlacedPicture, Sheet } from './schema';

// Drawings and pictures as they come, with nothing done to them.

/** What a picture has when nothing was done to it. */
export const PLAIN_PICTURE = {
  square: null,
  crop: null,
  view: 'plain',
  tones: { count: 4, bounds: null, smooth: 2 },
  veil: false,
  credit: { source: '', author: '', licence: '', address: '' },
} as const;

/** A grid when none was asked for: five millimetres, not shown. */
const PLAIN_GRID = { shown: false, step: (5 * 96) / 25.4, hex: '#2f6b4f' } as const;

/** A picture just placed: what is not given is as it comes. */
export const placedPicture = (
  given: Pick<PlacedPicture, 'id' | 'source' | 'name' | 'width' | 'height' | 'placement'> &
    Partial<PlacedPicture>,
): PlacedPicture => ({ shown: true, locked: true, wash: 0, ...PLAIN_PICTURE, ...given });

/** A document with an empty layer and nothing on it. Sizes in sheet pixels. */
export const emptyArt = (sheet: Omit<Sheet, 'ground' | 'ppi'>, layerId: string): Art => ({
  version: ART_VERSION,
  sheet: { ...sheet, ground: null, ppi: 300 },
  pictures: [],
  traced: null,
  layers: [
    {
      id: layerId,
      type: 'layer',
      name: 'Drawing',
      shown: true,
      locked: false,
      opacity: 1,
      ink: null,
      children: [],
    },
  ],
  chips: [],
  colourways: [],
  guides: { locked: false, lines: [] },
  grid: PLAIN_GRID,
  axis: null,
  aside: [],
});
