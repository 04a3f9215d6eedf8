import * as Comlink from 'comlink';
import { describe, expect, it } from 'vitest';
import { starter } from './start';

interface Work {
  double(n: number): number;
  never(): Promise<number>;
  fail(): number;
}

/** A worker without a thread: what is asked goes to an object over a message channel. */
class FakeWorker extends EventTarget {
  static made: FakeWorker[] = [];
  readonly #channel = new MessageChannel();
  ended = false;
  constructor() {
    super();
    FakeWorker.made.push(this);
    const work: Work = {
      double: (n) => 2 * n,
      never: () => new Promise(() => {}),
      fail: () => {
        throw new RangeError('There is no such path.');
      },
    };
    Comlink.expose(work, this.#channel.port2 as never);
    this.#channel.port1.onmessage = (e: MessageEvent) =>
      this.dispatchEvent(new MessageEvent('message', { data: e.data as unknown }));
  }
  postMessage(message: unknown, transfer: Transferable[] = []): void {
    this.#channel.port1.postMessage(message, transfer);
  }
  terminate(): void {
    this.ended = true;
    this.#channel.port1.close();
    this.#channel.port2.close();
  }
  die(): void {
    this.dispatchEvent(new Event('error'));
  }
}

describe('a worker', () => {
  const begin = () => {
    FakeWorker.made = [];
    let time = 0;
    const worker = starter<Work>(
      () => new FakeWorker() as unknown as Worker,
      () => time,
    );
    return { worker, wait: (ms: number) => void (time += ms), last: () => FakeWorker.made.at(-1)! };
  };

  it('is started when it is first asked, once', async () => {
    const { worker, last } = begin();
    expect([FakeWorker.made.length, worker.generation]).toEqual([0, 0]);
    expect(await Promise.all([worker.ask((w) => w.double(2)), worker.ask((w) => w.double(3))])).toEqual([
      4, 6,
    ]);
    expect([FakeWorker.made.length, worker.generation]).toEqual([1, 1]);
    worker.end();
    expect(last().ended).toBe(true);
  });

  it('answers null to whoever waits when it is ended or dies, and is started anew with the next question', async () => {
    const { worker, last } = begin();
    for (const stop of [worker.end, () => last().die()]) {
      const waiting = worker.ask((w) => w.never());
      stop();
      expect(await waiting).toBeNull();
      expect(last().ended).toBe(true);
      const before = worker.generation;
      expect(await worker.ask((w) => w.double(5))).toBe(10);
      expect(worker.generation).toBe(before + 1);
    }
    worker.end();
  });

  it('hands on what it throws, and goes on', async () => {
    const { worker } = begin();
    await expect(worker.ask((w) => w.fail())).rejects.toThrow('There is no such path.');
    expect(await worker.ask((w) => w.double(1))).toBe(2);
    expect(FakeWorker.made).toHaveLength(1);
    worker.end();
  });

  it('is not asked for a while after three deaths in a row, with a sentence, then again', async () => {
    const { worker, wait, last } = begin();
    for (let k = 0; k < 3; k++) {
      const waiting = worker.ask((w) => w.never());
      last().die();
      expect(await waiting).toBeNull();
    }
    await expect(worker.ask((w) => w.double(1))).rejects.toThrow(/Reload the page; nothing is lost/);
    expect(FakeWorker.made).toHaveLength(3);
    wait(10_001);
    expect(await worker.ask((w) => w.double(4))).toBe(8);
    // One that answers has deaths behind it.
    const waiting = worker.ask((w) => w.never());
    last().die();
    expect(await waiting).toBeNull();
    expect(await worker.ask((w) => w.double(1))).toBe(2);
    worker.end();
  });
});
