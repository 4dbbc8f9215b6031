// Verdicts go out one after the other. Without a connection they wait on the device, and the walk goes on: what the zone's tasks
// look like by then is fetched beforehand. A verdict can be taken back for ten seconds.
import { newId } from '../../../Browser/ids.js';
import { freshen, live, look, made } from '../../../Browser/live.js';
import { morph, parsed } from '../../../Browser/morph.js';

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
  let beforehand = parsed('');
  let sending = false;
  let retry;
  let closing;

  const fetchPanels = async () => {
    if (!list.querySelector('[data-current] form')) return;
    try {
      const answer = await fetch(`${location.pathname}${location.search}${location.search ? '&' : '?'}handler=Panels`, live);
      if (!answer.ok || answer.redirected) return;
      beforehand = parsed(await answer.text());
      // Where the shop would open a task that has just been sent, its page has no line for it: here it is.
      for (const { dataset } of list.querySelectorAll('[data-state=Kept]'))
        if (!queue().some(entry => entry.task === dataset.task)) take('line', dataset.task);
    } catch {
      /* without a connection the page does with what it has */
    }
  };

  // Why what waits isn't taken, where the shop says so itself.
  let held = '';
  const waiting = () => {
    const entries = queue();
    const refused = entries.filter(entry => entry.refused);
    const text = [
      entries.length - refused.length
        ? `${entries.length - refused.length} waiting to send. They are kept on this device. ${held}`.trim()
        : '',
      refused.length ? `${refused.length} not taken: ` : '',
    ]
      .join(' ')
      .trim();
    line.replaceChildren(text);
    for (const entry of refused) {
      const said = document.getElementById('not-taken').content.cloneNode(true);
      const [link, drop] = [said.querySelector('a'), said.querySelector('button')];
      link.href = `${entry.url.split('&handler')[0]}#${entry.post}`;
      link.textContent = `${entry.what} (${entry.refused})`;
      link.addEventListener('click', event => {
        if (showRefused(entry.post)) event.preventDefault();
      });
      drop.addEventListener('click', () => {
        keep(queue().filter(other => other.post !== entry.post));
        waiting();
      });
      line.append(' ', said);
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

  // What a task looks like: open with its form, as a line, or as a line whose answer waits on the device.
  const shape = (how, task) => beforehand.querySelector(`[data-${how}="${task}"]`)?.content;
  const take = (how, task) => {
    const fresh = shape(how, task)?.firstElementChild.cloneNode(true);
    const old = document.getElementById(`task-${task}`);
    if (!fresh || !old) return false;
    // What was pressed before may have arrived: pressed anew, it is another answer.
    const post = fresh.querySelector('input[name=post]');
    if (post) post.value = newId();
    morph(old, fresh);
    return true;
  };

  // The next open task from what is on the device.
  const openNext = task => {
    const rows = [...list.children];
    const at = rows.findIndex(row => row.dataset.task === task);
    const sent = new Set(queue().map(entry => entry.task));
    const isOpen = row => row.dataset.state === 'NotYet' && shape('open', row.dataset.task) && !sent.has(row.dataset.task);
    const next = rows.slice(at + 1).find(isOpen) ?? rows.find(isOpen);
    if (!next || !take('kept', task)) return;
    const opened = next.dataset.task;
    take('open', opened);
    history.replaceState(history.state, '', `?task=${opened}`);
  };

  const showUndo = entry => {
    const well = document.getElementById('undo');
    const undo = shape('undo', entry.task)?.cloneNode(true);
    if (!undo) return;
    undo.querySelector('button').addEventListener('click', () => {
      keep(queue().filter(other => other.post !== entry.post));
      well.replaceChildren();
      waiting();
      const open = list.querySelector('[data-current]').dataset.task;
      if (open !== entry.task && take('open', entry.task)) take('line', open);
    });
    well.replaceChildren(undo);
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
        held = answer.status === 507 ? await answer.text() : '';
        // The door, no room on the shop's disk, or a server that is just coming up: what was said is kept until it is taken.
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
          if (here) arrived(html, entry, others);
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
  const arrived = (html, entry, others) => {
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
