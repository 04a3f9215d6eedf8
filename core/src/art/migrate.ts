// What a step gives is written out here and never changes again, whatever a new document has today.

const VERSION_2_PICTURE = {
  square: null,
  crop: null,
  view: 'plain',
  tones: { count: 4, bounds: null, smooth: 2 },
  veil: false,
  credit: { source: '', author: '', licence: '', address: '' },
} as const;

const VERSION_3_GRID = { shown: false, step: (5 * 96) / 25.4, hex: '#2f6b4f' } as const;

type Loose = Readonly<Record<string, unknown>>;

const isObject = (value: unknown): value is Loose => typeof value === 'object' && value !== null;

const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

/** Changes the objects of a list; what is no list, or no object in it, stays for the check to refuse. */
const mapList = (value: unknown, change: (item: Loose) => Loose): unknown =>
  Array.isArray(value) ? value.map((item: unknown) => (isObject(item) ? change(item) : item)) : value;

/** Steps from each version to the next. */
const STEPS: Readonly<Record<number, (art: Loose) => Loose>> = {
  // 2: pictures can be squared up, cropped and seen by views; a sheet says its ppi for print; there are guides.
  1: (art) => ({
    ...art,
    version: 2,
    guides: { locked: false, lines: [] },
    sheet: isObject(art.sheet) ? { ...art.sheet, ppi: 300 } : art.sheet,
    pictures: Array.isArray(art.pictures)
      ? art.pictures.map((p: unknown) => (isObject(p) ? { ...p, ...VERSION_2_PICTURE } : p))
      : art.pictures,
  }),
  // 3: there are a grid, axes, forms, shared anchors and handles of equal length.
  2: (art) => ({ ...art, version: 3, grid: VERSION_3_GRID, axis: null }),
  // 4: anchors can be protected; shapes may say what their drift follows.
  3: (art) => ({ ...art, version: 4 }),
  // 5: segments and shapes can be meant so; a shape may remember its place on the picture.
  4: (art) => ({ ...art, version: 5 }),
  // 6: paint may be a chip or a gradient; strokes say their ends, joins and dashes; layers cover as groups do.
  5: (art) => {
    const chips = new Map<unknown, unknown>();
    for (const chip of listOf(art.chips))
      if (isObject(chip) && !chips.has(chip.hex)) chips.set(chip.hex, chip.id);
    const paint = (hex: unknown): Loose => (chips.has(hex) ? { chip: chips.get(hex) } : { hex });
    return {
      ...art,
      version: 6,
      layers: mapList(art.layers, (layer) => ({
        ...layer,
        opacity: 1,
        children: version6Nodes(layer.children, paint),
      })),
    };
  },
  // 7: groups may stand several times.
  6: (art) => ({ ...art, version: 7 }),
  // 8: pictures may lie above the drawing, shapes may be lettering.
  7: (art) => ({ ...art, version: 8 }),
  // 9: palettes have colourways; shadows, dash offsets, paints set aside.
  8: (art) => ({ ...art, version: 9, colourways: [] }),
  // 10: shapes may be poured between others.
  9: (art) => ({ ...art, version: 10 }),
  // 11: findings may be put aside.
  10: (art) => ({ ...art, version: 11, aside: [] }),
  // 12: layers, groups and shapes can be left out of drift.
  11: (art) => ({ ...art, version: 12 }),
};

/** Strokes had round ends and joins until version 6. */
const VERSION_6_STROKE = { ends: 'round', joins: 'round', miterLimit: 4, dash: [] } as const;

function version6Nodes(nodes: unknown, paint: (hex: unknown) => Loose): unknown {
  return mapList(nodes, (node) => {
    if ('children' in node) return { ...node, children: version6Nodes(node.children, paint) };
    const { fill, stroke } = node;
    return {
      ...node,
      fill: isObject(fill) ? paint(fill.hex) : fill,
      stroke: isObject(stroke)
        ? { paint: paint(stroke.hex), width: stroke.width, ...VERSION_6_STROKE }
        : stroke,
    };
  });
}

/**
 * Brings a document of an older version to the present one, or to `version`; anything else is given back as it is.
 */
export function migrateArt(value: unknown, version = Infinity): unknown {
  let art = value;
  while (isObject(art) && typeof art.version === 'number' && art.version < version && STEPS[art.version])
    art = STEPS[art.version]!(art);
  return art;
}
