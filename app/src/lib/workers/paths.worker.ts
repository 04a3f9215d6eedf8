import { thinOut, type Thinned } from '@mirrot/core';
import * as Comlink from 'comlink';
import type { PathWork } from './paths';

// Thins paths away from the page. A newer wish stops the older between two paths.

let newest = 0;
const pause = (): Promise<void> =>
  new Promise((done) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => done();
    port2.postMessage(null);
  });

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
};
Comlink.expose(work);
