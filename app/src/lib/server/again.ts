import { emptyArt, type Art } from '@mirrot/core';
import { newId } from '$lib/ids';
import type { AgainRequest, ProjectAnswer } from '$lib/wire';
import { getCopy } from './copies';
import type { Database } from './database';
import { getArt } from './documents';
import { addProject } from './projects';

/** A drawing with no more of another than what is asked for. What is kept needs goes along: chips, pictures that are part of it. */
export function artFrom(art: Art, keep: AgainRequest['keep']): Art {
  const { width, height, unit } = art.sheet;
  const empty = emptyArt({ width, height, unit }, newId());
  const drawing = keep.includes('drawing');
  const layers = drawing
    ? art.layers
    : keep.includes('layers')
      ? art.layers.map((layer) => ({ ...layer, children: [] }))
      : empty.layers;
  const pictures = keep.includes('pictures') || drawing ? art.pictures : [];
  return {
    ...empty,
    sheet: art.sheet,
    layers,
    pictures,
    traced: pictures.length > 0 ? art.traced : null,
    chips: keep.includes('palette') || drawing ? art.chips : [],
    colourways: keep.includes('palette') || drawing ? art.colourways : [],
    guides: keep.includes('layers') || drawing ? art.guides : empty.guides,
    grid: art.grid,
    axis: drawing ? art.axis : null,
    aside: drawing ? art.aside : [],
  };
}

/** Makes a project of another, or of one of its kept copies. */
export async function projectFrom(
  db: Database,
  projectId: string,
  { name, copy, keep }: AgainRequest,
): Promise<ProjectAnswer> {
  const art = copy === undefined ? (await getArt(db, projectId)).art : await getCopy(db, projectId, copy);
  const from = artFrom(art, keep);
  return addProject(
    db,
    name,
    from,
    from.pictures.map(({ source }) => source),
  );
}
