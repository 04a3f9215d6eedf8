import { get, ServerError } from '$lib/desk/api';
import { importFile } from '$lib/desk/project-api';
import { newId } from '$lib/ids';
import type { ClassEntry } from '$lib/wire-practice';
import { readHandedIn } from './api';

/** A row of the class's table: a project of a file that was put in, or why there is none. */
export interface HandedIn {
  readonly id: string;
  readonly file: File;
  /** What it is called: the file's name, and the project's where the file has several. */
  readonly name: string;
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
  const row = { id: newId(), file, name: file.name, nth: 0, entry: null, trouble: null };
  try {
    const entries = await readHandedIn(file, signal);
    return entries.map((entry, nth): HandedIn => {
      const trouble = entry.exercise === null ? 'No exercise is practised in it.' : entry.attempts.length === 0 ? 'Nothing was handed in from it.' : null; // prettier-ignore
      const name = entries.length > 1 ? `${file.name}: ${entry.name}` : file.name;
      return { ...row, id: newId(), name, nth, entry, trouble };
    });
  } catch (error) {
    if (signal.aborted) throw error;
    return [{ ...row, trouble: error instanceof ServerError ? error.message : 'It could not be read.' }];
  }
}

/** Whether a project is still on the shelf; where that cannot be asked, it is taken for there. */
const isThere = (id: string): Promise<boolean> =>
  get(`/api/projects/${id}`).then(
    () => true,
    (error: unknown) => !(error instanceof ServerError && error.status === 404),
  );

/** The bundles that a class handed in, for as long as the application is open in this tab. */
export class ClassBook {
  rows: readonly HandedIn[] = $state.raw([]);
  /** How many files of how many are read, while some are. */
  progress: { readonly done: number; readonly of: number } | null = $state.raw(null);
  /** The projects that a file's bundles were opened as. */
  readonly #opened = new Map<File, readonly string[]>();
  readonly #opening = new Map<File, Promise<readonly string[]>>();
  #reading: { readonly file: File; readonly stopper: AbortController } | null = null;
  #waiting: File[] = [];

  /** Reads files one after the other, those that were read already left out; more may be added meanwhile. */
  async add(files: readonly File[]): Promise<void> {
    for (const file of files) {
      // One that could not be read is tried once more.
      this.rows = this.rows.filter((row) => row.entry !== null || !sameFile(row.file, file));
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
    const before = this.#opened.get(file);
    if (before && (await isThere(before[nth]!))) return before[nth]!;
    // Put there now, or again where it was deleted since; pressed twice, once.
    let opening = this.#opening.get(file);
    if (!opening) {
      opening = importFile(file, null).then(({ projects }) => projects.map(({ id }) => id));
      this.#opening.set(file, opening);
      const done = (): boolean => this.#opening.delete(file);
      opening.then(done, done);
    }
    const opened = await opening;
    this.#opened.set(file, opened);
    return opened[nth]!;
  }
}

/** The one that pages share, so that it is still there on the way back from an answer. */
export const classBook = new ClassBook();
