// What every path through the shop needs: a shop of its own, people who have entered, a picture, and an eye for accessibility.
import AxeBuilder from '@axe-core/playwright';
import { expect, test as base } from '@playwright/test';
import { lender } from './playwright.config.mjs';

export { expect };

export const password = 'quillmoor-field';

/** Each test has a shop to itself, a copy of the demo's, and addresses are those of that shop. */
export const test = base.extend({
  /** An aircraft whose inspection in work was never begun; null for the shop as it is. */
  idle: [null, { option: true }],
  shop: async ({ idle }, use) => {
    const shop = await (await fetch(`${lender}/shops${idle ? `?idle=${idle}` : ''}`, { method: 'POST' })).json();
    await use(shop);
    await fetch(`${lender}/shops/${shop.port}`, { method: 'DELETE' });
  },
  baseURL: ({ shop }, use) => use(shop.address),
  /** Someone else at a device of their own, in the same posture. */
  another: async ({ browser, baseURL, viewport, hasTouch }, use) => {
    const devices = [];
    await use(async name => {
      const device = await browser.newContext({ baseURL, viewport, hasTouch });
      devices.push(device);
      const page = await device.newPage();
      if (name) await enterAs(page, name);
      return page;
    });
    await Promise.all(devices.map(device => device.close()));
  },
});

export const token = page => page.match(/name="__RequestVerificationToken" type="hidden" value="([^"]+)"/)[1];

export async function enterAs(page, name) {
  const door = token(await (await page.request.get('/enter')).text());
  const answer = await page.request.post('/enter?handler=As', { form: { name, __RequestVerificationToken: door }, maxRedirects: 0 });
  expect(answer.headers().location, `${name} enters`).toBe('/');
}

export const standing = () => test.info().project.name === 'standing';

/** The open task's words. */
export const heading = page => page.locator('.task.current h2');

/** Opens a zone, with the forms of its other tasks on the device: from here on it can do without a connection. */
export async function openZone(page, address) {
  const panels = page.waitForResponse(answer => answer.url().includes('handler=Panels'));
  await page.goto(address);
  await panels;
}

/** By its key at the desk, by touch standing. */
export const say = async (page, key, name) => (standing() ? page.getByRole('button', { name }).tap() : page.keyboard.press(key));

/**
 * All that WCAG 2.1 asks at A and AA; the contrast of colours, half of the work, only where it is asked for: at the views that together
 * show every colour. Of 2.2 axe knows only the target size, which the rivets of a seam fall under by design: each has its equal in a
 * list of full-size links, the exception that the rule makes.
 */
export async function nothingSerious(page, what, { colours = false } = {}) {
  // What passes isn't read: finding its words as well is most of axe's time. No page has frames, so it needs no second page either.
  const axe = new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'])
    .disableRules(colours ? [] : ['color-contrast']);
  const { violations } = await axe.analyze();
  const serious = violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(
      ({ id, nodes }) =>
        `${id}: ${nodes
          .slice(0, 3)
          .map(node => `${node.target} ${node.any[0]?.message ?? ''}`)
          .join(' | ')}`,
    );
  expect(serious, what).toEqual([]);
}

/** A JPEG that the browser itself encodes. */
export async function picture(page, width = 1600, height = 1200) {
  const data = await page.evaluate(
    ([w, h]) => {
      const canvas = Object.assign(document.createElement('canvas'), { width: w, height: h });
      const paint = canvas.getContext('2d');
      paint.fillStyle = '#7a8078';
      paint.fillRect(0, 0, w, h);
      paint.fillStyle = '#302a24';
      paint.fillRect(w / 4, h / 4, w / 3, h / 6);
      return canvas.toDataURL('image/jpeg', 0.9).split(',')[1];
    },
    [width, height],
  );
  return { name: 'found.jpg', mimeType: 'image/jpeg', buffer: Buffer.from(data, 'base64') };
}

