import { expect, test } from './test';
import { expectClean } from './axe';
import { readFile } from 'node:fs/promises';
import { hands, openDemo, URL, type Hands } from './desk';
import { pupilsBundle } from './pupils';

/** Begins an exercise from the shelf. */
async function begin(page: Hands['page'], title: string): Promise<Hands> {
  await page.goto(URL());
  await page.getByRole('link', { name: 'Practice' }).click();
  await page.getByRole('button', { name: `Begin ${title}` }).click();
  await expect(page.getByRole('application', { name: 'Bed' })).toBeVisible();
  await expect(page.getByText(`Exercise: ${title}`)).toBeVisible();
  return hands(page);
}

test('straight corners, from the shelf to the answer: figures, the truth, and what to try next', async ({
  page,
}) => {
  const h = await begin(page, 'The seed tray');
  // Nothing is told before something is handed in, and nothing can be handed in before something is drawn.
  await page.getByRole('button', { name: 'Hand in' }).click();
  await expect(page.getByText('Nothing of the exercise is drawn yet.')).toBeVisible();
  const early = await page.request.get(`${URL()}/api/projects/${page.url().split('/').at(-1)}/answer`);
  expect(early.status()).toBe(409);
  await h.key('2');
  const corners = [[260, 230], [940, 196], [952, 420], [716, 432], [726, 700], [470, 712], [460, 444], [272, 454]] as const; // prettier-ignore
  await page.keyboard.down('c');
  // Counted with the packet folded away, too.
  await h.key('i');
  await expect(page.getByText('Exercise: The seed tray')).toBeHidden();
  for (const [x, y] of corners) await h.click({ x: x + 3, y });
  await h.click({ x: 263, y: 230 });
  await page.keyboard.up('c');
  await h.key('i');
  await expect(page.getByText('all changes kept')).toBeVisible();
  await page.getByRole('button', { name: 'Hand in' }).click();
  await expect(page.getByRole('heading', { name: 'The seed tray' })).toBeVisible();
  // Moved aside by 3 px: sides that run down are so far off, those across lie on the truth.
  await expect(page.getByText(/^On average your line lies 1\.\d\d px from the true one/)).toBeVisible();
  await expect(page.getByRole('row', { name: /^anchors 8, the original 8/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^near a line 100 %/ })).toBeVisible();
  const presses = Number((await page.getByRole('row', { name: /^presses/ }).innerText()).split(/\s/).at(-1));
  // Two presses of Hand in, 2, C, I twice, and nine of the corners.
  expect(presses).toBeGreaterThanOrEqual(15);
  expect(presses).toBeLessThanOrEqual(16);
  await expect(page.getByText('Zoom in to 400 %')).toBeVisible();
  await expect(page.locator('path.truth')).toHaveCount(1);
  await page.getByText('True outline', { exact: true }).click();
  await expect(page.locator('path.truth')).toHaveCount(0);
  await expectClean(page, 'answer');
});

