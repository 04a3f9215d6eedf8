/**
 * Does one piece of work after another for as long as there is some, never two at once.
 *
 * @param next begins the next piece; null when nothing is left to do
 * @returns wakes the loop: called while it is at work it does nothing, since it looks for more by itself
 */
export function workLoop(next: () => Promise<void> | null): () => Promise<void> {
  let atWork = false;
  return async () => {
    if (atWork) return;
    atWork = true;
    try {
      for (let work = next(); work; work = next()) await work;
    } finally {
      atWork = false;
    }
  };
}

/** Work of which only the newest wish matters: while one is worked on, of the others only the newest waits. */
export function newestWish<T>(work: (wish: T) => Promise<void>): {
  ask(wish: T): void;
  /** Forgets what waits. */
  drop(): void;
  /** Something waits. */
  readonly waits: boolean;
} {
  let waiting: { readonly wish: T } | null = null;
  const wake = workLoop(() => {
    const one = waiting;
    waiting = null;
    return one && work(one.wish);
  });
  return {
    ask(wish) {
      waiting = { wish };
      void wake();
    },
    drop: () => void (waiting = null),
    get waits() {
      return waiting !== null;
    },
  };
}
