import {
  addChip,
  growBox,
  boxHeight,
  boxWidth,
  BACKGROUND_NAME,
  isEmptyBox,
  layBackground,
  paintedBox,
  paintList,
  together,
  type Box,
  type Colour,
  type Recipe,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';

/** Room round the drawing, as a share of its longer side. */
const MARGIN = 0.08;
/** Colour of a background where no chip is at hand. */
const PAPER_HEX = '#fbf7ee';

/** Lays a box beneath everything: as large as the sheet, or as the drawing with some room. It takes the next fill. */
export function layBackgroundOf(desk: Desk, area: 'sheet' | 'drawing'): void {
  const { art } = desk;
  const { width, height } = art.sheet;
  let box: Box = { x0: 0, y0: 0, x1: width, y1: height };
  if (area === 'drawing') {
    // The background that is there already is not part of what it lies under.
    const [lowest, ...above] = art.layers;
    const children = lowest!.children.filter((n, i) => i > 0 || n.name !== BACKGROUND_NAME);
    const drawn = paintedBox(paintList({ ...art, layers: [{ ...lowest!, children }, ...above] }));
    if (isEmptyBox(drawn) || boxWidth(drawn) * boxHeight(drawn) === 0)
      return desk.say('Nothing is painted yet, so there is nothing to lay a background round.');
    box = growBox(drawn, MARGIN * Math.max(boxWidth(drawn), boxHeight(drawn)));
  }
  const next = desk.colouring.nextFill;
  const recipes: Recipe[] = [];
  let colour: Colour | null = next && 'chip' in next ? next : null;
  if (!colour) {
    const chip = { id: newId(), name: BACKGROUND_NAME, hex: next && 'hex' in next ? next.hex : PAPER_HEX };
    const same = art.chips.find((c) => c.hex === chip.hex);
    if (!same) recipes.push(addChip(chip));
    colour = { chip: (same ?? chip).id };
  }
  recipes.push(layBackground(box, colour, { shape: newId(), path: newId() }));
  desk.change('Lay a background', together(...recipes));
}
