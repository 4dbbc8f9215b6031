// Whose device it is: what is aboard is locked until the person says their code, and again after a while without a touch. The key lives
// in the memory of the worker and of the pages that are open, and nowhere else.
import { element } from '../page.js';
import * as vault from './vault.js';

const me = document.body.dataset.me;
const beat = 10_000;
const [script, whole] = ['/lib/worker.js', { scope: '/' }];
const canKeep = 'serviceWorker' in navigator && Boolean(crypto.subtle);

let touched = Date.now();
let minutes = 15;
let opened;
/** Comes back once what is on the device can be read. */
export const ready = new Promise(done => {
  opened = done;
});

/** Whether this browser can keep anything for where there is no network. */
export const isAble = canKeep;

const worker = async () => (await navigator.serviceWorker.ready).active;
const asksWorker = async () => {
  const { port1, port2 } = new MessageChannel();
  const answer = new Promise(hears => {
    port1.onmessage = event => hears(event.data);
    setTimeout(hears, 3000, {});
  });
  (await worker()).postMessage({ asks: me }, [port2]);
  return answer;
};
const tells = async () => {
  const key = vault.held(me);
  if (key) (await worker()).postMessage({ me, key, at: touched, minutes });
};

/** Locks what is on the device, in every page of it. */
export const lock = async () => {
  (await worker()).postMessage({ lock: true });
  shut();
};

const shut = () => {
  vault.hold(me);
  ask();
};

// Over everything until the code is said.
const ask = () => {
  if (document.querySelector('.locked')) return;
  const [whose, field] = [element('strong', {}), element('input', { type: 'password', className: 'form-control', autocomplete: 'off' })];
  const wrong = element('p', { className: 'field-problem', role: 'alert', hidden: true });
  const press = element('button', { className: 'btn btn-primary', textContent: 'Open' });
  const form = element(
    'form',
    { method: 'dialog' },
    element('h2', { textContent: 'Locked' }),
    element('p', {}, 'What is on this device is ', whose, '’s, and opens by its code.'),
    element('label', { className: 'field' }, 'Code', field),
    wrong,
    press,
  );
  const dialog = element('dialog', { className: 'locked' }, form);
  field.required = true;
  vault.codeOf(me).then(code => {
    whose.textContent = code?.name ?? '';
  });
  dialog.addEventListener('cancel', event => event.preventDefault());
  form.addEventListener('submit', async event => {
    event.preventDefault();
    press.disabled = true;
    const key = await vault.unlock(me, field.value);
    press.disabled = false;
    wrong.hidden = Boolean(key);
    wrong.textContent = 'That isn’t the code. Nothing was opened.';
    field.value = '';
    if (!key) return;
    touched = Date.now();
    await tells();
    dialog.close();
    dialog.remove();
    open();
  });
  document.body.append(dialog);
  dialog.showModal();
};

let beating;
const open = () => {
  opened();
  document.dispatchEvent(new CustomEvent('rivet:unlocked'));
  clearInterval(beating);
  beating = setInterval(() => {
    if (Date.now() - touched > minutes * 60_000) lock();
    else tells();
  }, beat);
};

/** Sets the code that opens what is on this device from now on. */
export const begin = async (name, code, more) => {
  await navigator.serviceWorker.register(script, whole);
  await vault.setCode(me, name, code, more);
  minutes = more.minutes;
  touched = Date.now();
  await tells();
  open();
};

const start = async () => {
  if (me && canKeep) navigator.serviceWorker.controller?.postMessage({ is: me });
  const code = me && canKeep && (await vault.codeOf(me));
  if (!code) {
    opened();
    return;
  }
  // A page that the shop made just now says what holds there; one that was taken along says what did.
  const holds = document.body.dataset.asOf ? undefined : Number(document.querySelector('[data-lock-minutes]')?.dataset.lockMinutes);
  minutes = holds || code.minutes;
  if (minutes !== code.minutes) await vault.lockAfter(me, minutes);
  // The worker of a newer program takes the place of the one that is there.
  navigator.serviceWorker.register(script, whole).catch(() => {});
  const answer = await asksWorker();
  if (!answer.key) {
    ask();
    return;
  }
  vault.hold(me, answer.key);
  open();
};

if (me && canKeep) {
  for (const what of ['pointerdown', 'keydown', 'scroll'])
    addEventListener(
      what,
      () => {
        touched = Date.now();
      },
      { passive: true, capture: true },
    );
  // The worker may have gone to sleep while the phone did: it has the key again before the next page is asked for.
  document.addEventListener('click', tells, true);
  document.addEventListener('visibilitychange', () => !document.hidden && tells());
  new BroadcastChannel('rivet:device').onmessage = ({ data }) => data.locked && shut();
}
start();
