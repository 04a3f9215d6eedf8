import { cutoutParts, writeParts, type Art, type PaintedPart } from '@mirrot/core';
import { cutOutApart } from './apart';
import type { Database } from './database';
import { checkPixels, pictureTexts } from './output';
import { Refusal } from './refusal';

/**
 * A cutout as PNG pixels on clear ground, at its picture's own resolution, its edge cleaned of the old background's colour.
 */
export async function outputCutout(db: Database, art: Art, groupId: string): Promise<Buffer> {
  const cutout = cutoutParts(art, groupId);
  if (!cutout)
    throw new Refusal(404, 'no-cutout', 'This is no cutout, or nothing of it is seen. Nothing was written.');
  const { box, width, height, content, inside, seen, beneath, pictures } = cutout;
  checkPixels(width, height, 'Make its picture smaller.');
  const hrefs = await pictureTexts(db, pictures, 'full');
  const drawn = (parts: readonly PaintedPart[]): string =>
    writeParts(art, parts, box, { width, height, pictureHref: (p) => hrefs.get(p.id)! });
  return cutOutApart({
    content: drawn(content),
    inside: drawn(inside),
    seen: drawn(seen),
    beneath: drawn(beneath),
    width,
    height,
    ppi: Math.max(1, (width * 96) / (box.x1 - box.x0)),
  });
}
