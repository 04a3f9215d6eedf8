import {
  arrangeNodes,
  nodesOf,
  flipNodes,
  matchNodes,
  spreadNodes,
  type Extent,
  type Frame,
  type Place,
  type Recipe,
  type TreeNode,
} from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';

// What is chosen put into places, groups as wholes.

/** What nodes are put against where none of them stays. */
export type Against = 'choice' | 'sheet';

/** A way of arranging: what it is called, and what it does. */
export interface Arranging {
  readonly label: string;
  recipe(ids: readonly string[], frame: Frame, extent: Extent): Recipe;
}

const SIDES = { across: ['left', 'middle', 'right'], down: ['top', 'middle', 'bottom'] } as const;

/** Puts what is chosen at a place of the frame. */
export function placing({ across, down }: Place): Arranging {
  const [one, other] = [down, across].map(
    (side, i) => side !== null && SIDES[i === 0 ? 'down' : 'across'][side * 2]!,
  );
  const where =
    one === 'middle' && other === 'middle'
      ? 'into the middle'
      : one === 'middle' && !other
        ? 'middle down'
        : other === 'middle' && !one
          ? 'middle across'
          : [one, other].filter(Boolean).join(' ');
  return {
    label: `Arrange ${where}`,
    recipe: (ids, frame, extent) => arrangeNodes(ids, { across, down }, frame, extent),
  };
}

export const spreading = (way: 'across' | 'down'): Arranging => ({
  label: `Even gaps ${way}`,
  recipe: (ids, _frame, extent) => spreadNodes(ids, way, extent),
});

export const flipping = (way: 'across' | 'down'): Arranging => ({
  label: `Flip ${way}`,
  recipe: (ids) => flipNodes(ids, way),
});

/** As wide or as high as the one that stays; as the lowest chosen where none does. */
export const matching = (way: 'across' | 'down'): Arranging => ({
  label: way === 'across' ? 'Same width' : 'Same height',
  recipe: (ids, frame, extent) =>
    matchNodes(ids, typeof frame === 'object' ? frame.stays : ids[0]!, way, extent),
});

/** The chosen nodes that can be arranged: layers, groups and shapes. */
export const nodesToArrange = (desk: Desk): TreeNode[] =>
  nodesOf(desk.art, chosenNodes(desk.choice, desk.art));

/** What the chosen are put against: the one that stays, the sheet where it is only one, else what was picked. */
export function frameOf(desk: Desk, against: Against): Frame {
  const { stays } = desk.choosing;
  if (stays !== null) return { stays };
  return chosenNodes(desk.choice, desk.art).length < 2 ? 'sheet' : against;
}

export const arrangingRecipe = (
  desk: Desk,
  { recipe }: Arranging,
  against: Against,
  extent: Extent,
): Recipe => recipe(chosenNodes(desk.choice, desk.art), frameOf(desk, against), extent);
