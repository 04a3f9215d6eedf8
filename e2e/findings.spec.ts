import { plainStroke, type Anchor, type Shape } from '@mirrot/core';
import { expectClean } from './axe';
import { openNew } from './desk';
import { expect, test } from './test';

const corner = (x: number, y: number, into: readonly [number, number] | null = null, out: readonly [number, number] | null = null): Anchor => ({ x, y, kind: 'corner', in: into && { x: into[0], y: into[1] }, out: out && { x: out[0], y: out[1] } }); // prettier-ignore
const idOf = (name: string): string => name.replaceAll(' ', '-');
const shape = (name: string, closed: boolean, anchors: readonly Anchor[], filled: boolean): Shape => ({ id: idOf(name), type: 'shape', name, shown: true, locked: false, opacity: 1, fill: filled ? { hex: '#2f6b4f' } : null, stroke: filled ? null : plainStroke({ hex: '#22252b' }, 4), paths: [{ id: `${idOf(name)}-p`, closed, anchors }] }); // prettier-ignore

test('an open path, a gap, a kink and a doubled line are found where they are, mended, and put aside with a reason', async ({
  page,
}) => {
  const h = await openNew(page, 'With mistakes', undefined, [
    shape('Open leaf', false, [corner(100, 100), corner(200, 110), corner(160, 200)], true),
    shape('First half', false, [corner(300, 100), corner(400, 140)], false),
    shape('Second half', false, [corner(400.5, 140.4), corner(420, 260)], false),
    shape('Kinked', false, [corner(100, 400, null, [20, -40]), corner(200, 380, [-30, 0], [30, 1.5]), corner(300, 430, [-10, -30], null)], false), // prettier-ignore
    shape('Line', false, [corner(500, 300), corner(650, 380)], false),
    shape('Line again', false, [corner(650, 381.2), corner(500, 301.2)], false),
    shape('Whole', true, [corner(500, 450), corner(600, 450), corner(600, 550), corner(500, 550)], true),
  ]);
  await h.key('5');
  await expect(page.getByText('4 things look like a mistake.')).toBeVisible();
  await expect(page.getByRole('button', { name: /Proof/ })).toContainText('4 findings');
  await expect(page.locator('.labels g')).toHaveCount(4);
  await expectClean(page, 'Proof with findings');

  // Shown: the shape is chosen, and the view goes there.
  const fold = (title: string) => page.locator('details', { hasText: title });
  const open = (title: string) => page.locator('summary', { hasText: title }).click();
  await open('Filled, left open');
  await fold('Filled, left open')
    .getByRole('button', { name: /Open leaf/ })
    .click();
  await expect(page.locator('#bed-says')).toHaveText('Open leaf');
  // Mended as an offer: Esc leaves it, Enter takes it, one undo brings all back.
  const closed = async (name: string): Promise<boolean> => (await h.shapes()).find((s) => s.name === name)!.paths[0]!.closed; // prettier-ignore
  await fold('Filled, left open').getByRole('button', { name: 'Mend' }).click();
  await h.key('Escape');
  expect(await closed('Open leaf')).toBe(false);
  await fold('Filled, left open').getByRole('button', { name: 'Mend' }).click();
  await h.key('Enter');
  await expect(page.getByText('3 things look like a mistake.')).toBeVisible();
  await expect.poll(() => closed('Open leaf')).toBe(true);
  await h.key('Control+z');
  await expect(page.getByText('4 things look like a mistake.')).toBeVisible();
  await h.key('Control+Shift+z');
  await expect(page.getByText('3 things look like a mistake.')).toBeVisible();

  for (const [title, left] of [
    ['Ends that nearly meet', '2 things look'],
    ['Kinks', '1 thing looks'],
  ] as const) {
    await open(title);
    await fold(title).getByRole('button', { name: 'Mend' }).click();
    await h.key('Enter');
    await expect(page.getByText(`${left} like a mistake.`)).toBeVisible();
  }
  const ends = (await h.shapes())
    .filter(({ name }) => / half$/.test(name))
    .map(({ paths: [path] }) => path!.anchors);
  expect([ends[0]!.at(-1)!.x, ends[0]!.at(-1)!.y]).toEqual([ends[1]![0]!.x, ends[1]![0]!.y]);

  // Put aside with a reason, which is remembered; Export tells of what is left.
  await h.key('6');
  await page.getByRole('button', { name: '1 finding in Proof' }).click();
  await open('Lines drawn twice');
  await page.getByRole('button', { name: 'Put aside' }).click();
  await page.getByLabel('Why it is put aside').fill('the brush is wide');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Nothing is left that looks like a mistake.')).toBeVisible();
  await expect(page.locator('.labels .aside')).toHaveCount(1);
  await expect(page.getByText('all changes kept')).toBeVisible();
  await page.reload();
  await h.key('5');
  await open('Lines drawn twice');
  await expect(page.getByText('aside: the brush is wide')).toBeVisible();
  await page.getByRole('button', { name: 'Take up again' }).click();
  await page.getByRole('button', { name: 'Mend', exact: true }).click();
  await h.key('Enter');
  await expect(page.getByText('Nothing is left that looks like a mistake.')).toBeVisible();
  expect((await h.shapes()).map(({ name }) => name)).not.toContain('Line again');
});
