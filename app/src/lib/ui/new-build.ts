/**
 * Takes a new build of the application, should one be waiting: at a quiet moment, never while something is drawn.
 *
 * @param isQuiet whether the page may be read anew now
 * @returns what ends the waiting for one
 */
export function takeNewBuild(isQuiet: () => boolean): () => void {
  const container = globalThis.navigator?.serviceWorker;
  if (!container) return () => {};
  let over = false;
  const taken = (): void => {
    if (!over && isQuiet()) location.reload();
  };
  const take = (worker: ServiceWorker | null): void => {
    // Without one that is in charge now, this page was just fetched: it is the new build.
    if (over || !worker || !container.controller || !isQuiet()) return;
    container.addEventListener('controllerchange', taken, { once: true });
    worker.postMessage('take-over');
  };
  void container
    .getRegistration()
    .then((registration) => {
      if (!registration) return;
      take(registration.waiting);
      registration.addEventListener('updatefound', () => {
        const { installing } = registration;
        installing?.addEventListener('statechange', () => {
          if (installing.state === 'installed') take(installing);
        });
      });
      return registration.update();
    })
    .catch(() => {});
  return () => {
    over = true;
    container.removeEventListener('controllerchange', taken);
  };
}
