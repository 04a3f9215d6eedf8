import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { takeNewBuild } from './new-build';

/** A worker, a registration and a container that do as the browser's. */
class Target extends EventTarget {
  state = 'installed';
  told: unknown[] = [];
  postMessage(message: unknown): void {
    this.told.push(message);
  }
}
let registration: Target & { waiting: Target | null; installing: Target | null; update(): Promise<void> };
let container: Target & { controller: object | null; getRegistration(): Promise<unknown> };
const reload = vi.fn();

beforeEach(() => {
  registration = Object.assign(new Target(), { waiting: null, installing: null, update: async () => {} });
  container = Object.assign(new Target(), { controller: {}, getRegistration: async () => registration });
  vi.stubGlobal('navigator', { serviceWorker: container });
  vi.stubGlobal('location', { reload });
  reload.mockReset();
});
afterEach(() => vi.unstubAllGlobals());
const turn = (): Promise<void> => new Promise((done) => setTimeout(done));

describe('a new build', () => {
  it('that waits is taken at a quiet moment, and the page read anew once it is in charge', async () => {
    registration.waiting = new Target();
    takeNewBuild(() => true);
    await turn();
    expect(registration.waiting.told).toEqual(['take-over']);
    expect(reload).not.toHaveBeenCalled();
    container.dispatchEvent(new Event('controllerchange'));
    expect(reload).toHaveBeenCalledOnce();
  });

  it('that comes later is taken when it is whole', async () => {
    takeNewBuild(() => true);
    await turn();
    const coming = new Target();
    coming.state = 'installing';
    registration.installing = coming;
    registration.dispatchEvent(new Event('updatefound'));
    coming.dispatchEvent(new Event('statechange'));
    expect(coming.told).toEqual([]);
    coming.state = 'installed';
    coming.dispatchEvent(new Event('statechange'));
    expect(coming.told).toEqual(['take-over']);
  });

  it('waits while something goes on, when the shelf is left, and on the very first visit', async () => {
    registration.waiting = new Target();
    takeNewBuild(() => false);
    const stop = takeNewBuild(() => true);
    stop();
    await turn();
    expect(registration.waiting.told).toEqual([]);
    container.controller = null;
    takeNewBuild(() => true);
    await turn();
    expect(registration.waiting.told).toEqual([]);
  });

  it('is nothing to wait for where the browser has no such workers', () => {
    vi.stubGlobal('navigator', {});
    expect(takeNewBuild(() => true)()).toBeUndefined();
  });
});
