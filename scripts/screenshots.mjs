// npm run screenshots: a current picture of each main view, from the demo's data, into docs/screenshots.
import { chromium } from '@playwright/test';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { buildApp, freePort, installDebian, installPackages, ROOT, startServer } from './ready.mjs';
import { seed } from './seed.mjs';

installPackages();
installDebian();
buildApp();
const data = mkdtempSync(join(tmpdir(), 'mirrot-shots-'));
const server = await startServer({ port: await freePort(), data, quiet: true });
await seed(server.address, data);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
  ],
});
const folder = join(ROOT, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });

async function desk(name, colorScheme = 'light') {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme });
  await page.goto(server.address);
  await page.getByRole('link', { name: `Open ${name}` }).click();
  const bed = page.getByRole('application', { name: 'Bed' });
  await bed.waitFor();
  // An earlier picture may have left it elsewhere.
  for (const key of ['Escape', 'Escape', '1', '0']) await page.keyboard.press(key);
  await page.waitForTimeout(1500);
  const box = await bed.boundingBox();
  /** A share of the sheet, 0 to 1 each way, on the page. */
  const at = async (x, y) => {
    const [k, tx, ty] = (await bed.getAttribute('data-view')).split(' ').map(Number);
    const picture = bed.locator('.sheet');
    const [w, h] = [await picture.getAttribute('width'), await picture.getAttribute('height')].map(Number);
    return [box.x + x * w * k + tx, box.y + y * h * k + ty];
  };
  const move = async (x, y) => page.mouse.move(...(await at(x, y)));
  const click = async (x, y) => {
    await move(x, y);
    await page.mouse.down();
    await page.mouse.up();
  };
  return { page, at, move, click };
}
/** @param palette few colours, which is smaller; photographs beside each other need more of them */
async function keep(page, name, palette = true) {
  await page.waitForTimeout(400);
  const file = join(folder, `${name}.png`);
  await sharp(await page.screenshot())
    .png(palette ? { palette, quality: 90, effort: 8 } : { compressionLevel: 9 })
    .toFile(file);
  console.log(`docs/screenshots/${name}.png`);
}

