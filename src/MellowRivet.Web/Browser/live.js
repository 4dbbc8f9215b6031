// A page of the walk keeps up with what others do: when somebody writes, the parts of the page that are marked for it are
// fetched anew and put in place. What a person is typing in is left alone.
export const live = { headers: { 'X-Rivet': 'live' } };

const parse = html => new DOMParser().parseFromString(html, 'text/html');

const isTouched = form =>
  form &&
  [...form.elements].some(field =>
    field.matches('input:not([type=hidden],[type=radio],[type=checkbox]), textarea')
      ? field.value !== field.defaultValue
      : field.matches('input[type=radio], input[type=checkbox]')
        ? field.checked !== field.defaultChecked
        : false,
  );

const place = (old, fresh) => {
  const node = document.importNode(fresh, true);
  old.replaceWith(node);
  window.htmx?.process(node);
  return node;
};

// The list keeps the open task while a person is at it, though the shop would open another; every other line comes from the shop.
const mergeList = (list, fresh, keepOpen) => {
  const open = list.querySelector('[data-current]');
  const same = open && [...fresh.children].find(line => line.id === open.id);
  const unchanged = same && open.dataset.changes === same.dataset.changes;
  const keep = keepOpen && same && (unchanged || isTouched(open.querySelector('form')));
  if (keep && !unchanged && !open.querySelector('.someone')) {
    const note = document.createElement('p');
    note.className = 'someone';
    note.setAttribute('role', 'alert');
    const said = same.dataset.said || 'somebody set it back to not yet';
    note.textContent = `Meanwhile ${said}. What you typed is still here and not kept yet.`;
    open.prepend(note);
  }
  const nodes = [...fresh.children].map(line => {
    if (!keep) return document.importNode(line, true);
    if (line.id === open.id) return open;
    return line.matches('[data-current]')
      ? ([...list.children].find(old => old.id === line.id) ?? document.importNode(line, true))
      : document.importNode(line, true);
  });
  // The open task never leaves the page: a button taken out of it between a finger's down and up gives no click.
  if (keep) {
    const at = nodes.indexOf(open);
    for (const line of [...list.children]) if (line !== open) line.remove();
    open.before(...nodes.slice(0, at));
    open.after(...nodes.slice(at + 1));
  } else {
    list.replaceChildren(...nodes);
  }
  nodes.filter(node => node !== open).forEach(node => window.htmx?.process(node));
};

/** Puts the marked parts of a fetched page in place of this page's. */
export const freshen = (html, { keepOpen = true } = {}) => {
  const page = parse(html);
  for (const old of document.querySelectorAll('[data-live]')) {
    const fresh = page.getElementById(old.id);
    if (
      !fresh ||
      old.isEqualNode(fresh) ||
      (old.contains(document.activeElement) && document.activeElement.matches('input, textarea, select')) ||
      [...old.querySelectorAll('form')].some(isTouched)
    )
      continue;
    if (old.id === 'undo' && keepOpen) continue;
    place(old, fresh);
  }
  const list = document.querySelector('[data-live-list]');
  const fresh = page.querySelector('[data-live-list]');
  if (
    list &&
    fresh &&
    !(
      keepOpen &&
      [...list.children].every((line, index) => line.isEqualNode(fresh.children[index])) &&
      list.children.length === fresh.children.length
    )
  )
    mergeList(list, fresh, keepOpen);
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
