import { expect, test } from './test';
import type { Anchor, Path, Shape } from '@mirrot/core';
import { openNew, zoomTo, type Hands } from './desk';

// Every gesture of Refine at three zooms: an arch of three anchors, laid out in screen pixels about the sheet's middle, so
// that the hand does the same at each and the sheet has to show the same, divided by the zoom.

const C = { x: 200, y: 150 };
const archAt = (zoom: number): Shape => {
  const s = (n: number): number => n / zoom;
  const at = (x: number, y: number, kind: Anchor['kind'], hx: number, hy: number): Anchor => ({
    x: C.x + s(x),
    y: C.y + s(y),
    kind,
    in: kind === 'smooth' ? { x: s(-hx), y: s(-hy) } : null,
    out: { x: s(hx), y: s(hy) },
  });
  const path: Path = {
    id: 'arch',
    closed: false,
    anchors: [
      at(-120, 80, 'corner', 0, -60),
      at(0, -40, 'smooth', 50, 0),
      { ...at(120, 80, 'corner', 0, 0), in: { x: 0, y: s(-60) }, out: null },
    ],
  };
  return { id: 'shape', type: 'shape', name: 'Arch', shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths: [path] }; // prettier-ignore
};

for (const zoom of [0.25, 1, 16]) {
  const s = (n: number): number => n / zoom;
  const open = async (page: Parameters<typeof openNew>[0], name: string): Promise<Hands> => {
    const h = await openNew(page, `${name} ${zoom}`, { width: 400, height: 300, unit: 'px' }, [archAt(zoom)]);
    await zoomTo(h, zoom);
    await h.key('3');
    return h;
  };
  const spot = (x: number, y: number) => ({ x: C.x + s(x), y: C.y + s(y) });
  const path = async (h: Hands): Promise<Path> => (await h.shapes())[0]!.paths[0]!;
  /** An anchor and its handles, back in screen pixels from the middle. */
  const seen = ({ x, y, in: i, out: o }: Anchor) => ({
    x: (x - C.x) * zoom,
    y: (y - C.y) * zoom,
    in: i && { x: i.x * zoom, y: i.y * zoom },
    out: o && { x: o.x * zoom, y: o.y * zoom },
  });
  const near = (v: number | undefined, to: number, within = 1): void =>
    expect(Math.abs(v! - to)).toBeLessThan(within);

  test(`by mouse at ${zoom * 100} %: pull, move, turn, break, take away, add, turn the kind, box, delete`, async ({
    page,
  }) => {
    const h = await open(page, 'Mouse');
    // Pull: the left segment passes through the pointer, its other end stays.
    // The left segment's middle: (−120, 80), (−120, 20), (−50, −40), (0, −40).
    const q = { x: (-120 - 360 - 150) / 8, y: (80 + 60 - 120 - 40) / 8 };
    await h.drag(spot(q.x, q.y), spot(q.x - 20, q.y - 15));
    let a = (await path(h)).anchors.map(seen);
    near(a[0]!.x, -120);
    near(a[1]!.y, -40);
    const mid = (k: 'x' | 'y'): number =>
      (a[0]![k] + 3 * (a[0]![k] + a[0]!.out![k]) + 3 * (a[1]![k] + a[1]!.in![k]) + a[1]![k]) / 8;
    near(mid('x'), q.x - 20, 1.5);
    near(mid('y'), q.y - 15, 1.5);
    expect((await path(h)).anchors[1]!.kind).toBe('smooth');
    await h.key('Control+z');
    // Move an anchor; with Shift along an axis.
    await h.drag(spot(0, -40), spot(30, -60));
    a = (await path(h)).anchors.map(seen);
    near(a[1]!.x, 30);
    near(a[1]!.y, -60);
    await page.keyboard.down('Shift');
    await h.drag(spot(30, -60), spot(0, -64));
    await page.keyboard.up('Shift');
    a = (await path(h)).anchors.map(seen);
    near(a[1]!.x, 0);
    near(a[1]!.y, -60);
    // Turn a handle: the other one stays in line; with Alt it breaks.
    await h.click(spot(0, -60));
    await h.drag(spot(50, -60), spot(30, -100));
    a = (await path(h)).anchors.map(seen);
    near(a[1]!.out!.x, 30);
    near(a[1]!.out!.y, -40);
    near(a[1]!.in!.x * a[1]!.out!.y - a[1]!.in!.y * a[1]!.out!.x, 0, 1e-3);
    await page.keyboard.down('Alt');
    await h.drag(spot(30, -100), spot(60, -60));
    await page.keyboard.up('Alt');
    expect((await path(h)).anchors[1]!.kind).toBe('corner');
    // Into its anchor: it goes.
    await h.drag(spot(60, -60), spot(1, -60));
    expect((await path(h)).anchors[1]!.out).toBeNull();
    for (let k = 0; k < 5; k++) await h.key('Control+z');
    a = (await path(h)).anchors.map(seen);
    near(a[1]!.x, 0);
    near(a[1]!.y, -40);
    // Double-click on the segment adds, on an anchor turns the kind.
    await h.key('Escape');
    await h.doubleClick(spot(q.x, q.y));
    await expect.poll(async () => (await path(h)).anchors.length).toBe(4);
    const added = seen((await path(h)).anchors[1]!);
    near(added.x, q.x, 1.5);
    await page.waitForTimeout(400);
    await h.doubleClick(spot(0, -40));
    await expect.poll(async () => (await path(h)).anchors[2]!.kind).toBe('corner');
    // A box over two anchors chooses them; Delete takes them out and refits.
    await page.waitForTimeout(400);
    await h.drag(spot(-140, -70), spot(20, 60));
    await expect(page.locator('#bed-says')).toContainText('2 anchors');
    await h.key('Delete');
    expect((await path(h)).anchors).toHaveLength(2);
  });

  test(`by keyboard at ${zoom * 100} %: walk, nudge anchors and handles, kinds, add, cut, remove`, async ({
    page,
  }) => {
    const h = await open(page, 'Keys');
    await h.key('v');
    await h.key('n');
    await h.key('n');
    await expect(page.locator('#bed-says')).toContainText('anchor 2 of 3');
    for (const key of ['ArrowRight', 'ArrowRight', 'Shift+ArrowUp', 'Alt+ArrowLeft']) await h.key(key);
    let a = (await path(h)).anchors.map(seen);
    near(a[1]!.x, 1.9, 0.05);
    near(a[1]!.y, -50, 0.05);
    await h.key('Control+z');
    await h.key('j');
    expect((await path(h)).anchors[1]!.kind).toBe('corner');
    await h.key('j');
    expect((await path(h)).anchors[1]!.kind).toBe('smooth');
    await h.key('Shift+J');
    expect((await path(h)).anchors[1]!.kind).toBe('flowing');
    for (let k = 0; k < 3; k++) await h.key('Control+z');
    // A handle, by its numbers and by nudges.
    await h.click(spot(50, -40));
    await expect(page.locator('#bed-says')).toContainText('handle');
    await h.key('Shift+ArrowUp');
    a = (await path(h)).anchors.map(seen);
    near(a[1]!.out!.x, 50, 0.05);
    near(a[1]!.out!.y, -10, 0.05);
    await page.getByLabel('Angle of the handle').fill('0');
    await page.getByLabel('Angle of the handle').press('Enter');
    a = (await path(h)).anchors.map(seen);
    near(a[1]!.out!.y, 0, 0.05);
    await h.key('Control+z');
    await h.key('Control+z');
    // Two neighbours: an anchor in the middle; then the path is cut there and opened again.
    await h.key('Escape');
    await h.key('v');
    await h.key('Control+a');
    await page.getByRole('button', { name: 'Add anchor' }).click();
    expect((await path(h)).anchors).toHaveLength(5);
    await h.key('Control+z');
    await h.key('Escape');
    await h.key('v');
    await h.key('n');
    await h.key('n');
    await h.key('Shift+Delete');
    expect((await h.shapes())[0]!.paths).toHaveLength(2);
    await h.key('Control+z');
    await h.key('Delete');
    expect((await path(h)).anchors).toHaveLength(2);
  });
}

