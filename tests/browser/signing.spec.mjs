// Five ways in which something untrue was once signed, each by ordinary buttons, each ended by its refusal.
import { anew, enterAs, expect, kept, nothingSerious, password, test, token } from './shop.mjs';

const closed = page => page.getByRole('button', { name: /^Sign as/ });

// What a person gets who presses on all the same: the form is sent, and says why nothing was signed.
const refusedToSign = async (page, walk) => {
  await page.goto(`${walk}/close`);
  await expect(closed(page)).toBeDisabled();
  const form = token(await page.content());
  const answer = await page.request.post(`${walk}/close`, {
    form: { post: crypto.randomUUID(), password, read: '', __RequestVerificationToken: form },
    maxRedirects: 0,
  });
  expect(answer.status()).toBe(200);
  expect(await answer.text()).toContain('There are still things to do before this can be signed');
  await page.goto(`${walk}/records`);
  await expect(page.getByText('Nothing is signed yet')).toBeVisible();
};

const send = async (page, address, form, maxRedirects = 0) =>
  page.request.post(address, {
    form: {
      post: crypto.randomUUID(),
      __RequestVerificationToken: token(await (await page.request.get(address.split('?')[0])).text()),
      ...form,
    },
    maxRedirects,
  });

test('a cylinder at 15/80 is an airworthiness item, whatever the words say of oil, and the owner is not told that it may fly', async ({
  page,
  shop,
  another,
}) => {
  const walk = shop.walks.N04QF;
  await enterAs(page, 'orla');
  await page.goto(`${walk}/compressions?cylinder=2`);
  await page.locator('#said-2 [data-psi]').fill('15');
  await kept(page, 'Reading', () => page.locator('#said-2 [data-psi]').press('Enter'));
  await expect(page.locator('#said-2')).toContainText('Below 60/80 after a second hot try');
  await page.goto(`${walk}/close`);
  const line = page.locator('.judged-line', { hasText: 'Compression, cylinder 2' });
  await expect(line).toContainText('15/80');
  await expect(line).toContainText('AC 43.13-1B');
  await nothingSerious(page, 'close', { colours: true });
  const asked = await line.getByRole('link', { name: 'Put it on the fix list' }).getAttribute('href');
  // Sent by a form of old, with a class of its own and words of an oil leak.
  const lower = await send(page, `${walk}/find`, {
    what: 'leak at the oil filler',
    zone: 'engine',
    class: 'Recommended',
    why: 'oil only',
    reference: 'none',
    judged: new URLSearchParams(asked.split('?')[1]).get('judged'),
  });
  expect(await lower.text()).toContain('nobody makes it less');
  await page.goto(asked);
  await page.locator('main textarea[name=what]').fill('Leak at the oil filler, cylinder 2');
  await page.locator('main').getByRole('button', { name: 'Put on the fix list' }).click();
  await expect(page).toHaveURL(/engine\/engine/);
  await page.goto(`${walk}/fix-list?q=oil filler`);
  await page.locator('.finds li a', { hasText: 'Leak at the oil filler' }).click();
  await expect(page.locator('.what-side')).toContainText('From a judgement.');
  await page.locator('.classify .choice', { hasText: 'recommended' }).click();
  await page.getByRole('button', { name: 'Set the class' }).click();
  await expect(page.locator('.classify .field-problem')).toContainText('nobody makes it less');
  await anew(page, page.getByRole('button', { name: 'Ask the owner' }));
  await page.goto(`${walk}/fix-list/owner`);
  await page.getByLabel(/mail/i).first().fill('owner@example.org');
  await page.getByRole('button', { name: 'Make the link and its mail' }).click();
  const link = await page.locator('a.link-once').getAttribute('href');
  const owner = await another();
  await owner.goto(link.replace(/^https?:\/\/[^/]+/, ''));
  const told = owner.locator('article', { hasText: 'Leak at the oil filler' });
  await expect(told).toContainText('must be put right before the aircraft can be signed');
  await expect(told).not.toContainText('may fly without it');
  await page.goto(`${walk}/close`);
  await expect(page.locator('.statement').first()).toContainText('a list of discrepancies and unairworthy items');
});

