// What a frame costs while the pointer works in a drawing of 2,000 shapes, beside redrawing the whole SVG each frame.
import { chromium, type Page } from '@playwright/test';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { segmentCubic, cubicPoint, shapesOf, type Art, type Path } from '@mirrot/core';
import config from '../playwright.config';
import { freePort, ROOT, startServer } from '../scripts/ready.mjs';
import { crowd } from './crowd';

const COUNT = Number(process.env.SHAPES ?? 2000);
const FRAMES = 120;

interface Frames {
  readonly median: number;
  readonly p95: number;
}
const summary = (times: readonly number[]): Frames => {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (q: number): number => sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]!;
  return { median: at(0.5), p95: at(0.95) };
};

/** Times between frames in the page while `work` goes on. */
async function framesDuring(page: Page, work: () => Promise<void>): Promise<Frames> {
  await page.evaluate(() => {
    const times: number[] = [];
    let last = performance.now();
    let on = true;
    const tick = (now: number): void => {
      times.push(now - last);
      last = now;
      if (on) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
    Object.assign(globalThis, { stopFrames: () => ((on = false), times.slice(3)) });
  });
  await work();
  return summary(
    await page.evaluate(() => (globalThis as unknown as { stopFrames(): number[] }).stopFrames()),
  );
}

interface Work {
  /** Milliseconds of the page's own script for each move of the pointer. */
  readonly script: number;
  /** Milliseconds of style, layout and all else on the main thread, for each move. */
  readonly rest: number;
}

/** What the main thread does for each of so many moves of the pointer, as the browser counts it. */
async function workDuring(page: Page, moves: number, work: () => Promise<void>): Promise<Work> {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const read = async (): Promise<Map<string, number>> =>
    new Map((await session.send('Performance.getMetrics')).metrics.map((m) => [m.name, m.value]));
  const before = await read();
  await work();
  const after = await read();
  const took = (name: string): number => ((after.get(name)! - before.get(name)!) * 1000) / moves;
  await session.detach();
  return { script: took('ScriptDuration'), rest: took('TaskDuration') - took('ScriptDuration') };
}

/** A wavy line of so many smooth anchors. */
const longPath = (count: number): Path => ({
  id: 'long',
  closed: false,
  anchors: Array.from({ length: count }, (_, i) => ({
    x: 100 + i / 3,
    y: 450 + 200 * Math.sin(i / 120),
    kind: 'smooth' as const,
    in: { x: -0.11, y: -0.18 * Math.cos(i / 120) },
    out: { x: 0.11, y: 0.18 * Math.cos(i / 120) },
  })),
});

const rows: [string, Frames, Frames][] = [];
const data = mkdtempSync(join(tmpdir(), 'mirrot-bench-'));
const server = await startServer({ port: await freePort(), data, quiet: true });
const browser = await chromium.launch(config.use!.launchOptions);
/** A page in which functions compiled here can run: the compiler marks their names by a call. */
async function newPage(): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (f) => f');
  return page;
}
try {
  const art = crowd(COUNT);
  const send = async (path: string, body: unknown): Promise<{ id: string }> =>
    (
      await fetch(server.address + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      })
    ).json() as Promise<{ id: string }>;
  const put = async (name: string, layers: Art['layers']): Promise<string> => {
    const sheet = { width: 1200, height: 900, unit: 'px' };
    const { id } = await send('/api/projects', { name, sheet });
    await send(`/api/projects/${id}/changes`, {
      base: 0,
      changes: [[{ op: 'replace', path: '/layers', value: layers }]],
    });
    return id;
  };
  const id = await put('Crowd', art.layers);

  const page = await newPage();
  await page.goto(server.address);
  const from = Date.now();
  await page.goto(`${server.address}/projects/${id}`);
  await page
    .locator('.fills [data-part]')
    .nth(COUNT - 1)
    .waitFor({ state: 'attached' });
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  const opened = Date.now() - from;

  const bed = page.getByRole('application', { name: 'Bed' });
  const box = (await bed.boundingBox())!;
  const onPage = async (p: { x: number; y: number }) => {
    const [k, tx, ty] = (await bed.getAttribute('data-view'))!.split(' ').map(Number) as [
      number,
      number,
      number,
    ];
    return { x: box.x + p.x * k + tx, y: box.y + p.y * k + ty };
  };
  await page.keyboard.press('3');
  await page.waitForTimeout(1500);
  const path: Path = shapesOf(art)[Math.floor(COUNT / 2) + 20]!.shape.paths[0]!;
  const drag = async (p: { x: number; y: number }, on = page): Promise<void> => {
    const q = await onPage(p);
    await on.mouse.move(q.x, q.y);
    await on.mouse.down();
    for (let i = 0; i < FRAMES; i++)
      await on.mouse.move(q.x + 6 * Math.sin(i / 5), q.y + 40 * Math.sin(i / 20));
    await on.mouse.up();
  };
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const pan = async (): Promise<void> => {
    await page.mouse.move(middle.x, middle.y);
    await page.mouse.down({ button: 'middle' });
    for (let i = 0; i < FRAMES; i++)
      await page.mouse.move(middle.x + 150 * Math.sin(i / 20), middle.y + 90 * Math.sin(i / 14));
    await page.mouse.up({ button: 'middle' });
  };
  const zoom = async (): Promise<void> => {
    await page.mouse.move(middle.x, middle.y);
    await page.keyboard.down('Control');
    for (let i = 0; i < FRAMES; i++) await page.mouse.wheel(0, i < FRAMES / 2 ? -10 : 10);
    await page.keyboard.up('Control');
  };
  /** A path begun in free space, and the pointer moved about among the shapes: the next segment is shown. */
  const preview = async (): Promise<void> => {
    const p = await onPage({ x: 5, y: 5 });
    await page.mouse.move(p.x, p.y);
    await page.mouse.down();
    await page.mouse.up();
    for (let i = 0; i < FRAMES; i++)
      await page.mouse.move(middle.x + 200 * Math.sin(i / 20), middle.y + 150 * Math.sin(i / 14));
  };
  const measured: [string, Frames][] = [];
  measured.push(['drag an anchor', await framesDuring(page, () => drag(path.anchors[0]!))]);
  measured.push([
    'pull a segment',
    await framesDuring(page, () => drag(cubicPoint(segmentCubic(path, 1), 0.5))),
  ]);
  measured.push(['pan', await framesDuring(page, pan)]);
  await page.waitForTimeout(500);
  measured.push(['zoom', await framesDuring(page, zoom)]);
  await page.keyboard.press('0');
  await page.keyboard.press('2');
  await page.waitForTimeout(800);
  measured.push(['next segment', await framesDuring(page, preview)]);

  const works: [string, Work][] = [];
  works.push(['point about', await workDuring(page, FRAMES, preview)]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('3');
  await page.waitForTimeout(800);
  works.push(['drag an anchor', await workDuring(page, FRAMES, () => drag(path.anchors[0]!))]);

  // One long path: its anchors shown while it is shaped.
  const long = longPath(3000);
  const shape = shapesOf(art)[0]!.shape;
  const lone = { ...art.layers[0]!, children: [{ ...shape, paths: [long] }] };
  const other = await put('Long', [lone]);
  const fine = await newPage();
  await fine.goto(`${server.address}/projects/${other}`);
  await fine.locator('.fills [data-part]').first().waitFor({ state: 'attached' });
  await fine.keyboard.press('3');
  await fine.waitForTimeout(800);
  const longRows: [string, Frames][] = [];
  for (const [what, at] of [
    ['drag an anchor', long.anchors[1500]!],
    ['pull a segment', cubicPoint(segmentCubic(long, 700), 0.5)],
  ] as const)
    longRows.push([what, await framesDuring(fine, () => drag(at, fine))]);
  longRows.push([
    'point along it',
    await framesDuring(fine, async () => {
      for (let i = 0; i < FRAMES; i++) {
        const q = await onPage(long.anchors[1000 + i]!);
        await fine.mouse.move(q.x, q.y + 2);
      }
    }),
  ]);
  await fine.close();

  // Naive: the same elements, all drawn anew each frame, by moving what they stand in or by building them again.
  const redraw = (what: 'build' | 'move'): Promise<void> =>
    page.evaluate(
      ([kind, frames]) =>
        new Promise<void>((done) => {
          const drawing = document.querySelector('.fills [data-part]')!.closest('svg')!.querySelector('g')!;
          const before = drawing.getAttribute('transform')!;
          const markup = drawing.innerHTML;
          let i = 0;
          const tick = (): void => {
            if (kind === 'move')
              drawing.setAttribute('transform', `translate(${40 * Math.sin(i / 20)} 0) ${before}`);
            else drawing.innerHTML = markup;
            if (++i < frames) requestAnimationFrame(tick);
            else done();
          };
          requestAnimationFrame(tick);
        }),
      [what, FRAMES / 2] as const,
    );
  const moved = await framesDuring(page, () => redraw('move'));
  const whole = await framesDuring(page, () => redraw('build'));
  for (const [what, here] of measured)
    rows.push([what, here, what === 'pan' || what === 'zoom' ? moved : whole]);

  console.log(`Frames in a drawing of ${COUNT} shapes, ms (median, 95th percentile), and redrawing it all:`);
  for (const [what, here, naive] of rows)
    console.log(
      `  ${what.padEnd(16)} ${here.median.toFixed(1).padStart(6)} ${here.p95.toFixed(1).padStart(6)}   naive ${naive.median.toFixed(1).padStart(6)} ${naive.p95.toFixed(1).padStart(6)}   ${(naive.median / here.median).toFixed(1)} times`,
    );
  console.log('Of each move of the pointer, on the main thread, ms (own script, all else):');
  for (const [what, w] of works)
    console.log(`  ${what.padEnd(16)} ${w.script.toFixed(1).padStart(6)} ${w.rest.toFixed(1).padStart(6)}`);
  console.log('Frames while one path of 3,000 anchors is shaped, ms (median, 95th percentile):');
  for (const [what, f] of longRows)
    console.log(`  ${what.padEnd(16)} ${f.median.toFixed(1).padStart(6)} ${f.p95.toFixed(1).padStart(6)}`);
  console.log(`  opening the project: ${opened} ms`);
} finally {
  await browser.close();
  await server.stop();
  rmSync(data, { recursive: true, force: true });
}

// The page's own script: everything the desk loads, compressed.
const client = join(ROOT, 'app', 'build', 'client', '_app', 'immutable');
const scripts = readdirSync(client, { recursive: true, encoding: 'utf8' }).filter((f) => f.endsWith('.js'));
const size = scripts.reduce(
  (sum, f) => sum + gzipSync(readFileSync(join(client, f)), { level: 9 }).length,
  0,
);
console.log(`All of the page's script, compressed: ${Math.round(size / 1000)} kB in ${scripts.length} files`);
