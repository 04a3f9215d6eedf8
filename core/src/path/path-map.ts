import type { Affine } from '../geometry/affine';
import { isMarked, mapAnchor, turnedAnchor } from './anchor';
import { mapForm } from './form';
import { fitsForm, formPath, withoutForm } from './form-path';
import type { Path } from './path';

/** Whether a map keeps shapes as they are but for their size, turn and mirroring. */
export const keepsShape = ([a, b, c, d]: Affine): boolean => {
  const size = a * a + b * b + c * c + d * d;
  return Math.abs(a * a + b * b - c * c - d * d) <= 1e-9 * size && Math.abs(a * c + b * d) <= 1e-9 * size;
};

/**
 * The path with every anchor and handle mapped. Where the map stretches one way, flowing anchors become smooth: they
 * would work out another curve.
 */
export function transformPath(path: Path, map: Affine): Path {
  const form = path.form && mapForm(path.form, map);
  const fits = form && fitsForm(path);
  if (fits && !path.anchors.some(isMarked)) return formPath(form, path.id);
  const keeps = keepsShape(map);
  const mapped = { ...path, anchors: path.anchors.map((a) => mapAnchor(a, map, keeps)) };
  // Marked anchors stay the ones they are: the form only where it is drawn through them in this order.
  return fits && fitsForm({ ...mapped, form }) ? { ...mapped, form } : mapped;
}

/** The path with some of its anchors and their handles mapped; the others stay. */
export function transformAnchors(path: Path, indices: readonly number[], map: Affine): Path {
  const chosen = new Set(indices);
  const mapped = transformPath({ ...path, form: undefined }, map).anchors;
  return { ...withoutForm(path), anchors: path.anchors.map((a, i) => (chosen.has(i) ? mapped[i]! : a)) };
}

/** The same line run the other way. */
export const reversePath = (path: Path): Path => ({
  ...path,
  anchors: path.anchors.map((_, k) => {
    const n = path.anchors.length;
    // The segment that arrived leaves now, and its mark with it.
    const before = path.anchors[(2 * n - 2 - k) % n]!;
    const turned = turnedAnchor(path.anchors[n - 1 - k]!);
    return before.meant && (path.closed || k < n - 1) ? { ...turned, meant: true as const } : turned;
  }),
});
