// This device: what was taken along, and what waits to be sent.
import { addressOf, get, inspections, takeOff, wipe } from '../../Browser/Aboard/aboard.js';
import { isAble, lock, ready } from '../../Browser/Aboard/keyring.js';
import * as vault from '../../Browser/Aboard/vault.js';
import { clock, megabytes } from '../../Browser/Aboard/words.js';
import { read, save } from '../../Browser/Outbox/file.js';
import { mine } from '../../Browser/Outbox/outbox.js';
import { again, drop, me, reason, sendAgain, waiting } from '../../Browser/Outbox/telling.js';
import { button, element } from '../../Browser/page.js';

const page = document.querySelector('[data-device]');

const line = (words, ...more) => element('li', {}, words, ...more);
const list = (items, empty) =>
  items.length ? element('ul', { className: 'plain aboard' }, ...items) : element('p', { className: 'empty', textContent: empty });

const aboardOf = one =>
  line(
    element('a', { href: one.walk, textContent: one.title }),
    element('span', { className: 'soft', textContent: `as of ${clock(one.at)}, ${one.count} pages and pictures, ${megabytes(one.size)}` }),
    button('Take it off', async () => {
      await takeOff(me, one.id);
      await show();
    }),
  );
const waits = entry =>
  entry.isRefused
    ? line(
        element('a', { href: `${entry.place}#${entry.post}`, textContent: entry.what }),
        element('span', { className: 'field-problem', textContent: `not taken: ${reason(entry)}` }),
        button('Send it again', () => sendAgain(entry.post)),
        button('Let it go', () => drop(entry.post)),
      )
    : line(
        element('a', { href: entry.place, textContent: entry.what }),
        element('span', { className: 'soft', textContent: `since ${clock(entry.at)}` }),
        button('Take it back', () => drop(entry.post)),
      );
const gone = entry =>
  line(
    entry.what,
    element('span', { className: 'soft', textContent: `said ${clock(entry.at)}` }),
    ...(entry.why
      ? [
          element('span', {}, 'Signed without it: it stays open on the aircraft as '),
          element('a', { href: entry.why.href, textContent: entry.why.number }),
        ]
      : []),
  );

const saveFile = async () => {
  const file = await save(me, (await vault.codeOf(me))?.name ?? document.querySelector('.me summary')?.textContent ?? '');
  const link = element('a', { href: URL.createObjectURL(file), download: `waiting-${new Date().toISOString().slice(0, 10)}.json` });
  link.click();
  URL.revokeObjectURL(link.href);
};
let told = '';
const readIn = () => {
  const input = element('input', { type: 'file', accept: 'application/json,.json', className: 'visually-hidden' });
  input.addEventListener('change', async () => {
    const { count, problem } = await read(me, input.files[0]);
    told = problem ?? `${count} came in from the file, and ${count === 1 ? 'goes' : 'go'} out from here.`;
    await again();
    await show();
  });
  return element('label', { className: 'btn btn-quiet' }, 'Read a file in', input);
};

const show = async () => {
  const [there, went, code] = [await inspections(me), await mine(me, 'went'), await vault.codeOf(me)];
  const no = waiting().filter(entry => entry.isRefused);
  const yet = waiting().filter(entry => !entry.isRefused);
  page.replaceChildren(
    element('h2', { textContent: 'Aboard' }),
    list(there.map(aboardOf), 'Nothing is aboard. An inspection is taken along from its own page.'),
    element('h2', { textContent: `Waiting to send${yet.length ? `: ${yet.length}` : ''}` }),
    list(yet.map(waits), 'Nothing waits.'),
    element(
      'p',
      { className: 'file-out' },
      ...(waiting().length ? [button('Save to a file', saveFile), ' '] : []),
      readIn(),
      element('span', { className: 'soft', textContent: ' The way out where this device can’t send: the file isn’t sealed.' }),
    ),
    ...(told ? [element('p', { role: 'status', textContent: told })] : []),
    ...(no.length ? [element('h2', { textContent: `Not taken: ${no.length}` }), list(no.map(waits))] : []),
    element('h2', { textContent: 'Went' }),
    list(went.reverse().map(gone), 'Nothing went from here lately.'),
    ...(code
      ? [
          element(
            'p',
            {},
            button('Lock it now', lock),
            ' ',
            button('Take everything off', () => wipe(me).then(show)),
          ),
        ]
      : []),
  );
};

// In the place of a page that couldn't be shown: that one, where it is aboard and was only locked.
const instead = document.querySelector('[data-not-aboard]');
const showAsked = async () => {
  if (await get(me, addressOf(new URL(location.href)))) location.reload();
  else instead.hidden = ['/', '/device'].includes(location.pathname);
};

if (page && me && isAble) {
  ready.then(show);
  if (instead) ready.then(showAsked);
  document.addEventListener('rivet:outbox', show);
  document.addEventListener('rivet:unlocked', show);
}
