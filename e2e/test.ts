import { expect, test as base } from '@playwright/test';

/**
 * Every page of every test is listened to: an error that nobody caught, or a promise that nobody waited for and that
 * failed, fails the test.
 */
export const test = base.extend<{ uncaught: string[] }>({
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
