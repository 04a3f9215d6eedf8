import { formatHex, parse } from 'culori';
import { MirrotError } from '../error';

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

/**
 * An opaque colour as people write it: hex digits with or without "#", or as CSS has it.
 *
 * @returns "#rrggbb"
 * @throws MirrotError `colour` with what is wrong, where it is none or see-through
 */
export function readColour(text: string): string {
  const words = text.trim();
  const quoted = `"${words.slice(0, 40)}${words.length > 40 ? '…' : ''}"`;
  const read = readCssColour(/^[0-9a-f]{3}([0-9a-f]{3})?$/i.test(words) ? `#${words}` : words);
  if (!read)
    throw new MirrotError('colour', `${quoted} is not a colour. Write hex digits, or a colour as CSS has it, for example teal.`); // prettier-ignore
  if (read.alpha < 1) throw new MirrotError('colour', `${quoted} is see-through; opacity is set by itself.`);
  return read.hex;
}
