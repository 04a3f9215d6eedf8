import { expect, test } from './test';
import { expectClean } from './axe';
import { openDemo, URL } from './desk';

const STEPS = ['Mount', 'Block in', 'Refine', 'Colour', 'Proof', 'Export'];

for (const colorScheme of ['light', 'dark'] as const)
  test(`every view is accessible and keeps to the page’s policy, ${colorScheme}`, async ({ page }) => {
    test.slow();
    const dark = colorScheme === 'dark';
    const errors: string[] = [];
    page.on('console', (m) => m.type() === 'error' && errors.push(m.text()));
    page.on('pageerror', (e) => errors.push(e.message));
    await page.emulateMedia({ colorScheme });
    await page.goto(URL());
    await expect(page.getByRole('heading', { name: 'Projects', exact: true })).toBeVisible();
    await expectClean(page, 'shelf', dark);
    await page.getByRole('button', { name: 'Watering can', exact: true }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await expectClean(page, 'new project', dark);
    await page.getByRole('button', { name: 'Leave it' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.getByRole('searchbox', { name: 'Find a project' }).fill('Watering can');
    await page.getByRole('button', { name: 'New project from Watering can' }).first().click();
    await page.getByRole('dialog').getByText('the drawing', { exact: true }).click();
    await expect(page.getByText('its pictures')).toBeVisible();
    await expectClean(page, 'a project from another', dark);
    await page.getByRole('button', { name: 'Leave it' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);

    const h = await openDemo(page, 'Watering can');
    for (const [i, name] of STEPS.entries()) {
      await h.key(String(i + 1));
      await expect(page.getByRole('button', { name: new RegExp(`^${name}`) }).first()).toHaveAttribute(
        'aria-current',
        'step',
      );
      if (name === 'Refine') await h.key('v');
      if (name === 'Refine') await h.key('n');
      for (const fold of await page.locator('.panel summary').all()) await fold.click();
      if (name === 'Colour') {
        await page.getByText('linear', { exact: true }).click();
        await expect(page.getByRole('group', { name: 'Stops of the gradient' })).toBeVisible();
        await page.getByRole('region', { name: 'Palette' }).getByRole('listitem').getByRole('button').first().click(); // prettier-ignore
        await page.getByRole('button', { name: /^Compare Hue/ }).first().click(); // prettier-ignore
      }
      await expectClean(page, name, dark);
      if (name === 'Colour') for (let k = 0; k < 2; k++) await h.key('Control+z');
    }
    await h.key('2');
    for (const fold of await page.locator('.panel summary').all()) await fold.click();
    await page.getByText('box', { exact: true }).click();
    await h.drag({ x: 40, y: 40 }, { x: 160, y: 110 });
    await page.getByRole('button', { name: 'Level guide' }).click();
    await page.getByText('Grid shown').click();
    await expectClean(page, 'Block in with a box, a guide and a grid', dark);
    await h.key('Control+z');
    await h.key('Control+z');
    await h.key('Control+z');
    await page.getByText('path', { exact: true }).click();
    await h.key('1');
    for (const name of ['Square up', 'Swap', 'Sheet']) {
      await page.getByRole('button', { name, exact: true }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      if (name === 'Square up')
        await expect(page.getByRole('button', { name: /Top left corner/ })).toBeVisible();
      await expectClean(page, name, dark);
      await h.key('Escape');
      await expect(page.getByRole('dialog')).toHaveCount(0);
    }
    // A group worked in, with its crumbs; the stack asked for rows; opacity and blend.
    await h.key('3');
    await h.key('v');
    await h.key('Control+g');
    await h.key('Enter');
    await expect(page.getByRole('navigation', { name: 'Group worked in' })).toBeVisible();
    await page.getByRole('button', { name: 'Find in the stack' }).click();
    await expect(page.getByRole('searchbox')).toBeFocused();
    await page.locator('summary', { hasText: 'Opacity and blend' }).click();
    await expect(page.getByRole('radio', { name: 'multiply' })).toBeVisible();
    await expectClean(page, 'a group worked in', dark);
    await page.getByRole('searchbox').press('Escape');
    await h.key('Escape');
    await h.key('Control+z');
    // Copies that stay numbers, and a kept copy beside the present.
    await h.key('v');
    await h.key('Control+k');
    await page.getByRole('combobox', { name: 'Command' }).fill('in a row');
    await page.getByRole('option', { name: /^Repeat in a row$/ }).click();
    await page.locator('summary', { hasText: 'Copies' }).click();
    await expect(page.getByRole('button', { name: 'Part the copies' })).toBeVisible();
    await page.locator('summary', { hasText: 'Lines and areas' }).click();
    await page.locator('summary', { hasText: 'Widen' }).click();
    await expectClean(page, 'copies, lines and areas', dark);
    await h.key('Control+z');
    // A line of text, and the tones of what it lies on.
    await h.key('2');
    await page.getByRole('button', { name: 'Write a line of text' }).click();
    await expect(page.getByLabel('Text', { exact: true })).toHaveValue('Seeds');
    await h.key('4');
    await h.key('b');
    await expect(page.getByText(/^Body tone of Seeds: #/)).toBeVisible();
    await expect(page.getByRole('heading', { name: /^Tones/ })).toBeVisible();
    await expectClean(page, 'lettering and tones', dark);
    await h.key('Escape');
    await h.key('Control+z');
    await h.key('k');
    await h.key('5');
    await page.getByRole('button', { name: 'See Copy 1 beside the present' }).click();
    await expect(page.getByText('nothing was changed since')).toBeVisible();
    await expectClean(page, 'a kept copy', dark);
    await page.getByRole('button', { name: 'Take Copy 1 away' }).click();
    await expect(page.getByText('None yet.')).toBeVisible();
    await h.key('1');
    await h.key('Control+k');
    await expect(page.getByRole('dialog')).toBeVisible();
    await expectClean(page, 'finder', dark);
    await h.key('Escape');
    await h.key('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    await expectClean(page, 'keys', dark);
    expect(errors).toEqual([]);
  });

test('the fonts that ship are the fonts that show', async ({ page }) => {
  await page.goto(URL());
  await expect(page.getByRole('heading', { name: 'Projects', exact: true })).toBeVisible();
  const loaded = await page.evaluate(async () => {
    await document.fonts.ready;
    return [...document.fonts].filter((f) => f.status === 'loaded').map((f) => f.family.replaceAll('"', ''));
  });
  expect(loaded).toContain('Bricolage Grotesque Variable');
  expect(loaded).toContain('Atkinson Hyperlegible Next Variable');
});

test('light and dark are remembered', async ({ page }) => {
  await page.goto(URL());
  const mode = () => page.evaluate(() => document.documentElement.dataset.mode);
  await page.getByRole('button', { name: 'Turn light and dark' }).click();
  expect(await mode()).toBe('dark');
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Projects', exact: true })).toBeVisible();
  expect(await mode()).toBe('dark');
});

test('high-density screens are sharp: lines are drawn in device pixels', async ({ browser }) => {
  const page = await browser.newPage({ deviceScaleFactor: 2, viewport: { width: 1280, height: 800 } });
  await openDemo(page, 'Watering can');
  const loupe = page.locator('canvas');
  await expect
    .poll(() => loupe.evaluate((c: HTMLCanvasElement) => c.width / c.clientWidth))
    .toBeCloseTo(2, 1);
  await page.close();
});

for (const [width, height] of [
  [820, 1180],
  [390, 844],
] as const)
  // prettier-ignore
  test(`at ${width} × ${height} the columns lie over the bed, nothing is cut off, and the views are accessible`, async ({
    page,
  }) => {
    test.slow();
    await page.setViewportSize({ width, height });
    await page.goto(URL());
    await expect(page.getByRole('heading', { name: 'Projects', exact: true })).toBeVisible();
    const fits = (): Promise<boolean> =>
      page.evaluate(() => document.documentElement.scrollWidth <= innerWidth);
    expect(await fits()).toBe(true);
    await expectClean(page, 'shelf');
    const h = await openDemo(page, 'Watering can');
    const stack = page.getByRole('complementary', { name: 'Stack' });
    const eye = page.getByRole('complementary', { name: 'Eye' });
    await expect(eye).toHaveCount(0);
    await expect(stack).toHaveCount(width < 760 ? 0 : 1);
    // What stands in the panels is the same on both; they are narrowest on the smaller, where all are looked at.
    for (const name of width < 760 ? STEPS : STEPS.slice(2, 4)) {
      await page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name }).click();
      await page.getByRole('button', { name: 'Eye', exact: true }).click();
      await expect(eye).toBeVisible();
      await expect(page.getByRole('group', { name: `${name} panel` })).toBeVisible();
      if (width < 760) await expectClean(page, `${name} with its panel`);
      expect(await fits()).toBe(true);
      await h.key('Escape');
      await expect(eye).toHaveCount(0);
    }
    if (width >= 760) return;
    await page.getByRole('button', { name: 'Stack', exact: true }).click();
    await expect(stack).toBeVisible();
    await page.getByRole('row', { name: /^Spout/ }).click();
    await expect(page.locator('#bed-says')).toHaveText('Spout');
    await expectClean(page, 'stack over the bed');
  });
