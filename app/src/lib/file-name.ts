import { cutText } from '@mirrot/core';

/** A file name from a project's name: letters and digits of any script, hyphens for the rest. */
export function fileName(name: string, extension: string): string {
  const words = name.normalize('NFC').match(/[\p{L}\p{N}]+/gu) ?? [];
  return `${cutText(words.join('-'), 80) || 'drawing'}.${extension}`;
}
