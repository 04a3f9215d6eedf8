import type { Point } from '../geometry/vector';
import type { Raster } from './raster';

/** A line about which a picture is nearly its own mirror image. */
export interface Symmetry {
  /** A point on it, in the raster's pixels. */
  readonly at: Point;
  /** Radians, from 0 to π. */
  readonly angle: number;
  /** Share of the edges' strength that has its like on the other side, 0 to 1. */
  readonly share: number;
}

interface Edges {
  readonly width: number;
  readonly height: number;
  readonly gx: Float32Array;
  readonly gy: Float32Array;
  /** Pixels whose slope counts, and how strong it is. */
  readonly strong: readonly { readonly i: number; readonly strength: number }[];
  /** Pixels of the raster that one of these is wide. */
  readonly step: number;
}

/**
 * [1 2 1] along rows and columns. Slopes are read between pixels: unsmoothed, axes that happen to run on pixels would
 * seem better than they are.
 */
function smooth(light: Float32Array, w: number, h: number): void {
  const along = (step: number, count: number, lines: number, next: number): void => {
    for (let l = 0; l < lines; l++) {
      let before = light[l * next]!;
      for (let k = 0; k < count; k++) {
        const i = l * next + k * step;
        const here = light[i]!;
        light[i] = (before + 2 * here + light[k + 1 < count ? i + step : i]!) / 4;
        before = here;
      }
    }
  };
  along(1, w, h, w);
  along(w, h, w, 1);
}

/** Slope at which an edge counts in full, levels a pixel. */
const STEEP = 9;

/** The picture's slopes of lightness, its longer side brought to `size` by averaging. */
function edgesOf({ width, height, data }: Raster, size: number): Edges {
  const step = Math.max(1, Math.max(width, height) / size);
  const w = Math.max(3, Math.round(width / step));
  const h = Math.max(3, Math.round(height / step));
  const light = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      let n = 0;
      const [ya, yb] = [
        Math.floor((y * height) / h),
        Math.max(Math.floor((y * height) / h) + 1, Math.floor(((y + 1) * height) / h)),
      ];
      const [xa, xb] = [
        Math.floor((x * width) / w),
        Math.max(Math.floor((x * width) / w) + 1, Math.floor(((x + 1) * width) / w)),
      ];
      // Every other pixel is enough for a mean.
      const every = step > 4 ? 2 : 1;
      for (let v = ya; v < yb; v += every)
        for (let u = xa; u < xb; u += every) {
          const i = (v * width + u) * 4;
          const a = data[i + 3]! / 255;
          sum += a * (0.2126 * data[i]! + 0.7152 * data[i + 1]! + 0.0722 * data[i + 2]!) + (1 - a) * 255;
          n++;
        }
      light[y * w + x] = sum / n;
    }
  smooth(light, w, h);
  smooth(light, w, h);
  const gx = new Float32Array(w * h);
  const gy = new Float32Array(w * h);
  for (let y = 1; y + 1 < h; y++)
    for (let x = 1; x + 1 < w; x++) {
      const i = y * w + x;
      gx[i] = (light[i + 1]! - light[i - 1]!) / 2;
      gy[i] = (light[i + w]! - light[i - w]!) / 2;
    }
  // A slope steeper than an edge needs counts no more than an edge: else one glaring thing would outweigh a shape.
  for (let i = 0; i < gx.length; i++) {
    const k = Math.min(1, STEEP / Math.hypot(gx[i]!, gy[i]!));
    if (k < 1) {
      gx[i]! *= k;
      gy[i]! *= k;
    }
  }
  const strong: { i: number; strength: number }[] = [];
  for (let i = 0; i < gx.length; i++) {
    const strength = Math.hypot(gx[i]!, gy[i]!);
    if (strength > 3) strong.push({ i, strength });
  }
  return { width: w, height: h, gx, gy, strong, step };
}

/** Edge points from the strongest down. */
const strongest = (
  { width, gx, gy, strong }: Edges,
  most: number,
): { x: number; y: number; turn: number; weight: number }[] =>
  [...strong]
    .sort((a, b) => b.strength - a.strength)
    .slice(0, most)
    .map(({ i, strength }) => ({
      x: (i % width) + 0.5,
      y: Math.floor(i / width) + 0.5,
      turn: Math.atan2(gy[i]!, gx[i]!),
      weight: strength,
    }));

const ANGLES = 180;

