// Without a connection: what is answered waits on the device, can be taken back there, and goes out once.
import { enterAs, expect, heading, openZone, say, standing, test } from './shop.mjs';

let walk;

test.beforeEach(async ({ page, shop }) => {
  await enterAs(page, 'ines');
  walk = shop.walks.N0BRM;
});

test('without a connection an answer is taken back on the device, and the task is open again', { tag: '@both' }, async ({ page: ines }) => {
  await openZone(ines, `${walk}/airframe/cabin`);
  const title = await heading(ines).textContent();
  const shown = await ines.locator('.task.current').innerText();
  await ines.context().setOffline(true);
  await say(ines, 'g', /^(Good|Done)/);
  await expect(heading(ines)).not.toHaveText(title);
  await expect(ines.locator('.tasks > li', { hasText: title })).toContainText('kept on this device');
  const next = await heading(ines).textContent();
  await say(ines, 'u', /^Undo/);
  await expect(heading(ines)).toHaveText(title);
  expect(await ines.locator('.task.current').innerText(), 'as the shop made it').toBe(shown);
  await expect(ines.locator('.tasks > li', { hasText: next }).getByRole('link')).toBeVisible();
  await expect(ines.locator('#outbox')).toBeHidden();
  await ines.context().setOffline(false);
  await say(ines, 'g', /^(Good|Done)/);
  await expect(ines.locator('#undo')).toContainText('good');
  await expect(ines.locator('.zone-head .answered')).toHaveText(/^1 of/);
});

test('what was kept on the device and then sent says so, whatever is open', async ({ page: ines, another }) => {
  await openZone(ines, `${walk}/airframe/general`);
  const total = Number((await ines.locator('.zone-head .answered').textContent()).split(' ')[2]);
  await ines.context().setOffline(true);
  for (const turn of [1, 2]) {
    await ines.getByRole('button', { name: /^Good/ }).click();
    await expect(ines.locator('.tasks > li', { hasText: 'kept on this device' })).toHaveCount(turn);
  }
  await ines.locator('.not-here summary').click();
  await ines.getByLabel('Why is it not on this aircraft?').fill('not fitted');
  const orla = await another('orla');
  await orla.goto(`${walk}/airframe/general`);
  await orla.evaluate(async () => {
    for (const line of [...document.querySelectorAll('.tasks > li')].slice(2)) {
      const page = await (await fetch(`?task=${line.dataset.task}`)).text();
      const form = new DOMParser().parseFromString(page, 'text/html').querySelector('[data-verdict]');
      const sent = new FormData(form);
      sent.set('verdict', 'Good');
      await fetch(form.getAttribute('action'), { method: 'POST', body: sent });
    }
  });
  await orla.reload();
  await expect(orla.locator('.zone-head .answered')).toHaveText(new RegExp(`^${total - 2} of`));
  await ines.context().setOffline(false);
  await expect(ines.locator('.zone-head .answered')).toHaveText(`${total} of ${total} answered`);
  await expect(ines.locator('.tasks')).not.toContainText('kept on this device');
  await expect(ines.locator('.someone')).toContainText('Meanwhile Orla Hob');
  await expect(ines.getByLabel('Why is it not on this aircraft?')).toHaveValue('not fitted');
});

test('a connection that drops in the middle of ten verdicts loses none', { tag: '@standing' }, async ({ page: ines }) => {
  await openZone(ines, `${walk}/airframe/cabin`);
  const done = async () => Number((await ines.locator('.zone-head .answered').textContent()).split(' ')[0]);
  const before = await done();
  const answered = [];
  for (let verdict = 0; verdict < 10; verdict += 1) {
    if (verdict === 4) await ines.context().setOffline(true);
    if (verdict === 8) await ines.context().setOffline(false);
    const title = await heading(ines).textContent();
    answered.push(title);
    if (await ines.getByLabel('Reading').count()) await ines.getByLabel('Reading').fill('12.7');
    await ines.getByRole('button', { name: /^(Good|Done)/ }).click();
    await expect(heading(ines)).not.toHaveText(title);
    if (verdict === 5) await expect(ines.locator('#outbox')).toContainText('waiting to send');
  }
  await expect(ines.locator('#outbox')).toBeHidden({ timeout: 30_000 });
  await ines.reload();
  expect(await done()).toBe(before + 10);
  for (const title of answered) {
    await expect(ines.locator('.tasks > li', { hasText: title }).first().locator('.state')).toHaveAttribute('aria-label', 'good');
  }
});

test(
  'what another person pressed on this device waits for that person, though the release before kept it elsewhere',
  { tag: '@standing' },
  async ({ page: ines }) => {
    await openZone(ines, `${walk}/airframe/left-wing`);
    const theirs = { me: 'somebody-else', url: '/nowhere', post: 'p', task: 't', what: 'Theirs', body: [] };
    await ines.evaluate(entry => localStorage.setItem('rivet:verdicts', JSON.stringify([entry])), theirs);
    await ines.reload();
    const title = await heading(ines).textContent();
    await say(ines, 'g', /^Good/);
    await expect(heading(ines)).not.toHaveText(title);
    await expect(ines.locator('#outbox')).toBeHidden();
    const kept = await ines.evaluate(
      () =>
        new Promise(done => {
          const asked = indexedDB.open('rivet-device');
          asked.onsuccess = () => {
            const all = asked.result.transaction('outbox').objectStore('outbox').getAll();
            all.onsuccess = () => done(all.result.map(one => [one.me, one.state]));
          };
        }),
    );
    expect(kept).toContainEqual(['somebody-else', 'waits']);
  },
);
