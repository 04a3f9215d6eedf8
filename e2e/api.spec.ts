import { expect, test } from './test';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { request as plain } from 'node:http';
import sharp from 'sharp';
import { ART_VERSION, emptyArt, plotWay, readHpgl } from '@mirrot/core';
import { ROOT } from '../scripts/ready.mjs';
import { URL } from './desk';

/** A request with headers a browser would not let a page set. */
const raw = (path: string, headers: Record<string, string>): Promise<{ status: number; body: string }> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new globalThis.URL(URL());
    plain({ hostname, port, path, headers }, (res) => {
      let body = '';
      res.on('data', (c: Buffer) => (body += c.toString()));
      res.on('end', () => resolve({ status: res.statusCode ?? 0, body }));
    })
      .on('error', reject)
      .end();
  });

test('answers only to its own name, and to no other site', async () => {
  const { port } = new globalThis.URL(URL());
  expect((await raw('/api/projects', { host: `evil.example:${port}` })).status).toBe(421);
  expect(
    (await raw('/api/projects', { host: `127.0.0.1:${port}`, origin: 'http://evil.example' })).status,
  ).toBe(403);
  expect(
    (await raw('/api/projects', { host: `127.0.0.1:${port}`, origin: `http://127.0.0.1:${port}` })).status,
  ).toBe(200);
  expect((await raw('/', { host: 'evil.example' })).status).toBe(421);
});

test('says that it is well, and what it holds', async ({ request }) => {
  expect(await (await request.get(`${URL()}/api/health`)).json()).toMatchObject({
    ok: true,
    database: 'ready',
  });
  const shipped = (await (await request.get(`${URL()}/api/shipped`)).json()) as { name: string }[];
  expect(shipped.map((s) => s.name)).toEqual([
    'Fern',
    'Gate badge',
    'Glasshouse',
    'Gourd',
    'Grower',
    'Plant labels',
    'Seed packet',
    'Watering can',
  ]);
  expect((await request.get(`${URL()}/api/shipped/..%2f..%2fpackage.json`)).status()).toBe(404);
  const thumb = await (await request.get(`${URL()}/api/shipped/fern.jpg?size=thumb`)).body();
  expect(await sharp(thumb).metadata()).toMatchObject({ format: 'jpeg', width: 168, height: 120 });
  expect((await request.get(`${URL()}/api/shipped/fern.jpg?size=huge`)).status()).toBe(400);
});

test('pages have a strict policy without inline script, and answers one of their own', async ({
  request,
}) => {
  const page = await request.get(URL());
  const policy = page.headers()['content-security-policy']!;
  expect(policy).toContain("default-src 'none'");
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+'/);
  expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  expect((await request.get(`${URL()}/api/health`)).headers()['content-security-policy']).toContain(
    "default-src 'none'",
  );
  // Every answer has what keeps it where it belongs; drawings are told anew each time.
  for (const path of [
    '/',
    '/mirrot.svg',
    '/api/health',
    '/api/projects',
    '/api/nothing',
    '/api/projects/%ff',
  ]) {
    const headers = (await request.get(`${URL()}${path}`)).headers();
    expect(headers, path).toMatchObject({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      'cross-origin-resource-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
    });
    if (path.startsWith('/api/')) expect(headers['cache-control'], path).toBe('no-store');
  }
  const site = { headers: { 'sec-fetch-site': 'cross-site' } };
  expect((await request.get(`${URL()}/api/projects`, site)).status()).toBe(403);
});

test('refuses what cannot be, in sentences, and stays up', async ({ request }) => {
  const api = `${URL()}/api/projects`;
  const made = (await (
    await request.post(api, { data: { name: 'x'.repeat(500), sheet: { width: 10, height: 10, unit: 'in' } } })
  ).json()) as { id: string };
  const art = emptyArt({ width: 960, height: 960, unit: 'in' }, 'x');
  const change = (base: number, changes: unknown) =>
    request.post(`${api}/${made.id}/changes`, { data: { base, changes } });
  const upload = (name: string, buffer: Buffer) =>
    request.post(`${api}/${made.id}/pictures`, {
      multipart: { file: { name, mimeType: 'image/png', buffer } },
    });
  const jpeg = readFileSync('demo/pictures/watering-can.jpg');

  const cases: [string, number, ReturnType<typeof change>][] = [
    [
      'a name of 501',
      400,
      request.post(api, { data: { name: 'x'.repeat(501), sheet: { width: 1, height: 1, unit: 'mm' } } }),
    ],
    [
      'no JSON',
      400,
      request.post(api, { data: Buffer.from('{'), headers: { 'content-type': 'application/json' } }),
    ],
    [
      'a sheet of nothing',
      400,
      request.post(api, { data: { name: 'x', sheet: { width: 0, height: 1, unit: 'mm' } } }),
    ],
    ['1e300', 422, change(0, [[{ op: 'replace', path: '/sheet/width', value: 1e300 }]])],
    ['a place that is not there', 422, change(0, [[{ op: 'replace', path: '/layers/9/name', value: 'x' }]])],
    ['a proto', 400, change(0, [[{ op: 'add', path: '/__proto__/x', value: 1 }]])],
    ['an old revision', 409, change(-0 + 5, [[{ op: 'replace', path: '/sheet/ground', value: '#ffffff' }]])],
    ['an empty file', 422, upload('empty.png', Buffer.alloc(0))],
    ['a cut file', 422, upload('cut.jpg', jpeg.subarray(0, 50_000))],
    ['text as a picture', 422, upload('notes.png', Buffer.from('seeds to order'))],
    ['no project', 404, request.get(`${api}/nobody/art`)],
    ['no such format', 404, request.get(`${api}/${made.id}/export.gif`)],
    ['a ground in words', 400, request.get(`${api}/${made.id}/export.png?ground=red`)],
    ['too many pixels out', 413, request.get(`${api}/${made.id}/export.png?width=20000`)],
    ['a size of nothing', 400, request.get(`${api}/${made.id}/export.svg?scale=0`)],
    ['nothing to draw', 422, request.get(`${api}/${made.id}/export.plt`)],
    ['nothing for CAD', 422, request.get(`${api}/${made.id}/export.dxf`)],
    ['no cutout', 404, request.get(`${api}/${made.id}/export.png?cutout=nobody`)],
  ];
  for (const [what, status, answer] of cases) {
    const response = await answer;
    expect(response.status(), what).toBe(status);
    const { error } = (await response.json()) as { error: { code: string; message: string } };
    expect(error.message, what).toMatch(/^[A-Z].*[.]$/s);
  }
  expect(await (await request.get(`${api}/${made.id}/art`)).json()).toMatchObject({
    revision: 0,
    art: { sheet: { width: art.sheet.width } },
  });
});

test('takes no patches made for documents of another version, with a sentence', async ({ request }) => {
  const made = await request.post(`${URL()}/api/projects`, {
    data: { name: 'Older page', sheet: { width: 10, height: 10, unit: 'mm' } },
  });
  const { id } = (await made.json()) as { id: string };
  const change = [{ op: 'add', path: '/chips/-', value: { id: 'c', name: '', hex: '#112233' } }];
  const send = (more: object) =>
    request.post(`${URL()}/api/projects/${id}/changes`, { data: { base: 0, changes: [change], ...more } });
  const refused = await send({ version: ART_VERSION - 1 });
  expect(refused.status()).toBe(426);
  expect(await refused.json()).toMatchObject({
    error: { code: 'outdated', message: expect.stringMatching(/This page is older/) },
  });
  expect((await send({ version: ART_VERSION })).status()).toBe(200);
});

test('an SVG with a script is drawn inert as a picture', async ({ page, request }) => {
  const api = `${URL()}/api/projects`;
  const { id } = (await (
    await request.post(api, { data: { name: 'Inert', sheet: { width: 10, height: 10, unit: 'mm' } } })
  ).json()) as { id: string };
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><script>window.pwned=1</script><circle cx="20" cy="20" r="19" onload="window.pwned=1" fill="#2f6b4f"/></svg>';
  const taken = await request.post(`${api}/${id}/pictures`, {
    multipart: { file: { name: 'a.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) } },
  });
  expect(taken.status()).toBe(201);
  const { picture } = (await taken.json()) as { picture: { id: string } };
  const answer = await page.goto(`${URL()}/api/pictures/${picture.id}?size=full`);
  expect(answer!.headers()['content-type']).toBe('image/png');
  expect(await page.evaluate(() => 'pwned' in window)).toBe(false);
});

test('the labels go to a plotter as single strokes, by a shorter way that draws the same', async ({
  request,
}) => {
  const projects = (await (await request.get(`${URL()}/api/projects`)).json()) as { id: string; name: string }[]; // prettier-ignore
  const labels = `${URL()}/api/projects/${projects.find(({ name }) => name === 'Plant labels')!.id}`;
  const text = async (query: string): Promise<string> => (await request.get(`${labels}/export.plt?${query}`)).text(); // prettier-ignore
  const [kept, short] = [readHpgl(await text('')).strokes, readHpgl(await text('order=short')).strokes];
  expect(kept).toHaveLength(17);
  expect(short).toHaveLength(17);
  expect(plotWay(short).drawn / plotWay(kept).drawn).toBeCloseTo(1, 2);
  expect(plotWay(short).travel).toBeLessThan(0.9 * plotWay(kept).travel);
  const ends = (strokes: typeof kept): string[] =>
    strokes.map(({ points }) => [points[0]!, points.at(-1)!].map(({ x, y }) => `${x} ${y}`).sort().join()).sort(); // prettier-ignore
  expect(ends(short)).toEqual(ends(kept));
});

test('the first script of the shelf and of the desk is at most 250 kB, compressed', () => {
  const folder = join(ROOT, 'app/.svelte-kit/output/client');
  const chunks = JSON.parse(readFileSync(join(folder, '.vite/manifest.json'), 'utf8')) as Record<
    string,
    { file: string; imports?: string[]; isEntry?: boolean }
  >;
  /** All that is needed, directly or not, before a page shows. */
  const needed = (keys: readonly string[]): Set<string> => {
    const all = new Set<string>();
    const add = (key: string): void => {
      if (all.has(key)) return;
      all.add(key);
      chunks[key]!.imports?.forEach(add);
    };
    keys.forEach(add);
    return all;
  };
  const node = (n: number): string => Object.keys(chunks).find((key) => key.endsWith(`/nodes/${n}.js`))!;
  const start = Object.keys(chunks).filter((key) => /\/(start|entry|app)\.js$/.test(key));
  // 0 is the frame of all pages, 2 the shelf, 3 the desk.
  for (const page of [2, 3]) {
    const bytes = [...needed([...start, node(0), node(page)])].reduce(
      (n, key) => n + gzipSync(readFileSync(join(folder, chunks[key]!.file))).length,
      0,
    );
    expect(bytes, `page ${page}`).toBeGreaterThan(50_000);
    expect(bytes, `page ${page}`).toBeLessThanOrEqual(250_000);
  }
});
