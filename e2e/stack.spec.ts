import { readFileSync } from 'node:fs';
import { expect, test } from './test';
import sharp from 'sharp';
import { childrenOf, findNode, nodeBox, type Art, type Shape, type TreeNode } from '@mirrot/core';
import { openNew, URL } from './desk';

/** The loud ground: what no drawing has. */
const LOUD = [0xff, 0x2e, 0xa6];

const square = (id: string, x: number, y: number, size: number): Shape => ({
  id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: { hex: '#2f6b4f' }, stroke: null,
  paths: [{ id: `${id}-path`, closed: true, anchors: [[0, 0], [1, 0], [1, 1], [0, 1]].map(([u, v]) => ({ x: x + u! * size, y: y + v! * size, kind: 'corner' as const, in: null, out: null })) }],
}); // prettier-ignore

test('what is chosen is arranged on the board, seen before it is pressed; grouped, copied along, and all of it undone', async ({
  page,
}) => {
  const h = await openNew(page, 'Arranged', undefined, [
    square('Plate', 100, 100, 200),
    square('Knob', 420, 80, 60),
    square('Ring', 560, 300, 120),
  ]);
  const left = (art: Art, id: string): number => nodeBox(art, id).x0;
  await h.key('3');
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) });
  await row('Plate').click({ position: { x: 90, y: 18 } });
  for (const name of ['Knob', 'Ring'])
    await row(name).click({ position: { x: 90, y: 18 }, modifiers: ['Shift'] });
  await page.locator('summary', { hasText: 'Arrange' }).click();
  const board = page.getByRole('group', { name: /at a place of all that is chosen/ });
  const ink = (id: string) => h.bed.locator(`[data-shape="${id}"]`).first();
  const before = await ink('Ring').getAttribute('d');
  await board.getByRole('button', { name: 'left', exact: true }).hover();
  await expect(ink('Ring')).not.toHaveAttribute('d', before!);
  await page.mouse.move(640, 760);
  await expect(ink('Ring')).toHaveAttribute('d', before!);
  await board.getByRole('button', { name: 'left', exact: true }).click();
  let art = await h.art();
  expect(['Plate', 'Knob', 'Ring'].map((id) => left(art, id))).toEqual([100, 100, 100]);
  await h.key('Control+z');

  // The knob is centred on the plate, which stays.
  await h.click({ x: 200, y: 200 });
  await page.getByRole('group', { name: /at a place of Plate/ }).getByRole('button', { name: 'middle', exact: true }).click(); // prettier-ignore
  art = await h.art();
  expect(nodeBox(art, 'Knob')).toMatchObject({ x0: 170, y0: 170, x1: 230, y1: 230 });
  expect(left(art, 'Plate')).toBe(100);
  await h.key('Control+z');

  await h.key('Control+g');
  await expect(row('Group 1')).toBeVisible();
  await expect(page.locator('#bed-says')).toHaveText('Group 1, 3 shapes');
  await h.key('Control+Shift+g');
  await expect(row('Group 1')).toHaveCount(0);

  // A copy goes along with Alt; the same step again by Ctrl+D.
  await h.key('Escape');
  await h.click({ x: 600, y: 340 });
  await expect(page.locator('#bed-says')).toHaveText('Ring');
  await page.keyboard.down('Alt');
  await h.drag({ x: 600, y: 340 }, { x: 600, y: 240 });
  await page.keyboard.up('Alt');
  await h.key('Control+d');
  const { layers } = await h.art();
  const rings = layers[0]!.children.filter((n) => n.name.startsWith('Ring'));
  expect(rings.map((n) => n.name)).toEqual(['Ring', 'Ring 2', 'Ring 3']);
  expect(rings.map((n) => nodeBox({ ...art, layers }, n.id).y0)).toEqual([300, 200, 100]);
  for (let i = 0; i < 4; i++) await h.key('Control+z');
  const { layers: back } = await h.art();
  expect(back[0]!.children.map((n) => n.name)).toEqual(['Plate', 'Knob', 'Ring']);
  expect(findNode(await h.art(), 'Ring')).not.toBeNull();
});

