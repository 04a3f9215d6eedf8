import { chromium, type BrowserContext, type Page } from '@playwright/test';
import config from '../playwright.config';
import { finding, getArt, makeProject, newFolder, removeFolder, start, type Finding } from './harness';

/** Draws the line of a number: three beside each other, far enough apart that none catches on another's end. */
const drawLine = async (page: Page, number: number): Promise<void> => {
  const box = (await page.getByRole('application', { name: 'Bed' }).boundingBox())!;
  const x = box.x + 60 + 240 * (number % 3);
  const y = box.y + 50 + 24 * Math.floor(number / 3);
  await page.keyboard.press('2');
  await page.mouse.click(x, y);
  await page.mouse.click(x + 140, y);
  await page.keyboard.press('Enter');
};

const shapesOn = async (address: string, id: string): Promise<number> =>
  (await getArt(address, id)).art.layers.reduce((n, layer) => n + layer.children.length, 0);

async function inBrowser<T>(work: (context: BrowserContext, address: string) => Promise<T>): Promise<T> {
  const data = newFolder();
  const server = await start(data);
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    return await work(context, server.address);
  } finally {
    await browser.close();
    await server.stop();
    removeFolder(data);
  }
}

const open = async (page: Page, address: string, id: string): Promise<void> => {
  await page.goto(`${address}/projects/${id}`);
  await page.getByRole('application', { name: 'Bed' }).waitFor();
};

/** An hour without the server, drawn through all the while, the page's clock moved; then it is back. */
export const offlineHour = (lines: number): Promise<Finding[]> =>
  inBrowser(async (context, address) => {
    const id = await makeProject(address);
    const page = await context.newPage();
    await page.clock.install();
    await open(page, address, id);
    await drawLine(page, 0);
    await page.getByText('all changes kept').waitFor();
    await context.setOffline(true);
    for (let k = 1; k <= lines; k++) {
      await drawLine(page, k);
      await page.clock.fastForward((60 * 60_000) / lines);
    }
    await page.getByText(/server away/).waitFor();
    await context.setOffline(false);
    // The longest pause between tries is a minute.
    await page.clock.fastForward(2 * 60_000);
    await page.getByText('all changes kept').waitFor({ timeout: 30_000 });
    const there = await shapesOn(address, id);
    return [finding(`An hour without the server (${lines} lines drawn): lines kept`, there, String(lines + 1), there === lines + 1)]; // prettier-ignore
  });

/** Three tabs on one project, each drawing, each taking over where it is told to. */
export const threeTabs = (rounds: number): Promise<Finding[]> =>
  inBrowser(async (context, address) => {
    const id = await makeProject(address);
    const tabs = await Promise.all([0, 1, 2].map(() => context.newPage()));
    for (const tab of tabs) await open(tab, address, id);
    let drawn = 0;
    for (let round = 0; round < rounds; round++)
      for (const [k, tab] of tabs.entries()) {
        // No look at what the others did when it comes to the front: that its changes are old is the point.
        await drawLine(tab, round * 3 + k);
        drawn++;
        const take = tab.getByRole('button', { name: 'Take over' });
        await tab.getByText(/all changes kept|changed in another tab/).first().waitFor(); // prettier-ignore
        if (await take.isVisible()) await take.click();
        await tab.getByText('all changes kept').waitFor();
      }
    for (const tab of tabs) await tab.evaluate(() => window.dispatchEvent(new Event('focus')));
    const there = await shapesOn(address, id);
    const shown: number[] = [];
    for (const tab of tabs) {
      await tab.waitForFunction((n) => document.querySelectorAll('[data-shape]').length === n, there, { timeout: 10_000 }).catch(() => {}); // prettier-ignore
      shown.push(await tab.locator('[data-shape]').count());
    }
    return [
      finding(`Three tabs (${drawn} lines): lines kept`, there, String(drawn), there === drawn),
      finding(
        '… shown in each tab',
        shown.join(', '),
        [there, there, there].join(', '),
        shown.every((n) => n === there),
      ),
    ];
  });
