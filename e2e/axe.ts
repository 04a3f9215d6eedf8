import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './test';

// Source outside: axe-core's rules for WCAG 2.2 A and AA.
const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** @param contrastOnly where all else was looked at in the other theme: of what is there only the colours differ */
export async function expectClean(page: Page, what: string, contrastOnly = false): Promise<void> {
  // No page has frames, so the results need no page of their own to be gathered in; only what fails is worked out whole.
  // Colours on their way from one to the other are nobody's: what moves comes to rest first, and nothing begins to in the next frames.
  await page.evaluate(async () => {
    const moving = () =>
      document.getAnimations().filter((a) => a.effect?.getComputedTiming().endTime !== Infinity);
    const frames = async (count: number) => {
      for (let k = 0; k < count; k++) await new Promise((drawn) => requestAnimationFrame(drawn));
    };
    do {
      await Promise.allSettled(moving().map((a) => a.finished));
      await frames(3);
    } while (moving().some((a) => a.playState === 'running'));
  });
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode();
  expect(await page.locator('iframe').count()).toBe(0);
  const { violations } = await (
    contrastOnly ? axe.withRules(['color-contrast']) : axe.withTags(WCAG)
  ).analyze();
  expect(
    violations.map(
      (v) =>
        `${what}: ${v.id} ${v.nodes
          .map((n) => n.target.join(' '))
          .slice(0, 3)
          .join('; ')}`,
    ),
  ).toEqual([]);
}
