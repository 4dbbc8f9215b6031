// Seen or heard now, said later.
import { enterAs, expect, picture, test } from './shop.mjs';

test('a picture alone goes on the list and is put in words later; a long video is told before it is sent', async ({ page, shop }) => {
  await enterAs(page, 'ines');
  await page.goto(`${shop.walks.N0LTS}/airframe/gear`);
  await page.locator('a.found').click();
  const dialog = page.locator('#capture form');
  await dialog.getByRole('button', { name: 'Put on the fix list' }).click();
  await expect(dialog.locator('[data-problems]')).toContainText('or let a picture, a sound or a video say it');
  const videos = dialog.locator('input[name=videos]');
  await videos.setInputFiles('../MellowRivet.Store.Tests/Clips/too-long.webm');
  await expect(dialog.locator('[data-problems]')).toContainText('runs 31 s, and 30 s is the most');
  await expect(videos).toHaveValue('');
  await dialog
    .locator('input[name=photos]')
    .first()
    .setInputFiles(await picture(page));
  await dialog.getByRole('button', { name: 'Put on the fix list' }).click();
  await expect(page.locator('#captured')).toContainText('is on the fix list as airworthiness');
  await page.locator('#captured a').click();
  await expect(page.locator('h1')).toContainText('To be put in words');
  await page.getByLabel('What is it?').fill('Brake hose rubs the left leg');
  await page.getByRole('button', { name: 'Put in words' }).click();
  await expect(page.locator('h1')).toContainText('Brake hose rubs the left leg');
});
