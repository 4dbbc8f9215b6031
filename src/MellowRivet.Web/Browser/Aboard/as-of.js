// A page that was taken along, shown where the shop can't be reached: what needs the shop says so at its button, and as soon as the
// shop is in reach again the page is as it is there.
import { newId } from '../ids.js';
import { isWriting } from '../Outbox/fill.js';
import { isOurs } from '../Outbox/posting.js';
import { flush, me, waiting } from '../Outbox/telling.js';
import { button, element } from '../page.js';
import { lock } from './keyring.js';

const every = 5000;
// These have a way of their own of going out, or go nowhere.
const own = '[data-verdict], [data-find], [data-undo]';

const banner = document.querySelector('.as-of');
// One line over the page, not two: what waits stands in it.
const say = (...words) => banner.replaceChildren(...words, document.getElementById('outbox'));

const lookAgain = async () => {
  const answer = await fetch('/device/token', { cache: 'no-store', signal: AbortSignal.timeout(2 * every) }).catch(() => undefined);
  if (answer?.status === 401) {
    say('The shop is in reach again, and asks who you are. ', element('a', { href: '/enter', textContent: 'Sign in' }));
    return;
  }
  if (!answer?.ok) {
    setTimeout(lookAgain, every);
    return;
  }
  // Somebody else has signed in on this device: this page isn't theirs.
  if ((await answer.json()).me !== me) {
    await lock();
    location.reload();
    return;
  }
  await flush();
  if (waiting().some(entry => !entry.isRefused)) setTimeout(lookAgain, every);
  else if (!isWriting()) location.reload();
  else {
    say(
      'The shop is in reach again, and all that waited went. What you are typing is still here. ',
      button('Show the page as it is', () => location.reload(), { className: 'btn btn-plain' }),
    );
    setTimeout(lookAgain, every);
  }
};

if (document.body.dataset.asOf) {
  // Shown once more, the page has the ids it came with: what was said with them is another thing than what is said now.
  for (const field of document.querySelectorAll('input[name=post]')) field.value = newId();
  for (const form of document.querySelectorAll('form[method=post]')) {
    if (isOurs(form) || form.matches(own)) continue;
    for (const press of form.querySelectorAll('button')) press.disabled = true;
    form.append(element('p', { className: 'needs-shop', textContent: 'Needs the shop, which can’t be reached from here.' }));
  }
  say(...banner.childNodes);
  setTimeout(lookAgain, every);
  addEventListener('online', lookAgain);
}
