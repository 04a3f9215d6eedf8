import type {
  Art,
  Box,
  Bundle,
  LinedArt,
  LineWork,
  Machine,
  OutputRange,
  Played,
  PlotFile,
  PlotWish,
  SvgOptions,
} from '@mirrot/core';
import { starter } from './start';

/** What lines are made ready for: a file of curves, or one for a plotter. */
export type LinesWish =
  | { readonly kind: 'curves'; readonly range: OutputRange; readonly lines: LineWork }
  | { readonly kind: 'plot'; readonly wish: PlotWish };

/** Lines made ready, as they are to be seen. */
export interface LinesMade {
  /** SVG path data, where the lines lie on the sheet. */
  readonly data: string;
  /** The part of the sheet that is written, sheet pixels. */
  readonly written: Box;
  readonly anchors: LinedArt['anchors'];
  /** The file for a plotter, where that was wished. */
  readonly plot: PlotFile | null;
}

/** What the worker for files does. */
export interface FileWork {
  /** @throws Error with a sentence where there is no line */
  lines(art: Art, wish: LinesWish): Promise<LinesMade>;
  /**
   * The drawing as SVG.
   *
   * @param hrefs pictures' pixels as addresses that hold them, by the pictures' ids
   * @param lines what is done to its lines where it is written as hairlines; null for as it is painted
   */
  svg(
    art: Art,
    options: Omit<SvgOptions, 'pictureHref'>,
    hrefs: ReadonlyMap<string, string>,
    lines: LineWork | null,
  ): Promise<string>;
  /** @throws Error with a sentence */
  bundle(bundle: Bundle): Promise<Uint8Array>;
  /** A file of HP-GL played as a machine would. */
  play(text: string, machine: Machine): Promise<Played>;
}

/** The one worker for files. */
export const fileWorker = starter<FileWork>(
  () => new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' }),
);
