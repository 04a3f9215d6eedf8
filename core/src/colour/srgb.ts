import { MirrotError } from '../error';

/** Red, green, blue from 0 to 1; in sRGB's own curve unless a name says linear. */
export type Rgb = readonly [r: number, g: number, b: number];

/** Decodes one sRGB channel to linear light. Source: IEC 61966-2-1; odd-symmetric below 0 as in CSS Color 4. */
export function toLinear(v: number): number {
  const a = Math.abs(v);
  return a <= 0.04045 ? v / 12.92 : Math.sign(v) * ((a + 0.055) / 1.055) ** 2.4;
}

/** Encodes one linear channel to sRGB. Source: IEC 61966-2-1; odd-symmetric below 0 as in CSS Color 4. */
export function fromLinear(v: number): number {
  const a = Math.abs(v);
  return a <= 0.0031308 ? v * 12.92 : Math.sign(v) * (1.055 * a ** (1 / 2.4) - 0.055);
}

/** Linear light of each of the 256 byte values. */
export const LINEAR_OF_BYTE = Float64Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/** "#rrggbb", lower case, from channels 0 to 1; out-of-range ones are clamped. */
export function formatHex([r, g, b]: Rgb): string {
  const byte = (v: number): string =>
    Math.round(Math.min(1, Math.max(0, v)) * 255)
      .toString(16)
      .padStart(2, '0');
  return `#${byte(r)}${byte(g)}${byte(b)}`;
}

/**
 * Reads a hex colour with or without "#", three or six digits, any case.
 *
 * @throws MirrotError `colour` when it is none
 */
export function parseHex(text: string): Rgb {
  const digits = text.trim().replace(/^#/, '');
  const full = digits.length === 3 ? digits.replace(/./g, '$&$&') : digits;
  if (!/^[0-9a-f]{6}$/i.test(full))
    throw new MirrotError(
      'colour',
      `"${text.slice(0, 24)}" is not a colour. Write six hex digits, for example #2f6b4f.`,
    );
  const n = parseInt(full, 16);
  return [(n >> 16) / 255, ((n >> 8) & 255) / 255, (n & 255) / 255];
}

/** The colour as "#rrggbb" in lower case. Throws as `parseHex`. */
export const normaliseHex = (text: string): string => formatHex(parseHex(text));
