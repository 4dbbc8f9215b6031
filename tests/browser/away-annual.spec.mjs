// The rest of an annual, done where there is no network, and once more where there is one.
import { open, stored, takeAlong, test } from './phone.mjs';
import { lender } from './playwright.config.mjs';
import { anew, enterAs, expect, picture, putOnList, within } from './shop.mjs';

const waits = page => stored(page, 'outbox');

/** Does something by which so many things are said, and waits until they are kept: on the device, or by the shop. */
const keeping = async (told, work) => {
  const before = await told();
  const count = await work();
  await expect.poll(told, { message: 'what was said is kept', timeout: 60_000 }).toBe(before + count);
};

const press = async (page, within, name) => {
  const button = within.getByRole('button', { name });
  if (!(await page.locator('.as-of').count())) return anew(page, button);
  return keeping(
    () => waits(page),
    () => button.click().then(() => 1),
  );
};

// In the page: answers one task after the other for as long as they follow each other; gives back what was tried, and what is to be
// opened by its address.
const answerOn = async before => {
  const tried = new Set(before);
  const open = () => document.querySelector('.task.current')?.dataset.task;
  for (;;) {
    const task = open();
    const form = document.querySelector('.task.current form[data-verdict]');
    const good = form?.querySelector('[name=verdict][value=Good]');
    const isAnswered = () => open() !== task || document.querySelector(`#task-${task}:is(.waiting, :has([value=NotYet]))`) !== null;
    if (!good || isAnswered() || tried.has(task)) {
      // Compressions answer their task by themselves.
      const rows = document.querySelectorAll('.tasks > li[data-state=NotYet]:not(.waiting, :has(a[href*="/compressions"]))');
      const left = [...rows].map(row => row.dataset.task);
      return { tried: [...tried, task], next: left.find(one => !tried.has(one) && one !== task) };
    }
    tried.add(task);
    const limits = form.elements.value ? await withinLimits(form.closest('.task').querySelector('.task-head .soft').textContent) : '';
    const { value, temperature, wrench, reason } = form.elements;
    if (limits) value.value = limits;
    if (temperature) temperature.value ||= '20';
    if (wrench && !wrench.value) wrench.selectedIndex = 1;
    if (limits === null) reason.value = 'no such instrument';
    (limits === null ? form.querySelector('[value=NotApplicable]') : good).click();
    for (let turns = 600; !isAnswered(); turns -= 1) {
      if (!turns) throw new Error(`not answered: ${form.closest('.task').textContent}`);
      await new Promise(done => setTimeout(done, 50));
    }
  }
};
/** Everything that the tasks of a zone still ask for and no sheet answers. */
const answer = async (page, walk, zone) => {
  let [tried, next] = [[], ''];
  do {
    await open(page, walk, next ? `${zone}?task=${next}` : zone);
    if (next) await expect(page.locator(`#task-${next}`)).toHaveAttribute('data-current', '');
    ({ tried, next } = await page.evaluate(answerOn, tried));
  } while (next);
};
const zonesOf = async (page, walk, station) => {
  await open(page, walk, station);
  const links = await page.locator('.zones a').evaluateAll(all => all.map(one => new URL(one.href).pathname));
  return [...new Set(links)].filter(path => path.startsWith(`${walk}/${station}/`)).map(path => path.slice(walk.length + 1));
};

