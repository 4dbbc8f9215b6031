// Every main view: nothing serious for axe in either light, nothing wider than the screen, nothing refused by the policy.
import { expect, test } from '@playwright/test';
import { enterAs, nothingSerious, walkOf } from './shop.mjs';

const views = ['/', '/shelf', '/people', '/take-in', 'WALK/arrive', 'WALK/engine/engine', 'WALK/airframe/cabin', 'WALK/compressions', 'WALK/find?zone=tail', 'WALK/fix-list', 'WALK/close', 'WALK/records'];

// What is used on one's feet; the rest is for the desk.
const standing = ['/', 'WALK/engine/engine', 'WALK/airframe/cabin', 'WALK/compressions', 'WALK/find?zone=tail', 'WALK/fix-list', 'WALK/close'];

// The other light changes colours and nothing else: the views that together show every colour are enough.
const atNight = ['/', 'WALK/airframe/cabin', 'WALK/compressions', 'WALK/find?zone=tail', 'WALK/close'];

for (const colorScheme of ['light', 'dark']) {
  test(`every view can be read, ${colorScheme}`, async ({ browser }) => {
    const { baseURL, viewport, hasTouch } = test.info().project.use;
    const context = await browser.newContext({ baseURL, viewport, hasTouch, colorScheme });
    const page = await context.newPage();
    const complaints = [];
    page.on('console', message => { if (message.type() === 'error') complaints.push(message.text()); });
    page.on('pageerror', error => complaints.push(error.message));
    await page.goto('/enter');
    await nothingSerious(page, 'enter');
    await enterAs(page, 'orla');
    // The tug's walk: nothing in it changes while the other tests run.
    const walk = await walkOf(page, 'N0LTS');
    const day = test.info().project.name === 'standing' ? standing : views;
    for (const view of colorScheme === 'dark' ? atNight : day) {
      await page.goto(view.replace('WALK', walk));
      await nothingSerious(page, `${view} ${colorScheme}`, colorScheme === 'dark' ? ['color-contrast'] : undefined);
      expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth), `${view} is wider than the screen`).toBeLessThanOrEqual(0);
    }
    expect(complaints).toEqual([]);
    await context.close();
  });
}

test('targets are large enough for a glove', async ({ page }) => {
  test.skip(test.info().project.name !== 'standing', 'at the desk there is a mouse');
  await enterAs(page, 'tamsin');
  const walk = await walkOf(page, 'N0LTS');
  for (const view of ['airframe/general', 'find?zone=gear', 'compressions']) {
    await page.goto(`${walk}/${view}`);
    const small = await page.locator('main .btn:visible, main [data-psi]:visible, .class-choice:visible, .keypad button:visible').evaluateAll(targets =>
      targets.map(target => [target.textContent.trim() || target.getAttribute('aria-label'), Math.round(target.getBoundingClientRect().height)]).filter(([, height]) => height < 44));
    expect(small, view).toEqual([]);
  }
});

test('the keys are listed, and none works while a person types', async ({ page }) => {
  test.skip(test.info().project.name !== 'sitting', 'keys are for the desk');
  await enterAs(page, 'ines');
  const walk = await walkOf(page, 'N0BRM');
  await page.goto(`${walk}/airframe/cabin`);
  await page.keyboard.press('?');
  await expect(page.locator('#keys')).toContainText('Found something');
  await page.keyboard.press('Escape');
  await page.keyboard.press('f');
  await expect(page).toHaveURL(/find/);
  await page.locator('textarea[name=what]').pressSequentially('g f d n');
  await expect(page.locator('textarea[name=what]')).toHaveValue('g f d n');
  await expect(page).toHaveURL(/find/);
});
