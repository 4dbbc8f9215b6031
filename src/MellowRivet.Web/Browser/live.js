// A page of the walk keeps up with what others do: when somebody writes, the parts of the page that are marked for it are
// fetched anew and put in place. What a person is typing in is left alone.
import { morph, parsed } from './morph.js';

export const live = { cache: 'no-store', headers: { 'X-Rivet': 'live' } };

const isTouched = form =>
  form &&
  [...form.elements].some(field =>
    field.matches('input:not([type=hidden],[type=radio],[type=checkbox]), textarea')
      ? field.value !== field.defaultValue
      : field.matches('input[type=radio], input[type=checkbox]')
        ? field.checked !== field.defaultChecked
        : false,
  );

// The list keeps the open task while a person is at it, though the shop would open another; every other line comes from the shop.
const mergeList = (list, fresh, keepOpen) => {
  const open = list.querySelector('[data-current]');
  const same = open && [...fresh.children].find(line => line.id === open.id);
  const unchanged = same && open.dataset.changes === same.dataset.changes;
  if (!keepOpen || !same || !(unchanged || isTouched(open.querySelector('form')))) {
    morph(list, fresh);
    return;
  }
  if (!unchanged && !open.querySelector('.someone')) {
    const note = document.getElementById('meanwhile').content.cloneNode(true);
    note.querySelector('span').textContent = same.dataset.said;
    open.prepend(note);
  }
  // Two tasks aren't open at once: the one the shop would open keeps its line.
  const theirs = fresh.querySelector('[data-current]');
  const line = theirs && theirs !== same && document.getElementById(theirs.id);
  if (theirs !== same) theirs?.replaceWith(...(line ? [line.cloneNode(true)] : []));
  same.replaceChildren();
  morph(list, fresh, open);
};

/** Puts the marked parts of a fetched page in place of this page's. */
export const freshen = (html, { keepOpen = true } = {}) => {
  const page = parsed(html);
  for (const old of document.querySelectorAll('[data-live]')) {
    const fresh = page.getElementById(old.id);
    if (
      !fresh ||
      (old.contains(document.activeElement) && document.activeElement.matches('input, textarea, select')) ||
      [...old.querySelectorAll('form')].some(isTouched)
    )
      continue;
    if (old.id === 'undo' && keepOpen) continue;
    morph(old, fresh);
  }
  const list = document.querySelector('[data-live-list]');
  const fresh = page.querySelector('[data-live-list]');
  if (list && fresh) mergeList(list, fresh, keepOpen);
  document.dispatchEvent(new CustomEvent('rivet:fresh'));
};

const mine = new Set();
/** Posts this device made itself: their echo needs no second look. */
export const made = post => mine.add(post);

let asked;
/** Asks for the page as it is now. */
export const look = () => {
  clearTimeout(asked);
  asked = setTimeout(async () => {
    try {
      const answer = await fetch(location.href, live);
      if (answer.ok && !answer.redirected) freshen(await answer.text());
    } catch {
      /* the connection is gone: the stream says so when it is back */
    }
  }, 120);
};

// This device put something on the fix list: its own page shows it as well.
document.addEventListener('rivet:captured', look);

const showWho = who => {
  const me = document.querySelector('[data-me]')?.dataset.me;
  for (const place of document.querySelectorAll('[data-who-zone]')) {
    const here = [...new Set(who.filter(one => one.zoneKey === place.dataset.whoZone && one.personId !== me).map(one => one.initials))];
    place.textContent = [place.dataset.taken, here.length ? `${here.join(', ')} here` : ''].filter(Boolean).join(' · ');
  }
};

const source = document.querySelector('[data-events]');
if (source) {
  let lost = false;
  let who = [];
  const stream = new EventSource(source.dataset.events);
  stream.onmessage = event => {
    const news = JSON.parse(event.data);
    who = news.who;
    showWho(who);
    if (news.post && !mine.delete(news.post)) look();
  };
  stream.onopen = () => {
    if (lost) look();
    lost = false;
  };
  stream.onerror = () => {
    lost = true;
  };
  document.addEventListener('rivet:fresh', () => showWho(who));
  addEventListener('pagehide', () => stream.close());
  addEventListener('pageshow', event => {
    if (event.persisted) location.reload();
  });
}
