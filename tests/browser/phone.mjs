// A phone that is carried to where there is no network, and what its owner does with it there.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { networkTo } from './network.mjs';
import { expect, test as base } from './shop.mjs';

export const code = 'three blue rivets';
export const test = base.extend({
  network: async ({ shop }, use) => {
    const network = await networkTo(shop.port);
    await use(network);
    await network.close();
  },
  baseURL: ({ network }, use) => use(network.address),
  walk: ({ shop }, use) => use(shop.walks.N0BRM),
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

/** Takes an inspection along, with a code where the device has none. */
export const takeAlong = async (page, walk) => {
  await page.goto(`${walk}/along`);
  await page.getByLabel('Code', { exact: true }).fill(code);
  await page.getByLabel('Once more').fill(code);
  await page.getByRole('button', { name: /take it along/ }).click();
  await expect(page.locator('.along')).toContainText(/Aboard as of .* pages and pictures/);
};

/** Opens a page of the walk as somebody does who has just picked the phone up: with the code, where it asks for it. */
export const open = async (page, walk, path) => {
  await page.goto(`${walk}/${path}`);
  const locked = page.locator('.locked');
  await expect(locked.or(page.locator('.sheet.walk')).first()).toBeVisible();
  if (await locked.isVisible()) {
    await locked.getByLabel('Code').fill(code);
    await locked.getByRole('button', { name: 'Open' }).click();
    await expect(page.locator('.sheet.walk')).toBeVisible();
  }
};

/** Puts something on the fix list from a page of the walk where the shop can't be reached. */
export const find = async (page, walk, words) => {
  await open(page, walk, 'fix-list');
  await page.locator('a.found').click();
  await page.locator('#capture textarea[name=what]').fill(words);
  await page.getByRole('button', { name: 'Put on the fix list' }).click();
  await expect(page.locator('#capture')).toBeHidden();
};
export const stored = (page, store) =>
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
