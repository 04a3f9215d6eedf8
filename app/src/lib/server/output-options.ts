import type { OutputRange } from '@mirrot/core';

/** What goes into a file of a drawing. */
export interface OutputOptions extends OutputRange {
  /** "#rrggbb", null for clear; left out, the sheet's own. */
  readonly ground?: string | null;
  /** Whether the traced pictures go along. */
  readonly picture: boolean;
}

/** All that can be said of a file. */
export interface FileOptions extends OutputOptions {
  readonly ppi?: number;
  readonly width?: number;
  readonly plain?: boolean;
  readonly cutout?: string;
  readonly lines?: 'dxf' | 'plt';
  readonly order?: 'kept' | 'short';
}
