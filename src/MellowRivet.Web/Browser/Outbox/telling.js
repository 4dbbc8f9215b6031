// What a page has to tell the shop: said here, it is kept on this device and goes out by itself, from this page or another.
import { inspections } from '../Aboard/aboard.js';
import { ready } from '../Aboard/keyring.js';
import { held as keyOf, Locked } from '../Aboard/vault.js';
import { made } from '../live.js';
import { parsed } from '../morph.js';
import { bringOver } from './earlier.js';
import * as outbox from './outbox.js';

export const me = document.body.dataset.me;
// After a try that failed: at once, then longer each time, and from the beginning as soon as something went.
const [shortest, longest] = [200, 3000];
let wait = shortest;

let entries = [];
/** What waits and what was refused, in the order it was said in. */
export const waiting = () => entries;

/** Why what waits isn't taken, where the shop says so. */
export let held = '';

/** What was said of an inspection that was signed without it, and is left open on the aircraft now: where, and under which number. */
export let left = [];

/** What is aboard was made by an older program than the shop's. */
export let isOlder = false;

const look = async () => {
  try {
    entries = me ? await outbox.mine(me) : [];
    left = me ? await outbox.leftOpen(me) : [];
  } catch (problem) {
    if (!(problem instanceof Locked)) throw problem;
    entries = [];
  }
  document.dispatchEvent(new CustomEvent('rivet:outbox'));
};

// Whoever said something here hears first what became of it; what went out later, or from another page, is told to the document.
const asked = new Map();
const settle = (post, answer) => {
  const hears = asked.get(post);
  asked.delete(post);
  hears?.(answer);
  return Boolean(hears);
};
const hear = async (entry, answer) => {
  held = (answer.how === 'waits' && answer.why) || '';
  await look();
  if (!settle(entry.post, answer) && answer.how !== 'waits') tellLater(entry, answer);
};
/** Tells the document what became of something that nobody waits for any more. */
export const tellLater = (entry, answer) => document.dispatchEvent(new CustomEvent('rivet:told', { detail: { entry, answer } }));

const news = new BroadcastChannel('rivet:outbox');
news.onmessage = async ({ data }) => {
  if (data.me !== me) return;
  // What went out from elsewhere comes without its words: this page has them.
  if (data.answer) await hear(entries.find(entry => entry.post === data.entry.post) ?? data.entry, data.answer);
  else await look();
  if (data.isKept) flush();
  if (data.lost) document.dispatchEvent(new CustomEvent('rivet:lost', { detail: data.lost }));
};
const tell = what => news.postMessage({ me, ...what });

// A page that the shop made just now has a token that holds; one that was taken along hasn't.
const token = () => (document.body.dataset.asOf ? undefined : document.querySelector('input[name=__RequestVerificationToken]')?.value);

let retry;
/** Sends what waits. */
export const flush = async () => {
  clearTimeout(retry);
  try {
    const door = { token: token() };
    await outbox.flush(me, door, async (entry, answer) => {
      if (answer.how !== 'waits') wait = shortest;
      await hear(entry, answer);
      tell({ entry: { ...entry, fields: undefined }, answer });
    });
    isOlder = Boolean(door.version) && (await inspections(me)).some(one => one.version !== door.version);
    if (isOlder) await look();
  } catch (problem) {
    if (!(problem instanceof Locked)) throw problem;
    return;
  }
  if (!entries.some(entry => !entry.isRefused)) return;
  retry = setTimeout(flush, wait);
  wait = Math.min(wait * 2, longest);
  // The browser sends it with no page open, where it can.
  (await navigator.serviceWorker?.getRegistration())?.sync?.register('rivet:outbox').catch(() => {});
};

// A page may go away while what was said on it is being written down: the worker outlives it, and sees to that.
const unkept = new Map();
if (me)
  addEventListener('pagehide', () => {
    if (unkept.size) navigator.serviceWorker?.controller?.postMessage({ keep: [...unkept.values()], me, key: keyOf(me) });
  });
const write = async entry => {
  unkept.set(entry.post, entry);
  try {
    await outbox.keep(me, entry);
  } catch (problem) {
    // The worker was first.
    if (problem.name !== 'ConstraintError') throw problem;
  } finally {
    unkept.delete(entry.post);
  }
};

/**
 * Says one thing. It is kept when this comes back, with what will be heard of it: what became of it, or that it waits. It throws where
 * the device has no room to keep it.
 */
export const say = async entry => {
  made(entry.post);
  await write({ at: Date.now(), drawn: document.body.dataset.drawn, place: location.pathname + location.search, ...entry });
  await look();
  tell({});
  const answer = new Promise(hears => asked.set(entry.post, hears));
  flush().then(() => settle(entry.post, { how: 'waits' }));
  return { answer };
};

/** Looks anew at what waits, and sends it. */
export const again = async () => {
  await look();
  tell({});
  flush();
};

/** Takes an entry back, or lets it go. */
export const drop = async post => {
  await outbox.drop(post);
  await look();
  tell({});
};

/** Somebody has seen what became of an entry. */
export const seen = async post => {
  await outbox.seen(post);
  await look();
};

/** Sends one again that was refused. */
export const sendAgain = async post => {
  await outbox.again(post);
  await look();
  const answer = new Promise(hears => asked.set(post, hears));
  flush().then(() => settle(post, { how: 'waits' }));
  return { answer };
};

/** Why an entry was refused, in words. */
export const reason = entry => {
  const page = parsed(entry.why);
  return (page.querySelector('.clash p, .field-problem') ?? page.body).textContent.replace(/\s+/g, ' ').trim();
};

if (me) {
  navigator.serviceWorker?.controller?.postMessage({ hears: me });
  addEventListener('online', flush);
  document.addEventListener('rivet:unlocked', () => look().then(flush));
  ready
    .then(bringOver)
    .then(look)
    .then(() => entries.length && flush());
}
