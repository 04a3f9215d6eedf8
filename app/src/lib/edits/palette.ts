import {
  addChip,
  chipUses,
  isGradient,
  keepAsChip,
  MOST_CHIPS,
  nearPairs,
  recolourChips,
  replaceChips,
  shapesOf,
  coloursIn,
  together,
  type NamedColour,
  type Recipe,
} from '@mirrot/core';
import { newId } from '$lib/ids';
import type { Desk } from '$lib/desk/desk.svelte';

// What is done with the palette as a whole.

/** Adds colours as chips; those that a chip has already are left out, and it is said how many came. */
export function addColours(desk: Desk, label: string, colours: readonly NamedColour[]): void {
  const known = new Set(desk.art.chips.map((c) => c.hex));
  const fresh = colours.filter(({ hex }) => !known.has(hex) && known.add(hex));
  const room = MOST_CHIPS - desk.art.chips.length;
  const taken = fresh.slice(0, room);
  if (taken.length > 0) desk.change(label, together(...taken.map(({ hex, name }) => addChip({ id: newId(), name, hex })))); // prettier-ignore
  const had = colours.length - fresh.length;
  const words = [
    `${taken.length} ${taken.length === 1 ? 'chip was' : 'chips were'} added.`,
    had > 0 ? `${had} ${had === 1 ? 'colour was' : 'colours were'} there already.` : '',
    fresh.length > room ? `A palette has ${MOST_CHIPS} chips at most: ${fresh.length - room} stay out.` : '',
  ];
  desk.say(words.filter(Boolean).join(' '), taken.length > 0 ? 'good' : 'plain');
}

/** Offers to merge chips that are hardly told apart: of each group the one used most stays. */
export function mergeNear(desk: Desk): void {
  const { chips } = desk.art;
  const uses = chipUses(desk.art);
  const stays = new Map<string, string>();
  const root = (id: string): string => (stays.has(id) ? root(stays.get(id)!) : id);
  for (const { one, other } of nearPairs(chips.map((c) => c.hex))) {
    const [a, b] = [root(chips[one]!.id), root(chips[other]!.id)];
    if (a === b) continue;
    const keepA = (uses.get(a) ?? 0) >= (uses.get(b) ?? 0);
    stays.set(keepA ? b : a, keepA ? a : b);
  }
  if (stays.size === 0)
    return desk.say('No two chips are nearer than they are told apart. Nothing was changed.');
  const groups = new Map<string, string[]>();
  for (const id of stays.keys()) groups.set(root(id), [...(groups.get(root(id)) ?? []), id]);
  desk.makeOffer({
    from: 'palette',
    text: `Merge ${stays.size + groups.size} chips into ${groups.size}`,
    label: 'Merge near chips',
    recipe: together(...[...groups].map(([by, ids]) => replaceChips(ids, by))),
    preview: true,
    after: { choice: desk.choice },
  });
}

/** Makes a chip of every colour that is none yet. */
export function keepAllAsChips(desk: Desk): void {
  const hexes = new Set<string>();
  for (const { shape } of shapesOf(desk.art))
    for (const paint of [shape.fill, shape.stroke?.paint])
      if (paint) for (const colour of isGradient(paint) ? coloursIn(paint) : [paint]) if ('hex' in colour) hexes.add(colour.hex); // prettier-ignore
  if (hexes.size === 0) return desk.say('Every colour is a chip already.');
  if (desk.art.chips.length + hexes.size > MOST_CHIPS)
    return desk.say(`The drawing has ${hexes.size} colours of its own, more than the ${MOST_CHIPS} chips of a palette. Nothing was changed.`, 'bad'); // prettier-ignore
  const known = new Map(desk.art.chips.map((c) => [c.hex, c.id]));
  const recipes = [...hexes].map((hex): Recipe => {
    const id = newId();
    const had = known.get(hex);
    return had ? together(keepAsChip({ id, name: '', hex }), replaceChips([id], had)) : keepAsChip({ id, name: '', hex }); // prettier-ignore
  });
  desk.change('Chips for all colours', together(...recipes), { choice: desk.choice });
}

/** Colours of the palette by the chips' ids. */
export const hexesById = (ids: readonly string[], hexes: readonly string[]): Record<string, string> =>
  Object.fromEntries(ids.map((id, i) => [id, hexes[i]!]));

/** Puts a colourway on: its colours are the palette's from now on. */
export const putOnColourway = (desk: Desk, name: string, hexes: Readonly<Record<string, string>>): boolean =>
  desk.change(`Colourway ${name}`, recolourChips(hexes), { choice: desk.choice });
