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
  'placement',
  'place',
  'square',
  'crop',
  'in',
  'out',
]);

function namedLists(before: readonly Named[], after: readonly Named[], path: string, out: Patch[]): void {
  const place = new Map(after.map(({ id }, i) => [id, i]));
  const staying = before.flatMap(({ id }, i) => (place.has(id) ? [i] : []));
  const rising = longestRising(staying.map((i) => place.get(before[i]!.id)!));
  const kept = new Set(staying.filter((_, k) => rising.has(k)));
  for (let i = before.length - 1; i >= 0; i--)
    if (!kept.has(i)) out.push({ op: 'remove', path: `${path}/${i}` });
  const was = new Map([...kept].map((i) => [before[i]!.id, before[i]!]));
  after.forEach((item, i) => {
    if (!was.has(item.id)) out.push({ op: 'add', path: `${path}/${i}`, value: item });
  });
  after.forEach((item, i) => {
    const held = was.get(item.id);
    if (held && held !== item) objects(held, item, `${path}/${i}`, out);
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
