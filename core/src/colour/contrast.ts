import { parseHex, toLinear } from './srgb';

/** Relative luminance of a hex colour, 0 to 1. Source: WCAG 2.2, definition "relative luminance". */
export function luminance(hex: string): number {
  const [r, g, b] = parseHex(hex);
  return 0.2126 * toLinear(r) + 0.7152 * toLinear(g) + 0.0722 * toLinear(b);
}

/** Contrast ratio of two hex colours, 1 to 21. Source: WCAG 2.2, definition "contrast ratio". */
export function contrastRatio(one: string, other: string): number {
  const a = luminance(one);
  const b = luminance(other);
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}