test('an arc from two anchors, handed in twice: the second try is charted and laid beside the first', async ({
  page,
}) => {
  const h = await begin(page, 'The arched window');
  await page.getByText('Coach', { exact: true }).click();
  await expect(page.getByText('Begin at a corner, if it has one')).toBeVisible();
  await h.key('2');
  await page.keyboard.down('c');
  await h.click({ x: 340, y: 700 });
  await h.click({ x: 860, y: 720 });
  await expect(page.getByText('Anchor 2 stands beside the edge')).toBeVisible();
  await h.key('Backspace');
  await h.click({ x: 860, y: 700 });
  await expect(page.getByText('So far it lies well.')).toBeVisible();
  await h.click({ x: 340, y: 700 });
  await page.keyboard.up('c');
  await expect(page.getByText('The side after anchor 2 bends: pull it onto the edge.')).toBeVisible();
  await page.getByRole('button', { name: 'Hand in' }).click();
  await expect(page.getByText(/of the outline has no line near it: Window first\./)).toBeVisible();
  await page.getByRole('link', { name: 'Back to the drawing' }).click();
  await expect(h.bed).toBeVisible();
  // Pulled up by its middle, the arc lies as the original's does.
  await h.key('3');
  await h.click({ x: 600, y: 700 });
  await h.drag({ x: 600, y: 700 }, { x: 600, y: 265 });
  await expect(page.getByText('all changes kept')).toBeVisible();
  await page.getByRole('button', { name: 'Hand in' }).click();
  await expect(page.getByRole('img', { name: /^Mean distance of each attempt, 1: .*, 2: / })).toBeVisible();
  await page.getByLabel('beside it').selectOption({ index: 1 });
  await expect(page.getByRole('columnheader', { name: 'attempt 1' })).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'attempt 2' })).toBeVisible();
  // The best of them is raced against: in another project of the exercise it is drawn along at its own pace.
  await page.getByRole('button', { name: 'Begin it again' }).click();
  await expect(h.bed).toBeVisible();
  await page.getByText('Race the best', { exact: true }).click();
  await expect(page.getByText(/it had \d of 2 anchors; you have 0\.|It was done after/)).toBeVisible();
  await h.key('2');
  await h.click({ x: 340, y: 700 });
  await expect(page.getByText(/it had \d of 2 anchors; you have 1\.|It was done after/)).toBeVisible();
  await expect(page.locator('path.ghost')).toBeVisible({ timeout: 30_000 });
  await page.getByText('Race the best', { exact: true }).click();
  await expect(page.locator('path.ghost')).toHaveCount(0);
  await page.goto(`${URL()}/practice`);
  await expect(
    page.getByRole('listitem').filter({ hasText: 'The arched window' }).getByText('2 times'),
  ).toBeVisible();
  await expectClean(page, 'practice');
});

test('a finished project becomes an exercise: its drawing measures what is drawn, and stays out of sight till then', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('5');
  await page.locator('summary', { hasText: 'Make it an exercise' }).click();
  await page.getByLabel('title').fill('The can for a class');
  await page.getByLabel('what to do').fill('');
  await page.getByRole('button', { name: 'Make the exercise' }).click();
  await expect(page.getByRole('alert')).toHaveText('Say what to do in 1 to 3 lines.');
  await page.getByLabel('what to do').fill('The can’s band alone.');
  await page.getByRole('button', { name: 'Make the exercise' }).click();
  await expect(page.getByText('Exercise: The can for a class')).toBeVisible();
  expect(await h.shapes()).toHaveLength(0);
  // The band as the original has it, two of its corners left out of the hand’s care.
  const { pictures } = await h.art();
  const [a, , , d, e, f] = pictures[0]!.placement;
  const at = (x: number, y: number): { x: number; y: number } => ({ x: a * x + e, y: d * y + f });
  await h.key('2');
  await page.keyboard.down('c');
  for (const [x, y] of [[750, 1230], [1570, 1230], [1575, 1296], [745, 1296], [750, 1230]] as const) await h.click(at(x, y)); // prettier-ignore
  await page.keyboard.up('c');
  await expect(page.getByText('all changes kept')).toBeVisible();
  await page.getByRole('button', { name: 'Hand in' }).click();
  await expect(page.getByText(/of the outline has no line near it/)).toBeVisible();
  // A bundle carries it to a class: its truth, its picture, and what was handed in here.
  const project = page.url().split('/').at(-2)!;
  const buffer = await (await page.request.get(`${URL()}/api/projects/${project}/export.zip`)).body();
  const added = await page.request.post(`${URL()}/api/projects/import`, { multipart: { file: { name: 'can.zip', mimeType: 'application/zip', buffer } } }); // prettier-ignore
  const { project: carried } = (await added.json()) as { project: { id: string; practised: string } };
  expect(carried.practised).toBe('The can for a class');
  const answer = await (await page.request.get(`${URL()}/api/projects/${carried.id}/answer`)).json();
  expect(answer).toMatchObject({ exercise: { title: 'The can for a class' }, attempts: [{ here: true }] });
  await page.getByRole('link', { name: 'All exercises' }).click();
  await expect(page.getByRole('button', { name: 'Begin The can for a class' })).toBeVisible();
});

