// Words and bounds of what paints.

/** Most stops of a gradient. */
export const MOST_STOPS = 64;

/** How a stroke ends and turns its corners, by the names of SVG 2 (section 13.5). */
export const STROKE_ENDS = ['butt', 'round', 'square'] as const;
export const STROKE_JOINS = ['miter', 'round', 'bevel'] as const;
/** How what is painted is mixed with what lies beneath, by the names of W3C Compositing and Blending (section 10). */
export const BLENDS = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;
export type Blend = (typeof BLENDS)[number];