try {
  const shelf = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await shelf.goto(server.address);
  await shelf.getByRole('heading', { name: 'Projects', exact: true }).waitFor();
  // Until all that is in sight shows its picture.
  await shelf.waitForFunction(() =>
    [...document.images].every(
      (image) => image.getBoundingClientRect().top > innerHeight || image.naturalWidth > 0,
    ),
  );
  await keep(shelf, 'shelf');

  const can = await desk('Watering can');
  await can.move(0.42, 0.6);
  await keep(can.page, 'mount');
  await can.page.keyboard.press('3');
  await can.click(1930 / 2400, 612 / 1800);
  await can.move(1760 / 2400, 650 / 1800);
  await can.page.getByRole('button', { name: /^Refine .* px of/ }).waitFor();
  await keep(can.page, 'refine');
  await can.page.keyboard.press('Escape');
  await can.page.keyboard.press('Escape');
  await can.page.keyboard.press('4');
  await can.click(1300 / 2400, 1150 / 1800);
  await can.page.keyboard.press('b');
  await can.page.getByText(/^Body tone of Body: #/).waitFor();
  await can.page.getByRole('heading', { name: /^Tones/ }).waitFor();
  await keep(can.page, 'colour');
  await can.page.keyboard.press('Escape');
  await can.page.keyboard.press('Escape');
  // A kept copy beside the present, in which one leaf was moved.
  await can.page.keyboard.press('k');
  await can.page.getByText(/Kept as/).waitFor();
  await can.page.keyboard.press('3');
  await can.page.getByRole('row', { name: /^Right leaf/ }).click({ position: { x: 90, y: 18 } });
  for (let i = 0; i < 3; i++) await can.page.keyboard.press('Shift+ArrowRight');
  await can.page.keyboard.press('5');
  await can.page.getByRole('button', { name: /beside the present/ }).click();
  await can.page.getByText('its lines on the bed').click();
  await can.page.waitForTimeout(4500);
  await can.page.getByText('its lines on the bed').click();
  await can.page.getByRole('application', { name: 'Bed' }).focus();
  await can.page.keyboard.press('Control+z');
  await can.page.keyboard.press('6');
  await can.page.waitForTimeout(1500);
  await keep(can.page, 'export');

  // Labels on the bench, two thirds of them drawn.
  const labels = await desk('Plant labels');
  await labels.page.keyboard.press('6');
  await labels.page.getByLabel('What the file is made for').selectOption('a pen');
  await labels.page.getByRole('toolbar').getByRole('button', { name: 'Bench' }).click();
  const time = labels.page.getByRole('slider', { name: 'Time on the bench' });
  await labels.page.getByText('drawn twice').waitFor();
  await time.fill(String(0.62 * Number(await time.getAttribute('max'))));
  await keep(labels.page, 'bench');

  // Colourways, one of them seen on the bed.
  const coloured = await desk('Glasshouse');
  await coloured.page.keyboard.press('4');
  await coloured.page.locator('summary', { hasText: 'Colourways' }).click();
  await coloured.page.getByRole('button', { name: 'Compare Evening' }).click();
  await coloured.page.getByRole('button', { name: 'Compare First frost' }).click();
  await coloured.page
    .getByText('Kept', { exact: true })
    .evaluate((e) => e.scrollIntoView({ block: 'center' }));
  await coloured.page.getByRole('button', { name: 'Use the colourway First frost' }).hover();
  await keep(coloured.page, 'colourways');

  // The can's body, of which other shapes cover parts.
  const drift = await desk('Watering can');
  await drift.page.keyboard.press('3');
  await drift.page.getByRole('button', { name: /^Refine .* px/ }).waitFor();
  await drift.page.getByRole('row', { name: /^Body,/ }).click({ position: { x: 90, y: 18 } });
  await drift.page.getByRole('application', { name: 'Bed' }).focus();
  await drift.page.keyboard.press('Shift+0');
  await drift.page.waitForTimeout(1500);
  await drift.page.getByLabel(/^Drift along/).hover();
  await keep(drift.page, 'drift');

  // The can's handle, blocked in afresh on its picture: a chain offered round its bend.
  const reach = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await reach.goto(server.address);
  await reach.getByRole('button', { name: 'Watering can', exact: true }).click();
  const starting = reach.getByRole('dialog', { name: 'New project' });
  await starting.getByLabel('name').fill('Handle');
  await starting.getByRole('button', { name: 'Start' }).click();
  const reachBed = reach.getByRole('application', { name: 'Bed' });
  await reachBed.waitFor();
  await reach.keyboard.press('2');
  await reach.waitForTimeout(1500);
  const { art: sheet } = await reach.evaluate(async () =>
    (await fetch(`/api/projects/${location.pathname.split('/').at(-1)}/art`)).json(),
  );
  const [a, , , d, e, f] = sheet.pictures[0].placement;
  /** A pixel of the picture on the page. */
  const pixel = async (x, y) => {
    const [k, tx, ty] = (await reachBed.getAttribute('data-view')).split(' ').map(Number);
    const box = await reachBed.boundingBox();
    return [box.x + (a * x + e) * k + tx, box.y + (d * y + f) * k + ty];
  };
  await reach.mouse.move(...(await pixel(1880, 860)));
  await reach.keyboard.down('Control');
  await reach.mouse.wheel(0, -200);
  await reach.keyboard.up('Control');
  await reach.waitForTimeout(500);
  await reach.mouse.move(...(await pixel(1565, 629)), { steps: 4 });
  await reach.waitForTimeout(500);
  await reach.mouse.down();
  await reach.mouse.up();
  await reach.locator('summary', { hasText: 'Reach' }).click();
  for (const [x, y] of [
    [1771, 563],
    [1983, 664],
    [2030, 794],
    [2010, 950],
    [1878, 1142],
  ]) {
    await reach.mouse.move(...(await pixel(x, y)), { steps: 8 });
    await reach.waitForTimeout(300);
  }
  await reach.locator('.marks .chained').first().waitFor();
  await keep(reach, 'reach');

  const square = await desk('Gate badge');
  await square.page.getByRole('button', { name: 'Square up' }).click();
  await square.page.getByRole('button', { name: /Top left corner/ }).waitFor();
  await square.page.getByText('circle', { exact: true }).click();
  await keep(square.page, 'square-up');

  const gourd = await desk('Gourd');
  await gourd.page.keyboard.press('2');
  // A mosaic's sides are straight: what Reach offers along the stripes is not wanted here.
  await gourd.page.getByRole('button', { name: 'Reach', exact: true }).click();
  const { art } = await gourd.page.evaluate(async () =>
    (await fetch(`/api/projects/${location.pathname.split('/').at(-1)}/art`)).json(),
  );
  const [left, right] = art.layers[0].children[3].paths[0].anchors;
  const share = (p, dx, dy) => [(p.x + dx) / art.sheet.width, (p.y + dy) / art.sheet.height];
  for (const spot of [share(right, 1, -1), share(right, 4, -46), share(left, -6, -48), share(left, -1, 1)]) {
    await gourd.click(...spot);
    await gourd.page.waitForTimeout(350);
  }
  await gourd.move(...share(left, -50, -90));
  await keep(gourd.page, 'block-in');

  // A cutout, the photographed can before a tag, with the shadow it throws.
  const tag = await desk('Can tag', 'dark');
  await tag.page.keyboard.press('4');
  await tag.page.getByRole('row', { name: /^Can cut out/ }).click({ position: { x: 110, y: 18 } });
  await tag.page.keyboard.press('5');
  await tag.page.locator('summary', { hasText: /^Cutout/ }).click();
  await tag.page.getByRole('button', { name: 'Write it as PNG' }).scrollIntoViewIfNeeded();
  await tag.page.waitForTimeout(1500);
  await keep(tag.page, 'cutout');

  // Exercises, and the answer to one that was handed in twice.
  const practice = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const post = async (path, value) =>
    (await practice.request.post(server.address + path, { data: value })).json();
  const { id } = await post('/api/exercises/leaf/projects', {});
  const anchor = (x, y, before, after) => ({
    x,
    y,
    kind: 'corner',
    in: { x: before[0], y: before[1] },
    out: { x: after[0], y: after[1] },
  });
  const leaf = (anchors) => ({ id: 'leaf', closed: true, anchors });
  const rough = leaf([anchor(306, 664, [330, 70], [50, -290]), anchor(924, 214, [-290, -10], [-50, 280])]);
  const fine = leaf([anchor(300, 660, [340, 99], [31, -338]), anchor(930, 210, [-309, -29], [-29, 309])]);
  const shape = {
    id: 'shape',
    type: 'shape',
    name: 'Leaf',
    shown: true,
    locked: false,
    opacity: 1,
    fill: null,
    stroke: null,
    paths: [rough],
  };
  await post(`/api/projects/${id}/changes`, { base: 0, changes: [{ op: 'add', path: '/layers/0/children/-', value: shape }] }); // prettier-ignore
  await post(`/api/projects/${id}/attempts`, { seconds: 46, presses: 14 });
  await post(`/api/projects/${id}/changes`, { base: 1, changes: [{ op: 'replace', path: '/layers/0/children/0/paths/0', value: fine }] }); // prettier-ignore
  await post(`/api/projects/${id}/attempts`, { seconds: 118, presses: 31 });
  await practice.goto(`${server.address}/practice`);
  await practice.waitForLoadState('networkidle');
  await keep(practice, 'practice', false);
  await practice.goto(`${server.address}/projects/${id}/answer`);
  await practice.getByLabel('beside it').selectOption({ index: 1 });
  await practice.waitForLoadState('networkidle');
  await keep(practice, 'answer');

  // A class of made-up names hands the leaf in: each with a line farther off than the one before.
  const handedIn = [];
  for (const [k, name] of [
    'Amber Finch',
    'Bo Reed',
    'Cleo Marsh',
    'Dov Hale',
    'Esme Thorn',
    'Ivo Larch',
  ].entries()) {
    const { id: own } = await post('/api/exercises/leaf/projects', {});
    const off = (n, by) =>
      anchor(300 + by * k, 660 - by * k, [340 - n * k, 99 - 2 * n * k], [31, -338 + 5 * n * k]);
    const tip = anchor(930 - k, 210 + 2 * k, [-309 + 4 * k, -29], [-29, 309 - 6 * k]);
    for (const [n, path] of [leaf([off(9, 3), tip]), leaf([off(3, 1), tip])]
      .slice(0, 1 + ((k + 1) % 2))
      .entries()) {
      const value = n === 0 ? { ...shape, paths: [path] } : path;
      const at = n === 0 ? { op: 'add', path: '/layers/0/children/-' } : { op: 'replace', path: '/layers/0/children/0/paths/0' }; // prettier-ignore
      await post(`/api/projects/${own}/changes`, { base: n, changes: [{ ...at, value }] });
      await post(`/api/projects/${own}/attempts`, { seconds: 64 + 31 * n + 17 * k, presses: 12 + 7 * n + 2 * k }); // prettier-ignore
    }
    const bundle = await practice.request.get(`${server.address}/api/projects/${own}/export.zip`);
    handedIn.push({ name: `${name}.zip`, mimeType: 'application/zip', buffer: await bundle.body() });
    await practice.request.delete(`${server.address}/api/projects/${own}`);
  }
  await practice.goto(`${server.address}/practice/class`);
  const chooser = practice.waitForEvent('filechooser');
  await practice.getByRole('button', { name: 'Put in bundles' }).click();
  await (await chooser).setFiles(handedIn);
  await practice.getByRole('row', { name: /^Ivo Larch/ }).waitFor();
  await practice.getByRole('button', { name: 'mean', exact: true }).click();
  await keep(practice, 'class');

  // Picture and drawing side by side; how it grew; the report on it.
  const { page: compared } = await desk('Watering can');
  await compared.keyboard.press('5');
  await compared.getByText('Side by side', { exact: true }).click();
  await compared.waitForTimeout(1500);
  await compared.mouse.move(760, 380);
  await keep(compared, 'side-by-side');
  await compared.getByText('Side by side', { exact: true }).click();
  await compared.locator('summary', { hasText: 'How it grew' }).click();
  await compared.locator('dl[aria-label=Growth]').scrollIntoViewIfNeeded();
  await compared.getByRole('toolbar').getByRole('button', { name: 'Replay' }).click();
  const stem = compared.getByRole('slider', { name: 'Replay' });
  const along = await stem.boundingBox();
  await compared.mouse.click(along.x + 0.62 * along.width, along.y + along.height / 2);
  await compared.waitForTimeout(1000);
  await keep(compared, 'replay');
  const report = await compared.getByRole('link', { name: 'Report' }).getAttribute('href');
  await compared.goto(server.address + report);
  await compared.getByAltText('The picture of Watering can').waitFor();
  await compared.waitForTimeout(2000);
  await keep(compared, 'report');

  // An inked sketch: what looks like a mistake in it.
  const packet = await desk('Seed packet');
  // What looks like a mistake in it, as labels stuck in at their places.
  await packet.page.keyboard.press('5');
  await packet.page.getByText(/things look like a mistake/).waitFor();
  await packet.page.locator('summary', { hasText: 'Spare anchors' }).click();
  await keep(packet.page, 'proof');
} finally {
  await browser.close();
  await server.stop();
  rmSync(data, { recursive: true, force: true });
}
