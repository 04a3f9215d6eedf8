import { readArt, readSvg } from '@mirrot/core';
import * as Comlink from 'comlink';
import type { ReadingWork } from './reading';

// Reads drawings away from the page.

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
  copied: (text) => readArt(JSON.parse(text)),
};
Comlink.expose(work);
