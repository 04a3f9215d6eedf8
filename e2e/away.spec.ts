import { mkdtempSync, rmSync } from 'node:fs';
import { networkInterfaces, tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, startServer } from '../scripts/ready.mjs';
import { expectClean } from './axe';
import { hands, openNew, URL, type Hands } from './desk';
import { expect, test } from './test';

const line = async (h: Hands, y: number): Promise<void> => {
  await h.click({ x: 100, y });
  await h.click({ x: 300, y });
  await h.key('Enter');
};

test.use({ serviceWorkers: 'allow' });

test('the shelf and projects seen lately open while the server is away; what is drawn then is sent later', async ({
  page,
  context,
}) => {
  // The page has to be the service worker's before the network goes.
  await page.goto(URL());
  await page.evaluate(() => navigator.serviceWorker.ready);
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  const h = await openNew(page, 'Seen lately');
  const address = page.url();
  await h.key('2');
  await line(h, 100);
  await expect(page.getByText('all changes kept')).toBeVisible();
  await page.goto(URL());
  await expect(page.getByRole('link', { name: 'Open Seen lately' })).toBeVisible();

  await context.setOffline(true);
  await page.reload();
  await expect(page.getByText('The server is away. This is the shelf as it was last seen')).toBeVisible();
  await page.getByRole('link', { name: 'Open Seen lately' }).click();
  await expect(page.getByRole('application', { name: 'Bed' })).toBeVisible();
  await expect(
    page.getByText('The server is away. This is the drawing as it was last seen here'),
  ).toBeVisible();
  await expect(page.locator('.row.shape')).toHaveCount(1);
  await h.key('2');
  await line(h, 200);
  // Also the address itself, anew, still without a server.
  await page.goto(address);
  await expect(page.locator('.row.shape')).toHaveCount(2);
  await context.setOffline(false);
  await expect(page.getByText('all changes kept')).toBeVisible();
  expect(await h.shapes()).toHaveLength(2);
});

test('a change the server does not take is set aside, shown, saved and tried again; the rest goes on', async ({
  page,
}) => {
  const h = await openNew(page, 'Set aside');
  await h.key('2');
  await line(h, 100);
  await expect(page.getByText('all changes kept')).toBeVisible();
  let refusing = true;
  await page.route('**/changes', (route) =>
    refusing && route.request().postData()!.includes('"Draw the box"')
      ? route.fulfill({ status: 422, json: { error: { code: 'art', message: 'The drawing is too large.' } } })
      : route.continue(),
  );
  await page.getByText('box', { exact: true }).click();
  await h.drag({ x: 400, y: 100 }, { x: 500, y: 200 });
  await expect(page.getByRole('alert')).toContainText('The drawing is too large. It is set aside');
  await expect(page.getByText('all changes kept')).toBeVisible();
  await expect(page.locator('.row.shape')).toHaveCount(1);
  await page.reload();
  await page.getByRole('button', { name: '1 change set aside' }).click();
  const dialog = page.getByRole('dialog', { name: 'Set aside' });
  await expect(dialog).toContainText('Draw the box');
  await expectClean(page, 'what was set aside');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Save as a file' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/^set-aside-.*\.json$/);
  refusing = false;
  await dialog.getByRole('button', { name: 'Try again' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.locator('.row.shape')).toHaveCount(2);
  expect(await h.shapes()).toHaveLength(2);
  await expect(page.getByRole('button', { name: /set aside/ })).toBeHidden();
});

test('on an address others reach, Mirrot wants its key first', async ({ page }) => {
  const host = Object.values(networkInterfaces()).flat().find((a) => a && !a.internal && a.family === 'IPv4')?.address; // prettier-ignore
  // A machine without a network has no such address but those of its own: any of them stands for one.
  const data = mkdtempSync(join(tmpdir(), 'mirrot-key-'));
  const server = await startServer({ port: await freePort(), host: host ?? '127.0.0.2', data, quiet: true, env: { MIRROT_KEY: 'quillmere-4711' } }); // prettier-ignore
  try {
    expect((await page.request.get(`${server.address}/api/projects`)).status()).toBe(401);
    expect((await page.request.get(`${server.address}/api/pictures/x`)).status()).toBe(401);
    await page.goto(`${server.address}/projects/nothing`);
    await expect(page).toHaveURL(/\/sign-in\?to=/);
    await page.getByLabel('Access key').fill('wrong');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('alert')).toContainText('That is not the key');
    await expectClean(page, 'sign in');
    await page.getByLabel('Access key').fill('quillmere-4711');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('There is no such project')).toBeVisible();
    const [cookie] = await page.context().cookies();
    expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Strict' });
    const made = await page.request.post(`${server.address}/api/projects`, { data: { name: 'A', sheet: { width: 9, height: 9, unit: 'mm' } } }); // prettier-ignore
    expect(made.status()).toBe(201);
    await page.goto(`${server.address}/projects/${((await made.json()) as { id: string }).id}`);
    await expect(hands(page).bed).toBeVisible();
    for (let k = 0; k < 6; k++)
      await page.request.post(`${server.address}/api/sign-in`, { data: { key: 'no' } });
    expect((await page.request.post(`${server.address}/api/sign-in`, { data: { key: 'quillmere-4711' } })).status()).toBe(429); // prettier-ignore
  } finally {
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  }
});
