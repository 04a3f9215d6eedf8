import { cross, dot, subtract, unit, type Point } from '../geometry/vector';
import type { Path } from './path';
import type { SnapLine } from './snap';

/**
 * Faint lines for an anchor to come after `path`: level and upright through its first and last anchors, at a right
 * angle to and in line with its last segment, as long as that, and in line with the last anchor's leaving handle.
 */
export function faintLines(path: Path): SnapLine[] {
  const last = path.anchors.at(-1);
  if (!last) return [];
  const first = path.anchors[0]!;
  const line = (at: Point, along: Point, why: string): SnapLine => ({
    kind: 'lines',
    at: { x: at.x, y: at.y },
    along,
    why,
  });
  const lines = [line(last, { x: 1, y: 0 }, 'level'), line(last, { x: 0, y: 1 }, 'upright')];
  if (path.anchors.length > 1)
    lines.push(
      line(first, { x: 1, y: 0 }, 'level with the first'),
      line(first, { x: 0, y: 1 }, 'upright from the first'),
    );
  const handle = last.out && unit(last.out);
  if (handle) lines.push(line(last, handle, 'in line with the handle'));
  const before = path.anchors.at(-2);
  const segment = before && subtract(last, before);
  const u = segment && unit(segment);
  if (segment && u) {
    const upright = Math.abs(cross(u, { x: 1, y: 0 })) < 1e-9 || Math.abs(dot(u, { x: 1, y: 0 })) < 1e-9;
    if (!upright) lines.push(line(last, { x: -u.y, y: u.x }, 'right angle'));
    if (!upright && !handle) lines.push(line(last, u, 'in line'));
    lines.push({ ...line(last, u, 'equal length'), radius: Math.hypot(segment.x, segment.y) });
  }
  return lines;
}
