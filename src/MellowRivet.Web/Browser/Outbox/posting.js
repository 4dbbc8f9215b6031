// The forms of a walk go out through the outbox: what was said with one is kept on this device before anything else. A form whose
// words wait says so where it stands, with what was said in its fields, on whichever page of this device it is shown.
import { newId } from '../ids.js';
import { look } from '../live.js';
import { morph, parsed } from '../morph.js';
import { button, element } from '../page.js';
import { about, fill, isText, isWriting, stillSays } from './fill.js';
import { follow } from './follows.js';
import { called, onButton, storyOf } from './story.js';
import { drop, me, reason, say, sendAgain, tellLater, waiting } from './telling.js';

const patience = 8000;
/** Whether a form goes out through the outbox. */
export const isOurs = form =>
  me && form.method === 'post' && form.elements.post && form.closest('[data-waits=yes]') && !form.matches('[data-asks]');
const problem = document.getElementById('connection');
const complain = words => {
  problem.textContent = words;
  problem.hidden = words === '';
};
const noRoom = 'This device has no room to keep it: it was not sent. Make room on the device, and send it again.';

document.addEventListener('rivet:lost', ({ detail }) =>
  complain(`This device had no room to keep “${detail.join('”, “')}”: it was not sent. Make room on the device, and say it again.`),
);

const entryOf = (form, submitter, body, more) => {
  const sent = [...body].filter(([name]) => name !== '__RequestVerificationToken');
  return {
    post: body.get('post'),
    url: submitter?.getAttribute('formaction') || form.getAttribute('action') || location.pathname + location.search,
    about: about(form),
    what: called(form, submitter),
    story: storyOf(form, submitter),
    pressed: onButton(submitter),
    fields: sent.filter(([, value]) => typeof value === 'string'),
    files: sent.filter(([, value]) => value instanceof File && value.size).map(([field, blob]) => ({ field, blob, name: blob.name })),
    ...more,
  };
};

// Whoever went on meanwhile isn't called back.
let leftAt = 0;
addEventListener('beforeunload', () => {
  leftAt = Date.now();
});
const go = next => {
  if (Date.now() - leftAt < patience) return;
  const to = new URL(next, location.href);
  if (to.pathname + to.search !== location.pathname + location.search) location.assign(to);
  else if (to.hash) {
    // The same page at another place of it: made anew, and shown there.
    history.scrollRestoration = 'manual';
    history.replaceState(history.state, '', to);
    location.reload();
  } else location.replace(to);
};

// The page as the shop answered, with what is wrong beside its field; false where the answer is another page's, or only words.
const refuse = (entry, html) => {
  const [here, fresh] = [document.querySelector('main'), parsed(html).querySelector('main')];
  if (!fresh || new URL(entry.url, location.href).pathname !== location.pathname) return false;
  morph(here, fresh);
  here.querySelector('.field-problem')?.scrollIntoView({ block: 'center' });
  return true;
};

// Kept here, and shown as what waits until the shop answers; nobody is held up longer than that by a slow connection. What comes of it
// then is told like what went out later.
const outOfPatience = () => new Promise(done => setTimeout(done, patience, { how: 'waits', isLate: true }));
const send = async entry => {
  complain('');
  try {
    const { answer } = await say(entry);
    const heard = await Promise.race([answer, outOfPatience()]);
    if (heard.isLate) answer.then(late => late.how !== 'waits' && tellLater(entry, late));
    return heard;
  } catch {
    complain(noRoom);
    return { how: 'nowhere' };
  }
};

const shown = new Set();
document.addEventListener('submit', async event => {
  const { target: form, submitter } = event;
  if (event.defaultPrevented || !isOurs(form)) return;
  event.preventDefault();
  if (form.dataset.sending) return;
  form.dataset.sending = 'yes';
  const entry = entryOf(form, submitter, new FormData(form, submitter), { headers: { 'X-Rivet': 'outbox' } });
  shown.add(entry.post);
  const answer = await send(entry);
  delete form.dataset.sending;
  form.elements.post.value = newId();
  if (answer.how === 'went') go(answer.made?.next ?? location.href);
  else if (answer.how === 'refused' && !answer.status && refuse(entry, answer.html)) await drop(entry.post);
  else show();
});

