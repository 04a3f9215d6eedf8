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
export const PLAIN_GRID = { shown: false, step: (5 * 96) / 25.4, hex: '#2f6b4f' } as const;

type Loose = Readonly<Record<string, unknown>>;

const isObject = (value: unknown): value is Loose => typeof value === 'object' && value !== null;

/** Steps from each version to the next. */
const STEPS: Readonly<Record<number, (art: Loose) => Loose>> = {
  // 2: pictures can be squared up, cropped and seen by views; a sheet says its ppi for print; there are guides.
  1: (art) => ({
    ...art,
    version: 2,
    guides: { locked: false, lines: [] },
    sheet: isObject(art.sheet) ? { ...art.sheet, ppi: 300 } : art.sheet,
    pictures: Array.isArray(art.pictures)
      ? art.pictures.map((p: unknown) => (isObject(p) ? { ...p, ...PLAIN_PICTURE } : p))
      : art.pictures,
  }),
  // 3: there are a grid, axes, forms, shared anchors and handles of equal length.
  2: (art) => ({ ...art, version: 3, grid: PLAIN_GRID, axis: null }),
  // 4: anchors can be protected; shapes may say what their drift follows.
  3: (art) => ({ ...art, version: 4 }),
  // 5: segments and shapes can be meant so; a shape may remember its place on the picture.
  4: (art) => ({ ...art, version: 5 }),
};

/**
 * Brings a document of an older version to the present one, or to `version`; anything else is given back as it is.
 */
export function migrateArt(value: unknown, version = Infinity): unknown {
  let art = value;
  while (isObject(art) && typeof art.version === 'number' && art.version < version && STEPS[art.version])
    art = STEPS[art.version]!(art);
  return art;
}