/** Puts something with a photo on an inspection's fix list, as the form sends it. */
export async function putOnList(page, walk, what, zone, kind, photo) {
  const form = token(await (await page.request.get(`${walk}/find`)).text());
  const answer = await page.request.post(`${walk}/find`, {
    multipart: { post: crypto.randomUUID(), what, zone, class: kind, photos: photo, __RequestVerificationToken: form },
    maxRedirects: 0,
  });
  expect(answer.status(), what).toBe(302);
}

/** A value that satisfies limits as they are written: "35–41 lb", "at most 0.1 in", "at least 12.4 V". */
export function within(limits) {
  const between = limits.match(/([\d.]+)–([\d.]+)/);
  if (between) return String((Number(between[1]) + Number(between[2])) / 2);
  const most = limits.match(/at most ([\d.]+)/);
  if (most) return String(Number(most[1]) / 2);
  const least = limits.match(/at least ([\d.]+)/);
  return least ? String(Number(least[1]) * 1.02) : null;
}

/** Sends every form of its kind on a page once. */
export async function sendEach(page, address, form, fields = {}) {
  await page.goto(address);
  const refused = await page.evaluate(
    async ([wanted, extra]) => {
      for (const each of document.querySelectorAll(`main form[action*="${wanted}"]`)) {
        const sent = new FormData(each);
        for (const [name, value] of Object.entries(extra)) sent.set(name, value);
        const done = await fetch(each.getAttribute('action'), { method: 'POST', body: sent, redirect: 'manual' });
        if (done.type !== 'opaqueredirect')
          return new DOMParser().parseFromString(await done.text(), 'text/html').querySelector('.field-problem')?.textContent ?? 'refused';
      }
      return 0;
    },
    [form, fields],
  );
  expect(refused, address).toBe(0);
}

/** Sends the forms of their kind on a page, and on the page as it is then, until it has none: as a person would, without drawing each. */
export async function sendAll(page, address, form, fields = {}) {
  await page.goto(address);
  const left = await page.evaluate(
    async ([from, wanted, extra]) => {
      const selector = wanted.includes('[') ? wanted : `main form[action*="${wanted}"]`;
      const parsed = async answer => new DOMParser().parseFromString(await answer.text(), 'text/html');
      for (let turns = 60; turns > 0; turns -= 1) {
        const forms = [...(await parsed(await fetch(from))).querySelectorAll(selector)].filter(form => !form.closest('[hidden]'));
        if (!forms.length) return 0;
        for (const next of forms) {
          const sent = new FormData(next);
          for (const [name, value] of Object.entries(extra)) sent.set(name, value);
          const done = await fetch(next.getAttribute('action'), { method: 'POST', body: sent, redirect: 'manual' });
          // What was sent before it may have changed what it is about: then it is sent as it stands on the next page.
          if (done.type !== 'opaqueredirect' && next === forms[0])
            return (await parsed(done)).querySelector('.field-problem')?.textContent ?? 'refused';
        }
      }
      return 'some are left';
    },
    [address, form, fields],
  );
  expect(left, address).toBe(0);
}

// What is typed is judged before it is kept, so the judgement alone doesn't say that the shop has it: its answer does.
export const kept = async (page, handler, act) => {
  const answer = page.waitForResponse(response => response.url().includes(`handler=${handler}`) && response.request().method() === 'POST');
  await act();
  expect((await answer).status()).toBe(200);
};

/** A busy machine may answer after a form has gone on without it, as it does for a slow connection: from here on it waits. */
export const patient = page =>
  page.addInitScript(() => {
    const wait = window.setTimeout;
    window.setTimeout = (then, ms, ...given) => wait(then, ms === 2500 ? 60_000 : ms, ...given);
  });

/** Presses what ends in a page: a form that goes out through the device's outbox leads on once the shop has answered. */
export async function anew(page, button) {
  await button.waitFor();
  await page.waitForLoadState('load');
  await page.evaluate(() => document.body.setAttribute('data-before', ''));
  await button.click();
  await page.waitForFunction(() => !document.body?.hasAttribute('data-before') && document.readyState === 'complete');
}
