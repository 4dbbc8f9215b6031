// Every main view: nothing serious for axe in either light, nothing wider than the screen, nothing refused by the policy.
import { expect, test } from '@playwright/test';
import { enterAs, fileOf, nothingSerious, walkOf } from './shop.mjs';

const views = ['/', '/shelf', '/people', '/take-in', '/due', '/due/calendar', '/who-may?job=replace%20a%20tyre', '/bench', '/bench/compression?psi1=58&psi2=76', '/bench/magneto?pointsOpenDegrees=5&retardDegrees=30', '/bench/plug-rotation', '/bench/practice/burnt-valve', 'FILE/trends', '/aircraft/new', '/aircraft/import', 'FILE', 'FILE?item=first', 'FILE?add=true', 'FILE/parts?part=first', 'FILE/parts?add=true', 'FILE/times', 'FILE/books?add=entry', 'FILE/data-plate', 'WALK/arrive', 'WALK/plan', 'WALK/look', 'WALK/tags', 'WALK/labels', 'WALK/tools', 'WALK/inspect', '/shelf/tools', '/shelf/worksheets/geared-four', 'WALK/engine/engine', 'WALK/airframe/cabin', 'WALK/compressions', 'TRAINER/plugs', 'TRAINER/engine-logs', 'TRAINER/pressure-altitude', 'WALK/find?zone=tail', 'WALK/fix-list', 'TRAINER/fix-list/1', 'TRAINER/fix-list/owner', 'TRAINER/fix-list/report', 'WALK/marks', '/outbox', '/share', '/bulletins', '/bulletins/new', 'FILE/bulletins', 'WALK/bulletins', 'WALK/bulletins/status', 'WALK/close', 'WALK/records'];

// Made of the same marks as another view, or looked at standing: they have to fit and to raise no complaint, and axe has looked at their like.
const alike = ['/bench', '/bench/magneto?pointsOpenDegrees=5&retardDegrees=30', 'TRAINER/pressure-altitude', '/due/calendar', '/aircraft/import', 'FILE?add=true', 'FILE/parts?add=true', 'WALK/airframe/cabin', '/people', 'WALK/labels', 'WALK/tools', 'WALK/inspect', '/shelf/tools', '/take-in', '/due', 'FILE?item=first', 'FILE/times', 'WALK/plan', '/who-may?job=replace%20a%20tyre', 'FILE/data-plate', 'WALK/tags', 'WALK/records', 'TRAINER/fix-list/report', '/outbox', '/share', 'WALK/marks'];

// Standing, the same marks are laid out otherwise: every view has to fit the screen, and axe looks at those with marks of their own.
const standingViews = ['/', 'WALK/arrive', 'WALK/airframe/cabin', 'WALK/find?zone=tail', 'WALK/fix-list', 'WALK/tags'];

// Contrast, in either light: the views that together show every colour are enough.
const coloured = ['/', 'FILE', 'TRAINER/plugs', '/bench/compression?psi1=58&psi2=76', 'WALK/look', 'WALK/airframe/cabin', 'WALK/compressions', 'WALK/find?zone=tail', 'TRAINER/fix-list/1', 'WALK/close'];

const standing = () => test.info().project.name === 'standing';

for (const colorScheme of ['light', 'dark']) {
  test(`every view can be read, ${colorScheme}`, async ({ browser }) => {
    test.slow();
    test.skip(colorScheme === 'dark' && standing(), 'the colours are the same in either posture');
    const { baseURL, viewport, hasTouch } = test.info().project.use;
    const context = await browser.newContext({ baseURL, viewport, hasTouch, colorScheme });
    const page = await context.newPage();
    const complaints = [];
    page.on('console', message => { if (message.type() === 'error') complaints.push(`${page.url()}: ${message.text()} ${message.location().url}`); });
    page.on('pageerror', error => complaints.push(`${page.url()}: ${error.message}`));
    await page.goto('/enter');
    await nothingSerious(page, 'enter');
    await enterAs(page, 'orla');
    // Others are at these walks meanwhile: each view has to stand in whatever state they leave it.
    const walk = await walkOf(page, 'N0LTS');
    const trainer = await walkOf(page, 'N04QF');
    // The twin's file: nobody changes it meanwhile.
    const file = await fileOf(page, 'N0TWQ');
    await page.goto(file);
    const item = new URL(await page.locator('a.due-row[href*="item="]').first().getAttribute('href'), 'http://x').searchParams.get('item');
    await page.goto(`${file}/parts`);
    const part = new URL(await page.locator('.parts a').first().getAttribute('href'), 'http://x').searchParams.get('part');
    const looked = standing() ? standingViews : views.filter(view => !alike.includes(view));
    for (const view of colorScheme === 'dark' ? coloured : views) {
      await page.goto(view.replace('WALK', walk).replace('TRAINER', trainer).replace('FILE', file).replace('item=first', `item=${item}`).replace('part=first', `part=${part}`));
      if (looked.includes(view) && colorScheme === 'light') await nothingSerious(page, view);
      if (coloured.includes(view) && !standing()) await nothingSerious(page, `${view} ${colorScheme}`, ['color-contrast']);
      expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth), `${view} is wider than the screen`).toBeLessThanOrEqual(0);
    }
    expect(complaints).toEqual([]);
    await context.close();
  });
}

test('targets are large enough for a glove', async ({ page }) => {
  test.skip(test.info().project.name !== 'standing', 'at the desk there is a mouse');
  await enterAs(page, 'tamsin');
  const walk = await walkOf(page, 'N0LTS');
  for (const view of ['airframe/general', 'find?zone=gear', 'compressions', 'arrive', 'look', 'tags', 'tools', 'plugs', 'engine-logs']) {
    await page.goto(`${walk}/${view}`);
    const small = await page.locator('main .btn:visible, main [data-psi]:visible, .class-choice:visible, .keypad button:visible').evaluateAll(targets =>
      targets.map(target => [target.textContent.trim() || target.getAttribute('aria-label'), Math.round(target.getBoundingClientRect().height)]).filter(([, height]) => height < 44));
    expect(small, view).toEqual([]);
  }
});

test('the keys are listed, and none works while a person types', async ({ page }) => {
  test.skip(test.info().project.name !== 'sitting', 'keys are for the desk');
  await enterAs(page, 'ines');
  const walk = await walkOf(page, 'N0BRM');
  await page.goto(`${walk}/airframe/cabin`);
  await page.keyboard.press('?');
  await expect(page.locator('#keys')).toContainText('Found something');
  await page.keyboard.press('Escape');
  await page.keyboard.press('f');
  const words = page.locator('#capture textarea[name=what]');
  await expect(words).toBeFocused();
  await words.pressSequentially('g f d n');
  await expect(words).toHaveValue('g f d n');
  await expect(page).toHaveURL(/cabin/);
});
