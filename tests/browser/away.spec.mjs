// A day without a network: an inspection is taken along, worked on where the shop can't be reached, and arrives whole.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { find, open, takeAlong, test } from './phone.mjs';
import { lender } from './playwright.config.mjs';
import { anew, enterAs, expect, heading, picture } from './shop.mjs';

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

const press = async (page, within, name) => {
  const button = within.getByRole('button', { name });
  const box = page.locator('#outbox');
  const isAway = await page.locator('.as-of').count();
  const before = isAway ? Number((await box.textContent()).match(/^\d+/)?.[0] ?? 0) : 0;
  if (!isAway) return anew(page, button);
  await button.click();
  return expect(box).toContainText(`${before + 1} waiting to send`);
};

const answer = async (page, walk, zone, count) => {
  await open(page, walk, `airframe/${zone}`);
  for (let turn = 0; turn < count; turn += 1) {
    const title = await heading(page).textContent();
    const reading = page.locator('.task.current').getByLabel('Reading');
    if (await reading.count()) await reading.fill('12.7');
    await page.getByRole('button', { name: /^(Good|Done)/ }).click();
    await expect(heading(page)).not.toHaveText(title);
  }
};

// A day's work, in parts between which the battery may die.
const day = [
  (page, walk) => answer(page, walk, 'cabin', 3),
  async (page, walk) => {
    for (const [step, name] of ['Looked at', 'Cleaned', 'Looked at'].entries()) {
      await open(page, walk, 'look?zone=propeller');
      await press(page, page.locator('#look-steps li').nth(step).locator('form:not([hidden])'), name);
    }
    await open(page, walk, 'tools');
    await page.getByLabel(/Safety-wire pliers/).check();
    await page.getByLabel(/Torch, headband/).check();
    await press(page, page.locator('.tool-list'), 'Take these');
  },
  async (page, walk) => {
    await open(page, walk, 'tools');
    await press(page, page.locator('#tools-out li:not([hidden])', { hasText: 'Safety-wire pliers' }).first(), 'Back in');
    await open(page, walk, 'tags');
    await page.locator('.tag-form').getByLabel('panel', { exact: true }).check();
    await page.locator('.tag-form').getByLabel('Zone').selectOption('tail');
    await page.locator('.tag-form').getByLabel('What').fill('Bellcrank cover');
    await press(page, page.locator('.tag-form'), 'Make its tag');
  },
  async (page, walk) => {
    await open(page, walk, 'tags');
    const tag = page.locator('.tags li', { hasText: 'Bellcrank cover' });
    await tag.getByLabel(/Looked inside/).check();
    await press(page, tag, 'Close it');
  },
  async (page, walk) => {
    await open(page, walk, 'fix-list');
    await page.locator('a.found').click();
    await page.locator('#capture textarea[name=what]').fill('Cowl latch worn');
    await page
      .locator('#capture input[name=photos]')
      .first()
      .setInputFiles(await picture(page));
    await page.getByRole('button', { name: 'Put on the fix list' }).click();
    await expect(page.locator('#capture')).toBeHidden();
  },
];

// What differs though the same was done: when, and the ids of what was made.
const said = (rows, known) =>
  JSON.stringify(rows, undefined, 1)
    .replace(/[0-9A-Fa-f]{8}-(?:[0-9A-Fa-f]{4}-){3}[0-9A-Fa-f]{12}/g, id => (known.has(id.toUpperCase()) ? id.toUpperCase() : 'an id'))
    .replace(/\d{4}-\d\d-\d\d[T ]\d\d:\d\d:\d\d[^"\\,]*/g, 'a time')
    .replace(/"[0-9a-f]{64}/g, '"a hash')
    .replace(/"\d{17,19}"/g, '"a time"');
const everything = async (port, id) => (await fetch(`${lender}/shops/${port}/inspections/${id}`)).json();

test(
  'a day without a network, on a phone that dies four times, arrives as if it had been done at the desk',
  { tag: '@standing' },
  async ({ walk, shop, network, phone, another }) => {
    const id = walk.split('/').pop();
    const before = await everything(shop.port, id);
    const known = new Set(
      JSON.stringify(before)
        .match(/[0-9A-Fa-f]{8}-(?:[0-9A-Fa-f]{4}-){3}[0-9A-Fa-f]{12}/g)
        .map(one => one.toUpperCase()),
    );
    let page = await phone.start();
    await enterAs(page, 'ines');
    await takeAlong(page, walk);
    network.cut();
    for (const [part, work] of day.entries()) {
      await work(page, walk);
      if (part === day.length - 1) break;
      await phone.die();
      page = await phone.start();
    }
    const waiting = Number((await page.locator('#outbox').textContent()).match(/^\d+/)[0]);
    network.mend();
    // What the browser knew of the shop may die with the battery: it is asked who it is, and then all goes out.
    await enterAs(page, 'ines');
    network.drop(3);
    await expect(page.locator('#outbox')).toBeHidden({ timeout: 120_000 });
    network.drop(0);
    const away = await everything(shop.port, id);
    expect(away.Postings.length - before.Postings.length, 'each post once').toBe(waiting);

    // The same by somebody who never lost the network.
    const other = await (await fetch(`${lender}/shops`, { method: 'POST' })).json();
    const desk = await another();
    network.to(other.port);
    await enterAs(desk, 'ines');
    for (const work of day) await work(desk, walk);
    await expect(desk.locator('#outbox')).toBeHidden();
    const done = await everything(other.port, id);
    await fetch(`${lender}/shops/${other.port}`, { method: 'DELETE' });
    // What was brought later says when it was said and when it came; what was said at the desk has nothing of that.
    const counts = of => JSON.parse(of.Inspections[0].CameLate).is.map(({ count }) => count);
    expect(counts(done)).toEqual([]);
    expect(counts(away).reduce((sum, one) => sum + one, 0)).toBeLessThanOrEqual(waiting);
    for (const { Inspections } of [away, done]) delete Inspections[0].CameLate;
    for (const table of Object.keys(done).filter(name => name !== 'Postings'))
      expect(said(away[table], known), table).toBe(said(done[table], known));
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
