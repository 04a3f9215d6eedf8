/** Something under way that can be stopped. */
export interface Progress {
  readonly text: string;
  readonly share: number | null;
  stop(): void;
}

/** What shows what is under way, and says what went wrong. */
export interface ProgressPlace {
  progress: Progress | null;
  say(text: string, tone: 'bad'): void;
}

/** What takes longer than this is shown, milliseconds. */
export const SHOWN_AFTER_MS = 300;

/**
 * Does what may take long: shown after 300 ms, with the share that is done, and stopped when wished. What it throws is said.
 *
 * @param end stops the work itself
 * @param work is given what to call with the share that is done, 0 to 1
 * @returns null when it was stopped, or went wrong
 */
export async function withProgress<T>(
  place: ProgressPlace,
  text: string,
  end: () => void,
  work: (tell: (share: number) => void) => Promise<T>,
): Promise<T | null> {
  let share: number | null = null;
  let stop = (): void => {};
  const stopped = new Promise<null>((done) => {
    stop = () => {
      end();
      done(null);
    };
  });
  const show = (): void => void (place.progress = { text, share, stop });
  const slow = setTimeout(show, SHOWN_AFTER_MS);
  const tell = (done: number): void => {
    share = done;
    if (place.progress) show();
  };
  try {
    return await Promise.race([work(tell), stopped]);
  } catch (error) {
    place.say(error instanceof Error ? error.message : String(error), 'bad');
    return null;
  } finally {
    clearTimeout(slow);
    place.progress = null;
  }
}
