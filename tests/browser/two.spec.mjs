// One at the desk and one away with a phone, at the same aircraft; and what the one with the phone has within reach of a thumb.
import { lender } from './playwright.config.mjs';
import { takeAlong, test } from './phone.mjs';
import { enterAs, expect, nothingSerious } from './shop.mjs';

const day = 86_400_000;
/** The clock of a phone that is wrong by so much, from the next page on. */
const setClock = (page, by) => page.evaluate(ms => localStorage.setItem('wrong', ms), by);

test.beforeEach(async ({ page }) => {
  await page.addInitScript(() => {
    const now = Date.now.bind(Date);
    Date.now = () => now() + Number(localStorage.getItem('wrong') ?? 0);
  });
  await enterAs(page, 'ines');
});

/** Somebody at the desk, whose network is never cut. */
const atDesk = async (browser, shop, name) => {
  const desk = await (await browser.newContext({ baseURL: shop.address })).newPage();
  await enterAs(desk, name);
  return desk;
};

test(
  'what the desk read and what a phone brings stand side by side, and a clock that is a day wrong changes no time',
  { tag: '@standing' },
  async ({ page, browser, shop, network }) => {
    const walk = shop.walks.N04QF;
    await takeAlong(page, walk);
    await page.goto(`${walk}/plugs`);
    const sheet = await page.locator('.engine-strip a[href*="/engine-sheet/run/"]').getAttribute('href');
    network.cut();
    await setClock(page, day);
    await page.goto(sheet);
    const drop = of => of.locator('.sheet-value', { hasText: 'Drop, left' }).last().locator('[name=value]');
    await drop(page).fill('190');
    await drop(page).blur();
    await expect(page.locator('#outbox')).toContainText('1 waiting to send');
    const desk = await atDesk(browser, shop, 'wim');
    await desk.goto(sheet);
    // The judgement is the desk's own, and there before the shop has the value: what is waited for is the shop's answer.
    const kept = desk.waitForResponse(answer => answer.request().method() === 'POST' && answer.ok());
    await drop(desk).fill('60');
    await drop(desk).blur();
    await kept;
    await expect(desk.locator('#said-mag-drop-left-after strong')).toHaveText('1–175 rpm.');

    // The phone's clock is put right by the network that it finds again.
    await setClock(page, 0);
    network.mend();
    await expect(page.locator('.as-of')).toHaveCount(0);
    const two = page.locator('.said-apart');
    for (const words of ['60 rpm', 'Wim Raskelf', '190 rpm', 'Ines Calloway']) await expect(two).toContainText(words);
    await desk.goto(`${walk}/close`);
    await expect(desk.locator('a.block', { hasText: 'two answers, said apart' })).toBeVisible();
    await two.getByRole('button', { name: 'Take this one' }).tap();
    await expect(two).toHaveCount(0);
    await expect(drop(page)).toHaveValue('190');
    await desk.goto(`${walk}/apart`);
    await expect(desk.getByText('not 60 rpm')).toBeVisible();

    // Said tomorrow, by the phone's clock, or yesterday: it stands as it arrived.
    const all = await (await fetch(`${lender}/shops/${shop.port}/inspections/${walk.split('/').pop()}`)).json();
    const told = JSON.parse(all.Inspections[0].SaidApart);
    const [{ otherBy, standsBy, chosenBy }] = told.is;
    for (const { at } of [otherBy, standsBy]) {
      expect(Date.parse(chosenBy.at) - Date.parse(at)).toBeLessThan(15 * 60_000);
      expect(Date.parse(chosenBy.at)).toBeGreaterThan(Date.parse(at));
    }
  },
);

test('letters, colours and the torch are within reach, and stay from page to page', { tag: '@standing' }, async ({ page, walk }) => {
  await page.addInitScript(() => {
    const track = {
      stop: () => sessionStorage.setItem('burns', 'no'),
      getCapabilities: () => ({ torch: true }),
      applyConstraints: async ({ advanced: [{ torch }] }) => sessionStorage.setItem('burns', torch ? 'yes' : 'no'),
    };
    const camera = { getTracks: () => [track], getVideoTracks: () => [track] };
    Object.defineProperty(navigator, 'mediaDevices', {
      value: { getSupportedConstraints: () => ({ torch: true }), getUserMedia: async () => camera },
    });
  });
  const burns = () => page.evaluate(() => sessionStorage.getItem('burns'));
  const key = page.getByRole('button', { name: 'Stations, letters, light' });
  await page.goto(`${walk}/airframe/cabin`);
  const size = () => page.locator('.task.current h2').evaluate(one => parseFloat(getComputedStyle(one).fontSize));
  const before = await size();
  await key.tap();
  const reach = page.locator('#in-hand');
  await nothingSerious(page, 'within reach', { colours: true });
  await reach.getByRole('button', { name: 'Larger letters' }).tap();
  await reach.getByRole('button', { name: 'In the sun' }).tap();
  await reach.getByRole('button', { name: 'Torch' }).tap();
  await expect.poll(burns).toBe('yes');
  await nothingSerious(page, 'in the sun', { colours: true });
  await page.evaluate(() => sessionStorage.setItem('burns', 'no, the page is another'));
  await reach.getByRole('link', { name: 'Airframe' }).tap();
  await page.waitForURL(/airframe$|airframe\/[^c]/);
  await expect.poll(burns, 'lit again').toBe('yes');
  await page.goto(`${walk}/airframe/cabin`);
  expect(await size()).toBeCloseTo(before * 1.2, 1);
  await expect(page.locator('html')).toHaveAttribute('data-light', 'sun');
  await key.tap();
  await expect(reach.getByRole('button', { name: 'Torch' })).toHaveAttribute('aria-pressed', 'true');
  await reach.getByRole('button', { name: 'Torch' }).tap();
  await expect.poll(burns).toBe('no');
  await reach.getByRole('button', { name: 'Larger letters' }).tap();
  await page.reload();
  expect(await size()).toBe(before);
});

test('a device whose camera has no torch says so', { tag: '@standing' }, async ({ page, walk }) => {
  await page.addInitScript(() => {
    const refuse = async () => {
      throw new DOMException('no camera', 'NotFoundError');
    };
    Object.defineProperty(navigator, 'mediaDevices', { value: { getSupportedConstraints: () => ({ torch: true }), getUserMedia: refuse } });
  });
  await page.goto(`${walk}/fix-list`);
  await page.getByRole('button', { name: 'Stations, letters, light' }).tap();
  await page.locator('[data-torch]').tap();
  await expect(page.locator('[data-torch]')).toHaveText('No torch that a page may light');
  await expect(page.locator('[data-torch]')).toBeDisabled();
});
