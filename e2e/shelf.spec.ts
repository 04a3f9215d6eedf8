import { expect, test } from './test';
import { readFileSync } from 'node:fs';
import { byHand, URL } from './desk';

const JPEG = 'demo/pictures/gate-badge.jpg';

test('the shelf shows the demo with thumbnails, sizes and ages', async ({ page }) => {
  await page.goto(URL());
  for (const [name, size] of [
    ['Watering can', '120 × 90 mm'],
    ['Gate badge', '100 × 75 mm'],
  ] as const) {
    await page.getByRole('searchbox', { name: 'Find a project' }).fill(name);
    const card = page.getByRole('article').filter({ hasText: name }).first();
    await expect(card).toContainText(size);
    await expect(card.locator('img')).toHaveJSProperty('complete', true);
  }
  const thumb = page.locator('article img').first();
  expect(await thumb.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100);
});

test('a project starts from a file, a paste and a drop, on a sheet of its own or the picture’s size', async ({
  page,
}) => {
  const bytes = readFileSync(JPEG).toString('base64');
  await page.goto(URL());
  const choosing = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: /Choose a picture/ }).click();
  await (await choosing).setFiles(JPEG);
  const dialog = page.getByRole('dialog', { name: 'New project' });
  await expect(dialog.getByLabel('name')).toHaveValue('Gate badge');
  await dialog.getByLabel('name').fill('From a file');
  await dialog.getByText('own size').click();
  await dialog.getByLabel('Width of the sheet').fill('50');
  await dialog.getByLabel('Height of the sheet').fill('40');
  await dialog.getByLabel('Height of the sheet').press('Enter');
  await dialog.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('heading', { name: 'From a file' })).toBeVisible();
  await expect(page.getByText('Sheet 50.00 × 40.00 mm')).toBeVisible();

  for (const kind of ['paste', 'drop'] as const) {
    await page.goto(URL());
    await expect(page.getByRole('heading', { name: 'Projects', exact: true })).toBeVisible();
    await page.evaluate(byHand(kind, `by-${kind}.jpg`, bytes));
    await page.getByRole('dialog').getByRole('button', { name: 'Start' }).click();
    await expect(page.getByRole('heading', { name: `By ${kind}` })).toBeVisible();
    // This file says 72 ppi, which means nothing: a pixel to a sheet pixel.
    await expect(page.getByText('Sheet 2000.0 × 1500.0 px')).toBeVisible();
  }

  // On the desk the same hands place another picture.
  await page.evaluate(byHand('drop', 'second.jpg', bytes));
  await expect(page.getByText('second.jpg lies on the sheet.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'second.jpg', exact: true })).toBeVisible();
});

test('a file that is no picture is refused with a sentence, and no project is left behind', async ({
  page,
}) => {
  await page.goto(URL());
  await expect(page.getByRole('article').first()).toBeVisible();
  const before = await page.getByRole('article').count();
  const choosing = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: /Choose a picture/ }).click();
  await (
    await choosing
  ).setFiles({ name: 'cut.jpg', mimeType: 'image/jpeg', buffer: readFileSync(JPEG).subarray(0, 40_000) });
  await page.getByRole('dialog').getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('alert')).toContainText('cut short or damaged after 40 kB. Nothing was added.');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.reload();
  await expect(page.getByRole('article')).toHaveCount(before);
});

