import type { LineWork, OutputRange, PlotWish } from '@mirrot/core';
import type { ExportQuery } from '$lib/wire';

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
  /** What is done to the lines; null for a drawing as it is painted. */
  readonly lines: LineWork | null;
  /** Of HP-GL. */
  readonly plot: Pick<PlotWish, 'order' | 'innerFirst' | 'join' | 'lead'>;
}

const usesOf = (text: string | undefined): LineWork['uses'] =>
  Object.fromEntries((text ? text.split(',') : []).map((one) => one.split(':')));

/** What a request asks of a file. */
export function fileOptions(query: ExportQuery, linesOnly: boolean): FileOptions {
  const { ground, only, blade, thinned, uses, order, inner, join, lead } = query;
  const is = (flag: '0' | '1'): boolean => flag === '1';
  return {
    area: query.area,
    margin: query.margin,
    scale: query.scale,
    ppi: query.ppi,
    width: query.width,
    cutout: query.cutout,
    only: only === undefined ? undefined : new Set(only.split(',')),
    ground: ground === undefined ? undefined : ground === 'clear' ? null : ground.toLowerCase(),
    picture: is(query.picture),
    plain: is(query.plain),
    lines:
      linesOnly || is(query.hairlines)
        ? {
            seen: is(query.seen),
            weighted: is(query.weighted),
            marks: is(query.marks),
            mirrored: is(query.mirrored),
            bladeMargin: blade,
            thinned,
            uses: usesOf(uses),
          }
        : null,
    plot: { order, innerFirst: is(inner), join, lead },
  };
}
