import { expect, test } from './test';
import { expectClean } from './axe';
import { hands, openDemo, URL, type Hands } from './desk';

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
  await page.getByRole('link', { name: 'All exercises' }).click();
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
  await page.getByRole('link', { name: 'All exercises' }).click();
  await expect(page.getByRole('button', { name: 'Begin The can for a class' })).toBeVisible();
});
