import { effortSchema, workIn, type Effort } from '@mirrot/core';

// What an exercise cost so far: presses of buttons and keys, and the time at work.

/** Keys that are held beside others are no presses of their own. */
const BESIDE_OTHERS = new Set(['Shift', 'Control', 'Alt', 'Meta', 'CapsLock']);

type Store = Pick<Storage, 'getItem' | 'setItem'>;
const keyOf = (project: string): string => `mirrot-effort-${project}`;

/** The effort kept for a project; none where nothing, or nothing that makes sense, is kept. */
export function keptEffort(project: string, store: Store | undefined = globalThis.localStorage): Effort {
  try {
    const read = effortSchema.safeParse(JSON.parse(store?.getItem(keyOf(project)) ?? ''));
    if (read.success) return read.data;
  } catch {
    // Nothing is kept, or not by this.
  }
  return { seconds: 0, presses: 0 };
}

/**
 * The effort after something was heard.
 *
 * @param gap seconds since something was heard before; a clock that jumped back, or far ahead, counts as a pause does
 */
export const afterInput = ({ seconds, presses }: Effort, gap: number, press: boolean): Effort => ({
  seconds: seconds + workIn(gap),
  presses: presses + Number(press),
});

/** What is counted now, by project. */
const counting = new Map<string, () => Effort>();

/** A project's effort up to this moment, as long as it is counted on this page; else what was kept of it. */
export const effortNow = (project: string): Effort => counting.get(project)?.() ?? keptEffort(project);

/**
 * Counts what is done on the page for a project's exercise, and keeps it in this browser.
 *
 * @returns ends it
 */
export function countEffort(
  project: string,
  page: Pick<Window, 'addEventListener' | 'removeEventListener'> = window,
  clock: () => number = () => performance.now() / 1000,
  store: Store | undefined = globalThis.localStorage,
): () => void {
  let effort = keptEffort(project, store);
  let last: number | null = null;
  const hear = (press: boolean): void => {
    const now = clock();
    effort = afterInput(effort, last === null ? 0 : now - last, press);
    last = now;
  };
  const upToNow = (): Effort => afterInput(effort, last === null ? 0 : clock() - last, false);
  counting.set(project, upToNow);
  const keep = (): void => store?.setItem(keyOf(project), JSON.stringify(effort));
  const pressed = (): void => {
    hear(true);
    keep();
  };
  const listeners: readonly (readonly [string, (event: Event) => void])[] = [
    ['pointerdown', pressed],
    [
      'keydown',
      (e) => !(e as KeyboardEvent).repeat && !BESIDE_OTHERS.has((e as KeyboardEvent).key) && pressed(),
    ],
    ['pointermove', () => hear(false)],
    ['wheel', () => hear(false)],
    ['pagehide', keep],
  ];
  for (const [name, listen] of listeners)
    page.addEventListener(name, listen, { capture: true, passive: true });
  return () => {
    if (counting.get(project) === upToNow) counting.delete(project);
    keep();
    for (const [name, listen] of listeners) page.removeEventListener(name, listen, { capture: true });
  };
}
