// Verdicts go out one after the other. Without a connection they wait on the device, and the walk goes on: the forms of the
// zone's other tasks are fetched beforehand. A verdict can be taken back for ten seconds.
import { freshen, live, look, made } from '../../../Browser/live.js';

const list = document.querySelector('[data-live-list]');
const undoSeconds = 10;

if (list) {
  const key = 'rivet:verdicts';
  const line = document.getElementById('connection');
  // A device is shared: what one person pressed waits for that person, and never goes out under another's name.
  const me = document.body.dataset.me;
  const all = () => JSON.parse(localStorage.getItem(key) ?? '[]');
  const queue = () => all().filter(entry => entry.me === me);
  const keep = entries => localStorage.setItem(key, JSON.stringify([...all().filter(entry => entry.me !== me), ...entries]));
  // Signed in anew, the old form's token holds no longer; this page's does.
  const tokenName = '__RequestVerificationToken';
  const withToken = body => [
    ...body.filter(([name]) => name !== tokenName),
    [tokenName, document.querySelector(`input[name=${tokenName}]`)?.value ?? ''],
  ];
  const panels = new Map();
  let sending = false;
  let retry;
  let closing;

  const fetchPanels = async () => {
    const open = list.querySelectorAll('[data-state=NotYet]');
    if (!open.length) return;
    try {
      const answer = await fetch(`${location.pathname}${location.search}${location.search ? '&' : '?'}handler=Panels`, live);
      if (!answer.ok || answer.redirected) return;
      const page = new DOMParser().parseFromString(await answer.text(), 'text/html');
      for (const template of page.querySelectorAll('[data-panel]')) panels.set(template.dataset.panel, template);
    } catch {
      /* without a connection the page does with what it has */
    }
  };

  const waiting = () => {
    const entries = queue();
    const refused = entries.filter(entry => entry.refused);
    const text = [
      entries.length - refused.length ? `${entries.length - refused.length} waiting to send. They are kept on this device.` : '',
      refused.length ? `${refused.length} not taken: ` : '',
    ]
      .join(' ')
      .trim();
    line.replaceChildren(text);
    for (const entry of refused) {
      const link = Object.assign(document.createElement('a'), {
        href: `${entry.url.split('&handler')[0]}#${entry.post}`,
        textContent: `${entry.what} (${entry.refused})`,
      });
      link.addEventListener('click', event => {
        if (showRefused(entry.post)) event.preventDefault();
      });
      const drop = Object.assign(document.createElement('button'), {
        type: 'button',
        className: 'btn btn-quiet',
        textContent: 'Let it go',
      });
      drop.addEventListener('click', () => {
        keep(queue().filter(other => other.post !== entry.post));
        waiting();
      });
      line.append(' ', link, ' ', drop);
    }
    line.hidden = text === '';
    for (const row of list.querySelectorAll('.waiting')) row.classList.remove('waiting');
    for (const entry of entries) document.getElementById(`task-${entry.task}`)?.classList.add('waiting');
  };

  // A verdict that wasn't taken is sent once more, so that both answers stand side by side in its task.
  const showRefused = post => {
    const entry = queue().find(other => other.post === post && other.refused);
    if (!entry || new URL(entry.url, location.href).pathname !== location.pathname) return false;
    keep(queue().map(other => (other.post === post ? { ...other, refused: undefined, waited: undefined } : other)));
    flush();
    return true;
  };

  const closeUndo = () => {
    clearTimeout(closing);
    closing = setTimeout(() => document.getElementById('undo')?.replaceChildren(), undoSeconds * 1000);
  };

  // The next open task from what is on the device.
  const openNext = task => {
    const rows = [...list.children];
    const at = rows.findIndex(row => row.dataset.task === task);
    const sent = new Set(queue().map(entry => entry.task));
    const isOpen = row => row.dataset.state === 'NotYet' && panels.has(row.dataset.task) && !sent.has(row.dataset.task);
    const next = rows.slice(at + 1).find(isOpen) ?? rows.find(isOpen);
    const current = rows[at];
    if (!next) return false;
    const template = panels.get(next.dataset.task);
    const panel = Object.assign(document.createElement('li'), { className: 'task current', id: next.id });
    Object.assign(panel.dataset, { current: '', task: next.dataset.task, changes: template.dataset.changes, said: '' });
    panel.append(document.importNode(template.content, true));
    const done = Object.assign(document.createElement('li'), { className: 'task', id: current.id });
    Object.assign(done.dataset, { task, state: 'Sent' });
    const words = Object.assign(document.createElement('span'), {
      className: 'what',
      textContent: current.querySelector('h2').textContent,
    });
    const said = Object.assign(document.createElement('span'), { className: 'soft who', textContent: 'kept on this device' });
    const box = Object.assign(document.createElement('a'), {
      href: current.querySelector('form').getAttribute('action').split('&handler')[0],
    });
    box.append(document.createElement('span'), words, said);
    done.append(box);
    current.replaceWith(done);
    next.replaceWith(panel);
    window.htmx?.process(panel);
    history.replaceState(history.state, '', `?task=${next.dataset.task}`);
    return true;
  };

  const showUndo = entry => {
    const well = document.getElementById('undo');
    const button = Object.assign(document.createElement('button'), { type: 'button', className: 'btn btn-plain', textContent: 'Undo ' });
    button.append(Object.assign(document.createElement('kbd'), { textContent: 'u' }));
    button.dataset.key = 'u';
    button.dataset.keySays = 'Undo, for ten seconds';
    button.addEventListener('click', () => {
      keep(queue().filter(other => other.post !== entry.post));
      well.replaceChildren();
      waiting();
      const row = document.getElementById(`task-${entry.task}`);
      const template = panels.get(entry.task);
      if (!row || !template || row.matches('[data-current]')) return;
      const open = list.querySelector('[data-current]');
      const back = Object.assign(document.createElement('li'), { className: 'task', id: open.id });
      Object.assign(back.dataset, { task: open.dataset.task, state: 'NotYet' });
      const link = Object.assign(document.createElement('a'), { href: `?task=${open.dataset.task}` });
      link.append(
        document.createElement('span'),
        Object.assign(document.createElement('span'), { className: 'what', textContent: open.querySelector('h2').textContent }),
      );
      back.append(link);
      open.replaceWith(back);
      const panel = Object.assign(document.createElement('li'), { className: 'task current', id: row.id });
      Object.assign(panel.dataset, { current: '', task: entry.task, changes: template.dataset.changes, said: '' });
      panel.append(document.importNode(template.content, true));
      row.replaceWith(panel);
      window.htmx?.process(panel);
    });
    well.replaceChildren(Object.assign(document.createElement('span'), { textContent: `${entry.what}: kept on this device ` }), button);
    closeUndo();
  };

  const later = () => {
    clearTimeout(retry);
    retry = setTimeout(flush, 1500);
  };

  async function flush() {
    if (sending) return;
    sending = true;
    try {
      for (let entry = queue().find(one => !one.refused); entry; entry = queue().find(one => !one.refused)) {
        let answer;
        made(entry.post);
        try {
          answer = await fetch(entry.url, { ...live, method: 'POST', body: new URLSearchParams(withToken(entry.body)) });
        } catch {
          waiting();
          later();
          return;
        }
        // The door, or a server that is just coming up: what was said is kept until it is taken.
        if (answer.status >= 500 || (answer.redirected && new URL(answer.url).pathname.startsWith('/enter'))) {
          waiting();
          if (answer.redirected) line.append(' Sign in again to send them.');
          else later();
          return;
        }
        const html = await answer.text();
        const others = queue().filter(other => other.post !== entry.post);
        const here = location.pathname === new URL(entry.url, location.href).pathname;
        if (answer.ok) {
          keep(others);
          if (here) take(html, entry, others);
        } else if (answer.status === 422 && here && !entry.waited) {
          // Pressed just now: what is wrong stands by its field.
          keep(others);
          freshen(html, { keepOpen: false });
          list.querySelector('.field-problem, .clash')?.scrollIntoView({ block: 'nearest' });
        } else {
          keep([
            ...others,
            {
              ...entry,
              refused: answer.status === 422 ? 'somebody else answered it, or it needs a look' : `the shop said ${answer.status}`,
            },
          ]);
          look();
        }
        waiting();
      }
    } finally {
      sending = false;
    }
  }

  // The shop's page takes the place of this one's; while more wait, the open task stays.
  const take = (html, entry, others) => {
    // Who has gone on to another task stays there; and a task that waits to be sent isn't asked again.
    freshen(html, { keepOpen: list.querySelector('[data-current]')?.dataset.task !== entry.task });
    const open = list.querySelector('[data-current]')?.dataset.task;
    if (others.some(other => other.task === open && !other.refused)) openNext(open);
    settle();
  };

  // The address names the open task, so that coming back comes back to it.
  const settle = () => {
    const form = list.querySelector('[data-current] form');
    if (form) history.replaceState(history.state, '', form.getAttribute('action').split('&handler')[0]);
    closeUndo();
    fetchPanels();
  };

  document.addEventListener('submit', event => {
    const form = event.target;
    if (form.matches('[data-undo]')) {
      event.preventDefault();
      made(form.elements.post.value);
      fetch(form.action, { ...live, method: 'POST', body: new URLSearchParams(new FormData(form)) })
        .then(async answer => {
          freshen(await answer.text(), { keepOpen: false });
          settle();
        })
        .catch(() => {
          line.textContent = 'No connection: it can be taken back when it is there again.';
          line.hidden = false;
        });
      return;
    }
    // A value on its way to the fix list goes there with its page.
    if (!form.matches('[data-verdict]') || event.submitter?.dataset.then !== undefined) return;
    event.preventDefault();
    const body = [...new FormData(form)];
    if (event.submitter?.name) body.push([event.submitter.name, event.submitter.value]);
    const entry = {
      me,
      url: form.getAttribute('action'),
      post: form.elements.post.value,
      task: form.elements.task.value,
      what: form.closest('[data-current]')?.querySelector('h2')?.textContent ?? '',
      body,
    };
    if (queue().some(other => other.post === entry.post)) return;
    keep([...queue().filter(other => !(other.refused && other.task === entry.task)), entry]);
    const before = document.querySelector('[data-current]')?.dataset.task;
    flush().then(() => {
      if (!queue().some(other => other.post === entry.post && !other.refused)) return;
      // It didn't go out: the walk goes on all the same.
      keep(queue().map(other => (other.post === entry.post ? { ...other, waited: true } : other)));
      if (before === list.querySelector('[data-current]')?.dataset.task) openNext(entry.task);
      showUndo(entry);
      waiting();
    });
  });

  addEventListener('online', () => flush());
  document.addEventListener('rivet:fresh', waiting);
  fetchPanels();
  waiting();
  if (!showRefused(location.hash.slice(1)) && queue().length) flush();

  // A swipe goes to the task after or before.
  let start;
  list.addEventListener(
    'touchstart',
    event => {
      start = event.touches.length === 1 ? [event.touches[0].clientX, event.touches[0].clientY] : undefined;
    },
    { passive: true },
  );
  list.addEventListener('touchend', event => {
    if (!start) return;
    const [x, y] = [event.changedTouches[0].clientX - start[0], event.changedTouches[0].clientY - start[1]];
    start = undefined;
    if (Math.abs(x) < 60 || Math.abs(y) > Math.abs(x) / 2 || !event.target.closest('[data-current]')) return;
    list.querySelector(`[data-swipe=${x < 0 ? 'left' : 'right'}]`)?.click();
  });
}
