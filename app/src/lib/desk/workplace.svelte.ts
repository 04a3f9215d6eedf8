import { FIRST_EXPORT, type Exporting } from './exporting';
import {
  addPicture,
  fitOnSheet,
  numberedName,
  placedPicture,
  type Art,
  type PlacedPicture,
  type Sheet,
} from '@mirrot/core';
import { newId } from '$lib/ids';
import type { CopyAnswer, PictureAnswer, ProjectAnswer } from '$lib/wire';
import { getCopy, keepCopy, listCopies, renameProject, sendLeft, ServerError, uploadPicture } from './api';
import type { Notice } from '$lib/ui/notice';
import { Columns } from './columns.svelte';
import type { Desk } from './desk.svelte';
import type { Progress, ProgressPlace } from './progress';
import { keepInTab, whereLeft } from './left';
import { LineMaking } from './line-making.svelte';
import { forgetSetAside, listSetAside, type SetAside } from './kept-changes';
import { fetchMerge } from './merging';
import type { Replacement, Saving } from './saving.svelte';

const SINGLE_KEYS = 'mirrot-single-keys';

/** The dialogs of the desk; one is open at most. */
export type DialogName = 'finder' | 'keys' | 'set-aside' | 'sheet' | 'square-up' | 'swap' | 'real-size';

/** A question with its answers; left unanswered, nothing is done. */
export interface Question {
  readonly text: string;
  readonly ways: readonly { readonly label: string; run(): void | Promise<void> }[];
}

/** The desk with what surrounds it: its project, how it is saved, what is under way. */
export class Workplace implements ProgressPlace {
  project: ProjectAnswer = $state.raw()!;
  copies: readonly CopyAnswer[] = $state.raw([]);
  progress: Progress | null = $state.raw(null);
  /** What is asked above the bed, and what each answer does. */
  question: Question | null = $state.raw(null);
  readonly columns: Columns;
  /** The dialog that was asked for. */
  dialog: Exclude<DialogName, 'real-size'> | null = $state(null);
  /** Whether keys without Ctrl do anything (WCAG 2.2, 2.1.4: they can be switched off). Remembered in the browser. */
  singleKeys = $state(globalThis.localStorage?.getItem(SINGLE_KEYS) !== 'off');
  /** The last file written, for the route bar. */
  lastFile: string | null = $state(null);
  exporting: Exporting = $state({ ...FIRST_EXPORT });
  readonly lineMaking = new LineMaking();
  /** The bench stands where the bed is. */
  benchShown = $state(false);
  /** So does the replay. */
  replayShown = $state(false);

  /** Changes that the server did not take, oldest first. */
  asides: readonly SetAside[] = $state.raw([]);

  constructor(
    readonly desk: Desk,
    readonly saving: Saving,
    project: ProjectAnswer,
    /** The project is left: what waits is still sent. */
    readonly leave: () => void = () => saving.stop(),
  ) {
    this.project = project;
    this.columns = new Columns(desk.habits);
  }

  /** The dialog that is open: a line over a known length asks for the length by itself. */
  get dialogShown(): DialogName | null {
    return this.dialog ?? (this.desk.picture.knownLength ? 'real-size' : null);
  }

  /** Has it remembered where the desk stands, so that the project opens there again. */
  async rememberLeft(): Promise<void> {
    const left = whereLeft(this.desk);
    keepInTab(this.project.id, left);
    // Where the server is away, the project opens as it did the last time.
    await sendLeft(this.project.id, left).catch(() => {});
  }

  say(text: string, tone?: Notice['tone']): void {
    this.desk.say(text, tone);
  }

  /** The drawing has become another one than the hand made: shows it and says why. */
  replaceDrawing(art: Art, replacement: Replacement): void {
    this.desk.replaceArt(art);
    if (replacement.why === 'set-aside') {
      this.asides = [...this.asides, replacement.aside];
      this.desk.say(
        `The server did not take “${replacement.aside.label}”: ${replacement.aside.reason} It is set aside in this browser; the rest goes on.`,
        'bad',
        { label: 'Show', run: () => this.showAsides() },
      );
    } else if (replacement.why === 'refreshed')
      this.desk.say('The project was changed in another tab; this is how it is now.');
    else {
      const both = replacement.conflicts;
      const named =
        both.length > 5 ? `${both.slice(0, 5).join(', ')} and ${both.length - 5} more` : both.join(', ');
      this.desk.say(
        both.length === 0
          ? 'Both drawings are together. Nothing was changed by both.'
          : `Both drawings are together. Both had changed ${named}: there, this tab’s is taken. Undo takes yours back.`,
        'good',
      );
    }
  }

  /** Joins this page's drawing with another's. */
  async takeOver(): Promise<void> {
    try {
      await this.saving.takeOver();
    } catch (error) {
      this.desk.say(sentenceOf(error, 'The drawings could not be brought together. What you drew is kept in this browser.'), 'bad'); // prettier-ignore
    }
  }

  showAsides(): void {
    this.dialog = 'set-aside';
    this.desk.notice = null;
  }

  async loadAsides(): Promise<void> {
    this.asides = await listSetAside(this.project.id).catch(() => this.asides);
  }

  /** Tries a change that was set aside once more, on the drawing as it is now. */
  async tryAside(aside: SetAside): Promise<void> {
    try {
      const mergeArt = await fetchMerge();
      const { art } = mergeArt(aside.before, aside.after, this.desk.art);
      if (!this.desk.become(aside.label, art))
        this.desk.say('Nothing of it is left to do: the drawing has it already.');
      await this.forgetAside(aside);
    } catch {
      this.desk.say('It does not fit the drawing any more. It stays set aside.', 'bad');
    }
  }

  async forgetAside(aside: SetAside): Promise<void> {
    await forgetSetAside(aside.id).catch(() => {});
    this.asides = this.asides.filter((a) => a.id !== aside.id);
    if (this.asides.length === 0 && this.dialog === 'set-aside') this.dialog = null;
  }

  /** Uploads pictures and places them on the sheet, one step of the history each. */
  async addPictures(files: readonly File[]): Promise<void> {
    for (const file of files) {
      const stopper = new AbortController();
      const show = (share: number | null): void => {
        this.progress = {
          text: share === 1 ? `Reading ${file.name}` : `Sending ${file.name}`,
          share,
          stop: () => stopper.abort(),
        };
      };
      show(0);
      try {
        const answer = await uploadPicture(this.project.id, file, show, stopper.signal);
        const placed = newPicture(answer, this.desk.art.sheet, newId());
        this.desk.change('Add a picture', addPicture(placed));
        this.desk.say(`${answer.name} lies on the sheet.`, 'good');
      } catch (error) {
        this.desk.say(sentenceOf(error, 'The picture could not be added.'), 'bad');
      } finally {
        this.progress = null;
      }
    }
  }

  turnSingleKeys(on: boolean): void {
    this.singleKeys = on;
    localStorage.setItem(SINGLE_KEYS, on ? 'on' : 'off');
  }

  async rename(name: string): Promise<void> {
    try {
      this.project = await renameProject(this.project.id, name);
    } catch (error) {
      this.desk.say(sentenceOf(error, 'The project keeps its name: it could not be renamed.'), 'bad');
    }
  }

  /** Takes the drawing back to a kept copy: a change like any other. */
  async goBackTo(copy: CopyAnswer): Promise<void> {
    try {
      const art = await getCopy(this.project.id, copy.id);
      this.desk.become(`Go back to ${copy.name}`, art);
      this.desk.say(`The drawing is as it was in ${copy.name}. Undo brings back what it was.`, 'good');
    } catch (error) {
      this.desk.say(sentenceOf(error, 'The kept copy could not be fetched. Nothing was changed.'), 'bad');
    }
  }

  async loadCopies(): Promise<void> {
    this.copies = await listCopies(this.project.id).catch(() => this.copies);
  }

  /** Keeps the drawing under a name, once the server has all of it. */
  async keepCopy(): Promise<void> {
    if (!(await this.saving.settled(3000)))
      return this.desk.say(
        'The newest changes are not on the server yet, so no copy was kept. Try again when it is back.',
        'bad',
      );
    const name = numberedName('Copy', new Set(this.copies.map((copy) => copy.name)));
    try {
      const copy = await keepCopy(this.project.id, name);
      this.copies = [copy, ...this.copies];
      this.desk.say(`Kept as ${name}. Proof lists the kept copies.`, 'good');
    } catch (error) {
      this.desk.say(sentenceOf(error, 'No copy could be kept.'), 'bad');
    }
  }
}

/** The sentence of an error that the server or the network gave, or another. */
export const sentenceOf = (error: unknown, otherwise: string): string =>
  error instanceof ServerError ? error.message : otherwise;

/** A picture just uploaded, in the middle of the sheet as large as fits. */
export const newPicture = (
  { id: source, name, width, height }: PictureAnswer,
  sheet: Pick<Sheet, 'width' | 'height'>,
  id: string,
): PlacedPicture =>
  placedPicture({ id, source, name, width, height, placement: fitOnSheet({ width, height }, sheet) });
