import { readSvg } from '@mirrot/core';
import * as Comlink from 'comlink';
import type { SvgWork } from './svg';

// Reads SVG away from the page.

const work: SvgWork = {
  read(text) {
    try {
      return readSvg(text, { layers: false });
    } catch (error) {
      if (error instanceof RangeError)
        throw new Error('This SVG is too large or too deep to be read. Nothing was added.', { cause: error });
      throw error;
    }
  },
};
Comlink.expose(work);
