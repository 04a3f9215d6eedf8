/** A shape of the true drawing, in picture pixels. */
export interface OriginalShape {
  readonly name: string;
  /** SVG path data; under the even-odd rule further outlines are holes. */
  readonly d: string;
  /** Where its colour is sampled in the photograph, in picture pixels. */
  readonly sample: readonly [x: number, y: number];
}

export interface OriginalLayer {
  readonly name: string;
  readonly shapes: readonly OriginalShape[];
}

/** A picture's vector original: the true shapes, bottom first, and the scene it is photographed in, as SVG. */
export interface Original {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly layers: readonly OriginalLayer[];
  photograph(): string;
}

/** Handle of a quarter ellipse, in radii. */
const K = (4 / 3) * (Math.SQRT2 - 1);

/** An upright ellipse by four cubics. */
export function ellipse(cx: number, cy: number, rx: number, ry: number): string {
  const [kx, ky] = [rx * K, ry * K];
  const p = (x: number, y: number): string => `${Number((cx + x).toFixed(2))} ${Number((cy + y).toFixed(2))}`;
  return `M${p(rx, 0)}C${p(rx, ky)} ${p(kx, ry)} ${p(0, ry)}C${p(-kx, ry)} ${p(-rx, ky)} ${p(-rx, 0)}C${p(-rx, -ky)} ${p(-kx, -ry)} ${p(0, -ry)}C${p(kx, -ry)} ${p(rx, -ky)} ${p(rx, 0)}Z`;
}
