import { apply, applyLinear, invert, type Affine } from '../geometry/affine';
import { add, distance, length, ORIGIN, scale, subtract, unit, type Point } from '../geometry/vector';
import type { Anchor } from './anchor';
import { withoutMark } from './anchor';
import { axisMaps, type Axis, type MirrorAxis } from './axis';
import { withoutForm } from './form-path';
import type { Path } from './path';

/** Who says what all parts become: their average, the first part, or (mirrored) the other one. */
export type Lead = 'all' | 'one' | 'other';

export const sideOf = (axis: MirrorAxis, p: Point): number =>
  Math.cos(axis.angle) * (p.y - axis.y) - Math.sin(axis.angle) * (p.x - axis.x);

/** Anchors count as counterparts when they lie within this share of the whole drawing's diagonal. */
export const PAIRED_WITHIN = 0.12;

interface Spot {
  readonly path: number;
  readonly index: number;
}
/** Where each anchor goes: the counterpart of every spot, and whether its path runs the other way there. */
interface Pairing {
  readonly to: readonly (readonly Spot[])[];
  readonly flips: readonly boolean[];
}

/** How path `a`, mapped, lies best on path `b`: from each anchor of `a` to one of `b`; null when they cannot pair. */
export function bestPairing(
  a: Path,
  b: Path,
  map: Affine,
): { to: number[]; flips: boolean; sum: number; off: number } | null {
  const n = a.anchors.length;
  if (b.anchors.length !== n || a.closed !== b.closed) return null;
  const seen = a.anchors.map((p) => apply(map, p));
  let best: { shift: number; flips: boolean; sum: number } | null = null;
  for (const flips of [false, true])
    for (let shift = 0; shift < (a.closed ? n : 1); shift++) {
      let sum = 0;
      for (let i = 0; i < n && (!best || sum < best.sum); i++) {
        const q = b.anchors[counterpartIndex(i, n, shift, flips)]!;
        sum += (seen[i]!.x - q.x) ** 2 + (seen[i]!.y - q.y) ** 2;
      }
      if (!best || sum < best.sum) best = { shift, flips, sum };
    }
  if (!best) return null;
  const { shift, flips, sum } = best;
  const to = seen.map((_, i) => counterpartIndex(i, n, shift, flips));
  return { to, flips, sum, off: Math.max(...seen.map((p, i) => distance(p, b.anchors[to[i]!]!))) };
}

export const counterpartIndex = (i: number, n: number, shift: number, flips: boolean): number =>
  flips ? (((shift - i) % n) + n + n - 1) % n : (i + shift) % n;

/** Counterparts of all anchors under a map, path by path; null when a path has none. */
export function pairUp(paths: readonly Path[], map: Affine): Pairing | null {
  const to: Spot[][] = [];
  const flips: boolean[] = [];
  for (const a of paths) {
    let best: { path: number; laid: NonNullable<ReturnType<typeof bestPairing>> } | null = null;
    // Where two lie alike, as circles on one spot, each pairs with itself.
    const alike = 1e-12 * a.anchors.reduce((sum, p) => sum + p.x * p.x + p.y * p.y, 0);
    paths.forEach((b, path) => {
      const laid = bestPairing(a, b, map);
      if (laid && (!best || laid.sum + (b === a ? -alike : alike) < best.laid.sum)) best = { path, laid };
    });
    if (!best) return null;
    const { path, laid } = best as { path: number; laid: NonNullable<ReturnType<typeof bestPairing>> };
    to.push(laid.to.map((index) => ({ path, index })));
    flips.push(laid.flips);
  }
  return { to, flips };
}

const turned = (a: Anchor, map: Affine, flips: boolean): Anchor => {
  const over = (h: Point | null): Point | null => h && applyLinear(map, h);
  const [arriving, leaving] = flips ? [a.out, a.in] : [a.in, a.out];
  return { ...a, ...apply(map, a), in: over(arriving), out: over(leaving) };
};

/** The mean of anchors: smooth or flowing where all are, handles of a smooth one brought into line. */
function meanAnchor(anchors: readonly Anchor[]): Anchor {
  const n = anchors.length;
  const first = anchors[0]!;
  const mean = (of: (a: Anchor) => Point): Point => scale(anchors.map(of).reduce(add, ORIGIN), 1 / n);
  const handle = (side: 'in' | 'out'): Point | null =>
    anchors.some((a) => a[side]) ? mean((a) => a[side] ?? ORIGIN) : null;
  const kind = anchors.every((a) => a.kind === first.kind)
    ? first.kind
    : anchors.some((a) => a.kind === 'corner')
      ? 'corner'
      : 'smooth';
  const bare = withoutMark(withoutMark(first, 'equal'), 'shared');
  const one: Anchor = {
    ...bare,
    ...mean((a) => a),
    kind,
    in: handle('in'),
    out: handle('out'),
    ...(kind === 'smooth' && anchors.every((a) => a.equal) ? { equal: true as const } : {}),
  };
  if (kind !== 'smooth' || !one.in || !one.out) return one;
  const along = unit(subtract(one.out, one.in));
  return along ? { ...one, in: scale(along, -length(one.in)), out: scale(along, length(one.out)) } : one;
}

/** All anchors made exactly what their counterparts are; null when they do not go round to where they began. */
export function averagedParts(
  paths: readonly Path[],
  axis: Axis,
  lead: Lead,
  { to, flips }: Pairing,
): Path[] | null {
  const maps = axisMaps(axis);
  const back = maps.map((m) => invert(m)!);
  const done: (Anchor | undefined)[][] = paths.map((p) => new Array<Anchor | undefined>(p.anchors.length));
  for (let p = 0; p < paths.length; p++)
    for (let i = 0; i < paths[p]!.anchors.length; i++) {
      if (done[p]![i]) continue;
      // The anchor and its counterparts in all parts, and whether their paths run the other way.
      const orbit: (Spot & { flips: boolean })[] = [];
      let at: Spot & { flips: boolean } = { path: p, index: i, flips: false };
      for (let m = 0; m < maps.length; m++) {
        orbit.push(at);
        at = { ...to[at.path]![at.index]!, flips: at.flips !== flips[at.path]! };
      }
      if (at.path !== p || at.index !== i || at.flips) return null;
      const here = orbit.map((s) => paths[s.path]!.anchors[s.index]!);
      const seen = orbit.map((s, m) => turned(here[m]!, back[m]!, s.flips));
      const wholly = orbit.every((s) => s.path === p && s.index === i);
      // Turned, the first part leads; mirrored, the side that is asked for. It stays to the last digit.
      let leads: number | null = null;
      if (lead !== 'all' && !wholly) {
        const sides = axis.kind === 'mirror' ? here.map((a) => sideOf(axis, a)) : [0, 0];
        leads = (lead === 'one') === sides[0]! <= sides[1]! ? 0 : 1;
      }
      const one = meanAnchor(leads === null ? seen : [seen[leads]!]);
      orbit.forEach((s, m) => {
        const { shared } = here[m]!;
        done[s.path]![s.index] ??=
          m === leads ? here[m]! : { ...turned(one, maps[m]!, s.flips), ...(shared ? { shared } : {}) };
      });
    }
  return paths.map((path, p) => {
    const bare = withoutForm(path);
    return { ...bare, anchors: done[p] as Anchor[] };
  });
}
