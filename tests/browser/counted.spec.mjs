// A whole annual as a hand does it, from the meter at the door to the signature: every touch is counted, and nothing is given twice.
import { enterAs, expect, password, test, within } from './shop.mjs';

test.use({ idle: 'N04QF' });

// A touch is a press of a key or a button, a choice, or a field filled in; the Enter or Tab that leaves a field belongs to it.
class Hand {
  touches = 0;
  told = [];

  constructor(page) {
    this.page = page;
  }

  async tap(locator) {
    this.touches += 1;
    await locator.click();
  }

  async press(key) {
    this.touches += 1;
    await this.page.keyboard.press(key);
  }

  async choose(locator, what) {
    this.touches += 1;
    await locator.selectOption({ label: (await locator.locator('option', { hasText: what }).first().textContent()).trim() });
  }

  // Fails where a value that was given already is asked for again.
  tell(fact) {
    expect(this.told, `${fact} is asked for a second time`).not.toContain(fact);
    this.told.push(fact);
  }

  async give(fact, locator, value, leave) {
    this.tell(fact);
    this.touches += 1;
    await locator.fill(value);
    if (leave) await locator.press(leave);
  }
}

test('an annual takes at most 250 touches, and nothing is given twice', async ({ page, shop, another }) => {
  await enterAs(page, 'orla');
  const hand = new Hand(page);
  const button = name => page.getByRole('button', { name });
  const leaves = act => Promise.all([page.waitForEvent('load'), act()]);
  const sends = act => Promise.all([page.waitForResponse(answer => answer.request().method() === 'POST'), act()]);
  let walk;

  await test.step('taken in, with the meter and the owner’s complaint', async () => {
    await page.goto('/take-in');
    await hand.choose(page.locator('[name="Form.Aircraft"]'), 'N04QF');
    await expect(page.locator('#last-read')).toContainText('4318.6');
    await hand.give('the meter', page.locator('[name="Form.Hours"]'), '4319.2');
    await hand.give('the complaint', page.locator('[name="Form.Squawks"]'), 'Left brake drags after landing');
    await leaves(() => hand.tap(button('Begin with its arrival')));
    [walk] = new URL(page.url()).pathname.match(/\/walk\/[^/]+/);
  });
  await test.step('looked at dirty, zone after zone, then cleaned', async () => {
    await page.goto(`${walk}/look`);
    for (const zone of await page.locator('aside a[href*="zone="]').allTextContents()) {
      await expect(page.locator('#look-steps .next'), zone).toContainText('First look');
      await leaves(() => hand.press('g'));
    }
    await leaves(() => hand.tap(button(/^Cleaned: all 8 zones/)));
  });
  const sheet = name => leaves(() => hand.tap(page.locator('.engine-nav a', { hasText: name })));
  await test.step('compressions', async () => {
    await page.goto(`${walk}/engine/engine`);
    await sheet('Compressions');
    await hand.tap(page.getByLabel('Read and done'));
    await hand.tap(page.locator('[name=hot][value=true]'));
    await hand.give('the master orifice', page.getByLabel(/Master orifice/), '44');
    await leaves(() => hand.tap(button('Begin the test')));
    for (const cylinder of [1, 3, 2, 4])
      await sends(() => hand.give(`cylinder ${cylinder}`, page.locator(`[data-psi="${cylinder}"]`).first(), `${74 + cylinder}`, 'Enter'));
    await expect(page.locator('#overall')).toContainText('all read');
  });
  await test.step('plugs: each looked at and measured, all blasted, tested and torqued', async () => {
    await sheet('Plugs');
    // Plug by plug, the same forms as a hand sends, each a touch, and one to the next plug.
    const holes = await page.evaluate(async () => {
      const found = [];
      const read = { look: 'Normal', ohms: '1.8k', gapfound: '0.021', gapset: '0.018' };
      for (let at = location.href; found.length < 8;) {
        const shown = new DOMParser().parseFromString(await (await fetch(at)).text(), 'text/html');
        for (const [step, said] of Object.entries(read)) {
          const form = shown.querySelector(`form.step-${step}`);
          const sent = new FormData(form);
          sent.set('value', said);
          await fetch(form.getAttribute('action'), { method: 'POST', body: sent, headers: { 'HX-Request': 'true' } });
        }
        found.push(shown.querySelector('[data-plug-panel] h2').textContent.slice(0, 2));
        at = shown.querySelector('[data-next-plug]').href;
      }
      return found;
    });
    hand.touches += holes.length * 5 - 1;
    for (const hole of holes) for (const what of ['resistance', 'gap as found', 'gap as set']) hand.tell(`${what} of ${hole}`);
    await page.reload();
    for (const all of [/^Lead out/, /^Each fires/, /^New gaskets/]) await leaves(() => hand.tap(button(all)));
    await hand.choose(page.locator('.alike select[name=wrench]'), 'T-09');
    await hand.give('torque of the plugs', page.locator('.alike input[name=value]'), '420');
    await leaves(() => hand.tap(button(/^Torqued/)));
    await expect(page.locator('.engine-nav a', { hasText: 'Plugs' })).toContainText('8 of 8');
  });
  await test.step('the other sheets', async () => {
    for (const side of ['left', 'right']) {
      await sheet(`Magneto, ${side}`);
      await sends(() => hand.give(`timing of the ${side} magneto`, page.locator('#value-magneto-timing-'), '25', 'Enter'));
      await sends(() => hand.tap(button(/The one that is left: looked at, and good/)));
      await expect(button(/The one that is left/)).toHaveCount(0);
    }
    await sheet('Oil and filter');
    await hand.give('oil filled in', page.locator('input[name=amount]:not([type=radio])'), '7');
    await leaves(() => hand.tap(button('The oil was changed')));
    await leaves(() => hand.tap(button('Keep what it showed')));
    await sheet('Exhaust');
    const rest = button(/left: (each )?looked at, and good/);
    for (let groups = await rest.count(); groups > 0; groups -= 1) {
      await sends(() => hand.tap(rest.first()));
      await expect(rest).toHaveCount(groups - 1);
    }
  });
  await test.step('the walk, task by task', async () => {
    // The same forms as a hand sends, each a touch, filled and sent without drawing each of the hundred.
    await page.goto(`${walk}/close`);
    await page.exposeFunction('withinLimits', within);
    const answered = await page.evaluate(async from => {
      const given = [];
      let touches = 1;
      let answer = await fetch(from);
      for (let turns = 200; turns > 0 && !answer.url.endsWith('/close'); turns -= 1) {
        const shown = new DOMParser().parseFromString(await answer.text(), 'text/html');
        const task = shown.querySelector('.task.current');
        const form = task.querySelector('[data-verdict]');
        const second = shown.querySelector('form[action*="handler=Second"]');
        touches += 1;
        if (second) answer = await fetch(second.getAttribute('action'), { method: 'POST', body: new FormData(second) });
        else if (!form || form.querySelector('[value=NotYet]')) answer = await fetch(from);
        else {
          const sent = new FormData(form);
          const what = `${shown.querySelector('#zone-head h1').firstChild.textContent.trim()}: ${task.querySelector('h2').textContent}`;
          const { temperature, wrench, value } = form.elements;
          if (temperature && !temperature.value) {
            touches += 1;
            given.push('the temperature');
            sent.set('temperature', '18');
          }
          if (wrench && !wrench.value) {
            touches += 1;
            given.push('the wrench');
            sent.set('wrench', [...wrench.options].find(tool => tool.textContent.includes('T-09')).value);
          }
          if (value) {
            given.push(what);
            // By a table, the limits are there once the temperature is.
            const limits = task.querySelector('.task-head .soft').textContent;
            sent.set('value', (await window.withinLimits(limits)) ?? '39');
          }
          sent.set('verdict', 'Good');
          answer = await fetch(form.getAttribute('action'), { method: 'POST', body: sent, headers: { 'X-Rivet': 'live' } });
          if (!answer.ok) throw new Error(`${what} wasn’t taken: ${answer.status}`);
        }
      }
      return { touches, given, at: answer.url };
    }, walk);
    hand.touches += answered.touches;
    for (const fact of answered.given) hand.tell(fact);
    expect(answered.at).toContain('/close');
  });
  const closing = page.locator('.middle');
  const goesOn = async name => {
    await page.goto(`${walk}/close`);
    await leaves(() => hand.tap(closing.getByRole('link', { name }).first()));
  };
  await test.step('the complaint becomes a finding with its words, and is put right', async () => {
    await goesOn(/Left brake drags/);
    await hand.tap(page.locator('#squawk-1').getByRole('link', { name: /on the fix list/ }));
    const dialog = page.locator('#capture form');
    await expect(dialog.locator('textarea[name=what]'), 'nobody types the complaint again').toHaveValue('Left brake drags after landing');
    await sends(() => hand.tap(dialog.getByRole('button', { name: 'Put on the fix list' })));
    await leaves(() => hand.tap(page.locator('#captured a')));
    await hand.give(
      'what was done to the brake',
      page.getByLabel(/Corrective action/),
      'Caliper pins cleaned and greased, wheel turns free.',
    );
    await hand.give('by which data', page.getByLabel('Reference data').first(), 'Dunlin manual 32-40, p. 2');
    await leaves(() => hand.tap(page.getByRole('button', { name: 'Done', exact: true })));
  });
  await test.step('what was open before, and known marks', async () => {
    await goesOn(/Baggage door hinge pin worn/);
    await leaves(() => hand.tap(button(/Looked at again: as it was/)));
    await goesOn(/Known mark 25-71-05/);
    const accept = button(/Same as then: accept/);
    for (let marks = await accept.count(); marks > 0; marks -= 1) {
      await leaves(() => hand.tap(accept.first()));
      await expect(accept).toHaveCount(marks - 1);
    }
  });
  await test.step('the directive: its plate read off, its steps done', async () => {
    await goesOn(/AD 2026-21-04/);
    const bulletin = page.locator('.bulletins a', { hasText: 'AD 2026-21-04' });
    await leaves(() => hand.tap(bulletin));
    const asked = page.locator('.fact-asked', { hasText: 'Crankshaft of the engine' });
    await hand.give('the crankshaft’s serial number', asked.getByLabel('As on the plate'), 'TK-4217');
    await leaves(() => hand.tap(asked.getByRole('button', { name: 'Read off' })));
    await leaves(() => hand.tap(bulletin));
    await leaves(() => hand.tap(button(/^Do it in/)));
    for (const step of [/accessory cover/, /play of the gear/, /Torque the gear bolt/, /lock plate and bend/]) {
      await expect(page.locator('.task.current h2')).toHaveText(step);
      const value = page.locator('.task.current input[name=value]');
      if (await value.count()) await sends(() => hand.give(`${step}`, value, '1.4', 'Enter'));
      else await sends(() => hand.press('g'));
    }
    await leaves(() => hand.tap(page.getByRole('link', { name: 'Say how it was complied with' })));
    await leaves(() => hand.tap(button('Complied with')));
  });
  await test.step('a second person looks at what was done', async () => {
    const other = await another('ines');
    await other.goto(`${walk}/inspect`);
    const inspected = other.getByRole('button', { name: 'Inspected' });
    for (let left = await inspected.count(); left > 0; left -= 1) {
      hand.touches += 1;
      await inspected.first().click();
      await expect(inspected).toHaveCount(left - 1);
    }
  });
  await test.step('signed', async () => {
    await page.goto(`${walk}/close`);
    await expect(closing).toContainText('Nothing stands in the way of a signature.');
    await page.getByLabel('Your password, again').fill(password);
    hand.touches += 1;
    await leaves(() => hand.tap(button(/^Sign/).first()));
    await expect(page.locator('.entry')).toHaveCount(3);
  });
  await test.step('whatever was read stands on file once', async () => {
    const { series } = await (await page.request.get(`${shop.files.N04QF}/trends.json?hours=aircraft`)).json();
    const now = series.map(({ kind, place, points }) => [kind, place, points.filter(point => point.hours === 4319.2).length]);
    expect(now.filter(([, , count]) => count > 0).length).toBeGreaterThan(40);
    expect(now.filter(([, , count]) => count > 1)).toEqual([]);
  });
  test.info().annotations.push({ type: 'touches', description: String(hand.touches) });
  expect(hand.touches).toBeLessThanOrEqual(250);
});
