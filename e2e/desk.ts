import { expect, type Locator, type Page } from '@playwright/test';
import { shapesIn, type Art, type Point, type Shape } from '@mirrot/core';

export const URL = (): string => process.env.MIRROT_URL!;

/** The desk as a person's hands and eyes have it: points of the sheet, pressed with a real mouse. */
export interface Hands {
  readonly page: Page;
  readonly bed: Locator;
  /** Where a point of the sheet lies on the page now. */
  onPage(p: Point): Promise<Point>;
  move(p: Point): Promise<void>;
  click(p: Point): Promise<void>;
  /** Two clicks as near in time as the browser gives them: a busy machine must not make two of them. */
  doubleClick(p: Point): Promise<void>;
  drag(from: Point, to: Point, steps?: number): Promise<void>;
  key(key: string): Promise<void>;
  /** The drawing as the server has it, once all changes are kept. */
  art(): Promise<Art>;
  shapes(): Promise<Shape[]>;
}

export function hands(page: Page): Hands {
  const bed = page.getByRole('application', { name: 'Bed' });
  const onPage = async (p: Point): Promise<Point> => {
    const [scale, tx, ty] = (await bed.getAttribute('data-view'))!.split(' ').map(Number) as [
      number,
      number,
      number,
    ];
    const box = (await bed.boundingBox())!;
    return { x: box.x + p.x * scale + tx, y: box.y + p.y * scale + ty };
  };
  const move = async (p: Point, steps = 1): Promise<void> => {
    const q = await onPage(p);
    await page.mouse.move(q.x, q.y, { steps });
  };
  const art = async (): Promise<Art> => {
    await expect(page.getByText('all changes kept')).toBeVisible();
    const id = page.url().split('/').at(-1)!;
    const answer = await page.request.get(`${URL()}/api/projects/${id}/art`);
    return ((await answer.json()) as { art: Art }).art;
  };
  return {
    page,
    bed,
    onPage,
    move: (p) => move(p),
    async click(p) {
      await move(p);
      await page.mouse.down();
      await page.mouse.up();
    },
    async doubleClick(p) {
      const q = await onPage(p);
      await page.mouse.dblclick(q.x, q.y);
    },
    async drag(from, to, steps = 4) {
      await move(from);
      await page.mouse.down();
      await move(to, steps);
      await page.mouse.up();
    },
    key: (key) => page.keyboard.press(key),
    art,
    shapes: async () => (await art()).layers.flatMap((l) => [...shapesIn(l)]),
  };
}

/** Makes a project over the API, with shapes if any, and opens its desk. */
export async function openNew(
  page: Page,
  name: string,
  sheet = { width: 800, height: 600, unit: 'px' },
  shapes: readonly Shape[] = [],
): Promise<Hands> {
  const made = await page.request.post(`${URL()}/api/projects`, { data: { name, sheet } });
  const { id } = (await made.json()) as { id: string };
  const changes = shapes.map((value) => [{ op: 'add', path: '/layers/0/children/-', value }]);
  if (changes.length > 0)
    await page.request.post(`${URL()}/api/projects/${id}/changes`, { data: { base: 0, changes } });
  await page.goto(`${URL()}/projects/${id}`);
  await expect(page.getByRole('application', { name: 'Bed' })).toBeVisible();
  return hands(page);
}

/** Zooms about the middle of the bed to a scale, by the wheel, until the sheet's middle is back in the bed's. */
export async function zoomTo({ page, bed }: Hands, zoom: number): Promise<void> {
  const box = (await bed.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  const scale = async (): Promise<number> => Number((await bed.getAttribute('data-view'))!.split(' ')[0]);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -300 * Math.log(zoom / (await scale())));
  await page.keyboard.up('Control');
  await expect.poll(scale).toBeCloseTo(zoom, 6);
}

/** Opens one of the demo's projects by its address: the shelf has tests of its own. */
export async function openDemo(page: Page, name: string): Promise<Hands> {
  const projects = (await (await page.request.get(`${URL()}/api/projects`)).json()) as { id: string; name: string }[]; // prettier-ignore
  await page.goto(`${URL()}/projects/${projects.find((p) => p.name === name)!.id}`);
  await expect(page.getByRole('application', { name: 'Bed' })).toBeVisible();
  // Another test may have left it elsewhere.
  for (const key of ['Escape', '1', '0']) await page.keyboard.press(key);
  return hands(page);
}

/** Starts a project from a shipped picture, through the shelf and its dialog. */
export async function startFromShipped(page: Page, picture: string, name: string): Promise<Hands> {
  await page.goto(URL());
  await page.getByRole('button', { name: picture, exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'New project' });
  await dialog.getByLabel('name').fill(name);
  await dialog.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('application', { name: 'Bed' })).toBeVisible();
  return hands(page);
}

/** Pastes or drops a file as a person would, by the event the browser makes of it. */
export const byHand = (kind: 'paste' | 'drop', name: string, base64: string): string => `
  (() => {
    const bytes = Uint8Array.from(atob('${base64}'), (c) => c.charCodeAt(0));
    const data = new DataTransfer();
    data.items.add(new File([bytes], '${name}', { type: '${name.endsWith('.png') ? 'image/png' : 'image/jpeg'}' }));
    const target = document.querySelector('main');
    target.dispatchEvent(${
      kind === 'paste'
        ? "new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })"
        : "new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true })"
    });
  })()`;