// In the page: types and chooses what its forms still have empty. A form is called by its last words: "Look", "magneto-timing/".
const fillIn = ([forms, given]) => {
  let typed = 0;
  for (const form of document.querySelectorAll(forms)) {
    const said = given[form.dataset.judges?.split('/').slice(2).join('/')];
    const fields = [...form.elements].filter(one => one.name === 'value');
    const field = fields.find(one => one.type === 'text' || one.value === said);
    if (!said || !field || fields.some(one => (one.type === 'text' ? one.value : one.checked))) continue;
    if (field.type === 'text') field.value = said;
    else field.checked = true;
    field.dispatchEvent(new Event('change', { bubbles: true }));
    typed += 1;
  }
  return typed;
};
const plug = { Look: 'Normal', Ohms: '1500', Clean: 'done', GapFound: '0.018', GapSet: '0.016', PressureTest: 'pass', Gasket: 'New' };
const sheet = {
  'magneto-primary/': '0.42',
  'magneto-secondary/': '13800',
  'magneto-capacitor/': '0.32',
  'magneto-points-gap/': '0.016',
  'magneto-timing/': '25',
  'exhaust-pressure/before': '2.5',
  'mixture-rise/after': '30',
  'bus-voltage/after': '14.1',
  'suction/after': '5',
};

