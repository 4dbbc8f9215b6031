// A disk without room, and then with some: a shop on a small file system of its own, filled to the last byte.
import { expect, request, test } from '@playwright/test';
import { closeSync, mkdtempSync, openSync, readdirSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lender } from './playwright.config.mjs';
import { freePort, serve } from './process.mjs';
import { token } from './shop.mjs';

const noRoom = /There is no room on the disk\. .*nothing was lost of what you typed/;
const days = ['--today', '2026-11-25T10:00'];
let server, port, place, seen, filler;

// The file system is the server's alone, and goes with it: nobody has to be anybody to make one.
test.beforeAll(async () => {
  const made = await (await fetch(`${lender}/made`)).text();
  place = mkdtempSync(join(tmpdir(), 'rivet-full-'));
  port = await freePort();
  const script = 'mount -t tmpfs -o size=64m none "$0" && cp -r "$1"/. "$0" && shift && exec "$@"';
  const apart = process.getuid() === 0 ? ['unshare', '-m'] : ['unshare', '-rm'];
  server = await serve(['demo', '--data', place, ...days], port, [...apart, 'sh', '-c', script, place, made]);
  seen = `/proc/${server.pid}/root${place}`;
  filler = join(seen, 'filler');
});

test.afterAll(() => {
  server?.stop();
  rmSync(place, { recursive: true, force: true });
});

const fill = () => {
  const file = openSync(filler, 'w');
  for (let size = 1 << 20; size >= 1; size >>= 1)
    try {
      for (;;) writeSync(file, Buffer.alloc(size));
    } catch (full) {
      expect(full.code).toBe('ENOSPC');
    }
  closeSync(file);
};
const makeRoom = () => rmSync(filler, { force: true });

/** Whoever works there, on a page of their own; the addresses of an aircraft's walk and file. */
const enter = async (browser, name) => {
  const page = await browser.newPage({ baseURL: `http://localhost:${port}` });
  const door = token(await (await page.request.get('/enter')).text());
  await page.request.post('/enter?handler=As', { form: { name, __RequestVerificationToken: door }, maxRedirects: 0 });
  return page;
};
const walkOf = async (page, registration) => {
  await page.goto('/');
  return (await page.locator('tr', { hasText: registration }).locator('a[href*="/walk/"]').first().getAttribute('href')).match(
    /\/walk\/[0-9a-f-]{36}/,
  )[0];
};
const fileOf = async (page, registration) => {
  await page.goto('/');
  return (await page.locator('tr', { hasText: registration }).locator('a[href*="/aircraft/"]').first().getAttribute('href')).match(
    /\/aircraft\/[0-9a-f-]{36}/,
  )[0];
};

test.describe.configure({ mode: 'serial' });
test.afterEach(makeRoom);

test('words wait on the device, with why, and go through by themselves', async ({ browser }) => {
  const page = await enter(browser, 'ines');
  await page.goto(`${await walkOf(page, 'N04QF')}/find`);
  await page.locator('[name=what]').fill('Clamp chafes on the mount');
  fill();
  await page.getByRole('button', { name: 'Put on the fix list' }).click();
  await expect(page.locator('#outbox')).toContainText(noRoom);
  await expect(page.locator('#outbox')).toContainText('kept on this device');
  makeRoom();
  await expect(page.locator('#captured')).toContainText('is on the fix list');
  await page.goto(`${await walkOf(page, 'N04QF')}/fix-list`);
  await expect(page.getByText('Clamp chafes on the mount').first()).toBeVisible();
});

test('a verdict waits on the device, with why, and goes through by itself', async ({ browser }) => {
  const page = await enter(browser, 'ines');
  const walk = await walkOf(page, 'N0BRM');
  await page.goto(`${walk}/airframe/tail`);
  const task = await page.locator('[data-current]').getAttribute('data-task');
  fill();
  await page.keyboard.press('g');
  await expect(page.locator('#outbox')).toContainText(noRoom);
  await expect(page.locator(`#task-${task}`)).toHaveClass(/waiting/);
  makeRoom();
  await expect(page.locator('#outbox')).toBeHidden();
  await page.goto(`${walk}/airframe/tail`);
  await expect(page.locator(`#task-${task}`)).toHaveAttribute('data-state', 'Good');
});

