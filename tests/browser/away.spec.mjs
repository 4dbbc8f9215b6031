// A day without a network: an inspection is taken along, worked on where the shop can't be reached, and arrives whole.
import { networkTo } from './network.mjs';
import { enterAs, expect, heading, picture, test as base } from './shop.mjs';

const code = 'three blue rivets';
const test = base.extend({
  network: async ({ shop }, use) => {
    const network = await networkTo(shop.port);
    await use(network);
    await network.close();
  },
  baseURL: ({ network }, use) => use(network.address),
});

let walk;
test.beforeEach(async ({ page, shop }) => {
  await enterAs(page, 'ines');
  walk = shop.walks.N0BRM;
});

/** Takes an inspection along, with a code where the device has none. */
const takeAlong = async (page, to = walk) => {
  await page.goto(`${to}/along`);
  await page.getByLabel('Code', { exact: true }).fill(code);
  await page.getByLabel('Once more').fill(code);
  await page.getByRole('button', { name: /take it along/ }).click();
  await expect(page.locator('.along')).toContainText(/Aboard as of .* pages and pictures/);
};

test('what was taken along opens without a network, says as of when, and what is said there arrives once', { tag: '@standing' }, async ({
  page,
  network,
}) => {
  await takeAlong(page);
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
  await page.locator('#capture input[name=photos]').first().setInputFiles(await picture(page));
  await page.getByRole('button', { name: 'Put on the fix list' }).click();
  await expect(page.locator('#outbox')).toContainText('4 waiting to send');
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
  await expect(page.locator('.finds li', { hasText: 'cowl latch worn' })).toHaveCount(1);
});
