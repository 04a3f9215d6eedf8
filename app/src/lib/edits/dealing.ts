import {
  addChip,
  deal,
  MOST_CHIPS,
  neighboursOf,
  rgbToOklab,
  shapeBounds,
  styleShapes,
  together,
  uniteBoxes,
  EMPTY_BOX,
  boxHeight,
  boxWidth,
} from '@mirrot/core';
import { noPicture } from './no-picture';
import { newId } from '$lib/ids';
import type { Desk } from '$lib/desk/desk.svelte';
import { wishesFor, type Toner } from './toning';

/** Outlines nearer than this share of the drawing's size lie along each other. */
const NEAR = 1 / 600;

/**
 * Offers a range dealt over the chosen shapes by the lightness of the picture beneath each, as chips; neighbours never the same
 * where that is asked for.
 *
 * @param range hex colours, light first
 */
export async function offerDeal(
  desk: Desk,
  name: string,
  range: readonly string[],
  run: Toner,
): Promise<void> {
  desk.leaveOffer();
  const by = desk.picture.driftSettings;
  if (!by) return desk.say(noPicture(desk, 'to deal by'), 'bad');
  const shapes = desk.choosing.receivedShapes;
  if (shapes.length < 2) return desk.say('Choose the shapes that the range is dealt over.');
  const { art } = desk;
  const asked = wishesFor(desk, shapes, by);
  // What lies above does not matter here: the pieces of a mosaic lie side by side.
  const found = await run(by, asked.map(({ wish }) => ({ ...wish, covers: [] }))); // prettier-ignore
  if (!found || desk.art !== art) return;
  const lightness = found.map((tone) => tone && rgbToOklab(tone.body)[0]);
  if (lightness.every((l) => l === null))
    return desk.say('None of these shapes lies on the picture. Nothing was changed.', 'bad');
  const box = asked.map(({ shape }) => shapeBounds(shape)).reduce(uniteBoxes, EMPTY_BOX);
  const within = NEAR * Math.max(boxWidth(box), boxHeight(box));
  const neighbours = desk.habits.dealApart ? neighboursOf(asked.map(({ shape }) => shape), within) : undefined; // prettier-ignore
  const { places, alike } = deal(lightness, range.length, neighbours);
  const chips = range.map((hex, i) => {
    const known = art.chips.find((c) => c.hex === hex);
    return { chip: known ?? { id: newId(), name: `${name} ${i + 1}`, hex }, fresh: !known };
  });
  const dealt = new Set(places);
  const more = chips.filter(({ fresh }, i) => fresh && dealt.has(i)).length;
  if (art.chips.length + more > MOST_CHIPS)
    return desk.say(
      `A palette has ${MOST_CHIPS} chips at most, and this needs ${more} more. Nothing was changed.`,
      'bad',
    );
  desk.makeOffer({
    from: 'palette',
    text: `${range.length} steps of ${name} dealt over ${asked.length} shapes${alike > 0 ? `; ${alike} ${alike === 1 ? 'pair' : 'pairs'} of neighbours stay alike, the range is too short` : ''}`,
    label: 'Deal a range',
    recipe: together(
      ...chips.flatMap(({ chip, fresh }, i) => (fresh && dealt.has(i) ? [addChip(chip)] : [])),
      ...asked.map(({ shape }, i) => styleShapes([shape.id], { fill: { chip: chips[places[i]!]!.chip.id } })),
    ),
    preview: true,
    after: { choice: desk.choice },
  });
}
