// Compressions as they are typed, and their trend.
import { enterAs, expect, picture, standing, test } from './shop.mjs';

let walk;

test.beforeEach(async ({ page, shop }) => {
  await enterAs(page, 'orla');
  walk = shop.walks.N04QF;
});

test('standing, compressions and three leak paths are typed by large keys', { tag: '@standing' }, async ({ page }) => {
  await page.goto(`${walk}/compressions`);
  const field = number => page.locator(`[data-psi="${number}"]`);
  await field(3).first().focus();
  await page.locator('[data-next]').tap();
  await expect(field(4).first()).toBeFocused();
  for (const key of ['7', '7']) await page.locator(`[data-digit="${key}"]`).tap();
  await expect(page.locator('#live-4')).toContainText('good');
  for (const key of ['x', 'i', 'r']) {
    const large = page.locator(`[data-keypad] [data-leak="${key}"]`);
    expect((await large.boundingBox()).height).toBeGreaterThanOrEqual(48);
    await large.tap();
    await expect(large).toHaveAttribute('aria-pressed', 'true');
  }
  await page.locator('[data-next]').tap();
  await expect(page.locator('#mates tr').nth(4)).toContainText('77');
  await expect(page.locator('#mates')).toContainText('exhaust valve, intake valve, rings');
});

const leaks = (page, number) => page.locator(`#cyl-${number} form.try`).first().locator('[data-letter]:checked');

test('three leak paths are noted by letters while the reading is typed', async ({ page }) => {
  await page.goto(`${walk}/compressions`);
  const field = page.locator('[data-psi="4"]').first();
  await field.focus();
  await page.keyboard.type('15xir');
  await expect(field).toHaveValue('15');
  await page.keyboard.press('Enter');
  await expect(page.locator('#mates')).toContainText('exhaust valve, intake valve, rings');
  await page.reload();
  // Its letters gone, the reading is still there: so it says.
  await page.locator('[data-psi="4"]').first().fill('');
  await page.locator('[data-psi="4"]').first().blur();
  await expect(page.locator('[data-psi="4"]').first()).toHaveValue('15');
  await expect(page.locator('#live-4')).toContainText('Below 60/80');
  await expect(leaks(page, 4)).toHaveCount(3);
  await page.locator('[data-psi="4"]').first().focus();
  await page.keyboard.press('i');
  await expect(page.locator('#mates')).toContainText('exhaust valve, rings');
  await page.goto(await page.locator('#cyl-4 header').getByRole('link', { name: 'case' }).getAttribute('href'));
  await expect(page.locator('.case-facts')).toContainText('air at the exhaust pipe');
  await expect(page.locator('.case-facts')).toContainText('air at the oil filler');
  await expect(page.locator('.leak-picture .leak')).toHaveCount(2);
});

test('the trend runs on the cylinder’s own hours, or draws ten years of its place, and says in words what it means', async ({ page }) => {
  await page.goto(`${walk}/compressions?cylinder=2`);
  const words = page.locator('.trend-words');
  await expect(page.locator('.plot circle')).toHaveCount(10);
  await expect(page.locator('.plot circle.before')).toHaveCount(0);
  await expect(words).toContainText('From 10 readings.');
  await page.getByRole('link', { name: 'on the aircraft’s hours' }).click();
  await expect(page.locator('.plot circle')).toHaveCount(22);
  await expect(page.locator('.plot circle.before')).toHaveCount(12);
  await expect(page.locator('.plot .event-name')).toHaveText('new cylinder');
  await expect(page.locator('.plot .limit-line')).toHaveCount(1);
  await expect(words).toContainText(/loses\s+\d\.\d psi\s+in 100 h: its leak area\s+grows by\s+0\.\d\d/);
  await expect(words).toContainText('worse than expected');
  // Past it already and met later can't both be said.
  await expect(words).toContainText('The last reading is past the limit already');
  await expect(words).not.toContainText('meets the limit');
  await expect(words).toContainText('From 10 readings since the restart');
  await page.goto(`${walk}/compressions?cylinder=4`);
  await expect(page.locator('.trend-words')).toContainText('usual');
});