test('a nearly symmetric shape is made symmetric by an offer: R changes who leads, Enter takes, one undo', async ({
  page,
}) => {
  const arch = archAt(1);
  const uneven: Shape = {
    ...arch,
    paths: arch.paths.map((p) => ({
      ...p,
      anchors: p.anchors.map((a, i) => (i === 2 ? { ...a, x: a.x + 12, y: a.y - 4 } : a)),
    })),
  };
  const h = await openNew(page, 'Even', { width: 400, height: 300, unit: 'px' }, [uneven]);
  await h.key('3');
  await h.key('v');
  await page.locator('summary', { hasText: 'Symmetric again' }).click();
  await page.getByRole('button', { name: 'Show it symmetric' }).click();
  await expect(page.getByText(/Symmetric again, mean of both sides: anchors go/)).toBeVisible();
  await h.key('r');
  await expect(page.getByText(/one side leads/)).toBeVisible();
  await h.key('r');
  await h.key('r');
  await h.key('Enter');
  const a = (await h.shapes())[0]!.paths[0]!.anchors;
  const [l, m, r] = a as [Anchor, Anchor, Anchor];
  expect(Math.hypot(l.x - m.x, l.y - m.y)).toBeCloseTo(Math.hypot(r.x - m.x, r.y - m.y), 6);
  await h.key('Control+z');
  expect((await h.shapes())[0]!.paths[0]!.anchors[2]!.x).toBeCloseTo(332, 6);
});
