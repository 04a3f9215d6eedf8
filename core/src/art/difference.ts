import { longestRising } from './order';
import type { Patch } from './patch';
import { same } from './same';
import type { Art } from './schema';

type Item = Readonly<Record<string, unknown>>;
type Named = Item & { readonly id: string };

/** Lists whose items have ids, by the name they stand under. */
const NAMED_LISTS = new Set(['layers', 'children', 'paths', 'pictures', 'chips', 'lines']);
/** Parts that are written whole when anything in them differs: they are small, and mean something together only. */
const WHOLE = new Set([
  'fill',
  'stroke',
  'form',
  'axis',
  'repeat',
  'lettering',
  'poured',
  'placement',
  'place',
  'square',
  'crop',
  'in',
  'out',
]);

function namedLists(before: readonly Named[], after: readonly Named[], path: string, out: Patch[]): void {
  const shorter = Math.min(before.length, after.length);
  // Most changes leave the order of nearly all as it is: only what lies between the alike ends is looked at closely.
  let head = 0;
  while (head < shorter && before[head]!.id === after[head]!.id) head++;
  let tail = 0;
  while (tail < shorter - head && before.at(-1 - tail)!.id === after.at(-1 - tail)!.id) tail++;
  const end = after.length - tail;
  // What stands in both and keeps its order, by its place after.
  const held: (Named | undefined)[] = [];
  for (let i = 0; i < after.length; i++)
    held.push(i < head ? before[i] : i >= end ? before[before.length - after.length + i] : undefined);
  if (head + tail < Math.max(before.length, after.length)) {
    const place = new Map<string, number>();
    for (let i = head; i < end; i++) place.set(after[i]!.id, i);
    const middle = before.slice(head, before.length - tail);
    const to = middle.map(({ id }) => place.get(id) ?? -1);
    const staying = to.flatMap((at, i) => (at < 0 ? [] : [i]));
    const rising = longestRising(staying.map((i) => to[i]!));
    staying.forEach((i, k) => {
      if (rising.has(k)) held[to[i]!] = middle[i];
      else to[i] = -1;
    });
    for (let i = middle.length - 1; i >= 0; i--)
      if (to[i]! < 0) out.push({ op: 'remove', path: `${path}/${head + i}` });
    for (let i = head; i < end; i++)
      if (!held[i]) out.push({ op: 'add', path: `${path}/${i}`, value: after[i] });
  }
  after.forEach((item, i) => {
    const was = held[i];
    if (was && was !== item) objects(was, item, `${path}/${i}`, out);
  });
}

function anchorLists(before: readonly Item[], after: readonly Item[], path: string, out: Patch[]): void {
  if (before.length === after.length) {
    const changed = after.flatMap((a, i) => (same(a, before[i]) ? [] : [i]));
    if (changed.length * 2 <= after.length)
      return changed.forEach((i) => out.push({ op: 'replace', path: `${path}/${i}`, value: after[i] }));
  }
  out.push({ op: 'replace', path, value: after });
}

function objects(before: Item, after: Item, path: string, out: Patch[]): void {
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const [was, now] = [before[key], after[key]];
    if (was === now) continue;
    const place = `${path}/${key}`;
    if (now === undefined) out.push({ op: 'remove', path: place });
    else if (was === undefined) out.push({ op: 'add', path: place, value: now });
    else if (NAMED_LISTS.has(key)) namedLists(was as Named[], now as Named[], place, out);
    else if (key === 'anchors') anchorLists(was as Item[], now as Item[], place, out);
    else if (
      !WHOLE.has(key) &&
      [was, now].every((v) => typeof v === 'object' && v !== null && !Array.isArray(v))
    )
      objects(was as Item, now as Item, place, out);
    else if (!same(was, now)) out.push({ op: 'replace', path: place, value: now });
  }
}

/**
 * Patches that turn one document into another. What stands in both under one id is changed where it differs, not written
 * anew, so they cost what differs.
 */
export function artDifference(before: Art, after: Art): Patch[] {
  const out: Patch[] = [];
  objects(before as unknown as Item, after as unknown as Item, '', out);
  return out;
}