test('a reading stays in its field', async ({ browser }) => {
  const page = await enter(browser, 'ines');
  await page.goto(`${await walkOf(page, 'N04QF')}/compressions`);
  const field = page.locator('input[name=value]').first();
  await field.fill('71');
  fill();
  await field.press('Enter');
  await expect(page.locator('#outbox')).toContainText(noRoom);
  await expect(field).toHaveValue('71');
  makeRoom();
  await field.fill('72');
  const kept = page.waitForResponse(answer => answer.request().method() === 'POST' && answer.ok());
  await field.press('Enter');
  await kept;
  await expect(page.locator('#outbox')).toBeHidden();
  await page.reload();
  await expect(page.locator('input[name=value]').first()).toHaveValue(/^72/);
});

test('a squawk waits on the device; a signature and a link say so on their page, keep what was typed, and go through', async ({
  browser,
}) => {
  const page = await enter(browser, 'ines');
  const walk = await walkOf(page, 'N04QF');
  await page.goto(`${walk}/arrive`);
  const squawk = page.locator('form[action*="handler=Hear"] textarea');
  await squawk.fill('Heater smells in the climb');
  fill();
  const write = page.getByRole('button', { name: 'Write it down' });
  await write.click();
  // It waits on the device, and goes through by itself: nobody says it again, and it is there once.
  await expect(page.locator('#outbox')).toContainText(noRoom);
  await expect(squawk).toHaveValue('Heater smells in the climb');
  makeRoom();
  await expect(page.locator('.said-by-owner', { hasText: 'Heater smells in the climb' })).toHaveCount(1);
  await expect(squawk).toHaveValue('');

  const outbox = join(seen, 'outbox');
  await page.goto(`${walk}/fix-list/owner`);
  const links = await page.locator('input[name=link]').count();
  await page.locator('input[name=to]').fill('somebody@example.org');
  fill();
  await page.getByRole('button', { name: 'Make the link and its mail' }).click();
  await expect(page.getByRole('alert').first()).toContainText(noRoom);
  await expect(page.locator('input[name=to]')).toHaveValue('somebody@example.org');
  expect(readdirSync(outbox)).toEqual([]);
  makeRoom();
  await page.goto(`${walk}/fix-list/owner`);
  await expect(page.locator('input[name=link]')).toHaveCount(links);
  await page.locator('input[name=to]').fill('somebody@example.org');
  await page.getByRole('button', { name: 'Make the link and its mail' }).click();
  await expect(page.locator('input[name=link]')).toHaveCount(links + 1);
  expect(readdirSync(outbox)).toHaveLength(1);

  const pilot = await enter(browser, 'perpetua');
  await pilot.goto(`${await fileOf(pilot, 'N0FLD')}/job`);
  const sign = async () => {
    await pilot.locator('input[name=password]').fill('quillmoor-field');
    await pilot.getByRole('button', { name: 'Sign it as preventive maintenance' }).click();
  };
  await pilot.locator('[name=title]').last().fill('Landing light bulb');
  await pilot.locator('[name=action]').fill('Landing light bulb replaced.');
  await pilot.locator('[name=reference]').fill('type manual 33-40');
  fill();
  await sign();
  await expect(pilot.getByRole('alert').first()).toContainText(noRoom);
  await expect(pilot.locator('[name=action]')).toHaveValue('Landing light bulb replaced.');
  makeRoom();
  await sign();
  await expect(pilot.locator('.entry')).toContainText('landing light bulb');
});

test('a passport says so and is made once there is room; whoever looks needs none', async ({ browser }) => {
  const page = await enter(browser, 'orla');
  const passport = `${await fileOf(page, 'N0BRM')}/passport`;
  await page.goto(passport);
  fill();
  await page.getByRole('button', { name: 'Make the passport' }).click();
  await expect(page.getByText(/There is no room on the disk/)).toBeVisible();
  for (const looked of ['/', '/plan', '/people', '/keeping']) expect((await page.request.get(looked)).status()).toBe(200);
  const stranger = await request.newContext({ baseURL: `http://localhost:${port}` });
  expect((await stranger.get('/health')).status()).toBe(503);
  makeRoom();
  await page.goto(passport);
  await page.getByRole('button', { name: /Make the passport|Make it anew/ }).click();
  await expect(page.getByRole('link', { name: /^Save N0BRM-passport-/ })).toBeVisible();
});
