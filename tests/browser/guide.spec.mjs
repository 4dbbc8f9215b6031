// The guide's steps, as they are written: a backup, its restore, the shop that is served from it; and a second machine.
import { expect, request, test } from '@playwright/test';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lender } from './playwright.config.mjs';
import { freePort, run, serve } from './process.mjs';
import { password, token } from './shop.mjs';

const guide = readFileSync(new URL('../../docs/guide.md', import.meta.url), 'utf8');
const steps = guide
  .split('## Looking after the data')[1]
  .split('\n## ')[0]
  .split('```')
  .filter((_, place) => place % 2 === 1)
  .map(block => block.trim().split('\n'));

let place;
test.beforeEach(async () => {
  place = mkdtempSync(join(tmpdir(), 'rivet-guide-'));
  for (const folder of ['srv/rivet', 'mnt/disk']) mkdirSync(join(place, folder), { recursive: true });
  cpSync(await (await fetch(`${lender}/made`)).text(), join(place, 'srv/rivet/shop'), { recursive: true });
});
test.afterEach(() => rmSync(place, { recursive: true, force: true }));

// Where the guide names a place of somebody's machine, a place of the test's stands.
const here = line =>
  line
    .replace(/^\.\/rivet /, '')
    .replaceAll('/srv/rivet', join(place, 'srv/rivet'))
    .replaceAll('/mnt/disk', join(place, 'mnt/disk'))
    .split(' ');

/** Nobody is asked for a first account, and the people are who they were. */
async function isTheShop(port) {
  const shop = await request.newContext({ baseURL: `http://localhost:${port}` });
  const door = await shop.get('/');
  expect(door.url()).toMatch(/\/enter/);
  const entered = await shop.post('/enter', {
    form: { Name: 'orla', Password: password, __RequestVerificationToken: token(await door.text()) },
    maxRedirects: 0,
  });
  expect(entered.status()).toBe(302);
  expect(await (await shop.get('/')).text()).toContain('N04QF');
}

test('a backup restored by the guide is the shop', async () => {
  const [backup, restore, verify, last] = steps[0];
  for (const step of [backup, restore, verify]) {
    const { code, error } = await run(here(step));
    expect(error).toBe('');
    expect(code).toBe(0);
  }
  const port = await freePort();
  const server = await serve(here(last), port);
  await isTheShop(port);
  server.stop();
});

test('a second machine follows by the guide, and is the shop when the first is gone', async () => {
  const [key, follow, last] = steps[1];
  const port = await freePort();
  const first = await serve(['demo', '--data', join(place, 'srv/rivet/shop'), '--today', '2026-11-25T10:00'], port);
  expect((await run(here(key))).code).toBe(0);
  const once = await run([...here(follow.replace('https://rivet.example', `http://localhost:${port}`)), '--once']);
  expect(once.error).toBe('');
  expect(once.code).toBe(0);
  first.stop();
  const second = await serve(here(last), port);
  await isTheShop(port);
  second.stop();
});
