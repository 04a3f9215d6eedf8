import { addPicture, changeArt, fitName, PX_PER, setSheet, together, toPx, type Sheet } from '@mirrot/core';
import { deleteProject, getArt, makeProject, sendChanges, uploadPicture } from '$lib/desk/api';
import { newPicture } from '$lib/desk/workplace.svelte';
import { newId } from '$lib/ids';
import type { PictureAnswer, SheetRequest } from '$lib/wire';

/** The sheet a new project gets: one that was named, or the picture's own size. */
export type SheetWish = SheetRequest | 'as the picture';

/** A4 upright. Source: ISO 216. */
export const A4: SheetRequest = { width: 210, height: 297, unit: 'mm' };

/** The sheet that is as large as a picture: by its ppi in millimetres, or a pixel to a sheet pixel when it has none. */
export function sheetOfPicture({
  width,
  height,
  ppi,
}: Pick<PictureAnswer, 'width' | 'height' | 'ppi'>): Omit<Sheet, 'ground' | 'ppi'> {
  // Files often say 72 or 96 without meaning it: only a scan's or printer's density is taken at its word.
  if (ppi === null || ppi < 100) return { width, height, unit: 'px' };
  return { width: (width * PX_PER.in) / ppi, height: (height * PX_PER.in) / ppi, unit: 'mm' };
}

/**
 * Makes a project with pictures on its sheet: the first is traced, further ones lie hidden beneath until they are shown.
 * When a picture is refused, there is no project either.
 *
 * @param progress hears the share of the picture sent, 0 to 1
 * @returns the project's id
 * @throws ServerError with a sentence
 */
export async function startProject(
  name: string,
  sheet: SheetWish,
  files: readonly File[],
  progress?: (share: number) => void,
  signal?: AbortSignal,
): Promise<string> {
  const project = await makeProject(name, sheet === 'as the picture' ? A4 : sheet);
  const [file, ...more] = files;
  if (!file) return project.id;
  try {
    const picture = await uploadPicture(project.id, file, progress, signal);
    const { art, revision } = await getArt(project.id);
    const size =
      sheet === 'as the picture'
        ? sheetOfPicture(picture)
        : { width: toPx(sheet.width, sheet.unit), height: toPx(sheet.height, sheet.unit), unit: sheet.unit };
    const placed = newPicture(picture, size, newId());
    const { patches } = changeArt(art, together(setSheet(size), addPicture(placed)));
    await sendChanges(project.id, revision, [{ patches, note: null }], newId());
    let base = revision + 1;
    let drawn = changeArt(art, together(setSheet(size), addPicture(placed))).art;
    for (const next of more) {
      const added = newPicture(await uploadPicture(project.id, next, progress, signal), size, newId());
      const change = changeArt(drawn, addPicture({ ...added, shown: false }));
      await sendChanges(project.id, base, [{ patches: change.patches, note: null }], newId());
      drawn = change.art;
      base++;
    }
    return project.id;
  } catch (error) {
    await deleteProject(project.id).catch(() => {});
    throw error;
  }
}

/** A project's name from a file's: without its ending, hyphens as spaces. */
export function nameFromFile(file: string): string {
  const words = fitName(file.replace(/\.[^.]{1,5}$/, '').replace(/[-_]+/g, ' '), 'Untitled');
  return words.charAt(0).toUpperCase() + words.slice(1);
}
