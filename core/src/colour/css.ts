import { formatHex, parse } from 'culori';

/** A colour and how opaque it is, 0 to 1. */
export interface ReadColour {
  readonly hex: string;
  readonly alpha: number;
}

/**
 * A colour as CSS Color 4 writes it: a word ("teal"), hex, rgb(), hsl(), oklch() and so on; null where it is none. Colours
 * beyond sRGB come to the nearest in it by each channel.
 */
export function readCssColour(text: string): ReadColour | null {
  const colour = parse(text.trim());
  return colour ? { hex: formatHex(colour), alpha: colour.alpha ?? 1 } : null;
}
