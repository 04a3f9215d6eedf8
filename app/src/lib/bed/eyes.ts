import { deficiencyMap } from '@mirrot/core';
import type { Eyes } from '$lib/desk/comparing.svelte';

/** Shares of red, green and blue light in lightness: WCAG 2.2 and IEC 61966-2-1. */
const LUMINANCE = [0.2126, 0.7152, 0.0722] as const;

/** What eyes see, as the values of an SVG colour matrix of linear light. */
export function eyesMatrix(eyes: Exclude<Eyes, 'all'>): string {
  const rows = eyes === 'grey' ? [LUMINANCE, LUMINANCE, LUMINANCE] : deficiencyMap(eyes);
  return [...rows.map((row) => `${row.join(' ')} 0 0`), '0 0 0 1 0'].join(' ');
}
