import { combineAll, thinOut, type Thinned } from '@mirrot/core';
import * as Comlink from 'comlink';
import { pause } from './pause';
import type { PathWork } from './paths';

// Thins and combines paths away from the page. A newer wish stops the older between two paths.

let newest = 0;
const work: PathWork = {
  async thin(wishes, progress) {
    const number = ++newest;
    const out: Thinned[] = [];
    for (const { path, options } of wishes) {
      out.push(thinOut(path, options));
      progress?.(out.length / wishes.length);
      await pause();
      if (number !== newest) return null;
    }
    return out;
  },
  combine: async (shapes) => combineAll(shapes, (n) => `p${n}`),
};
Comlink.expose(work);
