import { expect, test as base, type Page, type Response } from '@playwright/test';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, startServer } from '../scripts/ready.mjs';
import { TEMPLATE } from './server';

/** Has every way to a page wait until the page's script has come: what is pressed on before does nothing. */
function waitForScripts(page: Page): void {
  const answering = page.locator('html[data-answers]');
  const ways = { goto: page.goto.bind(page), reload: page.reload.bind(page) };
  const arrived = async (response: Response | null): Promise<Response | null> => {
    if (response?.headers()['content-type']?.startsWith('text/html'))
      await answering.waitFor({ state: 'attached' });
    return response;
  };
  page.goto = async (...to) => arrived(await ways.goto(...to));
  page.reload = async (...options) => arrived(await ways.reload(...options));
}

/**
 * Every worker has a server of its own with the demo's projects, so that tests that go on side by side do not meet. Every
 * page of every test is listened to: an error that nobody caught, or a promise that nobody waited for and that failed,
 * fails the test.
 */
export const test = base.extend<{ uncaught: string[] }, { server: string }>({
  server: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const data = mkdtempSync(join(tmpdir(), 'mirrot-e2e-'));
      cpSync(process.env[TEMPLATE]!, data, { recursive: true });
      const server = await startServer({ port: await freePort(), data, quiet: true });
      process.env.MIRROT_URL = server.address;
      await use(server.address);
      await server.stop();
      rmSync(data, { recursive: true, force: true });
    },
    { scope: 'worker', auto: true },
  ],
  page: async ({ page }, use) => {
    waitForScripts(page);
    await use(page);
  },
  uncaught: [
    async ({ context }, use) => {
      const uncaught: string[] = [];
      context.on('weberror', (error) => void uncaught.push(String(error.error().stack ?? error.error())));
      await use(uncaught);
      expect(uncaught).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };
