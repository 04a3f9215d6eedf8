import { readBundles, readHpgl, writeBundle, type Art } from '@mirrot/core';
import type { APIRequestContext } from '@playwright/test';
import DxfParser from 'dxf-parser';
import { unzipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { expect, test } from './test';
import { URL } from './desk';

interface Listed {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
}
/** Takes a project away for good, so that neither shelf nor bin has anything of it. */
async function clear(request: APIRequestContext, id: string): Promise<void> {
  await request.delete(`${URL()}/api/projects/${id}`);
  await request.delete(`${URL()}/api/bin/${id}`);
}
const api = (): string => `${URL()}/api/projects`;

test('a bundle goes out and comes in as another project with the same drawing, pictures, copies and journal', async ({
  request,
}) => {
  const projects = (await (await request.get(api())).json()) as Listed[];
  const shipped = projects.find(({ name }) => name === 'Gate badge')!;
  const bring = (buffer: Buffer, name?: string) =>
    request.post(`${api()}/import`, { multipart: { file: { name: 'a.zip', mimeType: 'application/zip', buffer }, ...(name ? { name } : {}) } }); // prettier-ignore
  // A project of this test's own, from the one that ships.
  const first = Buffer.from(await (await request.get(`${api()}/${shipped.id}/export.zip`)).body());
  const { project: badge } = (await (await bring(first, 'Crate label')).json()) as { project: Listed };
  expect(badge.name).toBe('Crate label');
  const art = async (id: string): Promise<{ revision: number; art: Art }> =>
    (await request.get(`${api()}/${id}/art`)).json() as Promise<{ revision: number; art: Art }>;
  await request.post(`${api()}/${badge.id}/copies`, { data: { name: 'before' } });
  const whole = await art(badge.id);
  // A change, so that there is a journal.
  const change = {
    base: whole.revision,
    changes: [[{ op: 'replace', path: '/sheet/ground', value: '#fbf7ee' }]],
  };
  expect((await request.post(`${api()}/${badge.id}/changes`, { data: change })).status()).toBe(200);
  const before = await art(badge.id);
  const zip = Buffer.from(await (await request.get(`${api()}/${badge.id}/export.zip`)).body());
  const [bundle] = readBundles(zip);
  expect(bundle!.pictures).toHaveLength(1);
  expect(bundle!.journal.length).toBeGreaterThan(0);

  const answer = await bring(zip);
  expect(answer.status()).toBe(201);
  const { project } = (await answer.json()) as { project: Listed };
  expect(project.name).toBe('Crate label');
  expect(project.id).not.toBe(badge.id);
  const after = await art(project.id);
  expect(JSON.stringify(after.art)).toBe(JSON.stringify(before.art));
  expect(after.revision).toBe(before.revision);
  const copies = (await (await request.get(`${api()}/${project.id}/copies`)).json()) as { name: string }[];
  expect(copies.map(({ name }) => name)).toContain('before');
  expect(await (await request.get(`${api()}/${project.id}/journal`)).json()).toEqual(await (await request.get(`${api()}/${badge.id}/journal`)).json()); // prettier-ignore
  // It goes on by itself, and the other one stays as it is.
  const next = { base: after.revision, changes: [[{ op: 'replace', path: '/sheet/ground', value: null }]] };
  expect((await request.post(`${api()}/${project.id}/changes`, { data: next })).status()).toBe(200);
  expect((await art(badge.id)).art).toEqual(before.art);
  // Out again it is the same but for that change.
  const again = readBundles(
    Buffer.from(await (await request.get(`${api()}/${project.id}/export.zip`)).body()),
  )[0]!;
  expect(again.pictures).toEqual(bundle!.pictures);
  expect(again.journal).toHaveLength(bundle!.journal.length + 1);

  // Another picture under the id of one that is here: it gets an id of its own, and that one stays.
  const other = await sharp({ create: { width: whole.art.pictures[0]!.width, height: whole.art.pictures[0]!.height, channels: 3, background: '#345678' } }).png().toBuffer(); // prettier-ignore
  const swapped = await bring(
    Buffer.from(writeBundle({ ...bundle!, pictures: [{ ...bundle!.pictures[0]!, bytes: other }] })),
  );
  expect(swapped.status()).toBe(201);
  const { project: third } = (await swapped.json()) as { project: Listed };
  const source = (await art(third.id)).art.pictures[0]!.source;
  expect(source).not.toBe(before.art.pictures[0]!.source);
  const pixel = await sharp(Buffer.from(await (await request.get(`${URL()}/api/pictures/${source}?size=full`)).body())).resize(1, 1).raw().toBuffer(); // prettier-ignore
  expect([...pixel.subarray(0, 3)]).toEqual([0x34, 0x56, 0x78]);

  // What is broken or hostile is refused in a sentence, and nothing is added.
  const count = ((await (await request.get(api())).json()) as Listed[]).length;
  for (const [what, buffer] of [
    ['cut short', zip.subarray(0, zip.length / 2)],
    ['a picture that is none', Buffer.from(writeBundle({ ...bundle!, pictures: [{ ...bundle!.pictures[0]!, bytes: Buffer.from('no picture') }] }))], // prettier-ignore
    ['without its picture', Buffer.from(writeBundle({ ...bundle!, pictures: [] }))],
    ['a journal of patches to nowhere', Buffer.from(writeBundle({ ...bundle!, journal: [{ revision: 1, version: 1, createdAt: bundle!.createdAt, entry: { patches: [{ op: 'add', path: '/__proto__/x', value: 1 }], note: null } }] }))], // prettier-ignore
    ['a journal out of order', Buffer.from(writeBundle({ ...bundle!, revision: 0 }))],
  ] as const) {
    const refused = await bring(Buffer.from(buffer));
    expect(refused.status(), what).toBeGreaterThanOrEqual(400);
    expect(refused.status(), what).toBeLessThan(500);
    expect(((await refused.json()) as { error: { message: string } }).error.message, what).toMatch(/^[A-Z“"].*Nothing was added\.|^[A-Z].*[.]$/s); // prettier-ignore
  }
  expect((await (await request.get(api())).json()) as Listed[]).toHaveLength(count);

  // Several at once, and back.
  const both = await request.get(`${api()}/export.zip?of=${badge.id},${project.id}`);
  const several = await bring(Buffer.from(await both.body()));
  expect(((await several.json()) as { projects: Listed[] }).projects.map(({ name }) => name)).toEqual(['Crate label', 'Crate label']); // prettier-ignore
  const sheets = unzipSync(Buffer.from(await (await request.get(`${api()}/export.zip?of=${badge.id},${project.id}&as=svg`)).body())); // prettier-ignore
  expect(Object.keys(sheets)).toEqual(['Crate-label.svg', 'Crate-label-2.svg']);
  expect((await request.get(`${api()}/export.zip?of=nobody`)).status()).toBe(404);
  for (const { id, name } of (await (await request.get(api())).json()) as Listed[])
    if (name === 'Crate label') await clear(request, id);
});

test('a drawing goes out by layers, by shapes, in several sizes, and as lines made ready', async ({
  request,
}) => {
  const projects = (await (await request.get(api())).json()) as Listed[];
  const of = (name: string): string => `${api()}/${projects.find((p) => p.name === name)!.id}`;
  const bytes = async (address: string): Promise<Buffer> =>
    Buffer.from(await (await request.get(address)).body());
  const can = of('Watering can');
  const { art } = (await (await request.get(`${can}/art`)).json()) as { art: Art };
  const layers = Object.keys(unzipSync(await bytes(`${can}/export.svg?each=layer`)));
  expect(layers.length).toBeGreaterThan(1);
  expect(layers.length).toBeLessThanOrEqual(art.layers.length);
  const shapes = unzipSync(await bytes(`${can}/export.png?each=shape&area=drawing&widths=16,48`));
  expect(Object.keys(shapes).length).toBeGreaterThan(2 * layers.length);
  for (const [name, png] of Object.entries(shapes))
    expect((await sharp(png).metadata()).width, name).toBe(name.includes('-16-px') ? 16 : 48);
  expect((await request.get(`${can}/export.png?widths=0,16`)).status()).toBe(400);

  // Source outside: pdfinfo and dxf-parser. The page has the sheet's real size; so has what CAD reads.
  const folder = mkdtempSync(join(tmpdir(), 'mirrot-out-'));
  writeFileSync(join(folder, 'a.pdf'), await bytes(`${can}/export.pdf`));
  const [, across, down] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(execFileSync('pdfinfo', [join(folder, 'a.pdf')], { encoding: 'utf8' }))!; // prettier-ignore
  expect(Math.abs(Number(across) / (art.sheet.width * 0.75) - 1)).toBeLessThan(0.001);
  expect(Math.abs(Number(down) / (art.sheet.height * 0.75) - 1)).toBeLessThan(0.001);
  rmSync(folder, { recursive: true });

  // A cutter's lines: none twice, nothing that lies beneath, drawn by hairlines in an SVG too.
  const length = (file: Buffer): number =>
    readHpgl(file.toString()).strokes.reduce((sum, { points }) => sum + points.reduce((n, p, i) => (i === 0 ? n : n + Math.hypot(p.x - points[i - 1]!.x, p.y - points[i - 1]!.y)), 0), 0); // prettier-ignore
  const [all, seen] = [await bytes(`${can}/export.plt`), await bytes(`${can}/export.plt?seen=1`)];
  expect(length(seen)).toBeLessThan(length(all));
  const svg = (await bytes(`${can}/export.svg?hairlines=1&seen=1&marks=1`)).toString();
  expect(svg).not.toMatch(/fill="#|<image|linearGradient/);
  expect(svg).toMatch(/Marks/);
  const uses = art.layers.map(({ id }, n) => `${id}:${n === 0 ? 'cut' : 'none'}`).join(',');
  expect((await bytes(`${can}/export.svg?hairlines=1&uses=${uses}`)).toString()).toMatch(/<g id="[^"]*Cut|<title>Cut/); // prettier-ignore
  expect((await request.get(`${can}/export.plt?uses=x:burn`)).status()).toBe(400);
  expect((await request.get(`${can}/export.plt?uses=${art.layers.map(({ id }) => `${id}:none`).join(',')}`)).status()).toBe(422); // prettier-ignore
});

test('a DXF and a bundle come onto the shelf by the file chooser; a palette and a DXF onto the desk', async ({
  page,
  request,
}) => {
  const projects = (await (await request.get(api())).json()) as Listed[];
  const of = (name: string): string => `${api()}/${projects.find((p) => p.name === name)!.id}`;
  const bytes = async (address: string): Promise<Buffer> =>
    Buffer.from(await (await request.get(address)).body());
  const dxf = await bytes(`${of('Glasshouse')}/export.dxf`);
  const entities = new DxfParser().parseSync(dxf.toString())!.entities;
  expect(entities.length).toBeGreaterThan(10);
  const choose = async (
    press: () => Promise<unknown>,
    file: { name: string; mimeType: string; buffer: Buffer },
  ): Promise<void> => {
    const choosing = page.waitForEvent('filechooser');
    await press();
    await (await choosing).setFiles(file);
  };
  const pickOnShelf = () => page.getByRole('button', { name: /Choose a picture/ }).click();
  await page.goto(URL());
  await choose(pickOnShelf, { name: 'house.dxf', mimeType: 'image/vnd.dxf', buffer: dxf });
  const dialog = page.getByRole('dialog', { name: 'New project' });
  await dialog.getByLabel('name').fill('House from CAD');
  await dialog.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('heading', { name: 'House from CAD' })).toBeVisible();
  const made = ((await (await request.get(api())).json()) as Listed[]).find(
    (p) => p.name === 'House from CAD',
  )!;
  const { art } = (await (await request.get(`${api()}/${made.id}/art`)).json()) as { art: Art };
  const { art: before } = (await (await request.get(`${of('Glasshouse')}/art`)).json()) as { art: Art };
  expect(art.sheet.width).toBeCloseTo(before.sheet.width, 6);
  expect(art.layers.map(({ name }) => name)).toEqual(before.layers.map(({ name }) => name));

  // On its desk: what the finder takes, by what it is.
  const take = async (file: { name: string; mimeType: string; buffer: Buffer }): Promise<void> => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Command' }).fill('Take a picture, drawing');
    await choose(() => page.getByRole('option', { name: /^Take a picture, drawing/ }).click(), file);
  };
  await take({
    name: 'seeds.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('#2f6b4f leaf\n#d4561c carrot\n'),
  });
  await expect(page.getByText('2 chips were added.')).toBeVisible();
  await take({ name: 'more.dxf', mimeType: '', buffer: dxf });
  await expect(
    page.getByText(/more\.dxf lies? on the sheet|parts of more\.dxf lie on the sheet/),
  ).toBeVisible();
  await take({ name: 'broken.dxf', mimeType: '', buffer: Buffer.from('0\nSECTION\n') });
  await expect(page.getByText(/DXF.*Nothing was added\./)).toBeVisible();

  const zip = await bytes(`${api()}/${made.id}/export.zip`);
  await page.goto(URL());
  await choose(pickOnShelf, { name: 'house.zip', mimeType: 'application/zip', buffer: zip });
  await expect(page.getByRole('heading', { name: 'House from CAD' })).toBeVisible();
  expect(page.url()).not.toContain(made.id);
  await page.goto(URL());
  await choose(pickOnShelf, { name: 'no.zip', mimeType: 'application/zip', buffer: zip.subarray(0, 200) });
  await expect(page.getByText(/Nothing was added\./)).toBeVisible();
  // Several, marked on the shelf, in one file.
  await page.getByRole('button', { name: 'Write several' }).click();
  const marks = page.getByLabel('Take House from CAD');
  await marks.nth(0).check();
  await marks.nth(1).check();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write one zip file' }).click(),
  ]);
  expect(readBundles(readFileSync(await download.path())).map(({ name }) => name)).toEqual(['House from CAD', 'House from CAD']); // prettier-ignore
  for (const { id, name } of (await (await request.get(api())).json()) as Listed[])
    if (name === 'House from CAD') await clear(request, id);
});