test('rows are dragged into a group and moved out by keys; a group is worked in, and left by Esc or its crumbs', async ({
  page,
}) => {
  const h = await openNew(page, 'Nested', undefined, [
    square('Plate', 100, 100, 200),
    square('Knob', 420, 80, 60),
    square('Ring', 560, 300, 120),
  ]);
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) });
  const tree = async (): Promise<string> => {
    const words = (nodes: readonly TreeNode[]): string =>
      nodes.map((n) => (n.type === 'shape' ? n.name : `${n.name}(${words(childrenOf(n))})`)).join(' ');
    return words((await h.art()).layers[0]!.children);
  };
  const says = page.locator('#bed-says');
  await h.key('3');
  await h.click({ x: 200, y: 200 });
  await h.key('Control+g');
  await expect.poll(tree).toBe('Group 1(Plate) Knob Ring');

  // By the pointer: a line shows where it would go, and Esc goes nowhere.
  await expect(row('Ring')).toHaveAttribute('draggable', 'true');
  const from = (await row('Ring').boundingBox())!;
  const to = (await row('Plate').boundingBox())!;
  const dragOver = async (): Promise<void> => {
    await page.mouse.move(from.x + 90, from.y + 18);
    await page.mouse.down();
    await page.mouse.move(from.x + 92, from.y + 26, { steps: 3 });
    // The page hears of a drag a frame after it moved: it goes on until the line is there.
    await expect(async () => {
      await page.mouse.move(to.x + 90 + Math.random(), to.y + 32, { steps: 2 });
      await expect(page.locator('.landing.below')).toBeVisible({ timeout: 200 });
    }).toPass();
  };
  await dragOver();
  await h.key('Escape');
  await expect(page.locator('.landing')).toHaveCount(0);
  await page.mouse.up();
  await expect.poll(tree).toBe('Group 1(Plate) Knob Ring');
  await dragOver();
  await page.mouse.up();
  await expect.poll(tree).toBe('Group 1(Ring Plate) Knob');
  await expect(page.locator('.landing')).toHaveCount(0);

  // By keys, and said.
  await row('Knob').click({ position: { x: 90, y: 18 } });
  await h.key('Control+ArrowRight');
  await expect.poll(tree).toBe('Group 1(Ring Plate Knob)');
  await expect(page.locator('.stack [aria-live]').first()).toHaveText('Knob, 1 of 3 in Group 1');
  await h.key('Control+ArrowDown');
  await expect(page.locator('.stack [aria-live]').first()).toHaveText('Knob, 2 of 3 in Group 1');
  await h.key('Control+ArrowLeft');
  await expect.poll(tree).toBe('Group 1(Ring Plate) Knob');

  // On the bed the group is one thing; a double-click goes in.
  await h.key('Escape');
  await h.click({ x: 620, y: 360 });
  await expect(says).toHaveText('Group 1, 2 shapes');
  await expect(row('Group 1')).toHaveAttribute('aria-selected', 'true');
  await h.doubleClick({ x: 620, y: 360 });
  const crumbs = page.getByRole('navigation', { name: 'Group worked in' });
  await expect(crumbs).toHaveText(/Drawing\s*›\s*Group 1/);
  await expect(says).toHaveText('Ring');
  await h.click({ x: 450, y: 110 });
  await expect(says).toHaveText('nothing chosen');
  await h.click({ x: 200, y: 200 });
  await expect(says).toHaveText('Plate');
  await h.key('Escape');
  await expect(crumbs).toHaveCount(0);
  await expect(says).toHaveText('Group 1, 2 shapes');
  await h.key('Enter');
  await crumbs.getByRole('button', { name: 'Drawing' }).click();
  await expect(crumbs).toHaveCount(0);

  // Only this, and back by the same key.
  await h.key('Shift+H');
  await expect(row('Knob').getByRole('button', { name: 'Show Knob' })).toBeVisible();
  await h.key('Shift+H');
  await expect(row('Knob').getByRole('button', { name: 'Hide Knob' })).toBeVisible();

  // Pointing at a row lights the shape, pointing at the shape its row.
  await row('Knob').hover();
  await expect(h.bed.locator('.marks .edge')).toHaveCount(1);
  await h.move({ x: 450, y: 110 });
  await expect(row('Knob')).toHaveClass(/lit/);

  // How it lies over the others: seen while pointed at, kept when pressed.
  await h.click({ x: 450, y: 110 });
  await page.locator('summary', { hasText: 'Opacity and blend' }).click();
  const multiply = page.getByRole('radio', { name: 'multiply' });
  const blended = h.bed.locator('.fills [style*="multiply"]');
  // Each with a miniature of the knob in it.
  await expect(multiply.locator('[data-part="Knob"]')).toHaveCount(1);
  await multiply.hover();
  await expect(blended).toHaveCount(1);
  await h.move({ x: 700, y: 560 });
  await expect(blended).toHaveCount(0);
  await multiply.click();
  await expect(multiply).toBeChecked();
  await page.getByRole('slider', { name: 'Opacity' }).press('PageDown');
  await expect.poll(async () => findNode(await h.art(), 'Knob')!.node).toMatchObject({ blend: 'multiply', opacity: expect.closeTo(0.9, 1) }); // prettier-ignore
  await page.locator('summary', { hasText: 'Opacity and blend' }).click();

  await page.getByRole('button', { name: 'Find in the stack' }).click();
  await page.getByRole('searchbox', { name: 'Find in the stack' }).fill('pla');
  await expect(page.getByRole('row')).toHaveText([/Drawing/, /Group 1/, /Plate/]);
  await page.getByRole('searchbox').press('Enter');
  await expect(row('Plate')).toBeFocused();
});

