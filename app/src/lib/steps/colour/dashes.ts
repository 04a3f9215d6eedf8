/** Most parts of a dash, and the shortest, sheet pixels. */
const MOST_PARTS = 32;
const SHORTEST_PX = 0.001;

/**
 * Lengths of dashes and gaps in turn as they are written: "4 2", "4, 2, 1". An odd number is taken twice, as in SVG.
 *
 * @param pxPer sheet pixels to the unit they are written in
 * @returns lengths in sheet pixels, none for a whole line; or a sentence that says what is wrong
 */
export function readDashes(text: string, pxPer: number): number[] | string {
  const words = text.split(/[\s,;]+/).filter(Boolean);
  const lengths = words.map((word) => Number(word) * pxPer);
  const wrong = words.find((_, i) => !Number.isFinite(lengths[i]) || lengths[i]! < 0);
  if (wrong !== undefined)
    return `“${wrong.slice(0, 16)}” is no length. Write dashes and gaps in turn, for example 4 2. Nothing was changed.`;
  if (lengths.length > 0 && !lengths.some((v) => v > 0)) return 'A dash needs a length. Nothing was changed.';
  const twice = lengths.length % 2 === 1 ? [...lengths, ...lengths] : lengths;
  if (twice.length > MOST_PARTS)
    return `A line has ${MOST_PARTS} dashes and gaps at most. Nothing was changed.`;
  return twice.map((v) => Math.min(10_000, Math.max(SHORTEST_PX, v)));
}
