import { ServerError } from '$lib/desk/api';
import { importFile } from '$lib/desk/project-api';
import { newId } from '$lib/ids';
import type { ClassEntry } from '$lib/wire-practice';
import { readHandedIn } from './api';

/** A row of the class's table: a project of a file that was put in, or why there is none. */
export interface HandedIn {
  readonly id: string;
  readonly file: File;
  /** Which project of the file it is, from 0. */
  readonly nth: number;
  readonly entry: ClassEntry | null;
  /** Why nothing can be told of it, in a sentence. */
  readonly trouble: string | null;
}

const sameFile = (a: File, b: File): boolean =>
  a.name === b.name && a.size === b.size && a.lastModified === b.lastModified;

/** What can be told of a file: a row for each project in it, or one that says what is wrong. */
async function rowsOf(file: File, signal: AbortSignal): Promise<HandedIn[]> {
  const row = { id: newId(), file, nth: 0, entry: null, trouble: null };
  try {
    const entries = await readHandedIn(file, signal);
    return entries.map((entry, nth): HandedIn => {
      const trouble = entry.exercise === null ? 'No exercise is practised in it.' : entry.attempts.length === 0 ? 'Nothing was handed in from it.' : null; // prettier-ignore
      return { ...row, id: newId(), nth, entry, trouble };
    });
  } catch (error) {
    if (signal.aborted) throw error;
    return [{ ...row, trouble: error instanceof ServerError ? error.message : 'It could not be read.' }];
  }
}

/** The bundles that a class handed in, for as long as the application is open in this tab. */
export class ClassBook {
  rows: readonly HandedIn[] = $state.raw([]);
  /** How many files of how many are read, while some are. */
  progress: { readonly done: number; readonly of: number } | null = $state.raw(null);
  /** The projects that a file's bundles were opened as. */
  readonly #opened = new Map<File, Promise<readonly string[]>>();
  #reading: { readonly file: File; readonly stopper: AbortController } | null = null;
  #waiting: File[] = [];

  /** Reads files one after the other, those that are there already left out; more may be added meanwhile. */
  async add(files: readonly File[]): Promise<void> {
    for (const file of files) {
      const known = [...this.rows.map((row) => row.file), ...this.#waiting];
      if (this.#reading) known.push(this.#reading.file);
      if (!known.some((other) => sameFile(other, file))) this.#waiting.push(file);
    }
    const done = this.progress?.done ?? 0;
    this.progress = { done, of: done + Number(this.#reading !== null) + this.#waiting.length };
    if (this.#reading) return;
    for (let file = this.#waiting.shift(); file; file = this.#waiting.shift()) {
      const stopper = new AbortController();
      this.#reading = { file, stopper };
      try {
        const rows = await rowsOf(file, stopper.signal);
        if (!stopper.signal.aborted) this.rows = [...this.rows, ...rows];
      } catch (error) {
        if (!stopper.signal.aborted) throw error;
      } finally {
        this.#reading = null;
        this.progress = { ...this.progress, done: this.progress.done + 1 };
      }
    }
    this.progress = null;
  }

  /** Reads no more; what was read stays. */
  stop(): void {
    this.#waiting = [];
    this.#reading?.stopper.abort();
  }

  clear(): void {
    this.stop();
    this.rows = [];
    this.#opened.clear();
  }

  /** Puts a row's project onto the shelf, unless it was before; gives its id. */
  async open({ file, nth }: HandedIn): Promise<string> {
    let opened = this.#opened.get(file);
    if (!opened) {
      opened = importFile(file, null).then(({ projects }) => projects.map(({ id }) => id));
      this.#opened.set(file, opened);
      opened.catch(() => this.#opened.delete(file));
    }
    return (await opened)[nth]!;
  }
}

/** The one that pages share, so that it is still there on the way back from an answer. */
export const classBook = new ClassBook();