/** Axes for which many pairs of edge points vote, by the middles between them; most votes first. */
function strongestVote(edges: Edges, most: number): { angle: number; offset: number }[] {
  const points = strongest(edges, 700);
  const reach = Math.ceil(Math.hypot(edges.width, edges.height));
  const votes = new Float32Array(ANGLES * (2 * reach + 1));
  const [mx, my] = [edges.width / 2, edges.height / 2];
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length; j++) {
      const [a, b] = [points[i]!, points[j]!];
      const d = Math.hypot(b.x - a.x, b.y - a.y);
      if (d < 4) continue;
      const across = Math.atan2(b.y - a.y, b.x - a.x);
      // Mirrored slopes: their directions lie evenly to both sides of the axis.
      // Which side is the lighter may differ: a shape stands before light here and before dark there.
      if (Math.abs(Math.cos(a.turn + b.turn - 2 * across)) < 0.9) continue;
      const angle = (across + Math.PI / 2 + 2 * Math.PI) % Math.PI;
      const n = { x: -Math.sin(angle), y: Math.cos(angle) };
      const offset = ((a.x + b.x) / 2 - mx) * n.x + ((a.y + b.y) / 2 - my) * n.y;
      const k = Math.round((angle / Math.PI) * ANGLES) % ANGLES;
      votes[k * (2 * reach + 1) + Math.round(offset) + reach]! += Math.min(a.weight, b.weight);
    }
  const best: { angle: number; offset: number; votes: number }[] = [];
  for (let k = 0; k < ANGLES; k++)
    for (let o = 1; o < 2 * reach; o++) {
      // A vote counts for its neighbours too: angles and offsets are only so exact.
      let sum = 0;
      for (const dk of [-1, 0, 1])
        for (const d of [-1, 0, 1]) sum += votes[((k + dk + ANGLES) % ANGLES) * (2 * reach + 1) + o + d]!;
      best.push({ angle: (k * Math.PI) / ANGLES, offset: o - reach, votes: sum });
    }
  best.sort((a, b) => b.votes - a.votes);
  const apart: { angle: number; offset: number }[] = [];
  for (const b of best) {
    if (apart.length === most) break;
    if (!apart.some((a) => Math.abs(a.angle - b.angle) < 0.06 && Math.abs(a.offset - b.offset) < 3))
      apart.push(b);
  }
  return apart;
}

/** Share of the edges' strength that meets a slope like its own mirror image on the other side. */
function shareOf(edges: Edges, angle: number, offset: number): number {
  const { width, height, gx, gy, strong } = edges;
  const n = { x: -Math.sin(angle), y: Math.cos(angle) };
  const [mx, my] = [width / 2, height / 2];
  let all = 0;
  let alike = 0;
  for (const { i, strength } of strong) {
    const x = i % width;
    const y = (i - x) / width;
    const far = (x + 0.5 - mx) * n.x + (y + 0.5 - my) * n.y - offset;
    all += strength;
    const u = x - 2 * far * n.x;
    const v = y - 2 * far * n.y;
    if (u < 0 || v < 0 || u >= width - 1 || v >= height - 1) continue;
    const [a, b] = [Math.floor(u), Math.floor(v)];
    const [s, t] = [u - a, v - b];
    const k = b * width + a;
    const mixed = (f: Float32Array): number =>
      f[k]! * (1 - s) * (1 - t) +
      f[k + 1]! * s * (1 - t) +
      f[k + width]! * (1 - s) * t +
      f[k + width + 1]! * s * t;
    const [px, py] = [mixed(gx), mixed(gy)];
    // This slope, mirrored, beside the one found there.
    const along = gx[i]! * n.x + gy[i]! * n.y;
    const [qx, qy] = [gx[i]! - 2 * along * n.x, gy[i]! - 2 * along * n.y];
    alike += Math.min(strength, Math.abs(px * qx + py * qy) / strength);
  }
  return all > 0 ? alike / all : 0;
}

/**
 * The axis about which a picture's edges are most nearly their own mirror image. Pairs of edge points vote for the line
 * between them (Loy and Eklundh, "Detecting symmetry and symmetric groups of features", 2006); the best few are then
 * fitted to the slopes themselves, first coarsely, then at twice the size.
 *
 * @returns null when the picture has no edges to speak of
 */
export function symmetryAxis(raster: Raster): Symmetry | null {
  const coarse = edgesOf(raster, 100);
  const first = strongestVote(coarse, 6);
  if (first.length === 0) return null;
  const climb = (
    edges: Edges,
    from: { angle: number; offset: number },
    turn: number,
    shift: number,
  ): { angle: number; offset: number; share: number } => {
    let best = { ...from, share: shareOf(edges, from.angle, from.offset) };
    for (let k = 0; k < 5; k++) {
      for (let moved = true, rounds = 0; moved && rounds < 8; rounds++) {
        moved = false;
        for (const [da, d] of [
          [turn, 0],
          [-turn, 0],
          [0, shift],
          [0, -shift],
        ] as const) {
          const [angle, offset] = [best.angle + da, best.offset + d];
          const share = shareOf(edges, angle, offset);
          if (share > best.share) {
            best = { angle, offset, share };
            moved = true;
          }
        }
      }
      turn /= 2;
      shift /= 2;
    }
    return best;
  };
  const found = first.map((f) => climb(coarse, f, 0.01, 0.5)).reduce((a, b) => (b.share > a.share ? b : a));
  if (found.share === 0) return null;
  const fine = edgesOf(raster, 200);
  const k = coarse.step / fine.step;
  const { angle, offset, share } = climb(fine, { angle: found.angle, offset: found.offset * k }, 0.004, 0.5);
  const n = { x: -Math.sin(angle), y: Math.cos(angle) };
  return {
    at: {
      x: (fine.width / 2 + n.x * offset) * (raster.width / fine.width),
      y: (fine.height / 2 + n.y * offset) * (raster.height / fine.height),
    },
    angle: ((angle % Math.PI) + Math.PI) % Math.PI,
    share,
  };
}
