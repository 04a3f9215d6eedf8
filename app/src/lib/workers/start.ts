import * as Comlink from 'comlink';

/** A worker that is started when it is first asked, and again when it was ended or has died. */
export interface Starter<T> {
  /**
   * Asks the worker. The answer is null where the worker is ended, or dies, before it comes: an ended worker answers
   * nothing, and who waits would wait for ever.
   *
   * @throws what the worker throws; `Error` with a sentence where it has died several times in a row
   */
  ask<R>(question: (work: Comlink.Remote<T>) => Promise<R>): Promise<R | null>;
  /** Ends whatever it does, in the middle if need be. */
  end(): void;
  /** Rises by one with every start: what was told to an earlier one it no longer knows. */
  readonly generation: number;
}

/** After so many deaths in a row nothing is asked of it for a while: it would die again, and again. */
const MOST_DEATHS = 3;
const PAUSE_AFTER_DEATHS_MS = 10_000;

/** @param start makes the worker; @param now milliseconds on a steady clock */
export function starter<T>(start: () => Worker, now: () => number = () => performance.now()): Starter<T> {
  let running: { readonly worker: Worker; readonly remote: Comlink.Remote<T>; readonly ended: Promise<null>; readonly tellEnded: () => void } | null = null; // prettier-ignore
  let generation = 0;
  let deaths = 0;
  let diedAt = -Infinity;

  function end(): void {
    running?.worker.terminate();
    running?.tellEnded();
    running = null;
  }
  function begin(): NonNullable<typeof running> {
    if (deaths >= MOST_DEATHS && now() - diedAt < PAUSE_AFTER_DEATHS_MS)
      throw new Error('What works on pictures and paths away from the page keeps stopping. Reload the page; nothing is lost.'); // prettier-ignore
    const worker = start();
    let tellEnded = (): void => {};
    const ended = new Promise<null>((done) => (tellEnded = () => done(null)));
    const begun = { worker, remote: Comlink.wrap<T>(worker), ended, tellEnded };
    const died = (): void => {
      if (running !== begun) return;
      deaths++;
      diedAt = now();
      end();
    };
    // Errors in what it was asked come back as answers; these are those that leave it unable to answer.
    worker.addEventListener('error', died);
    worker.addEventListener('messageerror', died);
    generation++;
    return begun;
  }

  return {
    async ask(question) {
      const { remote, ended } = (running ??= begin());
      const answer = await Promise.race([question(remote), ended]);
      if (answer !== null) deaths = 0;
      return answer;
    },
    end,
    get generation() {
      return generation;
    },
  };
}
