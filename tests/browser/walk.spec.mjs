// The hangar and the walk: tasks answered, measured, undone.
import { enterAs, expect, standing, test } from './shop.mjs';

let walk;

test.beforeEach(async ({ page, shop }) => {
  await enterAs(page, 'orla');
  walk = shop.walks.N04QF;
});

test('the hangar leads to the annual, and the next open task stands ready', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByText('N04QF, cylinder 2')).toBeVisible();
  await page.locator('tr', { hasText: 'N04QF' }).locator('a.work').click();
  await expect(page.locator('.task.current h2')).toBeVisible();
  await expect(page.locator('.stations a[aria-current=page]')).toHaveText('Engine');
});

test('a task is answered by one key at the desk and one touch standing, and the next one comes up', { tag: '@both' }, async ({ page }) => {
  await page.goto(`${walk}/airframe/right-wing`);
  const first = await page.locator('.task.current h2').textContent();
  if (standing()) {
    const good = page.getByRole('button', { name: 'Good' });
    expect((await good.boundingBox()).height).toBeGreaterThanOrEqual(48);
    expect((await good.boundingBox()).y).toBeGreaterThan(844 / 2);
    await good.tap();
  } else {
    await page.keyboard.press('g');
  }
  await expect(page.locator('.task.current h2')).not.toHaveText(first);
  await expect(page.locator('.zone-head .answered')).toHaveText('1 of 12 answered');
});

test('a measured value is judged as it is typed, and out of limits it can not be good', async ({ page }) => {
  await page.goto(`${walk}/airframe/right-wing`);
  await page
    .locator('.tasks')
    .getByRole('link', { name: /Aileron cable/ })
    .click();
  const reading = page.getByLabel('Reading');
  await page.getByLabel('Temperature at the cable').fill('15');
  await reading.fill('31');
  await expect(page.locator('.judged-value')).toContainText('4 lb under');
  await expect(page.locator('.judged-value')).toContainText('your manual');
  await page.getByRole('button', { name: 'Good' }).click();
  await expect(page.locator('.judged-value .field-problem')).toContainText('not good');
  await expect(reading).toHaveValue('31');
  await reading.fill('38');
  await expect(page.locator('.judged-value')).toContainText('Within limits');
  await page.getByRole('button', { name: 'Good' }).click();
  await expect(page.locator('.task.current h2')).not.toContainText('Aileron cable');
  await expect(page.locator('.tasks')).toContainText('38 lb');
});

test('a value typed before the page can listen is judged all the same', async ({ page }) => {
  let held = Promise.resolve();
  let come;
  await page.route(/htmx\.min/, async route => {
    await held;
    await route.continue();
  });
  await page.goto(`${walk}/airframe/right-wing`);
  const task = await page
    .locator('.tasks')
    .getByRole('link', { name: /Aileron cable/ })
    .getAttribute('href');
  held = new Promise(done => {
    come = done;
  });
  await page.goto(task, { waitUntil: 'commit' });
  await page.getByLabel('Temperature at the cable').fill('15');
  await page.getByLabel('Reading').fill('31');
  come();
  await expect(page.locator('.judged-value')).toContainText('4 lb under');
});

test('not on this aircraft asks why', async ({ page }) => {
  await page.goto(`${walk}/airframe/right-wing`);
  await page
    .locator('.tasks')
    .getByRole('link', { name: /Tank, cap/ })
    .click();
  await page.locator('.not-here summary').click();
  await page.getByRole('button', { name: 'Set as not on this one' }).click();
  await expect(page.locator('.not-here .field-problem')).toContainText('Say why');
  await page.getByLabel('Why is it not on this aircraft?').fill('single tank in the left wing');
  await page.getByRole('button', { name: 'Set as not on this one' }).click();
  await expect(page.locator('.tasks')).toContainText('single tank in the left wing');
});

test('a value that is out of limits goes to the fix list with its page, as it was read', async ({ page }) => {
  await page.goto(`${walk}/airframe/tail`);
  await page.locator('.tasks > li', { hasText: 'Trim tab and jack: free play' }).locator('a').click();
  await page.getByLabel('Reading').fill('200');
  await page.getByRole('button', { name: /^Discrepancy/ }).click();
  await expect(page).toHaveURL(/\/find\?.*judged=task/);
  await expect(page.locator('main')).toContainText('From a judgement');
  await page.goto(`${walk}/airframe/tail`);
  await expect(page.locator('.tasks > li', { hasText: 'Trim tab and jack' })).toContainText('200');
});
