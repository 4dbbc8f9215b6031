// Pictures and sounds of what is found, where the shop can't be reached: drawn on, measured, and there once it can.
import { open, takeAlong, test } from './phone.mjs';
import { enterAs, expect, nothingSerious, picture } from './shop.mjs';

test(
  'a picture is measured on before it is sent, with a sound beside it, and measures the same at the shop',
  { tag: '@standing' },
  async ({ page, walk, network }) => {
    await enterAs(page, 'ines');
    await takeAlong(page, walk);
    network.cut();
    await open(page, walk, 'airframe/cabin');
    await page.locator('a.found').click();
    const capture = page.locator('#capture');
    await capture.locator('textarea[name=what]').fill('Crack at the hinge bracket');
    const taken = await picture(page);
    await capture.locator('input[name=photos]').first().setInputFiles(taken);
    const heard = { name: 'tap.wav', mimeType: 'audio/wav', buffer: wave() };
    await capture.locator('input[name=sounds]').setInputFiles(heard);
    await expect(capture).toContainText('sound: tap.wav');
    await capture.getByRole('button', { name: /Draw and measure/ }).tap();
    const draw = page.locator('dialog.draw');
    await nothingSerious(page, 'drawing on a picture');
    const box = await draw.locator('[data-picture]').boundingBox();
    const drag = async (tool, from, to) => {
      await draw.getByRole('button', { name: tool, exact: true }).tap();
      await page.mouse.move(box.x + box.width * from[0], box.y + box.height * from[1]);
      await page.mouse.down();
      await page.mouse.move(box.x + box.width * to[0], box.y + box.height * to[1]);
      await page.mouse.up();
    };
    await drag('Scale', [0.1, 0.2], [0.9, 0.2]);
    await page.keyboard.press('Escape');
    await expect(draw).toContainText('Keep the drawing, or go back without it.');
    await draw.getByRole('button', { name: 'Keep the drawing' }).tap();
    await expect(draw).toContainText('Type the true distance');
    await draw.getByLabel(/True distance/).fill('80');
    await draw.getByRole('button', { name: 'Length', exact: true }).tap();
    for (const across of [0.3, 0.5]) await page.mouse.click(box.x + box.width * across, box.y + box.height * 0.6);
    await draw.getByRole('button', { name: 'Finish' }).tap();
    // A quarter of the scale's 80 mm.
    const size = draw.locator('.annotation-list li', { hasText: 'length' }).locator('.size');
    await expect(size).toHaveText(/^(19\.\d|20\.\d) ± \d\.\d+ mm \(0\.7\d+ ± 0\.0\d+ in\)$/);
    const measured = await size.textContent();
    await draw.getByLabel('Words of the length').fill('crack');
    await draw.getByRole('button', { name: 'Keep the drawing' }).tap();
    await expect(draw).toHaveCount(0);
    await expect(capture).toContainText('drawn on');
    await capture.getByRole('button', { name: 'Put on the fix list' }).tap();
    await expect(page.locator('#outbox')).toContainText('1 waiting to send');
    network.mend();
    await page.goto(`${walk}/fix-list`);
    await expect(page.locator('.as-of')).toHaveCount(0);
    await expect(page.locator('#outbox')).toBeHidden();
    await page.goto(`${walk}/fix-list`);
    await page.locator('.finds a', { hasText: 'Crack at the hinge bracket' }).first().tap();
    await expect(page.locator('.annotated svg')).toHaveAttribute('aria-label', new RegExp(measured.split(' (')[0]));
    await expect(page.locator('audio[src*="/sounds/"]')).toHaveCount(1);
    await page.locator('.annotated a, a:has(.annotated), a[href*="/photos/"]').first().tap();
    await expect(page.locator('.annotation-list li', { hasText: 'length' }).locator('.size')).toHaveText(measured);
  },
);

// A tenth of a second of silence, as a file.
function wave() {
  const bytes = Buffer.alloc(44 + 1600);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + 1600, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(8000, 24);
  bytes.writeUInt32LE(16000, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(1600, 40);
  return bytes;
}
