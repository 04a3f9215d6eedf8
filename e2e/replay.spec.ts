import { artText, followGrowth, readArt, type Art, type Growth } from '@mirrot/core';
import sharp from 'sharp';
import { expectClean } from './axe';
import { openDemo, URL } from './desk';
import { expect, test } from './test';

test('a drawing’s growth is replayed along its stem, ends at the identical drawing, and goes along in a bundle and as moving pictures', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  const id = page.url().split('/').at(-1)!;
  const grownOf = async (project: string): Promise<Growth> => (await page.request.get(`${URL()}/api/projects/${project}/growth`)).json(); // prettier-ignore
  // Something is drawn and taken back by hand, too.
  await h.key('4');
  const before = await h.art();
  await h.key('Control+a');
  await h.key('ArrowRight');
  await h.key('Control+z');
  await expect(page.getByText('all changes kept')).toBeVisible();
  const art = await h.art();
  const growth = await grownOf(id);
  const grown = followGrowth(growth);
  expect(artText(grown.artAt(grown.count))).toBe(artText(readArt(art)));
  expect(artText(grown.artAt(grown.count - 2))).toBe(artText(readArt(before)));

  // By the stem: keys, and the pointer.
  await h.key('5');
  await page.getByRole('button', { name: 'Replay', exact: true }).first().click();
  const stem = page.getByRole('slider', { name: 'Replay' });
  await expect(stem).toHaveAttribute('aria-valuenow', String(grown.count));
  await expectClean(page, 'Replay');
  const paths = page.locator('.replay path[data-part]');
  const whole = await paths.count();
  expect(whole).toBeGreaterThan(10);
  await stem.focus();
  await page.keyboard.press('Home');
  await expect(paths).toHaveCount(0);
  await expect(page.getByText(/^change 0 of/).first()).toBeVisible();
  for (const key of ['ArrowRight', 'ArrowRight', 'ArrowRight']) await page.keyboard.press(key);
  await expect(paths).toHaveCount(1);
  const box = (await stem.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Number(await stem.getAttribute('aria-valuenow'))).toBe(Math.round(grown.count / 2)); // prettier-ignore
  // Played on, it comes to the end by itself.
  await page.getByLabel('Speed of the replay').selectOption('120');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(stem).toHaveAttribute('aria-valuenow', String(grown.count));
  await expect(paths).toHaveCount(whole);
  await h.key('Escape');
  await expect(stem).toBeHidden();
  // Charted, with its drift.
  await page.locator('summary', { hasText: 'How it grew' }).click();
  await expect(page.locator('dl[aria-label="Growth"] dd').first()).toHaveText(String(grown.count));
  await page.getByRole('button', { name: 'Measure drift over time' }).click();
  await expect(page.getByText(/Mean drift at the end [\d.]+ px/)).toBeAttached({ timeout: 40_000 });

  // As moving pictures: the last of them is the drawing as its file has it (source outside: sharp).
  const film = await (
    await page.request.get(`${URL()}/api/projects/${id}/replay.webp?width=240&seconds=3`)
  ).body();
  const meta = await sharp(film, { animated: true }).metadata();
  expect(meta.format).toBe('webp');
  expect(meta.pages).toBeGreaterThan(10);
  const last = await sharp(film, { page: meta.pages! - 1 })
    .removeAlpha()
    .raw()
    .toBuffer();
  const png = await (await page.request.get(`${URL()}/api/projects/${id}/export.png?width=240&ground=%23fffdf8`)).body(); // prettier-ignore
  const drawn = await sharp(png).removeAlpha().raw().toBuffer();
  expect(last.length).toBe(drawn.length);
  expect(drawn.reduce((sum, v, i) => sum + Math.abs(v - last[i]!), 0) / drawn.length).toBeLessThan(3);
  const gif = await (await page.request.get(`${URL()}/api/projects/${id}/replay.gif?width=120&seconds=2&picture=1`)).body(); // prettier-ignore
  expect((await sharp(gif, { animated: true }).metadata()).format).toBe('gif');
  const refused = await page.request.get(`${URL()}/api/projects/${id}/replay.avi`);
  expect([refused.status(), (await refused.json()).error.message]).toEqual([404, 'A replay is written as WebP or GIF.']); // prettier-ignore

  // In a bundle the whole growth goes along.
  const bundle = await (await page.request.get(`${URL()}/api/projects/${id}/export.zip`)).body();
  const added = await page.request.post(`${URL()}/api/projects/import`, { multipart: { file: { name: 'can.zip', mimeType: 'application/zip', buffer: bundle } } }); // prettier-ignore
  const { project } = (await added.json()) as { project: { id: string } };
  const there = followGrowth(await grownOf(project.id));
  expect(there.count).toBe(grown.count);
  const { art: now } = (await (await page.request.get(`${URL()}/api/projects/${project.id}/art`)).json()) as { art: Art }; // prettier-ignore
  expect(artText(there.artAt(there.count))).toBe(artText(readArt(now)));
  for (const path of ['projects', 'bin']) await page.request.delete(`${URL()}/api/${path}/${project.id}`);
});
