// A day without a network: an inspection is taken along, worked on where the shop can't be reached, and arrives whole.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { find, open, takeAlong, test } from './phone.mjs';
import { enterAs, expect, heading, picture } from './shop.mjs';

test.beforeEach(async ({ page }) => {
  await enterAs(page, 'ines');
});

test(
  'what was taken along opens without a network, says as of when, and what is said there arrives once',
  { tag: '@standing' },
  async ({ page, walk, network }) => {
    await takeAlong(page, walk);
    network.cut();
    await page.goto(`${walk}/airframe/cabin`);
    await expect(page.locator('.as-of')).toContainText('as of');
    const answered = [];
    for (const turn of [1, 2, 3]) {
      const title = await heading(page).textContent();
      answered.push(title);
      if (await page.getByLabel('Reading').count()) await page.getByLabel('Reading').fill('12.7');
      await page.getByRole('button', { name: /^(Good|Done)/ }).click();
      await expect(heading(page), `turn ${turn}`).not.toHaveText(title);
    }
    await expect(page.locator('#outbox')).toContainText('3 waiting to send');
    // Another page of it, and what was found there, with a picture.
    await page.goto(`${walk}/fix-list`);
    await expect(page.locator('.as-of')).toBeVisible();
    await page.locator('a.found').click();
    await page.locator('#capture textarea[name=what]').fill('cowl latch worn');
    await page
      .locator('#capture input[name=photos]')
      .first()
      .setInputFiles(await picture(page));
    await page.getByRole('button', { name: 'Put on the fix list' }).click();
    await expect(page.locator('#outbox')).toContainText('4 waiting to send');
    // The same page once more, and something else found there: not the same said twice.
    await find(page, walk, 'oil filler cap cracked');
    await expect(page.locator('#outbox')).toContainText('5 waiting to send');
    // A task that is asked for by its address is the one that opens.
    await page.goto(`${walk}/airframe/left-wing`);
    const other = page.locator('.tasks > li[data-state=NotYet]').nth(2);
    const asked = await other.locator('.what').evaluate(what => what.firstChild.textContent.trim());
    await other.locator('a').click();
    await expect(heading(page)).toHaveText(asked);
    // Signing needs the shop: its page isn't aboard, and says so.
    await page.goto(`${walk}/close`);
    await expect(page.getByText('isn’t aboard')).toBeVisible();
    network.mend();
    await page.goto(`${walk}/airframe/cabin`);
    await expect(page.locator('.as-of')).toHaveCount(0);
    await expect(page.locator('#outbox')).toBeHidden();
    await page.reload();
    for (const title of answered)
      await expect(page.locator('.tasks > li', { hasText: title }).first().locator('.state')).toHaveAttribute('aria-label', 'good');
    await page.goto(`${walk}/fix-list`);
    for (const words of ['cowl latch worn', 'oil filler cap cracked'])
      await expect(page.locator('.finds li', { hasText: words })).toHaveCount(1);
  },
);

test(
  'what leads to a page that is nothing without the shop isn’t shown in its place',
  { tag: '@standing' },
  async ({ page, shop, network }) => {
    const survey = shop.walks.N0FLD;
    // The looks of an inspection lead to a survey's money.
    await page.goto(`${survey}/look`);
    await expect(page).toHaveURL(/\/money$/);
    await takeAlong(page, survey);
    network.cut();
    await page.goto(`${survey}/look`);
    await expect(page.getByText('isn’t aboard')).toBeVisible();
    await page.goto(`${survey}/fix-list`);
    await expect(page.locator('.as-of')).toBeVisible();
  },
);

test('a stolen copy of what is on the disk says nothing', { tag: '@standing' }, async ({ walk, network, phone }) => {
  const page = await phone.start();
  await enterAs(page, 'ines');
  await takeAlong(page, walk);
  await page.goto(`${walk}/airframe/cabin`);
  const words = await heading(page).textContent();
  network.cut();
  await page.goto(`${walk}/fix-list`);
  await page.locator('a.found').click();
  await page.locator('#capture textarea[name=what]').fill('Zebrawood shim at the latch');
  await page.getByRole('button', { name: 'Put on the fix list' }).click();
  await expect(page.locator('#outbox')).toContainText('1 waiting');
  await phone.die();
  const files = readdirSync(phone.folder, { recursive: true, withFileTypes: true }).filter(file => file.isFile());
  expect(files.length).toBeGreaterThan(20);
  const telling = files
    .map(file => join(file.parentPath, file.name))
    .filter(path => {
      const bytes = readFileSync(path);
      return [words, 'Zebrawood', 'three blue rivets'].some(word => bytes.includes(word) || bytes.includes(Buffer.from(word, 'utf16le')));
    });
  expect(telling).toEqual([]);
});

test('no reading is typed without the shop before the caution is read', { tag: '@standing' }, async ({ page, walk, network }) => {
  await takeAlong(page, walk);
  network.cut();
  await page.goto(`${walk}/compressions`);
  await expect(page.locator('.as-of')).toBeVisible();
  await page.getByRole('radio', { name: /^Hot/ }).check();
  await page.getByRole('button', { name: 'Begin the test' }).click();
  await expect(page.locator('[data-psi]').first()).toBeHidden();
  await expect(page.locator('#outbox')).toBeHidden();
  await page.getByLabel('Read and done').check();
  await page.getByRole('button', { name: 'Begin the test' }).click();
  const first = page.locator('[data-psi]').first();
  await first.fill('74');
  await first.blur();
  await expect(page.locator('#outbox')).toContainText('2 waiting to send');
  network.mend();
  await expect(page.locator('.as-of')).toHaveCount(0);
  await page.goto(`${walk}/compressions`);
  await expect(page.locator('[data-psi]').first()).toHaveValue('74');
});
