// What is typed where the shop can't be asked is judged on the device, in the shop's own words.
import { takeAlong, test } from './phone.mjs';
import { enterAs, expect, heading } from './shop.mjs';

test.beforeEach(async ({ page }) => {
  await enterAs(page, 'ines');
});

const judgement = at => at.locator('.judged p').first();

test(
  'a hot cylinder that is low is tried again, and rejected, by the words that the shop says afterwards',
  { tag: '@standing' },
  async ({ page, shop, network }) => {
    const walk = shop.walks.N04QF;
    await takeAlong(page, walk);
    await page.goto(`${walk}/compressions`);
    const newTest = await page.getByRole('link', { name: /^Start a new test/ }).getAttribute('href');
    network.cut();
    await page.goto(newTest);
    await page.getByRole('radio', { name: /^Hot/ }).check();
    await page.getByLabel('Read and done').check();
    await page.getByRole('button', { name: 'Begin the test' }).click();
    const cylinder = page.locator('.engine-waiting .cylinder').first();
    const first = cylinder.locator('[data-psi]').first();
    await first.fill('9o');
    await expect(cylinder).toContainText('is not a reading');
    await first.fill('93');
    await expect(cylinder).toContainText('93 is above the supply of 80 psi');
    await first.fill('52');
    await expect(judgement(cylinder)).toContainText('test again: Below 60/80 at the first try');
    await expect(judgement(cylinder)).toContainText('AC 43.13-1B');
    await expect(cylinder.locator('[data-psi]')).toHaveCount(1);
    await page.locator('.leak-key', { hasText: 'exhaust' }).click();
    await expect(judgement(cylinder)).toContainText('exhaust pipe: exhaust valve');
    const again = cylinder.locator('.again');
    await again.locator('[data-psi]').fill('54/80');
    await again.locator('[data-psi]').blur();
    await expect(judgement(again)).toContainText('reject: Below 60/80 after a second hot try.');
    // Picked up again, both tries stand there as they were said.
    await page.reload();
    await expect(again.locator('[data-psi]')).toHaveValue('54/80');
    await expect(judgement(again)).toContainText('reject: Below 60/80 after a second hot try.');
    await expect(first).toHaveValue('52');
    network.mend();
    await expect(page.locator('.as-of')).toHaveCount(0);
    await page.goto(`${walk}/compressions`);
    await expect(page.locator('.cylinder').first()).toContainText('Below 60/80 after a second hot try');
    await expect(page.locator('.cylinder').first().locator('[data-psi]')).toHaveCount(2);
  },
);

test(
  'a measured task, a value of a sheet and a plug are judged where they are typed',
  { tag: '@standing' },
  async ({ page, shop, network }) => {
    const walk = shop.walks.N04QF;
    await takeAlong(page, walk);
    await page.goto(`${walk}/plugs`);
    const plug = await page.locator('a[href*="hole=2T"]').first().getAttribute('href');
    const sheet = await page.locator('.engine-strip a[href*="/engine-sheet/run/"]').getAttribute('href');
    network.cut();
    await page.goto(plug);
    const [ohms, look] = [page.locator('.step-ohms'), page.locator('.step-look')];
    for (const [value, words] of [
      ['6k', 'Above 5000 Ω'],
      ['6 volts', 'is a voltage'],
      ['3500', 'From 3000 to 5000 Ω'],
    ]) {
      await ohms.locator('[name=value]').fill(value);
      await expect(page.locator('#said-Ohms')).toContainText(words);
    }
    await look.getByLabel('insulator cracked').check();
    await expect(page.locator('#said-Look')).toContainText('A cracked insulator is scrap');
    await expect(page.locator('#plug-said')).not.toContainText('done');
    await page.goto(sheet);
    const value = page.locator('.sheet-value', { hasText: 'Drop, left' }).last();
    const field = value.locator('[name=value]');
    await field.fill('190');
    await field.blur();
    const place = page.locator(await value.getAttribute('data-judged'));
    await expect(place).toContainText('reject: 1–175 rpm. 15 rpm over.');
    await expect(page.locator('#sheet-aside')).not.toContainText('Even');
    network.mend();
    await expect(page.locator('.as-of')).toHaveCount(0);
    await expect(place).toContainText('1–175 rpm. 15 rpm over.');
    await page.goto(plug);
    await expect(page.locator('#said-Ohms')).toContainText('From 3000 to 5000 Ω');
    await expect(page.locator('#said-Look')).toContainText('A cracked insulator is scrap');
  },
);

