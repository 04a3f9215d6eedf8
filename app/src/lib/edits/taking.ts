import { goto } from '$app/navigation';
import { MirrotError, MOST_CHIPS, readPalette, type Point } from '@mirrot/core';
import { importFile } from '$lib/desk/project-api';
import { withProgress } from '$lib/desk/progress';
import { isBundle, isDxf, isPaletteText, isSvg } from '$lib/desk/svg-file';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { addColours } from './palette';
import { takeAsDrawing } from './svg-drawing';

// Files that come to the desk from outside, whatever they are.

/** Longest text that is read as a palette, bytes. */
const LONGEST_PALETTE = 2_000_000;

/** Takes the colours of a text as chips. */
async function takePalette({ desk }: Workplace, file: File): Promise<void> {
  try {
    if (file.size > LONGEST_PALETTE) throw new MirrotError('palette', `${file.name} is longer than any palette. Nothing was added.`); // prettier-ignore
    addColours(desk, `Take ${file.name}`, readPalette(await file.text(), MOST_CHIPS));
  } catch (error) {
    desk.say(error instanceof MirrotError ? error.message : `${file.name} could not be read.`, 'bad');
  }
}

/** Takes files: pictures and drawings at once, bundles onto the shelf; an SVG may be drawing or picture, so the page asks. */
export async function takeFiles(
  workplace: Workplace,
  files: readonly File[],
  at: Point | null,
): Promise<void> {
  const bundles = files.filter(isBundle);
  if (bundles.length > 0) await shelveBundles(workplace, bundles);
  // Lines alone are no picture to trace.
  for (const file of files.filter(isDxf)) await takeAsDrawing(workplace.desk, workplace, file, at);
  for (const file of files.filter(isPaletteText)) await takePalette(workplace, file);
  const pictures = files.filter((file) => ![isSvg, isBundle, isDxf, isPaletteText].some((is) => is(file)));
  const svgs = files.filter(isSvg);
  if (pictures.length > 0) await workplace.addPictures(pictures);
  if (svgs.length === 0) return;
  const [first] = svgs;
  const what = svgs.length === 1 ? first!.name : `${svgs.length} SVG files`;
  workplace.question = {
    text: `How shall ${what} be taken?`,
    ways: [
      {
        label: 'As drawing',
        run: async () => {
          for (const file of svgs) await takeAsDrawing(workplace.desk, workplace, file, at);
        },
      },
      { label: 'As picture to trace', run: () => workplace.addPictures(svgs) },
    ],
  };
}

/** Puts the projects of bundles onto the shelf: this one goes on as it is. */
async function shelveBundles(workplace: Workplace, files: readonly File[]): Promise<void> {
  for (const file of files) {
    const stopper = new AbortController();
    const made = await withProgress(
      workplace,
      `Reading ${file.name}`,
      () => stopper.abort(),
      () => importFile(file, null, stopper.signal),
    );
    if (!made) return;
    const { project, projects } = made;
    const what = projects.length === 1 ? `${project.name} stands` : `${projects.length} projects stand`;
    workplace.desk.say(`${what} on the shelf.`, 'good', {
      label: 'Open it',
      run: () => void goto(projects.length === 1 ? `/projects/${project.id}` : '/'),
    });
  }
}
