// Verdicts go out one after the other. Without a connection they wait on the device, and the walk goes on: what the zone's tasks
// look like by then is fetched beforehand. A verdict can be taken back for ten seconds.
import { newId } from '../../../Browser/ids.js';
import { notGood } from '../../../Browser/Judging/here.js';
import { freshen, live, look, made } from '../../../Browser/live.js';
import { morph, parsed } from '../../../Browser/morph.js';
import { storyOf } from '../../../Browser/Outbox/story.js';
import { drop, say, sendAgain, waiting } from '../../../Browser/Outbox/telling.js';
import { element } from '../../../Browser/page.js';

const list = document.querySelector('[data-live-list]');
const undoSeconds = 10;

if (list) {
  const line = document.getElementById('connection');
  const pressed = new Set();
  // What of this person's waits, of any zone; and what was refused.
  const queue = () => waiting().filter(entry => entry.kind === 'verdict');
  const isHere = entry => new URL(entry.url, location.href).pathname === location.pathname;
  let beforehand = parsed('');
  let closing;

  const fetchPanels = async () => {
    if (!list.querySelector('[data-current] form')) return;
    try {
      const answer = await fetch(`${location.pathname}${location.search}${location.search ? '&' : '?'}handler=Panels`, {
        headers: { ...live.headers, ...(document.body.dataset.asOf ? { 'X-Rivet-As-Of': 'yes' } : {}) },
      });
      if (!answer.ok || answer.redirected) return;
      beforehand = parsed(await answer.text());
      // Where the shop would open a task that has just been sent, its page has no line for it: here it is.
      for (const { dataset } of list.querySelectorAll('[data-state=Kept]'))
        if (!queue().some(entry => entry.task === dataset.task)) take('line', dataset.task);
    } catch {
      /* without a connection the page does with what it has */
    }
    if (document.body.dataset.asOf) openAsked();
  };

  // A page that was taken along opens the task it was made with: the one that was asked for is opened here, and none in its place.
  const openAsked = () => {
    const asked = new URLSearchParams(location.search).get('task');
    const open = list.querySelector('[data-current]')?.dataset.task;
    if (!asked || asked === open || queue().some(entry => entry.task === asked)) return;
    if (take('open', asked)) {
      if (open) take('line', open);
    } else {
      line.textContent = 'That task was answered when this was taken along: it is changed where the shop is in reach.';
      line.hidden = false;
    }
  };

  const mark = () => {
    for (const row of list.querySelectorAll('.waiting')) row.classList.remove('waiting');
    for (const entry of queue()) document.getElementById(`task-${entry.task}`)?.classList.add('waiting');
    // All of the zone is answered, here or at the shop: its look can be said.
    const isAnswered = row =>
      row.dataset.state !== 'NotYet' && (row.dataset.state || queue().some(entry => entry.task === row.dataset.task));
    for (const form of document.querySelectorAll('[data-when-answered]'))
      form.hidden &&= !(queue().length && [...list.children].every(isAnswered));
  };

  // A verdict that wasn't taken is sent once more, so that both answers stand side by side in its task.
  const putRight = async entry => {
    const { answer } = await sendAgain(entry.post);
    await hear(entry, await answer, true);
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
    undo.querySelector('button').addEventListener('click', async () => {
      well.replaceChildren();
      await drop(entry.post);
      const open = list.querySelector('[data-current]').dataset.task;
      if (open !== entry.task && take('open', entry.task)) take('line', open);
    });
    well.replaceChildren(undo);
    closeUndo();
  };

  // What became of a verdict: by whoever has just pressed it, or later and of its own accord.
  const hear = async (entry, answer, isPressed) => {
    if (answer.how === 'went') {
      if (isHere(entry)) arrived(answer.html, entry);
    } else if (answer.how === 'refused' && !answer.status && isPressed && isHere(entry)) {
      // What is wrong stands by its field.
      await drop(entry.post);
      freshen(answer.html, { keepOpen: false });
      list.querySelector('.field-problem, .clash')?.scrollIntoView({ block: 'nearest' });
    } else if (answer.how === 'refused' || answer.how === 'late') look();
    else if (isPressed) goOn(entry);
  };

  // It didn't go out: the walk goes on all the same.
  const goOn = entry => {
    if (list.querySelector('[data-current]')?.dataset.task === entry.task) openNext(entry.task);
    showUndo(entry);
    mark();
  };

  // The shop's page takes the place of this one's; while more wait, the open task stays.
  const arrived = (html, entry) => {
    // Who has gone on to another task stays there; and a task that waits to be sent isn't asked again.
    freshen(html, { keepOpen: list.querySelector('[data-current]')?.dataset.task !== entry.task });
    const open = list.querySelector('[data-current]')?.dataset.task;
    if (queue().some(other => other.task === open && !other.isRefused)) openNext(open);
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
    const wrong = event.submitter?.value === 'Good' && notGood(form);
    if (wrong) {
      const place = document.querySelector(form.dataset.judged);
      place.replaceChildren(element('p', { className: 'field-problem', role: 'alert', textContent: wrong }));
      place.scrollIntoView({ block: 'center' });
      return;
    }
    const body = [...new FormData(form)];
    if (event.submitter?.name) body.push([event.submitter.name, event.submitter.value]);
    const what = form.closest('[data-current]')?.querySelector('h2')?.textContent ?? '';
    const entry = {
      kind: 'verdict',
      post: form.elements.post.value,
      url: form.getAttribute('action'),
      task: form.elements.task.value,
      what,
      story: storyOf(form, event.submitter, what),
      headers: live.headers,
      fields: body.filter(([name]) => name !== '__RequestVerificationToken'),
    };
    if (pressed.has(entry.post)) return;
    pressed.add(entry.post);
    tell(entry);
  });

  const tell = async entry => {
    for (const other of queue()) if (other.isRefused && other.task === entry.task) await drop(other.post);
    try {
      const { answer } = await say(entry);
      await hear(entry, await answer, true);
    } catch {
      pressed.delete(entry.post);
      line.textContent = 'This device has no room to keep it: it was not sent. Make room, and press again.';
      line.hidden = false;
    }
  };

  document.addEventListener('rivet:told', ({ detail: { entry, answer } }) => entry.kind === 'verdict' && hear(entry, answer, false));
  document.addEventListener('rivet:put-right', event => {
    if (event.detail.kind !== 'verdict' || !isHere(event.detail)) return;
    event.preventDefault();
    putRight(event.detail);
  });
  document.addEventListener('rivet:fresh', mark);
  document.addEventListener('rivet:outbox', mark);
  // Come here to see why it wasn't taken.
  document.addEventListener(
    'rivet:outbox',
    () => {
      const wrong = queue().find(entry => entry.isRefused && `#${entry.post}` === location.hash);
      if (wrong) putRight(wrong);
    },
    { once: true },
  );
  fetchPanels();

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