// The rest of the trainer's annual, in parts between which the battery may die.
const annual = [
  async (page, walk) => {
    for (const zone of await zonesOf(page, walk, 'airframe')) await answer(page, walk, zone);
  },
  async (page, walk, told) => {
    for (const zone of await zonesOf(page, walk, 'engine')) await answer(page, walk, zone);
    await open(page, walk, 'tools');
    await page.getByLabel(/Torch, headband/).check();
    await press(page, page.locator('.tool-list'), 'Take these');
    await open(page, walk, 'compressions');
    for (const [cylinder, psi] of [
      [2, '57'],
      [4, '76'],
    ]) {
      const field = page.locator(`[data-psi="${cylinder}"]`).last();
      await keeping(told, async () => {
        await field.fill(psi);
        await field.press('Tab');
        return 1;
      });
    }
  },
  async (page, walk, told) => {
    await open(page, walk, 'tools');
    await press(page, page.locator('#tools-out li:not([hidden])', { hasText: 'Torch, headband' }).first(), 'Back in');
    await open(page, walk, 'tags');
    await page.locator('.tag-form').getByLabel('panel', { exact: true }).check();
    await page.locator('.tag-form').getByLabel('Zone').selectOption('tail');
    await page.locator('.tag-form').getByLabel('What').fill('Bellcrank cover');
    await press(page, page.locator('.tag-form'), 'Make its tag');
    await open(page, walk, 'plugs');
    for (const hole of await page.locator('a[href*="hole="][href$="B"]').evaluateAll(all => all.map(one => one.pathname + one.search))) {
      await open(page, walk, hole.slice(walk.length + 1));
      await keeping(told, () => page.evaluate(fillIn, ['[data-plug-step]', plug]));
    }
  },
  async (page, walk, told) => {
    await open(page, walk, 'tags');
    const tag = page.locator('.tags li', { hasText: 'Bellcrank cover' });
    await tag.getByLabel(/Looked inside/).check();
    await press(page, tag, 'Close it');
    await open(page, walk, 'plugs');
    for (const path of await page.locator('.engine-strip a[href*="/engine-sheet/"]').evaluateAll(all => all.map(one => one.pathname))) {
      await open(page, walk, path.slice(walk.length + 1));
      await keeping(told, () => page.evaluate(fillIn, ['form.sheet-value', sheet]));
    }
  },
  async (page, walk) => {
    await open(page, walk, 'fix-list');
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

// What somebody at the desk does of the same inspection meanwhile.
const meanwhile = async (browser, address, walk) => {
  const context = await browser.newContext({ baseURL: address });
  const page = await context.newPage();
  await enterAs(page, 'wim');
  await page.goto(`${walk}/arrive#squawk-3`);
  const squawk = page.locator('#squawk-3');
  await squawk.locator('summary').click();
  await squawk.locator('textarea').fill('Left cap gasket flattened: on the fix list.');
  await anew(page, squawk.getByRole('button', { name: 'Keep the answer' }));
  await putOnList(page, walk, 'Left cap gasket flattened', 'left-wing', 'Recommended', await picture(page));
  await context.close();
};

// What differs though the same was done: when, and the ids of what was made.
const said = (rows, known) =>
  JSON.stringify(rows, undefined, 1)
    .replace(/[0-9A-Fa-f]{8}-(?:[0-9A-Fa-f]{4}-){3}[0-9A-Fa-f]{12}/g, id => (known.has(id.toUpperCase()) ? id.toUpperCase() : 'an id'))
    .replace(/\d{4}-\d\d-\d\d[T ]\d\d:\d\d:\d\d[^"\\,]*/g, 'a time')
    .replace(/"[0-9a-f]{64}/g, '"a hash')
    .replace(/"\d{17,19}"/g, '"a time"');
const everything = async (port, id) => (await fetch(`${lender}/shops/${port}/inspections/${id}`)).json();

test(
  'an annual without a network, on a phone that dies four times, arrives as if it had been done at the desk',
  { tag: '@standing' },
  async ({ shop, network, phone, another, browser }) => {
    const walk = shop.walks.N04QF;
    const id = walk.split('/').pop();
    const before = await everything(shop.port, id);
    const known = new Set(
      JSON.stringify(before)
        .match(/[0-9A-Fa-f]{8}-(?:[0-9A-Fa-f]{4}-){3}[0-9A-Fa-f]{12}/g)
        .map(one => one.toUpperCase()),
    );
    const start = async () => {
      const page = await phone.start();
      await page.exposeFunction('withinLimits', within);
      return page;
    };
    let page = await start();
    await enterAs(page, 'ines');
    await takeAlong(page, walk);
    network.cut();
    // Somebody at the desk goes on meanwhile.
    await meanwhile(browser, shop.address, walk);
    const count = (await everything(shop.port, id)).Postings.length;
    for (const [part, work] of annual.entries()) {
      await work(page, walk, () => waits(page));
      if (part === annual.length - 1) break;
      await phone.die();
      page = await start();
    }
    const waiting = await waits(page);
    network.mend();
    // What the browser knew of the shop may die with the battery: it is asked who it is, and then all goes out.
    await enterAs(page, 'ines');
    network.drop(3);
    await expect(page.locator('#outbox')).toBeHidden({ timeout: 240_000 });
    network.drop(0);
    const away = await everything(shop.port, id);
    expect(away.Postings.length - count, 'each post once').toBe(waiting);

    // The same by somebody who never lost the network.
    const other = await (await fetch(`${lender}/shops`, { method: 'POST' })).json();
    await meanwhile(browser, other.address, walk);
    const desk = await another();
    await desk.exposeFunction('withinLimits', within);
    network.to(other.port);
    await enterAs(desk, 'ines');
    for (const work of annual) await work(desk, walk, async () => (await everything(other.port, id)).Postings.length);
    await expect(desk.locator('#outbox')).toBeHidden();
    const done = await everything(other.port, id);
    await fetch(`${lender}/shops/${other.port}`, { method: 'DELETE' });
    // What was brought later says when it was said and when it came; what was said at the desk has nothing of that.
    const counts = of => JSON.parse(of.Inspections[0].CameLate).is.map(({ count }) => count);
    expect(counts(done)).toEqual([]);
    expect(counts(away).reduce((sum, one) => sum + one, 0)).toBeLessThanOrEqual(waiting);
    for (const { Inspections } of [away, done]) delete Inspections[0].CameLate;
    // All of it: what is left are the tasks that go by their sheets.
    const left = done.InspectionTask.filter(({ Verdict }) => Verdict === 'NotYet').map(({ Text }) => Text.split(/[:,]/)[0]);
    expect(left.sort()).toEqual(['Differential compression', 'Exhaust', 'Magnetos and harness', 'Spark plugs']);
    // Which page somebody looked at last is known of a page that the shop was asked for.
    for (const table of Object.keys(done).filter(name => !['Postings', 'Whereabouts'].includes(name)))
      expect(said(away[table], known), table).toBe(said(done[table], known));
  },
);
