/** Where a browser does not say when it rests, it is taken to by then, milliseconds. */
const RESTS_AFTER_MS = 1000;

/**
 * Does something once while nothing else is to be done.
 *
 * @returns takes it back
 */
export function whenIdle(run: () => void): () => void {
  if (!('requestIdleCallback' in globalThis)) {
    const timer = setTimeout(run, RESTS_AFTER_MS);
    return () => clearTimeout(timer);
  }
  const idle = requestIdleCallback(run);
  return () => cancelIdleCallback(idle);
}