test('floats, plugs, metal in the filter and an exhaust that nobody looked at stand before the signature', async ({ page, shop }) => {
  const walk = shop.walks.N0LTS;
  await enterAs(page, 'wim');
  await page.goto(`${walk}/compressions`);
  const sheets = await page.locator('a[href*="/engine-sheet/"]').evaluateAll(links => links.map(link => link.getAttribute('href')));
  const [carburettor, oil] = [sheets.find(href => href.includes('/carburettor/')), sheets.find(href => href.includes('/oil/'))];
  for (const [position, grams] of [
    ['one', '4.2'],
    ['other', '4.1'],
  ])
    expect(
      (
        await send(page, `${carburettor}?handler=Value`, { reading: crypto.randomUUID(), of: 'float', position, value: grams, unit: 'g' })
      ).status(),
    ).toBe(302);
  expect((await send(page, `${oil}?handler=Cut`, { place: 'Filter', metal: 'Ferrous', amount: 'Chunks', words: '' })).status()).toBe(302);
  expect(
    (await send(page, `${walk}/plugs?handler=Step`, { reading: crypto.randomUUID(), hole: '1T', step: 'Ohms', value: '30000' })).status(),
  ).toBe(302);
  await page.goto(`${walk}/close`);
  for (const [what, rule] of [
    ['the pair of floats', 'A pair above 7.0 g'],
    ['Oil, filter', 'ferrous chunks'],
    ['Plug 1T, resistance', 'Above 5000 Ω'],
  ]) {
    const line = page.locator('.judged-line', { hasText: new RegExp(what, 'i') });
    await expect(line).toContainText(new RegExp(rule, 'i'));
    await expect(line.getByRole('link').first()).toHaveAttribute('href', /engine-sheet|plugs/);
  }
  await refusedToSign(page, walk);
  // A tired person takes the bad float back: what was judged is not forgotten with it.
  expect(
    (
      await send(page, `${carburettor}?handler=Value`, { reading: crypto.randomUUID(), of: 'float', position: 'one', value: '', unit: 'g' })
    ).status(),
  ).toBe(302);
  await page.goto(`${walk}/close`);
  await expect(page.locator('.judged-line', { hasText: /the pair of floats/i })).toContainText('taken back and not read again');
  // The annual on the trainer has plugs and an exhaust that nobody filled in.
  await enterAs(page, 'orla');
  await page.goto(`${shop.walks.N04QF}/close`);
  await expect(page.locator('.asked-line', { hasText: 'Mount and baffles' })).toContainText('0 of 5 done');
  await expect(page.locator('.asked-line', { hasText: 'Plugs' })).toContainText('of 8 done');
  await refusedToSign(page, shop.walks.N04QF);
});

test('an exhaust leak under the heat shroud never gets as far as the deferral test', async ({ page, shop }) => {
  const walk = shop.walks.N04QF;
  await enterAs(page, 'orla');
  expect(
    await (
      await send(page, `${walk}/find`, {
        what: 'Exhaust leak in the can under the cabin heat shroud',
        zone: 'engine',
        class: 'Deferrable',
        why: 'heat is off',
      })
    ).text(),
  ).toContain('Not deferrable.');
  expect(
    (
      await send(page, `${walk}/find`, {
        what: 'Exhaust leak in the can under the cabin heat shroud',
        zone: 'engine',
        class: 'Airworthiness',
      })
    ).status(),
  ).toBe(302);
  await page.goto(`${walk}/fix-list?q=heat shroud`);
  await page.locator('.finds li a', { hasText: 'heat shroud' }).click();
  const self = new URL(page.url()).pathname;
  await expect(page.locator('.classify input[value=Deferrable]')).toBeDisabled();
  await expect(page.locator('.classify')).toContainText('Exhaust that leaks brings carbon monoxide into the cabin');
  expect(await (await send(page, `${self}?handler=Classify`, { seen: '0', class: 'Deferrable', grounded: 'false' })).text()).toContain(
    'Not deferrable.',
  );
  expect(await (await send(page, `${self}?handler=Defer`, { question: 'equipment', says: 'Yes', words: '' })).text()).toContain(
    'for an open item of class deferrable',
  );
  expect((await page.request.get(`${self}/placard`)).status()).toBe(404);
});

test('what an unairworthy annual left open stays on the aircraft, until it is cleared by an entry or looked at again', async ({
  page,
  shop,
}) => {
  await enterAs(page, 'ines');
  await page.goto('/');
  const row = page.locator('tr', { hasText: 'N0TWQ' });
  await row.getByRole('link', { name: /1 airworthiness open since/ }).click();
  const file = new URL(page.url()).pathname.replace('/open-items', '');
  await expect(page.locator('.open-item', { hasText: 'seals weep' })).toContainText('26-111-01');
  await nothingSerious(page, 'open items', { colours: true });
  // Taken in again, it stands on the list from the start, and nobody signs before somebody has looked.
  await enterAs(page, 'orla');
  await page.goto(`/take-in?aircraft=${file.split('/').at(-1)}`);
  await expect(page.locator('#uncovered')).toContainText('3 left open by earlier inspections stand on the fix list');
  await page.getByLabel(/shows now, hours/).fill('5188');
  await page.getByRole('button', { name: 'Begin with its arrival' }).click();
  const walk = new URL(page.url()).pathname.replace('/arrive', '');
  await page.goto(`${walk}/fix-list`);
  await expect(page.locator('.finds li', { hasText: 'seals weep' })).toContainText('left open as 26-111-01, look again');
  await page.goto(`${walk}/close`);
  await expect(page.locator('.middle')).toContainText('left open as 26-111-01, and nobody has looked at it since');
  await expect(page.locator('.statement').first()).toContainText('unairworthy items');
  await refusedToSign(page, walk);
  // And it can't be cleared behind the inspection's back.
  await page.goto(`${file}/open-items`);
  await expect(page.locator('.open-items')).toContainText('which is in work: put them right there');
});

