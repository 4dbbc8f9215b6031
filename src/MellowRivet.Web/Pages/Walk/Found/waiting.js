// What was put on the fix list and hasn't reached the shop yet: without a connection it waits on this device, and goes out by
// itself, once, when the connection is back.
import * as kept from '../../../Browser/keep.js';

export const me = document.body.dataset.me;
export const live = { headers: { 'X-Rivet': 'live' } };
export const tokenName = '__RequestVerificationToken';
const status = document.getElementById('captures');
// Why what waits isn't taken, where the shop says so itself.
let held = '';
export const element = (tag, options, ...children) => {
  const made = Object.assign(document.createElement(tag), options);
  made.append(...children);
  return made;
};

// Sends one, and lets go of it when the shop has it.
export async function send(entry) {
  const body = new FormData();
  for (const [name, value] of entry.fields) body.append(name, value);
  for (const file of entry.files) body.append(file.field, file.blob, file.name);
  // Signed in anew, an old token holds no longer; this page's does.
  body.append(tokenName, document.querySelector(`input[name=${tokenName}]`)?.value ?? '');
  let answer;
  try {
    answer = await fetch(entry.url, { ...live, method: 'POST', body });
  } catch {
    return null;
  }
  held = answer.status === 507 ? await answer.text() : '';
  // The door, too many at once, no room on the shop's disk, or a server that is just coming up: it waits here.
  if (answer.redirected || answer.status === 429 || answer.status >= 500) return null;
  if (answer.ok) {
    const made = await answer.json();
    await kept.drop(entry.post);
    return made;
  }
  return {
    refused: true,
    html: answer.status === 422 ? await answer.text() : `<p class="field-problem" role="alert">The shop said ${answer.status}.</p>`,
  };
}

// A line that says where it went, and lets the person go on.
export const said = made => {
  const line = document.getElementById('captured');
  line.replaceChildren(element('a', { href: made.href, textContent: `${made.number} is on the fix list` }), ` as ${made.class}.`);
  line.hidden = false;
  clearTimeout(said.closing);
  said.closing = setTimeout(() => {
    line.hidden = true;
  }, 10_000);
  document.dispatchEvent(new CustomEvent('rivet:captured'));
};

const mine = async () => (await kept.all()).filter(entry => entry.me === me);

export async function show() {
  const entries = await mine();
  const refused = entries.filter(entry => entry.refused);
  const waiting = entries.length - refused.length;
  status.replaceChildren(
    ...(waiting
      ? [
          element('p', {
            textContent: `${waiting} found thing${waiting === 1 ? '' : 's'} waiting to send, kept on this device. ${held}`.trim(),
          }),
        ]
      : []),
    ...refused.map(entry => {
      const again = element('button', { type: 'button', className: 'btn btn-quiet', textContent: 'Send it again' });
      const away = element('button', { type: 'button', className: 'btn btn-quiet', textContent: 'Let it go' });
      again.addEventListener('click', async () => {
        await kept.put({ ...entry, refused: undefined });
        flush();
      });
      away.addEventListener('click', async () => {
        await kept.drop(entry.post);
        show();
      });
      return element('p', {}, `Not taken: “${entry.what.slice(0, 60)}”. ${entry.refused} `, again, ' ', away);
    }),
  );
  status.hidden = entries.length === 0;
}

// What became of one that nobody waits for at the form any more.
export async function settle(entry, answer) {
  if (answer?.refused)
    await kept.put({ ...entry, refused: new DOMParser().parseFromString(answer.html, 'text/html').body.textContent.trim() });
  else if (answer) said(answer);
  else later();
}

// Only one page of this device sends at a time, and the shop takes a post once however often it comes.
let retry;
export const later = () => {
  clearTimeout(retry);
  retry = setTimeout(flush, 3000);
};
const sendAll = async () => {
  for (const entry of await mine()) {
    if (entry.refused) continue;
    const answer = await send(entry);
    await settle(entry, answer);
    if (!answer) break;
  }
  await show();
};
export const flush = () =>
  navigator.locks ? navigator.locks.request('rivet:captures', { ifAvailable: true }, lock => lock && sendAll()) : sendAll();
