import type { Patches } from 'mutative';
import { MirrotError } from '../error';

/** One operation of a JSON Patch (RFC 6902): add, replace or remove. */
export type Patch = Patches<{ pathAsArray: false; arrayLengthAssignment: false }>[number];

type Container = Record<string, unknown> | unknown[];

const INDEX = /^(?:0|[1-9]\d*)$/;
/** Names that reach past an object's own data. */
const NOT_DATA = new Set(['__proto__', 'constructor', 'prototype']);

const misfit = (): MirrotError =>
  new MirrotError('change', 'The change names a place that the drawing does not have. Nothing was changed.');

/** Steps of a JSON Pointer (RFC 6901): "/a~1b/0" gives ["a/b", "0"]. */
function pointerSteps(pointer: string): string[] {
  if (!pointer.startsWith('/')) throw misfit();
  return pointer
    .slice(1)
    .split('/')
    .map((step) => step.replaceAll('~1', '/').replaceAll('~0', '~'));
}

const isContainer = (value: unknown): value is Container => typeof value === 'object' && value !== null;

/** The index that a step names in a list; `end` is the largest allowed. */
function indexIn(step: string, end: number): number {
  const index = INDEX.test(step) ? Number(step) : -1;
  if (index < 0 || index > end) throw misfit();
  return index;
}

/** A document after patches, and the patches that lead back. */
export interface Patched<T> {
  readonly document: T;
  readonly inverse: readonly Patch[];
}

/**
 * Carries out JSON patches (RFC 6902: add, replace, remove) on plain data. Only what a patch touches is copied; the
 * original stays. A place that is not there, a list's `length`, an index beyond a list's end and the whole document
 * (an empty pointer) are refused.
 *
 * @throws MirrotError `change`; nothing is carried out then
 */
export function patchDocument<T extends object>(document: T, patches: readonly Patch[]): Patched<T> {
  // What this run has copied already and may write into.
  const copies = new Set<Container>();
  const writable = (value: unknown): Container => {
    if (!isContainer(value)) throw misfit();
    if (copies.has(value)) return value;
    const copy = Array.isArray(value) ? value.slice() : { ...value };
    copies.add(copy);
    return copy;
  };
  const root = { document: document as unknown };
  const inverse: Patch[] = [];
  for (const { op, path, value } of patches) {
    const steps = pointerSteps(path);
    const last = steps.pop()!;
    let at: Container = (root.document = writable(root.document));
    for (const step of steps) {
      if (Array.isArray(at)) {
        const index = indexIn(step, at.length - 1);
        at = at[index] = writable(at[index]);
      } else {
        if (NOT_DATA.has(step) || !Object.hasOwn(at, step)) throw misfit();
        at = at[step] = writable(at[step]);
      }
    }
    if (value === undefined && op !== 'remove') throw misfit();
    if (Array.isArray(at)) {
      if (op === 'add') {
        const index = last === '-' ? at.length : indexIn(last, at.length);
        at.splice(index, 0, value);
        inverse.push({ op: 'remove', path: path.replace(/-$/, String(index)) });
      } else {
        const index = indexIn(last, at.length - 1);
        const before = at[index];
        if (op === 'replace') at[index] = value;
        else at.splice(index, 1);
        inverse.push({ op: op === 'replace' ? 'replace' : 'add', path, value: before });
      }
    } else {
      const held = Object.hasOwn(at, last);
      if (NOT_DATA.has(last) || (op !== 'add' && !held)) throw misfit();
      const before = at[last];
      if (op === 'remove') Reflect.deleteProperty(at, last);
      else at[last] = value;
      if (!held) inverse.push({ op: 'remove', path });
      else inverse.push({ op: op === 'remove' ? 'add' : 'replace', path, value: before });
    }
  }
  return { document: root.document as T, inverse: inverse.reverse() };
}
