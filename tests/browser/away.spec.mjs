// A day without a network: an inspection is taken along, worked on where the shop can't be reached, and arrives whole.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { networkTo } from './network.mjs';
import { lender } from './playwright.config.mjs';
import { anew, enterAs, expect, heading, picture, test as base } from './shop.mjs';

const code = 'three blue rivets';
const test = base.extend({
  network: async ({ shop }, use) => {
    const network = await networkTo(shop.port);
    await use(network);
    await network.close();
  },
  baseURL: ({ network }, use) => use(network.address),
  /** A phone whose battery may die: what is on its disk is there again, and nothing else. */
  phone: async ({ network, launchOptions, viewport, hasTouch }, use) => {
    const folder = mkdtempSync(join(tmpdir(), 'rivet-phone-'));
    const kill = () => spawnSync('pkill', ['-9', '-f', folder]);
    let context;
    await use({
      folder,
      async start() {
        context = await chromium.launchPersistentContext(folder, { ...launchOptions, baseURL: network.address, viewport, hasTouch });
        return context.pages()[0] ?? context.newPage();
      },
      async die() {
        kill();
        await context.close().catch(() => {});
      },
    });
    kill();
    await context?.close().catch(() => {});
    rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
  },
});

let walk;
test.beforeEach(async ({ page, shop }) => {
  page.on('console', m => m.text().includes('TYPED') && console.log(m.text()));
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

test(
  'what was taken along opens without a network, says as of when, and what is said there arrives once',
  { tag: '@standing' },
  async ({ page, network }) => {
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
    await page
      .locator('#capture input[name=photos]')
      .first()
      .setInputFiles(await picture(page));
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
  },
);

/** Opens a page of the walk as somebody does who has just picked the phone up: with the code, where it asks for it. */
const open = async (page, path) => {
  await page.goto(`${walk}/${path}`);
  const locked = page.locator('.locked');
  await expect(locked.or(page.locator('.sheet.walk'))).toBeVisible();
  if (await locked.isVisible()) {
    await locked.getByLabel('Code').fill(code);
    await locked.getByRole('button', { name: 'Open' }).click();
    await expect(page.locator('.sheet.walk')).toBeVisible();
  }
};

const press = async (page, within, name) => {
  const button = within.getByRole('button', { name });
  const box = page.locator('#outbox');
  const isAway = await page.locator('.as-of').count();
  const before = isAway ? Number((await box.textContent()).match(/^\d+/)?.[0] ?? 0) : 0;
  if (!isAway) return anew(page, button);
  await button.click();
  return expect(box).toContainText(`${before + 1} waiting to send`);
};

const answer = async (page, zone, count) => {
  await open(page, `airframe/${zone}`);
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
  page => answer(page, 'cabin', 3),
  async page => {
    for (const [step, name] of ['Looked at', 'Cleaned', 'Looked at'].entries()) {
      await open(page, 'look?zone=propeller');
      await press(page, page.locator('#look-steps li').nth(step).locator('form:not([hidden])'), name);
    }
    await open(page, 'tools');
    await page.getByLabel(/Safety-wire pliers/).check();
    await page.getByLabel(/Torch, headband/).check();
    await press(page, page.locator('.tool-list'), 'Take these');
  },
  async page => {
    await open(page, 'tools');
    await press(page, page.locator('#tools-out li:not([hidden])', { hasText: 'Safety-wire pliers' }).first(), 'Back in');
    await open(page, 'tags');
    await page.locator('.tag-form').getByLabel('panel', { exact: true }).check();
    await page.locator('.tag-form').getByLabel('Zone').selectOption('tail');
    await page.locator('.tag-form').getByLabel('What').fill('Bellcrank cover');
    await press(page, page.locator('.tag-form'), 'Make its tag');
  },
  async page => {
    await open(page, 'tags');
    const tag = page.locator('.tags li', { hasText: 'Bellcrank cover' });
    await tag.getByLabel(/Looked inside/).check();
    await press(page, tag, 'Close it');
  },
  async page => {
    await open(page, 'fix-list');
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
  async ({ shop, network, phone, another }) => {
    const id = walk.split('/').pop();
    const before = await everything(shop.port, id);
    const known = new Set(
      JSON.stringify(before)
        .match(/[0-9A-Fa-f]{8}-(?:[0-9A-Fa-f]{4}-){3}[0-9A-Fa-f]{12}/g)
        .map(one => one.toUpperCase()),
    );
    let page = await phone.start();
    await enterAs(page, 'ines');
    await takeAlong(page);
    network.cut();
    for (const [part, work] of day.entries()) {
      await work(page);
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
    for (const work of day) await work(desk);
    await expect(desk.locator('#outbox')).toBeHidden();
    const done = await everything(other.port, id);
    await fetch(`${lender}/shops/${other.port}`, { method: 'DELETE' });
    for (const table of Object.keys(done).filter(name => name !== 'Postings'))
      expect(said(away[table], known), table).toBe(said(done[table], known));
  },
);

test('a stolen copy of what is on the disk says nothing', { tag: '@standing' }, async ({ network, phone }) => {
  const page = await phone.start();
  await enterAs(page, 'ines');
  await takeAlong(page);
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

/** Puts something on the fix list from a page of the walk where the shop can't be reached. */
const find = async (page, words) => {
  await open(page, 'fix-list');
  await page.locator('a.found').click();
  await page.locator('#capture textarea[name=what]').fill(words);
  await page.getByRole('button', { name: 'Put on the fix list' }).click();
  await expect(page.locator('#capture')).toBeHidden();
};
const stored = (page, store) =>
  page.evaluate(
    name =>
      new Promise(done => {
        const asked = indexedDB.open('rivet-device');
        asked.onsuccess = () => {
          const count = asked.result.transaction(name).objectStore(name).count();
          count.onsuccess = () => done(count.result);
        };
      }),
    store,
  );

test(
  'what can’t be sent is saved to a file, read in at the desk, and is there once though the phone comes back',
  { tag: '@standing' },
  async ({ page, network, shop, browser }) => {
    await takeAlong(page);
    network.cut();
    await find(page, 'Zebrawood shim at the latch');
    await page.goto('/device');
    await expect(page.locator('[data-device]')).toContainText('Zebrawood shim at the latch');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save to a file' }).click();
    const file = await (await download).path();

    const desk = await (await browser.newContext({ baseURL: shop.address })).newPage();
    await enterAs(desk, 'orla');
    await desk.goto('/device');
    await desk.getByLabel('Read a file in').setInputFiles(file);
    await expect(desk.getByText('It is Ines')).toBeVisible();
    await enterAs(desk, 'ines');
    await desk.goto('/device');
    await desk
      .getByLabel('Read a file in')
      .setInputFiles({
        name: 'changed.json',
        mimeType: 'application/json',
        buffer: Buffer.from(readFileSync(file, 'utf8').replace(/\/find"/, '/close"')),
      });
    await expect(desk.getByText('somebody changed it')).toBeVisible();
    await desk.getByLabel('Read a file in').setInputFiles(file);
    await expect(desk.getByText('1 came in from the file')).toBeVisible();
    await expect(desk.locator('#outbox')).toBeHidden();

    network.mend();
    await page.goto(`${walk}/fix-list`);
    await expect(page.locator('.as-of')).toHaveCount(0);
    await expect(page.locator('#outbox')).toBeHidden();
    await page.reload();
    await expect(page.locator('.finds li', { hasText: 'Zebrawood shim at the latch' })).toHaveCount(1);
  },
);

test(
  'two people on one tablet keep apart: who leaves takes off what was aboard, and what waits stays sealed for them',
  { tag: '@standing' },
  async ({ page, network }) => {
    await takeAlong(page);
    network.cut();
    await find(page, 'Zebrawood shim at the latch');
    network.mend();
    // Somebody else has signed in on it meanwhile: what Ines said isn't said by them.
    await enterAs(page, 'orla');
    await page.goto(`${walk}/fix-list`);
    await expect(page.locator('.as-of')).toHaveCount(0);
    await expect(page.locator('#outbox')).toBeHidden();
    await expect(page.locator('.finds')).not.toContainText('Zebrawood');
    await page.goto('/device');
    await expect(page.locator('[data-device]')).toContainText('Nothing is aboard');
    await enterAs(page, 'ines');
    await page.goto(`${walk}/fix-list`);
    await expect(page.locator('#outbox')).toBeHidden();
    await page.reload();
    await expect(page.locator('.finds li', { hasText: 'Zebrawood shim at the latch' })).toHaveCount(1);
    expect(await stored(page, 'aboard')).toBeGreaterThan(50);
    await page.goto('/');
    await page.locator('.me summary').click();
    await page.getByRole('button', { name: 'Leave' }).click();
    await expect(page).toHaveURL(/enter/);
    expect([await stored(page, 'aboard'), await stored(page, 'codes'), await stored(page, 'inspections')]).toEqual([0, 0, 0]);
  },
);

test(
  'whoever isn’t one of the shop’s people any more has nothing aboard from the first moment it is in reach',
  { tag: '@standing' },
  async ({ page, another }) => {
    await takeAlong(page);
    const orla = await another('orla');
    await orla.goto('/people');
    await orla.getByRole('link', { name: /Ines/ }).click();
    await orla.evaluate(async () => {
      const form = document.querySelector('form[action*="handler=Close"]');
      await fetch(form.getAttribute('action'), { method: 'POST', body: new FormData(form) });
    });
    await page.waitForTimeout(100);
    await page.goto(walk);
    await expect(page).toHaveURL(/enter/);
    await expect.poll(() => stored(page, 'aboard')).toBe(0);
  },
);

test(
  'a device without room says so and keeps what was typed; one with an older program says that, and sends what it has',
  { tag: '@standing' },
  async ({ page, network }) => {
    await takeAlong(page);
    await page.goto(`${walk}/tags`);
    await page.evaluate(() => {
      const add = IDBObjectStore.prototype.add;
      IDBObjectStore.prototype.add = function (...given) {
        if (this.name === 'outbox') throw new DOMException('full', 'QuotaExceededError');
        return add.apply(this, given);
      };
    });
    await page.locator('.tag-form').getByLabel('What').fill('Bellcrank cover');
    await page.getByRole('button', { name: 'Make its tag' }).click();
    await expect(page.locator('#connection')).toContainText('no room to keep it');
    await expect(page.locator('.tag-form').getByLabel('What')).toHaveValue('Bellcrank cover');

    network.cut();
    await find(page, 'Zebrawood shim at the latch');
    await page.route('**/device/token', async route => {
      const answer = await route.fetch();
      await route.fulfill({ response: answer, json: { ...(await answer.json()), version: 'newer' } });
    });
    await page.locator('a.found').click();
    await page.locator('#capture textarea[name=what]').fill('half a sentence');
    network.mend();
    await expect(page.locator('.as-of')).toContainText('all that waited went');
    await expect(page.locator('#outbox')).toContainText('newer program');
  },
);
