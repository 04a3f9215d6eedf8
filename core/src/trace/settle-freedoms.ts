import { dot, length, scale, type Point } from '../geometry/vector';
import type { Anchor, HandleSide } from '../path/anchor';
import { deriveFlow, flows } from '../path/flow';
import { lineDirection } from '../path/handle';
import { anchorAt, segmentCount, tangentAt, withAnchor, type Path } from '../path/path';
import { CORNER } from './stations';

/** One number that may change: how it changes the path, and which segments follow. */
export interface Freedom {
  readonly segments: readonly number[];
  move(path: Path, by: number): Path;
}

export const isCorner = (path: Path, i: number): boolean => {
  const [a, b] = [tangentAt(path, i, 'in'), tangentAt(path, i, 'out')];
  return a !== null && b !== null && dot(a, b) < CORNER;
};

/** Segments on either side of anchor `i`. */
const beside = (path: Path, i: number): number[] => {
  const before = anchorAt(path, i, -1);
  return [...(before === null ? [] : [before]), ...(anchorAt(path, i, 1) === null ? [] : [i])];
};

/** Handles of smooth anchors beside straight segments turn with those. */
function inLine(path: Path, indices: readonly number[]): Path {
  let next = path;
  for (const i of indices) {
    const a = next.anchors[i]!;
    if (a.kind !== 'smooth') continue;
    for (const side of ['in', 'out'] as const) {
      const h = a[side];
      const along = h && lineDirection(next, i, side);
      if (h && along) next = withAnchor(next, i, { ...a, [side]: scale(along, length(h)) });
    }
  }
  return next;
}

const turned = (h: Point, by: number): Point => {
  const [c, s] = [Math.cos(by), Math.sin(by)];
  return { x: c * h.x - s * h.y, y: s * h.x + c * h.y };
};
const stretched = (h: Point, by: number): Point => {
  const l = length(h);
  return l > 0 ? scale(h, Math.max(0.05, l + by) / l) : h;
};

/** All that may change: anchors' places, and handles as their kind lets them. */
export function freedoms(path: Path, anchors: boolean, only: ReadonlySet<number> | null): Freedom[] {
  const out: Freedom[] = [];
  const all = Array.from({ length: segmentCount(path) }, (_, s) => s);
  const flowing = flows(path);
  path.anchors.forEach((a, i) => {
    const near = beside(path, i);
    if (only && !near.some((s) => only.has(s))) return;
    const inner = !only || near.every((s) => only.has(s));
    const touched = flowing ? all : [...new Set([...near, ...near.flatMap((s) => [...beside(path, s), ...beside(path, (s + 1) % path.anchors.length)])])]; // prettier-ignore
    const change = (segments: readonly number[], to: (now: Anchor, by: number) => Anchor): void => {
      out.push({
        segments,
        move(p, by) {
          const next = withAnchor(p, i, to(p.anchors[i]!, by));
          if (flowing) return deriveFlow(next);
          const n = p.anchors.length;
          return inLine(next, [i, (i + 1) % n, (i - 1 + n) % n]);
        },
      });
    };
    if (anchors && inner && a.shared === undefined) {
      change(touched, (now, by) => ({ ...now, x: now.x + by }));
      change(touched, (now, by) => ({ ...now, y: now.y + by }));
    }
    if (a.kind === 'flowing') return;
    const both = a.in && a.out;
    if (a.kind === 'smooth') {
      if (both) {
        // An angle counts as the way its longer handle's end goes.
        const reach = Math.max(length(a.in!), length(a.out!), 1);
        change(near, (now, by) => ({ ...now, in: now.in && turned(now.in, by / reach), out: now.out && turned(now.out, by / reach) })); // prettier-ignore
      }
      if (both && a.equal)
        change(near, (now, by) => ({ ...now, in: now.in && stretched(now.in, by), out: now.out && stretched(now.out, by) })); // prettier-ignore
      else
        for (const side of ['in', 'out'] as const)
          if (a[side]) change(near, (now, by) => ({ ...now, [side]: now[side] && stretched(now[side], by) }));
      // A lone handle that no straight segment holds may turn.
      const lone: HandleSide | null = both ? null : a.in ? 'in' : a.out ? 'out' : null;
      if (lone && !lineDirection(path, i, lone)) {
        const reach = Math.max(length(a[lone]!), 1);
        change(near, (now, by) => ({ ...now, [lone]: now[lone] && turned(now[lone], by / reach) }));
      }
      return;
    }
    for (const side of ['in', 'out'] as const) {
      if (!a[side]) continue;
      change(near, (now, by) => ({ ...now, [side]: now[side] && { x: now[side].x + by, y: now[side].y } }));
      change(near, (now, by) => ({ ...now, [side]: now[side] && { x: now[side].x, y: now[side].y + by } }));
    }
  });
  return out;
}
