import { deltaE2000, parseHex, rgbToCielab, shapesOf } from '@mirrot/core';
import { openDemo } from './desk';
import { expect, test } from './test';

test('a blocked in portrait gets its body tones at once, seen first; one shape shows its light and shade; covered ones say so', async ({
  page,
}) => {
  const h = await openDemo(page, 'Grower');
  await h.key('4');
  const fills = async (): Promise<Map<string, string | null>> => {
    const art = await h.art();
    return new Map(shapesOf(art).map(({ shape }) => [shape.name, shape.fill && 'hex' in shape.fill ? shape.fill.hex : null])); // prettier-ignore
  };
  await expect(page.getByRole('button', { name: /^Body tone/ })).toBeVisible();
  await h.key('b');
  await expect(page.getByText(/^Body tone of 3\d shapes/)).toBeVisible();
  // An offer: nothing is kept before it is taken.
  expect([...(await fills()).values()].every((fill) => fill === null)).toBe(true);
  await h.key('Enter');
  await expect(page.getByRole('button', { name: 'Undo: Body tone' })).toBeVisible();
  const taken = await fills();
  // The materials that the picture was drawn with, before light and lens: the vector original behind it.
  for (const [name, material] of [
    ['Bib', '#b25c34'],
    ['Hair', '#4a2f22'],
    ['Neck', '#bd8359'],
    ['Band', '#7c2f2a'],
    ['Face shade', '#a36d48'],
    ['Left collar', '#6a8fab'],
  ] as const)
    expect(deltaE2000(rgbToCielab(parseHex(taken.get(name)!)), rgbToCielab(parseHex(material))), name).toBeLessThan(6); // prettier-ignore

  await page.getByRole('row', { name: /^Crown,/ }).click({ position: { x: 90, y: 18 } });
  await h.key('b');
  await expect(page.getByText(/^Body tone of Crown: #\w+, from the 5\d % of it in sight/)).toBeVisible();
  await page.getByRole('button', { name: /^Light tone/ }).click();
  await expect(page.getByText(/^Light tone of Crown: #/)).toBeVisible();
  await h.key('Enter');
  const lighter = (await fills()).get('Crown')!;
  expect(lighter).not.toBe(taken.get('Crown'));
  await page.getByRole('slider', { name: 'Left out at either end' }).focus();
  await page.keyboard.press('ArrowRight');
  await h.key('Control+z');
  await h.key('Control+z');
  await expect.poll(async () => [...(await fills()).values()].every((fill) => fill === null)).toBe(true);
});
