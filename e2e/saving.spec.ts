import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { hands, openNew, URL, type Hands } from './desk';

const line = async (h: Hands, y: number): Promise<void> => {
  await h.click({ x: 100, y });
  await h.click({ x: 300, y });
  await h.key('Enter');
};
const idOf = (page: Page): string => page.url().split('/').at(-1)!;
const kept = async (page: Page, id: string): Promise<number> => {
  const { art } = (await (await page.request.get(`${URL()}/api/projects/${id}/art`)).json()) as {
    art: { layers: { children: unknown[] }[] };
  };
  return art.layers.reduce((n, l) => n + l.children.length, 0);
};

test('changes are on the server within a second', async ({ page }) => {
  const h = await openNew(page, 'Saving');
  await h.key('2');
  await line(h, 100);
  await expect.poll(() => kept(page, idOf(page)), { timeout: 1000 }).toBe(1);
  await expect(page.getByText('all changes kept')).toBeVisible();
});

test('work goes on while the server is away, and all is sent when it is back', async ({ page, context }) => {
  const h = await openNew(page, 'Away');
  const id = idOf(page);
  await h.key('2');
  await line(h, 100);
  await expect(page.getByText('all changes kept')).toBeVisible();
  await context.setOffline(true);
  await line(h, 200);
  await expect(page.getByText(/server away, .* kept here/)).toBeVisible();
  await line(h, 300);
  await h.key('Control+z');
  await h.key('Control+y');
  await context.setOffline(false);
  await expect(page.getByText('all changes kept')).toBeVisible();
  expect(await kept(page, id)).toBe(3);
});

test('what was not sent survives the page: it is there when the project is opened again', async ({
  page,
  context,
}) => {
  const h = await openNew(page, 'Closed');
  const id = idOf(page);
  await h.key('2');
  await line(h, 100);
  await expect(page.getByText('all changes kept')).toBeVisible();
  await context.setOffline(true);
  await line(h, 200);
  await expect(page.getByText(/server away/)).toBeVisible();
  // Killed rather than closed: a page that closes would still send it.
  await page.evaluate(() => (window.fetch = () => new Promise(() => {})));
  await page.close();
  await context.setOffline(false);
  expect(await kept(await context.newPage(), id)).toBe(1);
  const again = await context.newPage();
  await again.goto(`${URL()}/projects/${id}`);
  await expect(again.getByText('Changes that this browser had kept are in the drawing again.')).toBeVisible();
  await expect(again.getByText('all changes kept')).toBeVisible();
  expect(await kept(again, id)).toBe(2);
  // And only once.
  await again.reload();
  await expect(again.getByText('all changes kept')).toBeVisible();
  expect(await kept(again, id)).toBe(2);
});

test('two tabs on one project: the later one is told, and takes over without losing what it drew', async ({
  page,
  context,
}) => {
  const h = await openNew(page, 'Two tabs');
  const id = idOf(page);
  await h.key('2');
  const other = await context.newPage();
  await other.goto(`${URL()}/projects/${id}`);
  const o = hands(other);
  await other.bringToFront();
  await expect(o.bed).toBeVisible();
  await o.key('2');
  await line(o, 200);
  await expect(other.getByText('all changes kept')).toBeVisible();
  // This tab has not heard of it (its window keeps the focus): its change is refused, and it is told.
  await page.evaluate(() =>
    window.addEventListener('focus', (e) => e.stopImmediatePropagation(), { capture: true }),
  );
  await line(h, 300);
  await expect(page.getByRole('alert')).toContainText('changed in another tab');
  await line(h, 400);
  await page.getByRole('button', { name: 'Take over' }).click();
  await expect(page.getByText('all changes kept')).toBeVisible();
  expect(await kept(page, id)).toBe(3);
  await expect(page.getByRole('treegrid', { name: /Layers and shapes/ }).getByText('2 anchors')).toHaveCount(
    3,
  );
});

test('a project opens where one left it, and the steps are there: named, undone, done again, jumped through', async ({
  page,
}) => {
  const h = await openNew(page, 'Reloaded');
  await h.key('2');
  await line(h, 100);
  await line(h, 200);
  await h.key('3');
  await h.click({ x: 100, y: 100 });
  for (let k = 0; k < 3; k++) await h.key('ArrowUp');
  await h.key('Control+z');
  await h.key('Control+y');
  await h.key('Control+z');
  await expect(page.getByText('all changes kept')).toBeVisible();
  const drawn = await page
    .locator('.row.shape')
    .evaluateAll((all) =>
      all.map((e) => [e.id, e.ariaLabel, e.ariaSelected, e.querySelector('svg')!.outerHTML]),
    );
  await h.key('+');
  await page.mouse.wheel(30, -40);
  const seen = async (): Promise<unknown> => [
    await h.bed.getAttribute('data-view'),
    await page.getByRole('navigation', { name: 'Steps' }).locator('[aria-current]').textContent(),
  ];
  const before = await seen();
  await page.reload();
  await expect(page.getByText('all changes kept')).toBeVisible();
  await expect.poll(seen).toEqual(before);
  await page.getByRole('button', { name: /^Redo/ }).click();
  await expect(page.getByRole('button', { name: 'Undo: Nudge' })).toBeVisible();
  await h.key('Control+z');
  await expect(page.getByRole('button', { name: 'Undo: End the path' })).toBeVisible();
  const again = await page
    .locator('.row.shape')
    .evaluateAll((all) =>
      all.map((e) => [e.id, e.ariaLabel, e.ariaSelected, e.querySelector('svg')!.outerHTML]),
    );
  expect(again).toEqual(drawn);
  for (let k = 0; k < 3; k++) await h.key('Control+z');
  await expect(page.locator('.row.shape')).toHaveCount(1);
  for (let k = 0; k < 3; k++) await h.key('Control+y');
  await expect(page.locator('.row.shape')).toHaveCount(2);
  await expect(page.getByText('all changes kept')).toBeVisible();
});
