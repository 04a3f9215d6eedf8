/** Lets what waits for the worker come in. */
export const pause = (): Promise<void> =>
  new Promise((done) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => done();
    port2.postMessage(null);
  });
