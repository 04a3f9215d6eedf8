import { goto } from '$app/navigation';
import type { Point } from '@mirrot/core';
import { toSheet } from '$lib/desk/view';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { pasteInto } from '$lib/edits/clipboard';
import { importFile } from '$lib/desk/project-api';
import { withProgress } from '$lib/desk/progress';
import { isBundle, isDxf, isSvg, svgInText } from '$lib/desk/svg-file';
import { takeAsDrawing } from '$lib/edits/svg-drawing';
import { filesIn } from '$lib/ui/files';

// What comes to the desk from outside: pasted or dropped.

export { copyChosen, cutChosen } from '$lib/edits/clipboard';

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
  const pictures = files.filter((file) => ![isSvg, isBundle, isDxf].some((is) => is(file)));
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

/** Takes what was pasted; false where there is nothing of use in it. */
export function takePasted(workplace: Workplace, data: DataTransfer, at: Point | null): boolean {
  const { desk } = workplace;
  if (!desk.live && pasteInto(desk, workplace, data, at)) return true;
  const svg = svgInText(data.getData('text/plain'));
  const files = svg ? [svg] : filesIn(data);
  if (files.length === 0) return false;
  void takeFiles(workplace, files, at);
  return true;
}

/** Takes what was dropped, where it was dropped when that was on the bed. */
export function takeDropped(workplace: Workplace, e: DragEvent, bed: HTMLElement | undefined): void {
  const files = filesIn(e.dataTransfer);
  const svg = files.length === 0 ? svgInText(e.dataTransfer?.getData('text/plain') ?? '') : null;
  const all = svg ? [svg] : files;
  if (all.length === 0) return;
  const box = bed?.getBoundingClientRect();
  const onBed = box && e.target instanceof Node && bed!.contains(e.target);
  const at = onBed
    ? toSheet(workplace.desk.looking.view, { x: e.clientX - box.x, y: e.clientY - box.y })
    : null;
  void takeFiles(workplace, all, at);
}