test(
  'what values come to together, and what a filter showed, are said without the shop',
  { tag: '@standing' },
  async ({ page, shop, network }) => {
    const walk = shop.walks.N04QF;
    await takeAlong(page, walk);
    await page.goto(`${walk}/plugs`);
    const sheet = kind => page.locator(`.engine-strip a[href*="/engine-sheet/${kind}/"]`).first().getAttribute('href');
    const [run, oil] = [await sheet('run'), await sheet('oil')];
    await page.goto(oil);
    await page.goto(run);
    const right = Number(await page.locator('.sheet-value', { hasText: 'Drop, right' }).last().locator('[name=value]').inputValue());
    network.cut();
    await page.goto(run);
    const left = page.locator('.sheet-value', { hasText: 'Drop, left' }).last().locator('[name=value]');
    const aside = page.locator('#sheet-aside');
    await left.fill(`${right + 51}`);
    await expect(aside).toContainText('Run-up after the work');
    await expect(judgement(aside)).toContainText('reject: The two more than 50 rpm apart. Look at the left magneto');
    await left.fill(`${right + 50}`);
    await left.blur();
    await expect(judgement(aside)).toContainText('good: The two within 50 rpm of each other.');
    // A cylinder of one test, among its mates: the best and the worst.
    await page.goto(`${walk}/compressions`);
    const overall = page.locator('#overall');
    for (const [cylinder, psi] of [
      [2, '61'],
      [4, '77'],
    ]) {
      await page.locator(`[data-psi="${cylinder}"]`).last().fill(psi);
      await page.locator(`[data-psi="${cylinder}"]`).last().blur();
    }
    await expect(judgement(overall)).toContainText('watch: Spread of 16 psi between best and worst, 15 and over.');
    // The filter, by what it showed last time.
    await page.goto(oil);
    await page.locator('.cut-form').getByLabel('ferrous').check();
    await page.locator('.cut-form').getByLabel('flakes').check();
    await expect(judgement(page.locator('#cut-said'))).toContainText('reject: ferrous flakes.');
    await expect(judgement(page.locator('#cut-said'))).toContainText("Don't fly it");
    await page.getByRole('button', { name: 'Keep what it showed' }).click();
    await expect(page.locator('#outbox')).toContainText('4 waiting to send');
    network.mend();
    await expect(page.locator('.as-of')).toHaveCount(0);
    await expect(page.locator('.cut-said').first()).toContainText('ferrous flakes');
    await page.goto(run);
    await expect(judgement(aside)).toContainText('The two within 50 rpm of each other');
    await page.goto(`${walk}/compressions`);
    await expect(overall).toContainText('Spread 16 psi');
  },
);

test('a value is on the device though its page went before it was written down', { tag: '@standing' }, async ({ page, shop, network }) => {
  const walk = shop.walks.N04QF;
  await takeAlong(page, walk);
  network.cut();
  // A page that is too slow to seal anything itself.
  await page.addInitScript(() => {
    crypto.subtle.encrypt = () => new Promise(() => {});
  });
  await page.goto(`${walk}/compressions`);
  await page.locator('[data-psi="2"]').last().fill('61');
  await page.locator('[data-psi="2"]').last().blur();
  await page.goto(`${walk}/airframe`);
  await expect(page.locator('#outbox')).toContainText('1 waiting to send');
  await page.goto(`${walk}/compressions`);
  await expect(page.locator('[data-psi="2"]').last()).toHaveValue('61');
  // Without room there it isn't kept: the next page says so.
  const [worker] = page.context().serviceWorkers();
  await worker.evaluate(() => {
    IDBObjectStore.prototype.add = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await page.locator('[data-psi="4"]').last().fill('77');
  await page.locator('[data-psi="4"]').last().blur();
  await page.goto(`${walk}/airframe`);
  await expect(page.locator('#connection')).toContainText(/no room to keep “.*4.*77/);
  await expect(page.locator('#outbox')).toContainText('1 waiting to send');
  network.mend();
  await expect(page.locator('.as-of')).toHaveCount(0);
  await expect(page.locator('#outbox')).toBeHidden();
  await page.goto(`${walk}/compressions`);
  await expect(page.locator('[data-psi="2"]').last()).toHaveValue('61');
});

test(
  'a measured task that is out of limits, or that nobody read, is not called good without the shop',
  { tag: '@standing' },
  async ({ page, walk, network }) => {
    await takeAlong(page, walk);
    network.cut();
    await page.goto(`${walk}/airframe/cabin`);
    const good = page.getByRole('button', { name: /^(Good|Done)/ });
    while (!(await page.getByLabel('Reading').count())) {
      const title = await heading(page).textContent();
      await good.click();
      await expect(heading(page)).not.toHaveText(title);
    }
    const title = await heading(page).textContent();
    await good.click();
    await expect(page.locator('.judged-value')).toContainText('Type the value you read, in V.');
    await page.getByLabel('Reading').fill('11.9');
    await expect(page.locator('.judged-value')).toContainText('at least 12.4 V. 0.5 V under.');
    await good.click();
    await expect(page.locator('.judged-value')).toContainText('at least 12.4 V: not good.');
    await expect(heading(page)).toHaveText(title);
    await page.getByLabel('Reading').fill('12,6');
    await expect(page.locator('.judged-value')).toContainText('Within limits.');
    await good.click();
    await expect(heading(page)).not.toHaveText(title);
  },
);
