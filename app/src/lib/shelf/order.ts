import type { ProjectAnswer } from '$lib/wire';

/** How projects are put in order on the shelf. */
export const ORDERS = {
  changed: 'changed last',
  opened: 'opened last',
  made: 'newest',
  name: 'name',
} as const;
export type Order = keyof typeof ORDERS;

const KEY = 'mirrot-shelf-order';
/** The order chosen in this browser before. */
export function rememberedOrder(
  store: Pick<Storage, 'getItem'> | undefined = globalThis.localStorage,
): Order {
  const value = store?.getItem(KEY);
  return value && value in ORDERS ? (value as Order) : 'changed';
}
export const rememberOrder = (order: Order): void => globalThis.localStorage?.setItem(KEY, order);

const COMPARE: Readonly<Record<Order, (a: ProjectAnswer, b: ProjectAnswer) => number>> = {
  changed: (a, b) => b.updatedAt.localeCompare(a.updatedAt),
  // Those never opened stand last.
  opened: (a, b) => (b.openedAt ?? '').localeCompare(a.openedAt ?? ''),
  made: (a, b) => b.createdAt.localeCompare(a.createdAt),
  // "Label 2" before "Label 10".
  name: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true, sensitivity: 'base' }),
};

/** The projects whose names have a text in them, in order; of one folder, or of all with null. */
export function onShelf(
  projects: readonly ProjectAnswer[],
  text: string,
  order: Order,
  folder: string | null = null,
): ProjectAnswer[] {
  const part = text.trim().toLocaleLowerCase();
  return projects
    .filter((p) => (folder === null || p.folder === folder) && p.name.toLocaleLowerCase().includes(part))
    .sort(COMPARE[order]);
}

/** The words of all folders, as people sort words. */
export const foldersOf = (projects: readonly ProjectAnswer[]): string[] =>
  [...new Set(projects.map((p) => p.folder))]
    .filter((word) => word !== '')
    .sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