// The form that something was said with, where it still has that in it and nothing newer.
const formOf = entry => {
  const form = entry.fields && [...document.querySelectorAll('form')].find(one => isOurs(one) && about(one) === entry.about);
  return form && stillSays(form, entry.fields) ? form : undefined;
};

// What goes out as it is changed: the shop's answer takes the place of what it said before, and what is in the fields is what the shop
// has, and nothing that is being written.
const put = (entry, answer) => {
  for (const field of (answer.how === 'went' && formOf(entry)?.elements) || []) if (isText(field)) field.defaultValue = field.value;
  // A page that was taken along gives way to the shop's own, whole; what is wrong stands by its field there as well.
  if (document.body.dataset.asOf && answer.how === 'went') return;
  const target = document.querySelector(entry.target);
  if (target && answer.html) window.htmx.swap(target, answer.html, { swapStyle: 'innerHTML', swapDelay: 0, settleDelay: 20 });
};
document.addEventListener('htmx:configRequest', event => {
  if (event.detail.verb === 'post' && isOurs(event.target)) event.detail.parameters.post = newId();
});
document.addEventListener('htmx:beforeRequest', async event => {
  const { requestConfig: request, target } = event.detail;
  if (request.verb !== 'post' || !isOurs(event.target)) return;
  event.preventDefault();
  const entry = entryOf(event.target, request.triggeringEvent?.submitter, request.formData, {
    headers: { 'HX-Request': 'true' },
    target: `#${target.id}`,
  });
  shown.add(entry.post);
  const answer = await send(entry);
  if (answer.how === 'refused' && !answer.status) await drop(entry.post);
  if (answer.how === 'waits') show();
  else put(entry, answer);
});
document.addEventListener('rivet:told', ({ detail: { entry, answer } }) => {
  if (entry.kind || entry.place !== location.pathname + location.search) return;
  if (entry.target) {
    put(entry, answer);
    return;
  }
  // What was said doesn't stand there as if it still had to be: nobody says it twice.
  if (answer.how === 'went') formOf(entry)?.reset();
  if (isWriting() || answer.how !== 'went' || document.body.dataset.asOf) look();
  else if (Date.now() - leftAt >= patience) location.reload();
});

// Fingers may be faster than the page: what was typed before it could send is sent now.
const isChanged = field =>
  field.matches('input[type=radio], input[type=checkbox]')
    ? field.checked !== field.defaultChecked
    : field.matches('input:not([type=hidden]), textarea') && field.value !== field.defaultValue;
addEventListener('load', () => {
  for (const form of document.querySelectorAll('form[hx-trigger=change]'))
    if (isOurs(form) && [...form.elements].some(isChanged))
      [...form.elements].find(field => field.matches('input:not([type=hidden])')).dispatchEvent(new Event('change', { bubbles: true }));
});

const clock = at => new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
const note = entry => {
  const made = element('p', { className: entry.isRefused ? 'said-here field-problem' : 'said-here' });
  const said = entry.pressed ? `“${entry.pressed}”: ` : '';
  if (entry.isRefused)
    made.append(
      `${said}Not taken: ${reason(entry)} `,
      button('Send it again', () => sendAgain(entry.post)),
      ' ',
      button('Let it go', () => drop(entry.post)),
    );
  else
    made.append(
      `${said}Waits to be sent since ${clock(entry.at)}. `,
      button('Take it back', () => drop(entry.post)),
    );
  return made;
};

// What waits stands in the form that it was said with.
const show = () => {
  for (const one of document.querySelectorAll('.said-here')) one.remove();
  follow();
  const forms = waiting().some(entry => entry.about) ? [...document.querySelectorAll('form')].filter(isOurs) : [];
  for (const entry of waiting()) {
    const form = entry.about && forms.find(one => about(one) === entry.about);
    if (!form || form.dataset.sending) continue;
    if (!shown.has(entry.post)) fill(form, entry.fields, ['reading']);
    shown.add(entry.post);
    form.append(note(entry));
    if (`#${entry.post}` === location.hash) form.scrollIntoView({ block: 'center' });
  }
};
if (me) {
  document.addEventListener('rivet:outbox', show);
  document.addEventListener('rivet:fresh', show);
  document.addEventListener('rivet:put-right', event => {
    const form = [...document.querySelectorAll('form')].find(one => isOurs(one) && about(one) === event.detail.about);
    if (!form) return;
    event.preventDefault();
    form.scrollIntoView({ block: 'center' });
  });
}
