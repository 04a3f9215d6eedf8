import { nodeNames, numberedName, type Path, type Shape } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';

// Shapes that get other lines than they had, and shapes made of others.

/** The same paths as new ones. */
export const freshPaths = (paths: readonly Path[]): Path[] => paths.map((path) => ({ ...path, id: newId() }));

/** A shape without what holds only for the lines it has. */
export const withoutOwnLines = ({ axis: _axis, lettering: _lettering, place: _place, poured: _poured, ...rest }: Shape): Shape => rest; // prettier-ignore

/** Names for shapes that are made of others: as asked for, numbered where there is one already. */
export function namesFor(desk: Desk): (word: string) => string {
  const names = new Set(nodeNames(desk.drawing.kept));
  return (word) => {
    const name = names.has(word) ? numberedName(word, names, 2) : word;
    names.add(name);
    return name;
  };
}