test('shapes are copied to another project, pasted where the pointer is, cut, and given to other programs as SVG', async ({
  page,
}) => {
  const one = await openNew(page, 'From here', undefined, [
    square('Plate', 100, 100, 200),
    square('Knob', 420, 80, 60),
  ]);
  await one.key('3');
  await one.click({ x: 450, y: 110 });
  await expect(page.locator('#bed-says')).toHaveText('Knob');
  // What copies comes a moment after the desk: until it is there nothing is copied.
  await expect(async () => {
    await one.key('Control+c');
    await expect(page.getByText('Knob is copied.')).toBeVisible({ timeout: 500 });
  }).toPass();

  const other = await openNew(page, 'To there');
  await other.key('3');
  await expect(async () => {
    // Pressed again only where nothing came of it at all: the worker that reads it may be slow to start.
    if ((await page.getByRole('row', { name: /^Knob/ }).count()) === 0) await other.key('Control+v');
    await expect(page.locator('#bed-says')).toHaveText('Knob', { timeout: 6000 });
  }).toPass();
  const box = async (i: number) => {
    const art = await other.art();
    return nodeBox(art, art.layers[0]!.children[i]!.id);
  };
  expect(await box(0)).toMatchObject({ x0: 420, y0: 80 });
  await other.key('Control+x');
  await expect(page.locator('#bed-says')).toHaveText('nothing chosen');
  await expect.poll(() => other.shapes()).toHaveLength(0);
  await other.move({ x: 300, y: 300 });
  await other.key('Control+Shift+v');
  await expect(page.locator('#bed-says')).toHaveText('Knob');
  const { x0, y0 } = await box(0);
  expect(Math.abs(x0 - 270) + Math.abs(y0 - 270)).toBeLessThan(2);

  // Plain text elsewhere is SVG.
  await page.getByRole('button', { name: 'Find a command' }).click();
  const field = page.getByRole('combobox');
  await field.press('Control+v');
  await expect(field).toHaveValue(/^<svg xmlns/);
});

