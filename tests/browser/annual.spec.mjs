// The whole path, as a person goes it: compressions, tasks, a directive, close, sign, print.
import { anew, enterAs, expect, kept, nothingSerious, password, picture, sendAll, sendEach, test, within } from './shop.mjs';

let walk;

test.beforeEach(async ({ page, shop }) => {
  await enterAs(page, 'orla');
  walk = shop.walks.N04QF;
});

// One story, from the last cylinder to the stickers. Closing is done sitting.
test('an annual is finished, signed as unairworthy, and printed', async ({ page, another }) => {
  await test.step('compressions are typed cylinder after cylinder without leaving the keyboard', async () => {
    await page.goto(`${walk}/compressions`);
    const field = number => page.locator(`[data-psi="${number}"]`);
    await field(3).first().focus();
    await page.keyboard.press('Enter');
    await expect(field(4).first()).toBeFocused();
    await page.keyboard.type('81');
    await expect(page.locator('#live-4')).toContainText('above the supply of 80');
    await page.keyboard.press('Control+A');
    await page.keyboard.type('77/80');
    await expect(page.locator('#live-4')).toContainText('good');
    await page.keyboard.press('Enter');
    await expect(page.locator('#mates tr').nth(4)).toContainText('77');
    await expect(page.locator('#overall')).toContainText('next: cylinder 2');

    // The second try of cylinder 2 has its own field below the first.
    const again = page.locator('#said-2 [data-psi]');
    await again.fill('57');
    await again.press('x');
    await again.press('Enter');
    await expect(page.locator('#said-2')).toContainText('Below 60/80 after a second hot try');
    await expect(page.locator('#overall')).toContainText('all read');
    await expect(page.locator('#mates')).toContainText('Put it on the fix list');
    await page.reload();
    await expect(page.locator('#said-2 [data-psi]')).toHaveValue('57');
  });
  await test.step('what stands in the way is listed, each with its link, and no button signs before it is empty', async () => {
    await page.goto(`${walk}/compressions?cylinder=2`);
    await page.locator('#mates').getByRole('link', { name: 'Put it on the fix list' }).click();
    // What it is comes from the judgement, whatever anybody writes: no class is asked for.
    await expect(page.locator('textarea[name=what]').first()).toHaveValue('Compression, cylinder 2: 57/80, exhaust valve');
    await expect(page.locator('main input[type=radio][name=class]')).toHaveCount(0);
    // The shop is slow: what waits doesn't stand there as if it still had to be put on, and the page leads on once the shop has it.
    let arrived;
    const slow = new Promise(done => (arrived = done));
    await page.route('**/find', async route => {
      await slow;
      await route.continue();
    });
    await page.locator('main').getByRole('button', { name: 'Put on the fix list' }).click();
    await expect(page.locator('#outbox')).toContainText('1 waiting to send');
    await expect(page.locator('main textarea[name=what]')).toHaveValue('');
    arrived();
    await expect(page).toHaveURL(/engine\/engine/);
    await page.unroute('**/find');
    await page.goto(`${walk}/close`);
    await expect(page.getByText('Map light inoperative')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Sign/ })).toBeDisabled();
    await expect(page.locator('.statement').first()).toContainText('a list of discrepancies and unairworthy items');
  });
  await test.step('a directive waits for a serial number: the plate is read, its steps done, how it was complied with said', async () => {
    await page.goto(`${walk}/close`);
    await page.getByRole('link', { name: /AD 2026-21-04.*can’t tell yet, binding/ }).click();
    await page.locator('.bulletins a', { hasText: 'AD 2026-21-04' }).click();
    const asked = page.locator('.fact-asked', { hasText: 'Crankshaft of the engine' });
    await asked.getByLabel('As on the plate').fill('TK-4217');
    await asked.locator('input[name=photo]').setInputFiles(await picture(page));
    await anew(page, asked.getByRole('button', { name: 'Read off' }));
    // In the gap it would not apply: TK-4217 lies behind it.
    await page.locator('.bulletins a', { hasText: 'AD 2026-21-04' }).click();
    await expect(page.locator('.right')).toContainText('TK-4217 is on the list');
    await expect(page.locator('.right .plate-photo img[alt*="TK-4217"]')).toHaveCount(1);
    await expect(page.locator('.right')).toContainText('at 4332.0 h');
    await nothingSerious(page, 'bulletins');
    await page.getByRole('button', { name: /^Do it in/ }).click();
    const heading = page.locator('.task.current h2');
    for (const step of [/accessory cover/, /play of the gear/, /Torque the gear bolt/, /lock plate and bend/]) {
      await expect(heading).toHaveText(step);
      if (await page.getByLabel('Reading').count()) await page.getByLabel('Reading').fill('1.4');
      await page.getByRole('button', { name: /^Good/ }).click();
    }
    await page.getByRole('link', { name: 'Say how it was complied with' }).click();
    await expect(page.getByLabel('The entry’s words')).toHaveValue(/new lock plate LP-41, per Tarn and Field TF4-72-41 rev A/);
    await page.getByRole('button', { name: 'Complied with' }).click();
    await expect(page.locator('.right')).toContainText('It counts once the inspection is signed.');
    await page.goto(`${walk}/close`);
    await expect(page.locator('.middle')).not.toContainText('say how it was complied with');
  });
  await test.step('the rest of the walk is looked at, form by form, until nothing is left', async () => {
    // The plugs' sheet is left out with the reason, by the one who signs; a magneto's wants its timing. The others want looks alone:
    // from the walk those are one touch.
    await page.goto(`${walk}/close`);
    const plugs = page.locator('.asked-line', { hasText: 'Plugs' });
    await plugs.getByText('Not part of this one').click();
    await plugs.getByLabel('Why').fill('Gaskets for two plugs come on Monday: done then, by plug sheet 3.');
    await plugs.getByRole('button', { name: /Leave it out/ }).click();
    await expect(page.locator('.asked-line.done')).toContainText('not part of this one');
    for (const magneto of await page.locator('.asked-line a[href*="/magneto/"]').evaluateAll(links => links.map(link => link.href))) {
      await page.goto(magneto);
      await kept(page, 'Value', () =>
        page
          .locator('#value-magneto-timing-')
          .fill('25')
          .then(() => page.keyboard.press('Tab')),
      );
    }
    // The same forms as a person sends, filled and sent from the page without drawing each of the forty.
    await page.exposeFunction('withinLimits', within);
    const left = await page.evaluate(async from => {
      // An answer to an answer is the page with the next task; from the last of a zone the walk itself leads on.
      let answer;
      for (let turns = 120; turns > 0; turns -= 1) {
        answer ??= await fetch(from);
        if (answer.url.endsWith('/close')) return 0;
        const task = new DOMParser().parseFromString(await answer.text(), 'text/html').querySelector('.task.current');
        answer = undefined;
        const form = task.querySelector('[data-verdict]');
        if (form.querySelector('[value=NotYet]')) continue;
        const sent = new FormData(form);
        const value = form.elements.value ? await withinLimits(task.querySelector('.task-head .soft').textContent) : '';
        sent.set('verdict', value === null ? 'NotApplicable' : 'Good');
        if (value === null) sent.set('reason', 'no such instrument');
        else if (value) sent.set('value', value);
        answer = await fetch(form.getAttribute('action'), { method: 'POST', body: sent, headers: { 'X-Rivet': 'live' } });
      }
      return 'tasks are left';
    }, walk);
    expect(left).toBe(0);
    // The looks, the open panels, the tools and what waits for a second person: each form as a person sends it.
    await sendAll(page, `${walk}/look`, 'handler=Looked');
    await sendEach(page, `${walk}/tags`, 'handler=Close', { inside: 'true' });
    await sendAll(page, `${walk}/tools`, '.tags > li > form[action*="handler=In"]');
    await sendEach(page, `${walk}/marks`, 'handler=Accept');
    await sendEach(page, `${walk}/inspect`, '/inspect');
    await page.goto(`${walk}/close`);
    await expect(page.locator('.middle')).toContainText('a second person has to inspect it');
    const other = await another('ines');
    await sendEach(other, `${walk}/inspect`, '/inspect');
    await page.goto(`${walk}/close`);
    await expect(page.locator('.blocked-zone')).toHaveCount(0);
    // The owner's complaint that nobody has answered yet, at the station where it was written down.
    await page
      .locator('.middle')
      .getByRole('link', { name: /Smells of fuel .* not answered yet/ })
      .click();
    await expect(page).toHaveURL(/arrive#squawk-3/);
    await page.locator('#squawk-3 summary').click();
    await page.locator('#squawk-3 textarea').fill('Left cap gasket flattened: on the fix list.');
    await page.locator('#squawk-3').getByRole('button', { name: 'Keep the answer' }).click();
    await expect(page.locator('#squawk-3 .answer')).toContainText('gasket flattened');
    // What was answered from the walk stands on the sheets: nothing is asked for twice.
    await page.goto(`${walk}/close`);
    await expect(page.locator('.asked-line:not(.done)')).toHaveCount(0);
    // What last year's annual left open is looked at again.
    await page.getByRole('link', { name: /Baggage door hinge pin worn.*left open as 25-71-/ }).click();
    await page.getByRole('button', { name: /Looked at again: as it was/ }).click();
    await expect(page.getByText('Looked at again by Orla Hob')).toBeVisible();
    // What the others opened and showed is looked at, zone by zone, in a touch each.
    await page.goto(`${walk}/close`);
    await expect(page.locator('.zone-look', { hasText: 'Left wing' })).toContainText('waits for the look that counts');
    await page.keyboard.press('w');
    await expect(page).toHaveURL(/close#zones/);
    await sendAll(page, `${walk}/close`, 'form.zone-look-form[action*="Zone"]');
    await page.goto(`${walk}/close`);
    await expect(page.locator('.zone-look', { hasText: 'Left wing' })).toContainText(/did it: TB.* looked: OH/);
    await page.getByRole('link', { name: /Map light inoperative: deferrable/ }).click();
    for (const answer of ['Yes', 'No', 'No', 'No', 'No', 'No'])
      await anew(page, page.locator('.deferral .next').getByRole('button', { name: answer, exact: true }));
    // The placard prints before anybody says that it is on.
    const placard = await page
      .locator('.deferral .next')
      .getByRole('link', { name: /placard to print/ })
      .getAttribute('href');
    expect(await (await page.request.get(placard)).text()).toContain('INOPERATIVE');
    for (const answer of ['Yes', 'Yes'])
      await anew(page, page.locator('.deferral .next').getByRole('button', { name: answer, exact: true }));
    await expect(page.locator('.deferral')).toContainText('May be deferred.');
    await page.getByLabel(/Corrective action/).fill('Switched off at its breaker, collared, placarded inoperative.');
    await expect(page.locator('select[name=kind]')).toHaveValue('Deferred');
    await page.getByRole('button', { name: 'Done', exact: true }).click();
    await expect(page.getByText('Deactivated and placarded.')).toBeVisible();
  });
  await test.step('signing asks for the password again, chooses the unairworthy statement, writes three entries and the list', async () => {
    await page.goto(`${walk}/close`);
    await page.getByLabel('Your password, again').fill('not-the-password');
    await page.getByRole('button', { name: 'Sign as unairworthy, with the list' }).click();
    await expect(page.locator('.field-problem')).toContainText('Nothing was signed');
    await page.getByLabel('Your password, again').fill(password);
    await page.getByRole('button', { name: 'Sign as unairworthy, with the list' }).click();
    await expect(page.locator('.entry')).toHaveCount(4);
    await expect(page.locator('.entry h2')).toHaveText([
      'Airframe entry',
      'Engine entry',
      'Propeller entry',
      'Discrepancies and unairworthy items',
    ]);
    await expect(page.locator('.entry.list li', { hasText: 'Compression, cylinder 2: 57/80' })).toHaveCount(1);
    await expect(page.locator('.entry', { hasText: 'Engine entry' })).toContainText(
      /Crankshaft gear bolt inspected and torqued[^]*Complied with [\d-]+ at [\d.]+ h/,
    );
    await expect(page.locator('.entry', { hasText: 'Engine entry' })).toContainText(
      /Not part of this inspection: plugs\. Gaskets for two plugs come on Monday[^]*By Orla Hob \(mechanic with inspection authorization/,
    );
    await expect(page.locator('.entry', { hasText: 'Engine entry' })).toContainText(
      /Oil at the pushrod tube.*lowered from airworthiness to watch: Seal weeps/,
    );
    await nothingSerious(page, 'records');
    await page.goto(`${walk}/airframe/right-wing`);
    await expect(page.getByRole('button', { name: 'Good' })).toHaveCount(0);
  });
  await test.step('the status of bulletins is signed by itself and says what was just done', async () => {
    await page.goto(`${walk}/bulletins/status`);
    await expect(page.locator('tr', { hasText: 'AD 2026-21-04' })).toContainText('TF4-72-41 rev A');
    await page.getByLabel('Your password, again').fill(password);
    await page.getByRole('button', { name: 'Sign this status' }).click();
    await expect(page.locator('.entry.list', { hasText: 'Status of directives' })).toContainText(
      'AD 2026-21-04 (National Air Board, airworthiness directive)',
    );
    await page.goto(`${walk}/bulletins/status`);
    expect((await page.pdf({ format: 'A4' })).length).toBeGreaterThan(10_000);
  });
  await test.step('the entries print on a sheet and on logbook stickers of 140 × 90 mm', async () => {
    const sizes = pdf =>
      [...pdf.toString('latin1').matchAll(/\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/g)].map(([, w, h]) => [
        Math.round((w / 72) * 25.4),
        Math.round((h / 72) * 25.4),
      ]);
    await page.goto(`${walk}/records`);
    // Tests set the day: what is printed says so in its margin, where it takes no room.
    expect(
      await page.evaluate(
        () =>
          [...document.styleSheets]
            .flatMap(sheet => (sheet.media.mediaText === 'print' ? [...sheet.cssRules] : []))
            .filter(rule => /@bottom-center.*not the day it says/.test(rule.cssText)).length,
      ),
    ).toBe(1);
    // One sticker for the propeller; what was done at airframe and engine runs over onto more, in numbered parts.
    const made = async paper => sizes(await (await page.request.get(`${walk}/records.pdf?paper=${paper}`)).body());
    const stickers = await made('140x90');
    expect(stickers).toEqual(Array(stickers.length).fill([140, 90]));
    expect(stickers.length).toBeGreaterThan(4);
    expect((await made('100x70')).length).toBeGreaterThan(stickers.length);
    expect((await made('a4'))[0]).toEqual([210, 297]);
    expect((await made('letter'))[0]).toEqual([216, 279]);
    expect((await page.request.get(`${walk}/records.pdf?paper=9x9`)).status()).toBe(400);
    expect(sizes(await page.pdf({ format: 'A4' }))[0]).toEqual([210, 297]);
    expect(sizes(await page.pdf({ format: 'Letter' }))[0]).toEqual([216, 279]);
  });
});
