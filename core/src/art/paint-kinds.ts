// Words and bounds of what paints.

/** Most stops of a gradient. */
export const MOST_STOPS = 64;

/** Strongest blur, sheet pixels. */
export const MOST_BLUR = 1000;

/** How a stroke ends and turns its corners, by the names of SVG 2 (section 13.5). */
export const STROKE_ENDS = ['butt', 'round', 'square'] as const;
export const STROKE_JOINS = ['miter', 'round', 'bevel'] as const;
/** How a gradient goes on before its first and after its last stop, by the names of SVG 2 (section 14.2.2.8). */
export const GRADIENT_SPREADS = ['pad', 'reflect', 'repeat'] as const;
/** What a chip is for in a drawing. */
export const CHIP_ROLES = ['ground', 'body', 'light', 'shade', 'line', 'accent'] as const;
export type ChipRole = (typeof CHIP_ROLES)[number];
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