test('an SVG of another program becomes drawing: pasted as text, dropped where it goes, or a project of its own', async ({
  page,
  request,
}) => {
  const file = (inner: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><title>Sprig</title>${inner}</svg>`;
  const sprig = file('<g id="sprig"><circle cx="6" cy="6" r="6" fill="#2f6b4f"/><rect x="20" width="12" height="12"/></g><text>mint</text>'); // prettier-ignore
  const h = await openNew(page, 'From elsewhere');
  const bring = (kind: 'paste' | 'drop', text: string): Promise<unknown> =>
    h.bed.evaluate(
      (bed, { kind, text }) => {
        const data = new DataTransfer();
        if (kind === 'paste') data.setData('text/plain', text);
        else data.items.add(new File([text], 'sprig.svg', { type: 'image/svg+xml' }));
        const { x, y } = bed.getBoundingClientRect();
        bed.dispatchEvent(
          kind === 'paste'
            ? new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })
            : new DragEvent('drop', { dataTransfer: data, clientX: x + 200, clientY: y + 150, bubbles: true, cancelable: true }),
        ); // prettier-ignore
      },
      { kind, text },
    );
  const question = page.getByRole('group', { name: /How shall .* be taken/ });
  // Asked again until what takes it has been fetched.
  await expect(async () => {
    await bring('paste', sprig);
    await expect(question).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.keyboard.press('Escape');
  await expect(question).toHaveCount(0);
  expect((await h.art()).layers[0]!.children).toEqual([]);

  await bring('paste', sprig);
  await expect(question.getByRole('button', { name: 'As drawing' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Left out: text.' })).toBeVisible();
  await expect(page.getByRole('row', { name: /^sprig/ })).toBeVisible();
  await expect(h.bed).toBeFocused();
  let art = await h.art();
  const { width, height } = art.sheet;
  expect(nodeBox(art, art.layers[0]!.children[0]!.id).x0).toBeCloseTo(width / 2 - 16, 6);
  expect(nodeBox(art, art.layers[0]!.children[0]!.id).y0).toBeCloseTo(height / 2 - 6, 6);

  const [scale, tx, ty] = (await h.bed.getAttribute('data-view'))!.split(' ').map(Number) as [number, number, number]; // prettier-ignore
  await bring('drop', file('<path id="leaf" d="M0 0h10v10z"/>'));
  await question.getByRole('button', { name: 'As drawing' }).click();
  await expect(page.getByRole('row', { name: /^leaf/ })).toBeVisible();
  art = await h.art();
  expect(nodeBox(art, art.layers[0]!.children[1]!.id).x0).toBeCloseTo((200 - tx) / scale - 5, 3);
  expect(nodeBox(art, art.layers[0]!.children[1]!.id).y0).toBeCloseTo((150 - ty) / scale - 5, 3);
  await bring('paste', file('<g>'));
  await question.getByRole('button', { name: 'As drawing' }).click();
  await expect(page.getByRole('alert')).toContainText(/broken at line 1.*Nothing was added/);

  await page.goto(URL());
  const choosing = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: /Choose a picture/ }).click();
  await (
    await choosing
  ).setFiles({ name: 'sprig.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(sprig) });
  const dialog = page.getByRole('dialog', { name: 'New project' });
  await dialog.getByText('drawing', { exact: true }).click();
  await dialog.getByLabel('name').fill('Sprig taken');
  await dialog.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('heading', { name: 'Sprig taken' })).toBeVisible();
  await expect(page.getByText('The file is the drawing now. Left out: text.')).toBeVisible();

  // The same by the route, as other programs may.
  const post = (buffer: Buffer, name = 'a.svg') =>
    request.post(`${URL()}/api/projects/import`, { multipart: { file: { name, mimeType: 'image/svg+xml', buffer } } }); // prettier-ignore
  const made = await post(Buffer.from(sprig));
  expect(made.status()).toBe(201);
  const { project, left } = (await made.json()) as { project: { id: string; name: string; shapes: number; sheet: unknown }; left: unknown }; // prettier-ignore
  expect(project).toMatchObject({ name: 'Sprig', shapes: 2, sheet: { width: 40, height: 20, unit: 'px' } });
  expect(left).toEqual([{ what: 'text', count: 1 }]);
  const { art: kept } = (await (await request.get(`${URL()}/api/projects/${project.id}/art`)).json()) as { art: Art }; // prettier-ignore
  expect(kept.layers.map((layer) => [layer.name, childrenOf(layer).length])).toEqual([['sprig', 2]]);
  for (const wrong of [
    Buffer.from('<svg><g></svg>'),
    Buffer.from([0x50, 0x4b, 3, 4, 0xff, 0xfe]),
    Buffer.from(''),
  ]) {
    const refused = await post(wrong);
    expect(refused.status()).toBe(422);
    expect(((await refused.json()) as { error: { message: string } }).error.message).toContain(
      'Nothing was added',
    );
  }
});

test('a ring of spokes: round a hub that is pressed, its numbers in the stack, every second left out, pressed by any copy, parted', async ({
  page,
}) => {
  const h = await openNew(page, 'Wheel', undefined, [
    square('Hub', 380, 280, 40),
    square('Spoke', 395, 160, 10),
  ]);
  await h.key('3');
  const parts = h.bed.locator('.copy');
  await page.getByRole('row', { name: /^Spoke/ }).click({ position: { x: 90, y: 18 } });
  await expect(page.locator('#bed-says')).toHaveText('Spoke');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Command' }).fill('round a centre');
  await page.getByRole('option', { name: /^Repeat round a centre$/ }).click();
  await expect(page.getByText('Click the centre that the copies stand round.')).toBeVisible();
  // Near the middle of the hub: the middle is taken.
  await h.click({ x: 402, y: 299 });
  await expect(page.getByRole('row', { name: /^Ring of Spoke/ })).toBeVisible();
  await expect(parts).toHaveCount(5);
  await page.locator('summary', { hasText: 'Copies' }).click();
  const many = page.getByRole('spinbutton', { name: 'How many, with the first' });
  await many.fill('12');
  await many.press('Enter');
  await expect(parts).toHaveCount(11);
  const without = page.getByRole('spinbutton', { name: /Leave out every/ });
  await without.fill('2');
  await without.press('Enter');
  await expect(parts).toHaveCount(5);
  let art = await h.art();
  const ring = (): TreeNode => art.layers[0]!.children[1]!;
  expect(ring()).toMatchObject({ repeat: { kind: 'ring', count: 12, without: 2, x: 400, y: 300 } });

  // A copy a third of the way round is the ring as well.
  await page.keyboard.press('Escape');
  await h.bed.focus();
  await h.click({ x: 60, y: 60 });
  await expect(page.locator('#bed-says')).toHaveText('nothing chosen');
  const copy = { x: 400 + 135 * Math.sin((2 * Math.PI) / 3), y: 300 - 135 * Math.cos((2 * Math.PI) / 3) };
  await h.click(copy);
  await expect(page.locator('#bed-says')).toHaveText('Ring of Spoke, 1 shape');
  await page.locator('summary', { hasText: 'Copies' }).waitFor();
  const part = page.getByRole('button', { name: 'Part the copies' });
  if (!(await part.isVisible())) await page.locator('summary', { hasText: 'Copies' }).click();
  await part.click();
  await expect(parts).toHaveCount(0);
  await expect(page.locator('#bed-says')).toHaveText('Ring of Spoke, 6 shapes');
  art = await h.art();
  expect(childrenOf(ring()).map((n) => n.name)).toEqual(['Spoke', 'Spoke 2', 'Spoke 3', 'Spoke 4', 'Spoke 5', 'Spoke 6']); // prettier-ignore
  await h.key('Control+z');
  await expect(parts).toHaveCount(5);
});

test('a kept copy beside the present: what was changed since, one part taken back, its lines on the bed, a project from it', async ({
  page,
}) => {
  const h = await openNew(page, 'Second try', undefined, [
    square('Lid', 100, 100, 120),
    square('Spout', 300, 100, 80),
  ]);
  await h.key('k');
  await expect(page.getByText(/Kept as Copy 1/)).toBeVisible();
  await h.key('3');
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) });
  await row('Lid').click({ position: { x: 90, y: 18 } });
  await h.key('Delete');
  await row('Spout').click({ position: { x: 90, y: 18 } });
  await h.key('ArrowRight');
  await h.key('5');
  const panel = page.getByRole('group', { name: 'Proof panel' });
  await panel.getByRole('button', { name: 'See Copy 1 beside the present' }).click();
  await expect(panel.getByText('1 gone since, 1 altered since')).toBeVisible();
  await panel.getByText('its lines on the bed').click();
  await expect(h.bed.locator('path.ghost')).toHaveCount(1);
  await panel.getByRole('button', { name: 'Take Lid as it was' }).click();
  await expect(panel.getByText('1 added since, 1 gone since, 1 altered since')).toBeVisible();
  await panel.getByRole('button', { name: 'Take Spout as it was' }).click();
  let { layers } = await h.art();
  expect(layers[0]!.children.map((n) => [n.name, nodeBox({ layers } as Art, n.id).x0])).toEqual([['Spout', 300], ['Lid', 100]]); // prettier-ignore
  await h.key('Control+z');
  await h.key('Control+z');
  ({ layers } = await h.art());
  expect(layers[0]!.children.map((n) => n.name)).toEqual(['Spout']);
  await panel.getByLabel('note').fill('before the lid went');
  await panel.getByLabel('note').press('Tab');
  await panel.getByRole('button', { name: 'New project from it' }).click();
  await expect(page.getByRole('heading', { name: 'Second try, Copy 1' })).toBeVisible();
  await expect(row('Lid')).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('heading', { name: /^Second try Rename/ })).toBeVisible();
  await h.key('5');
  await panel.getByRole('button', { name: 'See Copy 1 beside the present' }).click();
  await expect(panel.getByLabel('note')).toHaveValue('before the lid went');
  await expect(h.bed.locator('path.ghost')).toHaveCount(0);
  await panel.getByRole('button', { name: 'Take Copy 1 away' }).click();
  await expect(panel.getByText('None yet.')).toBeVisible();
});

test('a line of text is written, set in a font of its own, stood on a line, moved and made paths; a broken font changes nothing', async ({
  page,
}) => {
  const h = await openNew(page, 'Lettered', undefined, [square('Plate', 500, 100, 200)]);
  await h.key('2');
  await page.getByRole('button', { name: 'Write a line of text' }).click();
  const text = page.getByLabel('Text', { exact: true });
  await expect(text).toHaveValue('Seeds');
  await expect(page.getByRole('row', { name: /^Seeds/ })).toBeVisible();
  const lettered = async (): Promise<Shape> => (await h.shapes()).find(({ id }) => id !== 'Plate')!;
  await text.fill('mint & dill');
  await expect(page.getByRole('row', { name: /^mint & dill/ })).toBeVisible();
  await text.press('Enter');
  const first = await lettered();
  expect(first.lettering).toMatchObject({ text: 'mint & dill', font: { id: 'bricolage' } });

  // Moved by the hand, it is still text: a longer one begins where it was moved to.
  await h.key('3');
  await h.key('Escape');
  await page.getByRole('row', { name: /^mint & dill/ }).click({ position: { x: 90, y: 18 } });
  for (let k = 0; k < 3; k++) await h.key('Shift+ArrowDown');
  const moved = await lettered();
  expect(moved.lettering!.placement[5]).toBeGreaterThan(first.lettering!.placement[5] + 10);
  await page.getByLabel('Spacing after each character, hundredths of an em').fill('10');
  await page.getByLabel('Spacing after each character, hundredths of an em').press('Enter');
  await expect.poll(async () => (await lettered()).lettering!.spacing).toBe(0.1);
  expect((await lettered()).lettering!.placement).toEqual(moved.lettering!.placement);

  const font = page.getByLabel('Font', { exact: true });
  const choose = async (name: string, buffer: Buffer): Promise<void> => {
    const choosing = page.waitForEvent('filechooser');
    await font.selectOption({ label: 'A font file of your own …' });
    await (await choosing).setFiles({ name, mimeType: 'font/woff', buffer });
  };
  await choose('torn.woff', Buffer.from('wOFF and then nothing'));
  await expect(page.getByText('This font is broken or cut short. Nothing was changed.')).toBeVisible();
  await choose('notes.woff', Buffer.from('mint, sorrel, dill'));
  await expect(page.getByText(/no font that can be read/)).toBeVisible();
  expect((await lettered()).lettering!.font.id).toBe('bricolage');
  await choose('Seed.woff', readFileSync('node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff')); // prettier-ignore
  await expect.poll(async () => (await lettered()).lettering!.font.name).toBe('Seed');
  await expect(font).toHaveValue((await lettered()).lettering!.font.id);

  await page.getByRole('button', { name: 'On the line pressed next' }).click();
  await h.click({ x: 600, y: 100 });
  await expect.poll(async () => (await lettered()).lettering!.along?.closed).toBe(true);
  const box = nodeBox(await h.art(), (await lettered()).id);
  // From the press at the middle of the plate's upper side on, outside the plate.
  expect(box.x0).toBeGreaterThan(590);
  expect(box.y0).toBeLessThan(100);
  expect(box.x1).toBeGreaterThan(700);
  const exported = await page.request.get(`${page.url().replace('/projects/', '/api/projects/')}/export.svg`);
  expect(await exported.text()).toContain('<title>mint &amp; dill</title>');

  await page.getByRole('button', { name: 'Make it paths' }).click();
  await expect(text).toHaveCount(0);
  expect((await lettered()).lettering).toBeUndefined();
  await h.key('Control+z');
  await expect(text).toHaveValue('mint & dill');
});

test('shapes are combined: seen in small and on the bed first, bitten with an open hole, split up and undone', async ({
  page,
}) => {
  const box = (id: string, x: number, y: number, size: number): Shape => ({ id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: { hex: '#2f6b4f' }, stroke: null, paths: [{ id: `${id}-p`, closed: true, anchors: [[x, y], [x + size, y], [x + size, y + size], [x, y + size]].map(([ax, ay]) => ({ x: ax!, y: ay!, kind: 'corner' as const, in: null, out: null })) }] }); // prettier-ignore
  const h = await openNew(page, 'Sticker', undefined, [box('plate', 100, 100, 300), box('mark', 200, 200, 100), box('beside', 350, 150, 200)]); // prettier-ignore
  await h.key('4');
  await h.key('Control+a');
  await page.locator('summary', { hasText: 'Combine' }).click();
  const bite = page.getByRole('button', { name: 'Bite', exact: true });
  await bite.hover();
  await expect(h.bed.locator('[data-part=mark]')).toHaveCount(0);
  expect((await h.shapes()).length).toBe(3);
  await bite.click();
  await expect.poll(async () => (await h.shapes()).length).toBe(1);
  const [plate] = await h.shapes();
  expect(plate!.name).toBe('plate');
  expect(plate!.paths.map((p) => p.anchors.length).sort()).toEqual([4, 8]);
  await h.key('Control+z');
  await expect.poll(async () => (await h.shapes()).length).toBe(3);
  const combine = page.locator('summary', { hasText: 'Combine' });
  await combine.click();
  await page.getByRole('button', { name: 'Split up', exact: true }).click();
  await expect.poll(async () => (await h.shapes()).length).toBe(4);
  await h.key('Control+z');
  await expect.poll(async () => (await h.shapes()).length).toBe(3);
  // What overlaps nowhere leaves nothing, and says so.
  await page.getByRole('button', { name: 'Overlap only', exact: true }).click();
  await expect(page.getByText(/Overlap only would leave nothing of them. Nothing was changed/)).toBeVisible();
  // The hole is open: a loud colour beneath everything shows through it, and the file is clear there, to the pixel.
  await bite.click();
  await expect.poll(async () => (await h.shapes()).length).toBe(1);
  await page.locator('summary', { hasText: 'Lines and areas' }).click();
  await page.getByRole('button', { name: 'Prove the hole' }).click();
  await h.key('Escape');
  const { x, y } = await h.onPage({ x: 250, y: 250 });
  const shown = await sharp(await page.screenshot({ clip: { x: x - 2, y: y - 2, width: 4, height: 4 } })).removeAlpha().raw().toBuffer(); // prettier-ignore
  expect([...shown.subarray(0, 3)]).toEqual(LOUD);
  const id = page.url().split('/').at(-1)!;
  const png = await page.request.get(`${URL()}/api/projects/${id}/export.png?area=sheet&ppi=96&ground=clear`);
  const { data, info } = await sharp(await png.body()).ensureAlpha().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
  const alpha = (px: number, py: number): number => data[4 * (py * info.width + px) + 3]!;
  expect([alpha(200, 200), alpha(299, 299), alpha(250, 250)]).toEqual([0, 0, 0]);
  expect([alpha(199, 250), alpha(300, 250), alpha(250, 199), alpha(250, 300)]).toEqual([255, 255, 255, 255]);
});