test('anybody entitled clears a line by a signed entry of its own, and the hangar says when it was the last', async ({
  page,
  shop,
  another,
}) => {
  await enterAs(page, 'ines');
  await page.goto('/');
  await page
    .locator('tr', { hasText: 'N0TWQ' })
    .getByRole('link', { name: /1 airworthiness open since/ })
    .click();
  const item = page.locator('.open-item', { hasText: 'seals weep' });
  await item.getByText('Clear it by an entry').click();
  await item.getByLabel('What was done').fill('Seals replaced, leg filled and charged, dry after a night.');
  await item.getByRole('button', { name: 'Sign the entry that clears it' }).click();
  await expect(item.locator('.field-problem')).toContainText('not your password');
  await expect(item.getByLabel('What was done'), 'what was typed stays').toHaveValue(/dry after a night/);
  await item.getByLabel('Your password, again').fill(password);
  await item.getByRole('button', { name: 'Sign the entry that clears it' }).click();
  await expect(item.locator('.field-problem')).toContainText('By which data');
  await item.getByLabel('By which data').fill('Corrin manual 32-10, rev. 7');
  await item.getByLabel('Your password, again').fill(password);
  await item.getByRole('button', { name: 'Sign the entry that clears it' }).click();
  await expect(page.locator('.open-item', { hasText: 'seals weep' })).toHaveCount(0);
  await page.locator('.answered summary').click();
  await page.locator('.answered p', { hasText: 'seals weep' }).getByRole('link').click();
  await expect(page.locator('.entry').last()).toContainText('the last airworthiness item that was left open on this aircraft is cleared');
  await page.goto('/');
  await expect(page.locator('tr', { hasText: 'N0TWQ' })).toContainText('unairworthy list of 26-111 cleared');
  // A helper sees the items, and no way to sign one away.
  const tamsin = await another('tamsin');
  await tamsin.goto('/');
  await tamsin
    .locator('tr', { hasText: 'N0TWQ' })
    .getByRole('link', { name: /more open/ })
    .click();
  await expect(tamsin.locator('.open-item').first()).toBeVisible();
  await expect(tamsin.getByText('Clear it by an entry')).toHaveCount(0);
});

test('a lubrication list that a helper ticked is no annual', async ({ page, shop, another }) => {
  await enterAs(page, 'orla');
  await page.goto('/');
  const file = await page.locator('tr', { hasText: 'N0TWQ' }).locator('a[href*="/aircraft/"]').first().getAttribute('href');
  await page.goto(`/take-in?aircraft=${file.split('/')[2]}`);
  while (await page.locator('#offers input:checked').count()) await page.locator('#offers input:checked').first().uncheck();
  await page.locator('#offers label', { hasText: 'Lubrication' }).locator('input').check();
  await expect(page.locator('#uncovered')).toContainText(/4\d of 14 CFR 43 Appendix D left out/);
  await page.getByLabel(/shows now, hours/).fill('5188');
  await page.getByRole('button', { name: 'Begin with its arrival' }).click();
  const walk = new URL(page.url()).pathname.replace('/arrive', '');
  const tamsin = await another('tamsin');
  await tamsin.goto(walk);
  const done = await tamsin.evaluate(async from => {
    for (let turns = 60; turns > 0; turns -= 1) {
      const answer = await fetch(from);
      if (answer.url.endsWith('/close')) return 0;
      const form = new DOMParser().parseFromString(await answer.text(), 'text/html').querySelector('[data-verdict]');
      const sent = new FormData(form);
      sent.set('verdict', 'Good');
      await fetch(form.getAttribute('action'), { method: 'POST', body: sent, redirect: 'manual' });
    }
    return 'tasks are left';
  }, walk);
  expect(done).toBe(0);
  await page.goto(`${walk}/close`);
  await expect(page.locator('#scope ~ p').first()).toContainText(/leave out 4\d of 14 CFR 43 Appendix D/);
  await expect(page.locator('.zone-look').first()).toContainText('waits for the look that counts');
  await expect(page.locator('.asked-line').first()).toBeVisible();
  await refusedToSign(page, walk);
  // Stated by the signer and looked at zone by zone, the rest still has to be there.
  await page.goto(`${walk}/close`);
  await page.getByLabel('Its title').fill('Corrin inspection checklist');
  await page.getByLabel('Revision or date').fill('rev. 11');
  await page.getByRole('button', { name: 'The inspection was done by this one' }).click();
  await expect(page.locator('.middle').getByText('By checklist Corrin inspection checklist, rev. 11')).toBeVisible();
  await refusedToSign(page, walk);
});