test('projects are renamed, deleted and brought back', async ({ page }) => {
  const made = await page.request.post(`${URL()}/api/projects`, {
    data: { name: 'Short lived', sheet: { width: 10, height: 10, unit: 'mm' } },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(URL());
  await page.getByRole('button', { name: 'Rename Short lived' }).click();
  await page.getByLabel('Name of the project').fill('🌱 a/b שתיל');
  await page.getByLabel('Name of the project').press('Enter');
  await expect(page.getByRole('link', { name: 'Open 🌱 a/b שתיל' })).toBeVisible();
  await page.getByRole('button', { name: 'Rename 🌱 a/b שתיל' }).click();
  await page.getByLabel('Name of the project').fill('   ');
  await page.getByLabel('Name of the project').press('Enter');
  await expect(page.getByRole('alert')).toContainText('at least one character. The name stays as it was.');
  await page.getByRole('button', { name: 'Delete 🌱 a/b שתיל' }).click();
  await expect(page.getByRole('link', { name: 'Open 🌱 a/b שתיל' })).toHaveCount(0);
  expect((await page.request.get(`${URL()}/api/projects/${id}`)).status()).toBe(404);
  await page.getByRole('button', { name: 'Bring it back', exact: true }).first().click();
  await expect(page.getByRole('link', { name: 'Open 🌱 a/b שתיל' })).toBeVisible();

  // The bin has it for 30 days, also when the notice is gone and the page anew.
  await page.getByRole('button', { name: 'Delete 🌱 a/b שתיל' }).click();
  await page.reload();
  const bin = page.getByRole('button', { name: /^Bin \d/ });
  // The page is seen before its script has come: a press that early does nothing.
  await expect(async () => {
    if ((await bin.getAttribute('aria-expanded')) === 'false') await bin.click();
    expect(await bin.getAttribute('aria-expanded')).toBe('true');
  }).toPass();
  await expect(page.getByRole('listitem').filter({ hasText: '🌱 a/b שתיל' })).toContainText('0 shapes · deleted just now, gone in 30 days'); // prettier-ignore
  await page.getByRole('button', { name: 'Bring 🌱 a/b שתיל back' }).click();
  await expect(page.getByRole('link', { name: 'Open 🌱 a/b שתיל' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete 🌱 a/b שתיל', exact: true }).click();
  if ((await bin.getAttribute('aria-expanded')) === 'false') await bin.click();
  await page.getByRole('button', { name: 'Delete 🌱 a/b שתיל for good' }).click();
  const dialog = page.getByRole('dialog', { name: 'Delete for good' });
  await dialog.getByRole('button', { name: 'Keep it in the bin' }).click();
  await page.getByRole('button', { name: 'Delete 🌱 a/b שתיל for good' }).click();
  await dialog.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByText('🌱 a/b שתיל was deleted for good.')).toBeVisible();
  const left = (await (await page.request.get(`${URL()}/api/bin`)).json()) as { id: string }[];
  expect(left.map((p) => p.id)).not.toContain(id);
});

test('of many projects those in sight come first, the others as one scrolls or looks for them', async ({
  page,
}) => {
  const sheet = { width: 10, height: 10, unit: 'mm' };
  for (let k = 1; k <= 40; k++)
    await page.request.post(`${URL()}/api/projects`, { data: { name: `Seed row ${k}`, sheet } });
  await page.goto(URL());
  const cards = page.getByRole('article');
  await expect(cards.first()).toBeVisible();
  expect(await cards.count()).toBeLessThan(40);
  await expect(page.getByRole('link', { name: 'Open Seed row 1', exact: true })).toHaveCount(0);
  await page.getByRole('searchbox', { name: 'Find a project' }).fill('seed row 1');
  await expect(page.getByRole('link', { name: 'Open Seed row 1', exact: true })).toBeVisible();
  await page.getByRole('searchbox', { name: 'Find a project' }).fill('seed row');
  await expect(async () => {
    await page.keyboard.press('End');
    await cards.last().scrollIntoViewIfNeeded();
    expect(await cards.count()).toBe(40);
  }).toPass();
});

test('a project that is not there says so', async ({ page }) => {
  await page.goto(`${URL()}/projects/nobody`);
  await expect(page.getByRole('heading')).toContainText('There is no such project');
  await page.getByRole('link', { name: 'Back to the shelf' }).click();
  await expect(page.getByRole('heading', { name: 'Projects', exact: true })).toBeVisible();
});

test('projects stand in folders by a word, and one is made of another with what is chosen of it', async ({
  page,
  request,
}) => {
  const made = await request.post(`${URL()}/api/projects`, { data: { name: 'Filed away', sheet: { width: 40, height: 30, unit: 'mm' } } }); // prettier-ignore
  expect(made.status()).toBe(201);
  await page.goto(URL());
  const card = page.getByRole('article').filter({ hasText: 'Filed away' });
  await card.getByRole('button', { name: 'Put Filed away into a folder' }).click();
  await page.getByLabel('Folder of Filed away').fill('class 4');
  await page.keyboard.press('Enter');
  await expect(card).toContainText('in class 4');
  const folders = page.getByRole('group', { name: 'Folders' });
  await folders.getByRole('button', { name: 'class 4' }).click();
  await expect(page.getByRole('article')).toHaveCount(1);
  await folders.getByRole('button', { name: 'all', exact: true }).click();
  await page.getByRole('searchbox', { name: 'Find a project' }).fill('Watering can');
  await expect(page.getByRole('article').filter({ hasText: 'Watering can' }).first()).toBeVisible();

  const can = page.getByRole('article').filter({ hasText: 'Watering can' }).first();
  await can.getByRole('button', { name: 'New project from Watering can' }).click();
  const dialog = page.getByRole('dialog', { name: 'New project from Watering can' });
  await dialog.getByLabel('name').fill('Can again');
  await dialog.getByText('the drawing', { exact: true }).click();
  await dialog.getByText('its pictures').click();
  await dialog.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('heading', { name: 'Can again' })).toBeVisible();
  const id = page.url().split('/').at(-1)!;
  const { art } = (await (await request.get(`${URL()}/api/projects/${id}/art`)).json()) as { art: { layers: { children: unknown[] }[]; chips: unknown[]; pictures: unknown[]; sheet: { width: number } } }; // prettier-ignore
  expect(art.layers.length).toBeGreaterThan(1);
  expect(art.layers.flatMap((l) => l.children)).toEqual([]);
  expect([art.chips.length > 0, art.pictures.length]).toEqual([true, 0]);
});
