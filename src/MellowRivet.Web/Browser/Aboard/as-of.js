// A page that was taken along, shown where the shop can't be reached: what needs the shop says so at its button, and as soon as the
// shop is in reach again the page is as it is there.
import { isOurs } from '../Outbox/posting.js';
import { flush, waiting } from '../Outbox/telling.js';
import { button, element } from '../page.js';

const every = 5000;
// These have a way of their own of going out, or go nowhere.
const own = '[data-verdict], [data-find], [data-undo]';

const isTyped = () =>
  [...document.querySelectorAll('main form')].some(
    form =>
      !form.closest('dialog:not([open])') &&
      !form.querySelector('.said-here') &&
      [...form.elements].some(
        field => field.matches('input:not([type=hidden], [type=radio], [type=checkbox]), textarea') && field.value !== field.defaultValue,
      ),
  );

const lookAgain = async () => {
  const answer = await fetch('/device/token', { cache: 'no-store' }).catch(() => undefined);
  if (!answer?.ok) {
    setTimeout(lookAgain, every);
    return;
  }
  await flush();
  if (waiting().some(entry => !entry.isRefused)) setTimeout(lookAgain, every);
  else if (!isTyped()) location.reload();
  else
    document.querySelector('.as-of').replaceChildren(
      'The shop is in reach again, and all that waited went. What you are typing is still here. ',
      button('Show the page as it is', () => location.reload(), { className: 'btn btn-plain' }),
    );
};

if (document.body.dataset.asOf) {
  for (const form of document.querySelectorAll('form[method=post]')) {
    if (isOurs(form) || form.matches(own)) continue;
    for (const press of form.querySelectorAll('button')) press.disabled = true;
    form.append(element('p', { className: 'needs-shop', textContent: 'Needs the shop, which can’t be reached from here.' }));
  }
  say(...banner.childNodes);
  setTimeout(lookAgain, every);
  addEventListener('online', lookAgain);
}
