import { colourDifference, differencePixels, findings } from '@mirrot/core';
import * as Comlink from 'comlink';
import type { ProofWork } from './proof';

// Proves drawings away from the page.

const work: ProofWork = {
  async difference(drawn, picture) {
    const found = colourDifference(drawn, picture);
    const { mean, beyond, compared } = found;
    return { pixels: differencePixels(found), mean, beyond, compared };
  },
  findings: async (...asked) => findings(...asked),
};
Comlink.expose(work);
