import { expect, test as base } from '@playwright/test';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, startServer } from '../scripts/ready.mjs';
import { TEMPLATE } from './server';

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
