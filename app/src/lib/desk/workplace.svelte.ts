import {
  addPicture,
  compose,
  fitOnSheet,
  placedPicture,
  scaling,
  setPicture,
  type PlacedPicture,
  type Sheet,
} from '@mirrot/core';
import { newId } from '$lib/ids';
import type { CopyAnswer, PictureAnswer, ProjectAnswer } from '$lib/wire';
import {
  enlargePicture,
  getCopy,
  keepCopy,
  listCopies,
  renameProject,
  ServerError,
  uploadPicture,
} from './api';
import type { Desk } from './desk.svelte';
import type { Progress } from './progress';
import type { Saving } from './saving.svelte';

const SINGLE_KEYS = 'mirrot-single-keys';

/** The desk with what surrounds it: its project, how it is saved, what is under way. */
export class Workplace {
  project: ProjectAnswer = $state.raw()!;
  copies: readonly CopyAnswer[] = $state.raw([]);
  progress: Progress | null = $state.raw(null);
  finder = $state(false);
  sheetShown = $state(false);
  /** The dialog over the picture that is open. */
  over: 'square-up' | 'swap' | null = $state(null);
  keysShown = $state(false);
  /** Whether keys without Ctrl do anything (WCAG 2.2, 2.1.4: they can be switched off). Remembered in the browser. */
  singleKeys = $state(globalThis.localStorage?.getItem(SINGLE_KEYS) !== 'off');
  /** The last file written, for the route bar. */
  lastFile: string | null = $state(null);
  exporting = $state({
    format: 'svg' as 'svg' | 'png',
    area: 'sheet' as 'sheet' | 'drawing',
    ground: 'clear' as string,
    ppi: 300,
    picture: false,
  });

  constructor(
    readonly desk: Desk,
    readonly saving: Saving,
    project: ProjectAnswer,
  ) {
    this.project = project;
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

  /** Puts a version twice as large in the traced picture's place; nothing moves. */
  async enlarge(): Promise<void> {
    const p = this.desk.traced;
    if (!p) return;
    this.progress = { text: `Making ${p.name} larger`, share: null, stop: () => (this.progress = null) };
    const progress = this.progress;
    try {
      const made = await enlargePicture(this.project.id, p.source, 2);
      if (this.progress !== progress || this.desk.traced !== p) return;
      this.desk.change('Make the picture larger', setPicture(p.id, enlarged(p, made)));
      this.desk.say(
        `The picture has ${made.width} × ${made.height} px now. It is smoother, not sharper.`,
        'good',
      );
    } catch (error) {
      this.desk.say(sentenceOf(error, 'The picture could not be made larger. Nothing was changed.'), 'bad');
    } finally {
      if (this.progress === progress) this.progress = null;
    }
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
      this.desk.change(`Go back to ${copy.name}`, (draft) => void Object.assign(draft, art));
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
    const name = `Copy ${this.copies.length + 1}`;
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

/** What of a picture changes when it is replaced by a larger version of itself, so that nothing is seen to move. */
export function enlarged(
  p: PlacedPicture,
  { id: source, width, height }: Pick<PictureAnswer, 'id' | 'width' | 'height'>,
): Partial<PlacedPicture> {
  const k = width / p.width;
  const { square, crop } = p;
  return {
    source,
    width,
    height,
    placement: compose(p.placement, scaling(1 / k)),
    square: square && {
      corners: square.corners.map((c) => ({ x: c.x * k, y: c.y * k })) as unknown as typeof square.corners,
      width: Math.round(square.width * k),
      height: Math.round(square.height * k),
    },
    crop: crop && { x0: crop.x0 * k, y0: crop.y0 * k, x1: crop.x1 * k, y1: crop.y1 * k },
  };
}
