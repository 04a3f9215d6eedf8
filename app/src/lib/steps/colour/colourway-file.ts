import { changeArt, recolourChips, writeSvg } from '@mirrot/core';
import { strToU8, zipSync } from 'fflate';
import type { Workplace } from '$lib/desk/workplace.svelte';
import { hexesById } from '$lib/edits/palette';
import { saveFile } from '$lib/ui/files';

/** A name as a file may have it everywhere. */
const fileName = (name: string): string => name.replace(/[\\/:*?"<>|\p{Cc}]+/gu, ' ').trim().slice(0, 80) || 'colourway'; // prettier-ignore

/** Writes each colourway as an SVG of its own, all in one zip. */
export async function colourwayFile(
  w: Workplace,
  ways: readonly { readonly name: string; readonly hexes: readonly string[] }[],
): Promise<void> {
  const art = w.desk.drawing.kept;
  const ids = art.chips.map((c) => c.id);
  const files: Record<string, Uint8Array> = {};
  for (const { name, hexes } of ways) {
    let own = fileName(name);
    for (let n = 2; files[`${own}.svg`]; n++) own = `${fileName(name)} ${n}`;
    files[`${own}.svg`] = strToU8(writeSvg(changeArt(art, recolourChips(hexesById(ids, hexes))).art));
    await new Promise((done) => setTimeout(done));
  }
  saveFile(`${w.project.name} colourways.zip`, new Blob([new Uint8Array(zipSync(files))], { type: 'application/zip' })); // prettier-ignore
}
