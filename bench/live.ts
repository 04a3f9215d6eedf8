// Drift while an anchor is dragged, the pointer moving with every frame: frames, and of how many the whiskers are new.
import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shapesOf, type Art } from '@mirrot/core';
import config from '../playwright.config';
import { freePort, startServer } from '../scripts/ready.mjs';
import { seed } from '../scripts/seed.mjs';

const LONG = 4000;
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
    'Drift while an anchor is dragged, ms a frame (median, 95th percentile), whiskers new in so many:',
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
          return { times: times.slice(3).sort((p, q) => p - q), fresh };
        },
        [at.x, at.y, LONG] as const,
      );
      await page.keyboard.press('Escape');
      await page.mouse.up();
      await page.waitForTimeout(500);
      const f = (v: number): string => v.toFixed(1).padStart(6);
      console.log(
        `  ${name.padEnd(10)} ${whiskers ? 'seen  ' : 'hidden'} ${f(times[times.length >> 1]!)} ${f(times[Math.floor(0.95 * times.length)]!)}   ${((100 * fresh) / times.length).toFixed(0)} %`,
      );
    }
  }
} finally {
  await browser.close();
  await server.stop();
  rmSync(data, { recursive: true, force: true });
}
