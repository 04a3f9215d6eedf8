import type { SvgReading } from '@mirrot/core';

// Files that may be drawing as well as picture.

const SVG_TYPE = 'image/svg+xml';

export const isSvg = ({ type, name }: Pick<File, 'type' | 'name'>): boolean =>
  type === SVG_TYPE || (type === '' && /\.svg$/i.test(name));

export const isDxf = ({ type, name }: Pick<File, 'type' | 'name'>): boolean =>
  /^(image\/(vnd\.|x-)?dxf|application\/dxf)$/.test(type) || /\.dxf$/i.test(name);

/** A text that may hold a palette. */
export const isPaletteText = ({ type, name }: Pick<File, 'type' | 'name'>): boolean =>
  /^(text\/(plain|css)|application\/json)$/.test(type) || /\.(txt|css|json)$/i.test(name);

/** A zip file: a bundle, it is taken for. */
export const isBundle = ({ type, name }: Pick<File, 'type' | 'name'>): boolean =>
  /^application\/(x-)?zip(-compressed)?$/.test(type) || /\.zip$/i.test(name);

/** SVG that was copied as text, as a file; null where the text is none. */
export const svgInText = (text: string): File | null =>
  /^\s*(<\?xml[^>]*>\s*)?(<!--.*?-->\s*|<!DOCTYPE[^>[]*(\[[^\]]*\])?>\s*)*<([\w-]+:)?svg[\s>]/is.test(
    text.slice(0, 20_000),
  )
    ? new File([text], 'pasted.svg', { type: SVG_TYPE })
    : null;

/** What of a file was not read, as a sentence; empty where all was. */
export function leftOut(left: SvgReading['left']): string {
  if (left.length === 0) return '';
  const named = left.slice(0, 5).map(({ what, count }) => (count === 1 ? what : `${what} (${count})`));
  return ` Left out: ${named.join(', ')}${left.length > 5 ? ' and more' : ''}.`;
}
