// The aircraft's file and its arrival, as a person goes them: made, followed, taken in, looked at before it is touched.
import ICAL from 'ical.js';
import { enterAs, expect, nothingSerious, picture, standing, test } from './shop.mjs';

test('an aircraft gets its file, its drawing follows the choices, and it is taken in', async ({ page }) => {
  await enterAs(page, 'ines');
  await page.goto('/aircraft/new');
  await page.getByLabel('Registration', { exact: true }).fill('N0PTX');
  await page.getByLabel('Serial number', { exact: true }).fill('TX-9');
  await page.getByLabel('Type', { exact: true }).fill('Ferrow Linnet');
  await page.getByLabel('Category').selectOption('ExperimentalAmateurBuilt');
  // What is offered anew comes with its usual tick, what was unticked stays so.
  await expect(page.getByLabel(/Condition inspection/)).toBeChecked();
  await page.getByLabel(/Plugs cleaned, gapped/).uncheck();
  await page.getByLabel('retractable gear').check();
  await expect(page.locator('#drawn .caption')).toContainText('retractable');
  await expect(page.getByLabel(/Plugs cleaned, gapped/)).not.toBeChecked();
  await page.getByLabel('folding wing').check();
  await expect(page.locator('#drawn .caption')).toContainText('folding wing');
  await page.locator('select[name="Form.Engines"]').selectOption('2');
  await expect(page.getByLabel('Right engine serial')).toBeVisible();
  await expect(page.locator('#drawn .caption')).toContainText('two engines');
  await page.locator('select[name="Form.Engines"]').selectOption('1');
  await expect(page.locator('#drawn .caption')).toContainText('one engine');
  await page.getByLabel('It shows now, h').fill('712,4');
  await page.getByLabel('Bottom plugs fired by').selectOption('HighEnergy');
  await page.getByRole('button', { name: 'Make the file' }).click();
  await expect(page.locator('.field-problem')).toContainText("engine's serial");
  await expect(page.getByLabel('Registration', { exact: true })).toHaveValue('N0PTX');
  // The propeller's stands under the spinner: it is read off once that is open.
  await page.getByLabel('Engine serial').first().fill('E-1');
  // Nobody here knows a Linnet: it is a type of its own, by its maker.
  await page
    .getByRole('group', { name: /Ferrow Linnet/ })
    .getByText('a type of its own')
    .click();
  await page.getByLabel('Maker of “Ferrow Linnet”').fill('Ferrow');
  await page.getByRole('button', { name: 'Make the file' }).click();
  await expect(page.locator('.plate')).toContainText('N0PTX');
  await expect(page.locator('a.due-row').first()).toContainText('can’t tell yet');

  await page.getByRole('link', { name: /Take in for an inspection/ }).click();
  await page.getByLabel(/shows now, hours/).fill('713');
  await page.getByLabel(/What does the owner complain of/).fill('Left door rattles');
  await page.getByRole('button', { name: 'Begin with its arrival' }).click();
  await expect(page.locator('.squawks')).toContainText('“Left door rattles”');
});

test('a misspelt type is asked about, leaves bulletins open until it is settled, and then is right everywhere', async ({ page, shop }) => {
  await enterAs(page, 'ines');
  const file = shop.files.N04QF;
  const bulletins = page.locator('#CannotTell li');
  await page.goto(`${file}/bulletins`);
  const before = await bulletins.count();
  await page.goto(`${file}/data-plate`);
  await page.getByLabel('Type', { exact: true }).fill('Pelworth Dunlin 2');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.locator('.field-problem')).toContainText('Did you mean Pellworth Dunlin 2?');
  await expect(page.getByLabel('Type', { exact: true })).toHaveValue('Pelworth Dunlin 2');
  await page.getByText('leave it open').click();
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.locator('.plate')).toContainText('Pelworth Dunlin 2');

  // Not one binding bulletin says that it doesn't apply because of a letter.
  await page.goto(`${file}/bulletins`);
  expect(await bulletins.count()).toBeGreaterThan(before + 4);
  await page.goto('/shelf/types');
  const asked = page.locator('.unsettled', { hasText: 'Pelworth Dunlin 2' });
  await expect(asked).toContainText('N04QF');
  await nothingSerious(page);
  await asked.getByText('Pellworth Dunlin 2', { exact: true }).click();
  await asked.getByRole('button', { name: 'Settle it' }).click();
  await expect(page.locator('.unsettled', { hasText: 'Pelworth' })).toHaveCount(0);
  await page.goto(`${file}/bulletins`);
  await expect(page.locator('.plate')).toContainText('Pellworth Dunlin 2');
  await expect(bulletins).toHaveCount(before);
});

test('a due item is noted as done and moves along the line', async ({ page, shop }) => {
  await enterAs(page, 'ines');
  await page.goto(shop.files.N0LTS);
  const row = page.locator('a.due-row', { hasText: 'Transponder test' });
  const place = () => row.locator('.governs use').getAttribute('x').then(Number);
  const before = await place();
  await row.click();
  await page.locator('.done-form').getByLabel('Entered in').fill('Tollerby Instruments, sheet 12');
  await page.getByRole('button', { name: 'Note it as done' }).click();
  await expect(page.locator('.right')).toContainText('sheet 12');
  expect(await place()).toBeGreaterThan(before);
});

