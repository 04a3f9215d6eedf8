import { letterPaths, readArt, readDxf, readFont, readSvg, type Font } from '@mirrot/core';
import * as Comlink from 'comlink';
import type { ReadingWork } from './reading';

// Reads drawings away from the page.

/** Fonts read already, by their addresses. */
const fonts = new Map<string, Promise<Font>>();

async function fetchFont(address: string): Promise<Font> {
  const answer = await fetch(address).catch(() => null);
  if (!answer)
    throw new Error('The font could not be fetched. The text stays as it is. Try again in a moment.');
  if (!answer.ok)
    throw new Error('The font of this text is not here any more. Choose another one; until then the text stays as it is.'); // prettier-ignore
  return readFont(await answer.arrayBuffer());
}

const work: ReadingWork = {
  svg(text) {
    try {
      return readSvg(text, { layers: false });
    } catch (error) {
      if (error instanceof RangeError)
        throw new Error('This SVG is too large or too deep to be read. Nothing was added.', { cause: error });
      throw error;
    }
  },
  dxf: (text) => readDxf(text, { layers: false }),
  copied: (text) => readArt(JSON.parse(text)),
  async letters(address, lettering, id) {
    if (!fonts.has(address)) fonts.set(address, fetchFont(address));
    try {
      return letterPaths(await fonts.get(address)!, lettering, (n) => `${id}-${n}`);
    } catch (error) {
      // What could not be fetched is asked for again the next time.
      if (!(await fonts.get(address)!.catch(() => null))) fonts.delete(address);
      throw error;
    }
  },
};
Comlink.expose(work);
