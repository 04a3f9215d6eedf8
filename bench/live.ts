// Drift while an anchor is dragged, the pointer moving with every frame: what the page's own thread does in a frame, and of how
// many frames the whiskers are new.
import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shapesOf, type Art } from '@mirrot/core';
import config from '../playwright.config';
import { freePort, startServer } from '../scripts/ready.mjs';
import { seed } from '../scripts/seed.mjs';

const LONG = 4000;

interface Traced {
  readonly name: string;
  readonly ph: string;
  readonly ts: number;
  readonly dur?: number;
  /** The thread's own time: what other threads of a busy machine took from it is not in it. */
  readonly tdur?: number;
  readonly pid: number;
  readonly tid: number;
  readonly args?: { readonly data?: { readonly type?: string }; readonly name?: string };
}
/** What a browser's trace calls the page's own script, and what it calls style, layout and painting. */
const SCRIPT = new Set(['EventDispatch', 'FunctionCall', 'FireAnimationFrame', 'RunMicrotasks', 'TimerFire', 'HandlePostMessage', 'FireIdleCallback']); // prettier-ignore
const PAINTING = new Set(['UpdateLayoutTree', 'Layout', 'PrePaint', 'Paint', 'Layerize', 'Commit', 'HitTest', 'IntersectionObserverController::computeIntersections']); // prettier-ignore

/** Callbacks nearer to each other than this are of one frame, microseconds. */
const ONE_FRAME_US = 8000;

/** Milliseconds of script, and of painting, on the page's main thread in each frame of a trace. */
function framesOf(events: readonly Traced[]): { script: number; painting: number }[] {
  const main = events.find((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain');
  const mine = events
    .filter(
      (e) =>
        e.ph === 'X' &&
        e.pid === main?.pid &&
        e.tid === main.tid &&
        (SCRIPT.has(e.name) || PAINTING.has(e.name)),
    ) // prettier-ignore
    .sort((a, b) => a.ts - b.ts || b.dur! - a.dur!);
  const out: { script: number; painting: number }[] = [];
  // What lies within another is that one's, but for layout that script asks for, which is painting's.
  let until = 0;
  let layoutUntil = 0;
  let began = -Infinity;
  for (const { name, ts, dur = 0, tdur = dur } of mine) {
    // Several callbacks may wait for one frame.
    if (name === 'FireAnimationFrame' && ts >= until && ts > began + ONE_FRAME_US) {
      out.push({ script: 0, painting: 0 });
      began = ts;
    }
    const frame = out.at(-1);
    const inside = ts < until;
    if (!inside) until = ts + dur;
    if (!frame) continue;
    if (!inside && SCRIPT.has(name)) frame.script += tdur / 1000;
    if (PAINTING.has(name) && ts >= layoutUntil) {
      layoutUntil = ts + dur;
      frame.painting += tdur / 1000;
      if (inside) frame.script -= tdur / 1000;
    }
  }
  return out.slice(3);
}
const data = mkdtempSync(join(tmpdir(), 'mirrot-bench-'));
const server = await startServer({ port: await freePort(), data, quiet: true });
const browser = await chromium.launch(config.use!.launchOptions);
try {
  await seed(server.address, data);
  const ask = async <T>(path: string): Promise<T> =>
    (await fetch(server.address + path)).json() as Promise<T>;
  const { id } = (await ask<{ id: string; name: string }[]>('/api/projects')).find((p) => p.name === 'Gate badge')!; // prettier-ignore
  const { art } = await ask<{ art: Art }>(`/api/projects/${id}/art`);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (f) => f');
  await page.goto(`${server.address}/projects/${id}`);
  await page.waitForTimeout(1500);
  await page.keyboard.press('3');
  await page.waitForTimeout(2500);
  const bed = page.getByRole('application', { name: 'Bed' });
  const box = (await bed.boundingBox())!;
  const view = (await bed.getAttribute('data-view'))!.split(' ').map(Number) as [number, number, number];

  console.log(
    'Drift while an anchor is dragged, ms a frame (median, 95th percentile): all of it, script on the main thread, painting there; whiskers new in so many:',
  );
  for (const name of ['Plate', 'Left post']) {
    const { anchors } = shapesOf(art).find((p) => p.shape.name === name)!.shape.paths[0]!;
    const a = anchors[1]!;
    const at = { x: box.x + a.x * view[0] + view[1], y: box.y + a.y * view[0] + view[2] };
    for (const whiskers of [true, false]) {
      await page.evaluate((shown) => {
        (document.querySelector('.whiskers') as SVGElement).style.display = shown ? '' : 'none';
      }, whiskers);
      await page.mouse.click(at.x, at.y);
      await page.waitForTimeout(800);
      await page.mouse.down();
      await browser.startTracing(page, { categories: ['devtools.timeline', '__metadata'] });
      const { times, fresh } = await page.evaluate(
        async ([x, y, long]) => {
          const bed = document.querySelector('[role=application]')!;
          const times: number[] = [];
          let fresh = 0;
          const seen = new MutationObserver(() => fresh++);
          seen.observe(document.querySelector('.whiskers')!, { subtree: true, attributeFilter: ['d'] });
          const from = performance.now();
          for (let i = 0, last = from; last - from < long; i++) {
            const now = await new Promise<number>((done) => requestAnimationFrame(done));
            times.push(now - last);
            last = now;
            const to = { clientX: x + 12 * Math.sin(i / 9), clientY: y + 20 * Math.sin(i / 19) };
            bed.dispatchEvent(new PointerEvent('pointermove', { ...to, pointerId: 1, bubbles: true, buttons: 1, isPrimary: true, pointerType: 'mouse' })); // prettier-ignore
          }
          seen.disconnect();
          return { times: times.slice(3), fresh };
        },
        [at.x, at.y, LONG] as const,
      );
      const { traceEvents } = JSON.parse((await browser.stopTracing()).toString()) as {
        traceEvents: Traced[];
      };
      const frames = framesOf(traceEvents);
      await page.keyboard.press('Escape');
      await page.mouse.up();
      await page.waitForTimeout(500);
      const f = (v: number): string => v.toFixed(1).padStart(6);
      const share = (values: readonly number[]): string => {
        const sorted = values.toSorted((p, q) => p - q);
        return `${f(sorted[sorted.length >> 1] ?? NaN)} ${f(sorted[Math.floor(0.95 * sorted.length)] ?? NaN)}`;
      };
      console.log(
        `  ${name.padEnd(10)} ${whiskers ? 'seen  ' : 'hidden'} ${share(times)} |${share(frames.map((t) => t.script))} |${share(frames.map((t) => t.painting))}   ${((100 * fresh) / times.length).toFixed(0)} %`,
      );
    }
  }
} finally {
  await browser.close();
  await server.stop();
  rmSync(data, { recursive: true, force: true });
}