test('the calendar is one that another program can read', async ({ page }) => {
  await enterAs(page, 'orla');
  const answer = await page.request.get('/due.ics');
  const calendar = new ICAL.Component(ICAL.parse(await answer.text()));
  const events = calendar.getAllSubcomponents('vevent').map(event => new ICAL.Event(event));
  expect(events.length).toBeGreaterThan(20);
  expect(new Set(events.map(event => event.uid)).size).toBe(events.length);
  for (const event of events) {
    expect(event.startDate.isDate, 'all day').toBe(true);
    expect(event.endDate.subtractDate(event.startDate).toSeconds()).toBe(86_400);
  }
  expect(calendar.getFirstPropertyValue('version')).toBe('2.0');
  expect(events.map(event => event.summary)).toContain('N04QF: Annual inspection');
});

test('walking round, each picture is one touch and the next place is offered', { tag: '@both' }, async ({ page, shop }) => {
  await enterAs(page, 'piet');
  await page.goto(`${shop.walks.N0BRM}/arrive`);
  await expect(page.getByText('Photograph the nose')).toBeVisible();
  await page.locator('input[name=photo]').setInputFiles(await picture(page, 1200, 900));
  await expect(page.getByText('Photograph the right, from ahead')).toBeVisible();
  await expect(page.locator('.standpoint.seen')).toHaveCount(1);
  // What sends a chosen picture by itself is there when the page has loaded.
  await page.waitForLoadState('load');
  await page.locator('input[name=photo]').setInputFiles({ name: 'note.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture') });
  await expect(page.locator('.field-problem')).toContainText('not a JPEG');

  // A touch on the left wing, then the words.
  const box = await page.locator('svg.round').boundingBox();
  const at = { x: ((26 + 70) / 352) * box.width, y: ((12 + 136) / 334) * box.height };
  if (standing()) await page.locator('svg.round').tap({ position: at });
  else await page.locator('svg.round').click({ position: at });
  await expect(page.getByLabel('What is there')).toBeFocused();
  await page.getByLabel('What is there').fill('Fabric scuffed, a hand long');
  await page.getByRole('button', { name: 'Pin it' }).click();
  await expect(page.locator('.pins')).toContainText('Fabric scuffed');
  expect(Math.abs(Number((await page.locator('.pin').first().getAttribute('transform')).match(/[\d.]+/)[0]) - 70)).toBeLessThan(3);
});

test('the plan prints on one page', async ({ page, shop }) => {
  await enterAs(page, 'ines');
  await page.goto(`${shop.walks.N0BRM}/plan`);
  for (const format of ['A4', 'Letter']) {
    const pdf = await page.pdf({ format });
    expect(pdf.toString('latin1').match(/\/Type \/Page\b/g), format).toHaveLength(1);
  }
});

test('a file of times is looked at before it is taken in', async ({ page, shop }) => {
  await enterAs(page, 'ines');
  await page.goto(`${shop.files.N0FLD}/times`);
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from('day;hour meter\n20.10.2026;=1+1\n25.10.2026;142,5\n') });
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.locator('.times-file')).toContainText('is a formula, not a figure');
  await expect(page.getByRole('button', { name: /^Take in/ })).toHaveCount(0);
  await page
    .locator('.right input[type=file]')
    .setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from('day;hour meter\n20.10.2026;141,0\n25.10.2026;142,5\n') });
  await page.getByRole('button', { name: 'Look at it' }).click();
  await page.getByRole('button', { name: 'Take in 2 readings' }).click();
  await expect(page.locator('.parts')).toContainText('log.csv');
});

test('a passport is made beside the page and saved, and says what is in it where it is sent in', async ({ page, shop }) => {
  await enterAs(page, 'orla');
  await page.goto(`${shop.files.N0BRM}/passport`);
  await expect(page.locator('.goes')).toContainText('signed here, each with what it rests on');
  await page.getByRole('button', { name: 'Make the passport' }).click();
  // The page asks how far it is by itself.
  const saving = page.getByRole('link', { name: /^Save N0BRM-passport-/ });
  await expect(saving).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('button', { name: 'Make it anew' })).toBeVisible();
  await nothingSerious(page);
  const [download] = await Promise.all([page.waitForEvent('download'), saving.click()]);

  await page.goto('/aircraft/import');
  await page.locator('input[type=file]').setInputFiles(await download.path());
  await page.getByRole('button', { name: 'Check it' }).click();
  await expect(page.locator('.passport-facts')).toContainText('Hob & Daughters', { timeout: 30_000 });
  await expect(page.locator('#errand')).toContainText('This shop knows that key');
  await nothingSerious(page);
  await page.getByRole('button', { name: 'Take N0BRM in' }).click();
  await expect(page.getByRole('alert')).toContainText('N0BRM has a file here already', { timeout: 30_000 });
});
