/** What goes into a file of a drawing. */
export interface OutputOptions {
  readonly area: 'sheet' | 'drawing';
  /** "#rrggbb", null for clear; left out, the sheet's own. */
  readonly ground?: string | null;
  readonly picture: boolean;
}
