/**
 * What a picture's pixels to the inch are good for, in a sentence. 300 ppi for print is common practice, no source;
 * 96 px to the inch of a screen is CSS Values 4.
 */
export function ppiVerdict(ppi: number): string {
  if (ppi >= 300) return 'Enough pixels for print.';
  if (ppi >= 150)
    return 'Enough for screen; for print at 300 ppi it is coarse, which a tracing does not mind.';
  if (ppi >= 96) return 'Enough for screen. Trace with the loupe: edges are soft.';
  return 'Few pixels for this size: each is larger than a screen’s. Make it smaller on the sheet, or find a larger scan.';
}
