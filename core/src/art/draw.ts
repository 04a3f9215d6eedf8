import { formatPathData } from '../path/data';
import type { Path } from '../path/path';
import type { Shape } from './schema';
import { wholePaths } from './tree';

/** Attributes with which a shape is painted, on screen and in a file alike. */
export interface Drawn {
  readonly d: string;
  readonly fill: string;
  readonly stroke: string | null;
  readonly strokeWidth: number;
  readonly opacity: number;
}

const data = new WeakMap<readonly Path[], string>();

/** Path data of several paths to a thousandth of a sheet pixel. */
export function drawnData(paths: readonly Path[]): string {
  let d = data.get(paths);
  if (d === undefined) data.set(paths, (d = formatPathData(paths)));
  return d;
}

/** The one description of how a shape is painted. Strokes have round ends and joins; fills follow the even-odd rule. */
export const drawShape = (shape: Shape): Drawn => ({
  d: drawnData(wholePaths(shape)),
  fill: shape.fill?.hex ?? 'none',
  stroke: shape.stroke?.hex ?? null,
  strokeWidth: shape.stroke?.width ?? 0,
  opacity: shape.opacity,
});
