// Every main view: nothing serious for axe in either light, nothing wider than the screen, nothing refused by the policy.
import { enterAs, expect, nothingSerious, test } from './shop.mjs';

const views = [
  '/',
  '/shelf',
  '/people',
  '/take-in',
  '/due',
  '/plan',
  '/plan/me',
  '/plan/week',
  '/surveys',
  '/surveys/new',
  'SURVEY/order',
  'SURVEY/money',
  'SURVEY/survey-report',
  'SURVEY/dear/engine',
  'SURVEY/paper/papers',
  '/due/calendar',
  '/who-may?job=replace%20a%20tyre',
  '/bench',
  '/bench/compression?psi1=58&psi2=76',
  '/bench/magneto?pointsOpenDegrees=5&retardDegrees=30',
  '/bench/plug-rotation',
  '/bench/practice/burnt-valve',
  'FILE/trends',
  '/aircraft/new',
  '/aircraft/import',
  'FILE',
  'FILE?item=first',
  'FILE?add=true',
  'FILE/parts?part=first',
  'FILE/parts?add=true',
  'FILE/times',
  'FILE/books?add=entry',
  'FILE/data-plate',
  'FILE/job',
  'FILE/status',
  'FILE/passport',
  'FILE/next',
  'WALK/arrive',
  'WALK/plan',
  'WALK/look',
  'WALK/tags',
  'WALK/labels',
  'WALK/tools',
  'WALK/inspect',
  '/shelf/tools',
  '/shelf/types',
  '/shelf/worksheets/geared-four',
  'WALK/engine/engine',
  'WALK/airframe/cabin',
  'WALK/compressions',
  'TRAINER/plugs',
  'TRAINER/engine-logs',
  'TRAINER/pressure-altitude',
  'WALK/find?zone=tail',
  'WALK/fix-list',
  'TRAINER/fix-list/1',
  'TRAINER/fix-list/owner',
  'TRAINER/fix-list/report',
  'WALK/marks',
  '/outbox',
  '/share',
  '/bulletins',
  '/bulletins/new',
  'FILE/bulletins',
  'WALK/bulletins',
  'WALK/bulletins/status',
  'WALK/close',
  'WALK/records',
];

// Made of the same marks as another view, or looked at standing: they have to fit and to raise no complaint, and axe has looked at
// their like.
const alike = [
  '/bench',
  '/surveys',
  '/surveys/new',
  'SURVEY/paper/papers',
  '/bench/magneto?pointsOpenDegrees=5&retardDegrees=30',
  'TRAINER/pressure-altitude',
  '/due/calendar',
  '/aircraft/import',
  'FILE?add=true',
  'FILE/parts?add=true',
  'WALK/airframe/cabin',
  '/people',
  'WALK/labels',
  'WALK/tools',
  'WALK/inspect',
  '/shelf/tools',
  '/shelf/types',
  '/take-in',
  '/due',
  'FILE?item=first',
  'FILE/times',
  'WALK/plan',
  '/who-may?job=replace%20a%20tyre',
  'FILE/data-plate',
  'WALK/tags',
  'WALK/records',
  'TRAINER/fix-list/report',
  '/outbox',
  '/share',
  'WALK/marks',
];

// Standing, the same marks are laid out otherwise: axe looks at those with marks of their own.
const standingViews = ['/', 'SURVEY/money', 'WALK/arrive', 'WALK/airframe/cabin', 'WALK/find?zone=tail', 'WALK/fix-list', 'WALK/tags'];

// Contrast: the views that together show every colour, by day. The night hangar has other values of the same palette (PaletteTests).
const coloured = [
  '/',
  'SURVEY/money',
  'FILE',
  'TRAINER/plugs',
  '/bench/compression?psi1=58&psi2=76',
  'WALK/look',
  'WALK/airframe/cabin',
  'WALK/compressions',
  'WALK/find?zone=tail',
  'TRAINER/fix-list/1',
  'WALK/close',
];

// A dozen to a test, so that one that can't be read costs its dozen, and the others go on beside it.
const dozens = views => Array.from({ length: Math.ceil(views.length / 12) }, (_, dozen) => views.slice(dozen * 12, dozen * 12 + 12));

const over = page => page.evaluate(() => document.documentElement.scrollWidth - innerWidth);

async function read(page, shop, looked, look) {
  const complaints = [];
  page.on('console', message => {
    if (message.type() === 'error') complaints.push(`${page.url()}: ${message.text()} ${message.location().url}`);
  });
  page.on('pageerror', error => complaints.push(`${page.url()}: ${error.message}`));
  await enterAs(page, 'orla');
  const file = shop.files.N0TWQ;
  for (const view of looked) {
    let address = view
      .replace('WALK', shop.walks.N0LTS)
      .replace('TRAINER', shop.walks.N04QF)
      .replace('SURVEY', shop.walks.N0FLD)
      .replace('FILE', file);
    const first = view.match(/(item|part)=first/)?.[1];
    if (first) {
      await page.goto(first === 'item' ? file : `${file}/parts`);
      const link = await page
        .locator(first === 'item' ? 'a.due-row[href*="item="]' : '.parts a')
        .first()
        .getAttribute('href');
      address = address.replace('first', new URL(link, 'http://x').searchParams.get(first));
    }
    await page.goto(address);
    await look(view);
    const [desk, phone] = [page.viewportSize(), { width: 390, height: 844 }];
    expect(await over(page), `${view} is wider than the screen`).toBeLessThanOrEqual(0);
    // Its styles ask for the width alone: the page at hand is laid out for a phone, too.
    await page.setViewportSize(phone);
    expect(await over(page), `${view} is wider than a phone`).toBeLessThanOrEqual(0);
    await page.setViewportSize(desk);
  }
  expect(complaints).toEqual([]);
}

for (const [dozen, some] of dozens(views).entries()) {
  test(`every view can be read, and its marks and colours are sound: ${dozen + 1}`, async ({ page, shop }) => {
    await read(page, shop, some, async view => {
      const colours = coloured.includes(view);
      if (colours || !alike.includes(view)) await nothingSerious(page, view, { colours });
    });
  });
}

test('standing, the marks are sound where they are others than at the desk', { tag: '@standing' }, async ({ page, shop }) => {
  await read(page, shop, standingViews, view => nothingSerious(page, view));
});

test('the door is sound, and whoever is chosen there comes in', async ({ page }) => {
  await page.goto('/enter');
  await nothingSerious(page, 'enter');
  await page.locator('button[value=tamsin]').click();
  await expect(page).toHaveURL(/\/$/);
  await expect(page.locator('.me summary')).toHaveText('Tamsin Bexwell');
});

test('targets are large enough for a glove', { tag: '@standing' }, async ({ page, shop }) => {
  await enterAs(page, 'tamsin');
  for (const view of ['airframe/general', 'find?zone=gear', 'compressions', 'arrive', 'look', 'tags', 'tools', 'plugs', 'engine-logs']) {
    await page.goto(`${shop.walks.N0LTS}/${view}`);
    const small = await page
      .locator('main .btn:visible, main [data-psi]:visible, .class-choice:visible, .keypad button:visible')
      .evaluateAll(targets =>
        targets
          .map(target => [
            target.textContent.trim() || target.getAttribute('aria-label'),
            Math.round(target.getBoundingClientRect().height),
          ])
          .filter(([, height]) => height < 44),
      );
    expect(small, view).toEqual([]);
  }
});

test('the keys are listed, and none works while a person types', async ({ page, shop }) => {
  await enterAs(page, 'ines');
  await page.goto(`${shop.walks.N0BRM}/airframe/cabin`);
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
