// What lies on a device: whose it is, what becomes of it, and the way out where it can't send.
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { code, find, stored, takeAlong, test } from './phone.mjs';
import { lender } from './playwright.config.mjs';
import { enterAs, expect, picture } from './shop.mjs';

test.beforeEach(async ({ page }) => {
  await enterAs(page, 'ines');
});

// What lies on the device of an inspection, whatever is said of it.
const bytesAboard = page =>
  page.evaluate(
    () =>
      new Promise(done => {
        const asked = indexedDB.open('rivet-device');
        asked.onsuccess = () => {
          const all = asked.result.transaction('aboard').objectStore('aboard').getAll();
          all.onsuccess = () =>
            done(all.result.reduce((sum, { kept: { head, body } }) => sum + head.sealed.byteLength + body.sealed.byteLength, 0));
        };
      }),
  );

test(
  'what can’t be sent is saved to a file, read in at the desk, and is there once though the phone comes back',
  { tag: '@standing' },
  async ({ page, walk, network, shop, browser }) => {
    await takeAlong(page, walk);
    const told = /([\d.]+) MB/.exec(await page.locator('.along').textContent())[1];
    expect(Math.abs(Number(told) * 1e6 - (await bytesAboard(page)))).toBeLessThan(60_000);
    network.cut();
    await find(page, walk, 'Zebrawood shim at the latch');
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
  async ({ page, walk, network }) => {
    await takeAlong(page, walk);
    network.cut();
    await find(page, walk, 'Zebrawood shim at the latch');
    // With a page of hers open it would go out as hers, before anybody else is in.
    await page.goto('about:blank');
    network.mend();
    // Somebody else has signed in on it meanwhile: what Ines said isn't said by them.
    await enterAs(page, 'orla');
    await page.goto(`${walk}/fix-list`);
    await expect(page.locator('.as-of')).toHaveCount(0);
    await expect(page.locator('#outbox')).toBeHidden();
    await expect(page.locator('.finds')).not.toContainText('Zebrawood');
    await page.goto('/device');
    await expect(page.locator('[data-device]')).toContainText('Nothing is aboard');
    // Her key went when somebody else sat down at it: back again, she says her code.
    await enterAs(page, 'ines');
    await page.goto(`${walk}/fix-list`);
    await page.locator('.locked').getByLabel('Code').fill('not the code');
    await page.locator('.locked').getByRole('button', { name: 'Open' }).click();
    await expect(page.locator('.locked')).toContainText('That isn’t the code');
    await page.locator('.locked').getByLabel('Code').fill(code);
    await page.locator('.locked').getByRole('button', { name: 'Open' }).click();
    await expect(page.locator('.locked')).toHaveCount(0);
    await expect.poll(() => stored(page, 'files')).toBe(0);
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

test('what is aboard locks after the minutes of the shop, as they are now', { tag: '@standing' }, async ({ page, walk, another }) => {
  await page.addInitScript(() => {
    const now = Date.now.bind(Date);
    Date.now = () => now() + (window.later ?? 0);
  });
  await takeAlong(page, walk);
  const orla = await another('orla');
  await orla.goto('/shelf');
  await orla.getByLabel(/locks by itself after/).fill('3');
  await orla.getByRole('button', { name: 'Work so' }).click();
  await expect(orla.getByLabel(/locks by itself after/)).toHaveValue('3');
  await page.goto(`${walk}/tags`);
  await page.evaluate(() => (window.later = 170_000));
  await page.locator('.tag-form').getByLabel('What').click();
  await page.evaluate(() => (window.later += 185_000));
  await expect(page.locator('.locked')).toBeVisible();
});

test(
  'whoever isn’t one of the shop’s people any more has nothing aboard from the first moment it is in reach',
  { tag: '@standing' },
  async ({ page, walk, another }) => {
    await takeAlong(page, walk);
    const orla = await another('orla');
    await orla.goto('/people');
    await orla.getByRole('link', { name: /Ines/ }).click();
    await orla.evaluate(async () => {
      const form = document.querySelector('form[action*="handler=Close"]');
      await fetch(form.getAttribute('action'), { method: 'POST', body: new FormData(form) });
    });
    await page.goto(walk);
    await expect(page).toHaveURL(/enter/);
    await expect.poll(() => stored(page, 'aboard')).toBe(0);
  },
);

test(
  'a device without room says so and keeps what was typed; one with an older program says that, and sends what it has',
  { tag: '@standing' },
  async ({ page, walk, network }) => {
    await takeAlong(page, walk);
    await page.goto(`${walk}/tags`);
    await page.evaluate(() => {
      const add = IDBObjectStore.prototype.add;
      IDBObjectStore.prototype.add = function (...given) {
        if (this.name === 'outbox') throw new DOMException('full', 'QuotaExceededError');
        return add.apply(this, given);
      };
    });
    await page.locator('.tag-form').getByLabel('panel', { exact: true }).check();
    await page.locator('.tag-form').getByLabel('What').fill('Bellcrank cover');
    await page.getByRole('button', { name: 'Make its tag' }).click();
    await expect(page.locator('#connection')).toContainText('no room to keep it');
    await expect(page.locator('.tag-form').getByLabel('What')).toHaveValue('Bellcrank cover');

    network.cut();
    await find(page, walk, 'Zebrawood shim at the latch');
    await page.route('**/device/token', async route => {
      const answer = await route.fetch().catch(() => undefined);
      // The shop can't be reached yet.
      if (!answer) return route.abort();
      return route.fulfill({ response: answer, json: { ...(await answer.json()), version: 'newer' } });
    });
    await page.locator('a.found').click();
    await page.locator('#capture textarea[name=what]').fill('half a sentence');
    network.mend();
    await expect(page.locator('.as-of')).toContainText('all that waited went');
    await expect(page.locator('#outbox')).toContainText('newer program');
  },
);

test('nobody signs over what this device was told and the shop doesn’t know', { tag: '@standing' }, async ({ page, shop, network }) => {
  const annual = shop.walks.N04QF;
  await enterAs(page, 'orla');
  await page.route('**/find', route => route.abort());
  await find(page, annual, 'Zebrawood shim at the latch');
  await page.goto(`${annual}/close`);
  await expect(page.locator('[data-unsent]')).toBeVisible();
  await page.locator('[data-signs]').evaluate(form => form.requestSubmit());
  await page.unroute('**/find');
  await expect(page.locator('[data-unsent]')).toBeHidden();
  await page.locator('[data-signs]').evaluate(form => form.requestSubmit());
  await page.waitForLoadState('load');
  await expect.poll(() => network.seen.map(({ url }) => url.replace(annual, ''))).toEqual(expect.arrayContaining(['/find', '/close']));
  const order = network.seen.map(({ url }) => url.replace(annual, '')).filter(url => ['/find', '/close'].includes(url));
  expect(order, 'the signature was asked for once, after what waited').toEqual(['/find', '/close']);
});

test('what was said before a signature and arrives after it stays open on the aircraft', { tag: '@standing' }, async ({ page, shop }) => {
  await enterAs(page, 'ines');
  await page.goto('/device');
  const signed = shop.walks.N0TWQ;
  const me = await page.locator('body').getAttribute('data-me');
  const taken = (await picture(page, 320, 240)).buffer;
  const ring = [
    {
      kind: 'ring',
      points: [
        { x: 100, y: 100 },
        { x: 140, y: 100 },
      ],
      words: 'third strand',
      pickPixels: 1,
    },
  ];
  const drawn = { sha256: createHash('sha256').update(taken).digest('hex'), annotations: JSON.stringify(ring) };
  // A phone that was away for so long saved it to a file.
  const entry = {
    post: crypto.randomUUID(),
    url: `${signed}/find`,
    place: `${signed}/find`,
    kind: 'find',
    what: 'Rudder cable cracked',
    story: 'Rudder cable cracked; Where at the fairlead',
    headers: { 'X-Rivet': 'live' },
    fields: [
      ['what', 'Rudder cable cracked'],
      ['drawn', JSON.stringify(drawn)],
    ],
    files: [['photos', 'cable.jpg', 'image/jpeg', taken.toString('base64')]],
    at: Date.now() - 300 * 86_400_000,
  };
  // And one who says something of it now hears that it is signed: that is for a new entry.
  const now = { ...entry, post: crypto.randomUUID(), files: [], at: Date.now() };
  await page
    .getByLabel('Read a file in')
    .setInputFiles({
      name: 'waiting.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify({ kind: 'rivet-outbox', me, name: 'Ines', entries: [entry, now] })),
    });
  await expect(page.locator('#outbox')).toContainText('Signed without what you said: Rudder cable cracked.');
  await expect(page.locator('#outbox')).toContainText('Not taken: Rudder cable cracked. This inspection is signed.');
  await expect(page.locator('[data-device]')).toContainText(/it stays open on the aircraft as 26-\d+-L1/);
  await page.getByRole('link', { name: /^26-\d+-L1$/ }).click();
  await expect(page.locator('#outbox')).toContainText('Signed without what you said: Rudder cable cracked.');
  await page.locator('#outbox').getByRole('button', { name: 'Seen' }).click();
  await expect(page.locator('#outbox')).not.toContainText('Signed without');
  const item = page.locator('.open-item', { hasText: /26-\d+-L1/ });
  await expect(item).toHaveCount(1);
  await expect(item).toContainText('Rudder cable cracked; Where at the fairlead (said by Ines');
  await expect(item.locator('img')).toHaveCount(1);
  const rows = await (await fetch(`${lender}/shops/${shop.port}/inspections/${signed.split('/').pop()}`)).json();
  expect(JSON.stringify(rows.OpenItems), 'what was drawn on the picture').toContain('third strand');
});
