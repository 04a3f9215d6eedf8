import { test } from './test';
import { openDemo, URL } from './desk';
test('look', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(URL()); await page.screenshot({ path: '/tmp/look/shelf.png' });
  await page.goto(`${URL()}/practice`); await page.waitForLoadState('networkidle'); await page.screenshot({ path: '/tmp/look/practice.png' });
  await page.getByRole('button', { name: 'Begin A leaf' }).click();
  await page.getByText('Exercise: A leaf').waitFor(); await page.waitForTimeout(1500);
  await page.screenshot({ path: '/tmp/look/exercise.png' });
});
