import { chipsOf } from './paint';
import type { Art } from './schema';
import { shapesOf } from './tree';

/** How often each chip is used, by id; what was taken off counted too. */
export function chipUses(art: Art): Map<string, number> {
  const uses = new Map<string, number>();
  for (const { shape } of shapesOf(art))
    for (const chip of chipsOf(shape)) uses.set(chip, (uses.get(chip) ?? 0) + 1);
  return uses;
}
