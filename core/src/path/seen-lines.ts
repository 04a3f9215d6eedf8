import { openPathAlong } from './along';
import { arrange } from './arrangement';
import { segmentCount, type Path } from './path';
import type { Stretch } from './stretch';
import { runsAlong, type Walked } from './walk';

/** Lines as they lie over each other: those of an area hide what lies beneath it. */
export interface LaidLines {
  readonly paths: readonly Path[];
  /** They enclose an area that hides; inside by the even-odd rule, open ones taken as closed. */
  readonly hides: boolean;
}

/**
 * The pieces of lines that are seen from above: what lies beneath an area goes, and where lines lie on each other they
 * are drawn once, by the topmost.
 *
 * @param laid bottom first, in one unit
 * @param idOf names the nth path that is new
 * @returns for each of `laid` what is left of it; a path that is seen whole is itself
 */
export function seenLines(laid: readonly LaidLines[], idOf: (n: number) => string): readonly Path[][] {
  const areas = laid.flatMap(({ hides }, level) => (hides ? [level] : []));
  const lines = laid.flatMap(({ hides, paths }, level) =>
    hides ? [] : paths.map((path) => ({ path, level })),
  );
  const arrangement = arrange(
    areas.map((level) => laid[level]!.paths),
    lines.map(({ path }) => path),
  );
  const levelOf = (member: number): number =>
    member < areas.length ? areas[member]! : lines[member - areas.length]!.level;
  /** The topmost level whose area lies on both sides of a stretch; -1 for none. */
  const coveredUpTo = ({ left, right }: Stretch): number => {
    let top = -1;
    for (const [member, rounds] of left)
      if (rounds % 2 !== 0 && (right.get(member) ?? 0) % 2 !== 0) top = Math.max(top, levelOf(member));
    return top;
  };
  const walkedOf = new Map<
    string,
    { readonly at: number; readonly walked: Walked; readonly seen: boolean }[]
  >();
  for (const stretch of arrangement.stretches) {
    const covered = coveredUpTo(stretch);
    const drawn = stretch.sources.reduce((a, b) => (levelOf(b.member) >= levelOf(a.member) ? b : a));
    for (const source of stretch.sources) {
      const { member, path, segment, from, reversed } = source;
      // What only a fill closes is no line.
      if (segment >= segmentCount(arrangement.members[member]![path]!)) continue;
      const seen = source === drawn && levelOf(member) >= covered;
      const key = `${member} ${path}`;
      const list = walkedOf.get(key) ?? [];
      if (list.length === 0) walkedOf.set(key, list);
      list.push({ at: segment + from, walked: { stretch, forward: !reversed }, seen });
    }
  }
  let count = 0;
  const leftOf = (path: Path, key: string): Path[] => {
    const all = walkedOf.get(key) ?? [];
    if (all.every(({ seen }) => seen)) return [path];
    const seen = all.filter((one) => one.seen).sort((a, b) => a.at - b.at);
    return runsAlong(
      seen.map(({ walked }) => walked),
      path.closed,
    ).map((run, n) => {
      const id = n === 0 ? path.id : idOf(count++);
      return openPathAlong(run, arrangement, id);
    });
  };
  const out = laid.map((): Path[] => []);
  areas.forEach((level, member) =>
    laid[level]!.paths.forEach((path, n) => out[level]!.push(...leftOf(path, `${member} ${n}`))),
  );
  lines.forEach(({ path, level }, n) => out[level]!.push(...leftOf(path, `${areas.length + n} 0`)));
  return out;
}