test('a class’s bundles: a table that sorts and is written as CSV, each opened with its answer and its replay', async ({
  page,
}) => {
  const tray = (dx: number): string =>
    `M${260 + dx} 230L${940 + dx} 196L${952 + dx} 420L${716 + dx} 432L${726 + dx} 700L${470 + dx} 712L${460 + dx} 444L${272 + dx} 454Z`;
  const zip = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/zip', buffer });
  const ada = await pupilsBundle(page.request, 'tray', [{ d: tray(9), seconds: 61, presses: 24 }]);
  const twice = [{ d: tray(1), seconds: 200, presses: 50 }, { d: tray(4), seconds: 230, presses: 58 }]; // prettier-ignore
  const ben = await pupilsBundle(page.request, 'tray', twice);
  const none = await pupilsBundle(page.request, 'leaf', []);
  const before = await (await page.request.get(`${URL()}/api/exercises`)).text();
  await page.goto(`${URL()}/practice`);
  await page.getByRole('link', { name: 'A class' }).click();
  await expect(page.getByText('No bundle yet.')).toBeVisible();
  const put = async (...files: readonly ReturnType<typeof zip>[]): Promise<void> => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Put in bundles' }).click();
    await (await chooser).setFiles([...files]);
  };
  await put(
    zip('ben 10.zip', ben),
    zip('=ada 9.zip', ada),
    zip('cy.zip', none),
    zip('cut.zip', ada.subarray(0, 900)),
  );
  const rows = page.getByRole('table').getByRole('row');
  await expect(rows).toHaveCount(5);
  const names = (): Promise<string[]> => page.getByRole('rowheader').allTextContents();
  await expect.poll(names).toEqual(['=ada 9.zip', 'ben 10.zip', 'cut.zip', 'cy.zip']);
  await expect(page.getByRole('row', { name: /^cy\.zip/ })).toContainText('Nothing was handed in from it.');
  await expect(page.getByRole('row', { name: /^cut\.zip/ })).toContainText('cut short or broken');
  // The last of two tries, and the nearest.
  const ofBen = page.getByRole('row', { name: /^ben 10\.zip/ });
  await expect(ofBen).toContainText('3 min 50 s');
  await page.getByText('nearest', { exact: true }).click();
  await expect(ofBen).toContainText('3 min 20 s');
  await page.getByRole('button', { name: 'mean', exact: true }).click();
  await expect.poll(names).toEqual(['ben 10.zip', '=ada 9.zip', 'cy.zip', 'cut.zip']);
  await page.getByRole('button', { name: 'mean', exact: true }).click();
  await expect.poll(names).toEqual(['=ada 9.zip', 'ben 10.zip', 'cy.zip', 'cut.zip']);
  await expect(page.getByRole('columnheader', { name: 'mean' })).toHaveAttribute('aria-sort', 'descending');
  await expectClean(page, 'class');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write as CSV' }).click();
  const csv = await readFile((await (await download).path())!, 'utf8');
  const lines = csv.replace('\ufeff', '').split('\r\n');
  expect(lines[0]).toMatch(/^file,exercise,tries,"mean distance, px","95 % within, px",/);
  // What a spreadsheet would work out is text.
  expect(lines[1]).toMatch(/^"'=ada 9\.zip",The seed tray,1,4\.\d+,/);
  expect(lines[2]).toMatch(/^ben 10\.zip,The seed tray,2,0\.\d+,.*,200,50,8,\d{4}-/);
  expect(lines[3]).toContain('Nothing was handed in from it.');

  // Nothing is on the shelf, and nobody’s own attempts are more, before one is opened and after.
  await ofBen.getByRole('button', { name: 'Answer of ben 10.zip' }).click();
  await expect(page.getByRole('heading', { name: 'The seed tray' })).toBeVisible();
  await expect(
    page.getByRole('img', { name: /^Mean distance of each attempt, 1: 0\.\d+ px, 2: / }),
  ).toBeVisible();
  await expect(page.getByRole('row', { name: /^time at work 3 min 50 s/ })).toBeVisible();
  expect(await (await page.request.get(`${URL()}/api/exercises`)).text()).toBe(before);
  const opened = page.url();
  await page.getByRole('link', { name: 'The class' }).click();
  await expect(rows).toHaveCount(5);
  await page.getByRole('button', { name: 'Replay of ben 10.zip' }).click();
  const stem = page.getByRole('slider', { name: 'Replay' });
  await expect(stem).toBeVisible();
  await expect(stem).toHaveAttribute('aria-valuemax', '2');
  // It was opened once.
  expect(page.url()).toBe(opened.replace('/answer', '#replay'));
});
