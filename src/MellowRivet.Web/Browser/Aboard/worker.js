// Stands between the pages and the network. What the shop answers is shown as it comes; where it can't be reached, a page that was
// taken along is shown in its place, and says as of when it is. Nothing else is ever shown for what it isn't.
import { flush, keep } from '../Outbox/outbox.js';
import * as aboard from './aboard.js';
import * as vault from './vault.js';

const away = '/away.html';
// A network that doesn't answer is none: nobody stands longer before a page that is aboard.
const [patience, resting, longest] = [4000, 8000, 60_000];

// Whose device it is now, and since when nobody touched it.
let now;
let awayUntil = 0;

self.addEventListener('install', event => event.waitUntil(self.skipWaiting()));
self.addEventListener('activate', event => event.waitUntil(self.clients.claim()));

const isLocked = () => !now || !vault.held(now.me) || Date.now() - now.at > now.minutes * 60_000;
const lock = () => {
  if (now) vault.hold(now.me);
  now = undefined;
};

// What the pages say: whoever is at them, with the key that only pages and this worker have in their memory.
const news = new BroadcastChannel('rivet:device');
const channel = new BroadcastChannel('rivet:outbox');

// A page went away before what was said on it was written down. Its key is held no longer than that where nobody is at the device. What
// there was no room for, the next page of theirs says.
let [lost, keeping] = [[], Promise.resolve()];
const keepAll = async ({ me, key, keep: entries }) => {
  if (key) vault.hold(me, key);
  for (const entry of entries)
    await keep(me, entry).catch(problem => {
      // Unless the page had come to it: the next one says so.
      if (problem.name !== 'ConstraintError') lost.push({ me, what: entry.what });
    });
  if (now?.me !== me) vault.hold(me);
  channel.postMessage({ me, isKept: true });
};
const sayLost = async me => {
  await keeping;
  const what = lost.filter(one => one.me === me).map(one => one.what);
  lost = lost.filter(one => one.me !== me);
  if (what.length) channel.postMessage({ me, lost: what });
};

self.addEventListener('message', event => {
  const { data, ports } = event;
  if (data.lock) {
    lock();
    news.postMessage({ locked: true });
  } else if (data.is) {
    // Somebody else is at the device: what is another's isn't theirs to see.
    if (now && now.me !== data.is) lock();
  } else if (data.hears) {
    event.waitUntil(sayLost(data.hears));
  } else if (data.key && !data.keep) {
    vault.hold(data.me, data.key);
    now = { me: data.me, at: data.at, minutes: data.minutes };
  } else if (data.asks) ports[0].postMessage(isLocked() || now.me !== data.asks ? {} : { key: vault.held(data.asks), at: now.at });
  if (data.keep) event.waitUntil((keeping = keepAll(data)));
});

// The browser says that the network is back, with no page open: what can be opened goes out.
self.addEventListener('sync', event => {
  if (event.tag !== 'rivet:outbox' || isLocked()) return;
  const { me } = now;
  event.waitUntil(
    flush(me, {}, (entry, answer) => channel.postMessage({ me, entry: { ...entry, fields: undefined }, answer })).then(results => {
      if (results.includes('waits')) throw new Error('It is tried again.');
    }),
  );
});

const late = ms => new Promise((_, failed) => setTimeout(failed, ms, new Error('No answer.')));
// The shop's own words for "not now" come from whatever stands before it while it can't be reached.
const isAway = answer => [502, 503, 504].includes(answer.status);
const asks = async (request, ms) => {
  const signal = AbortSignal.timeout(longest);
  const answer = await Promise.race([fetch(request, { cache: 'no-store', signal }), ...(ms ? [late(ms)] : [])]);
  if (isAway(answer)) throw new Error('The shop is away.');
  awayUntil = 0;
  whoStays();
  return answer;
};

// Whoever is none of the shop's people any more has nothing aboard, from the first moment that the shop is in reach.
let asked = 0;
const whoStays = async () => {
  if (Date.now() - asked < 60_000) return;
  asked = Date.now();
  for (const { me, grant } of await vault.people()) {
    const answer = await fetch(`/device/standing?${new URLSearchParams({ grant })}`, { cache: 'no-store' }).catch(() => undefined);
    if (!answer?.ok || (await answer.json()).stays) continue;
    await aboard.wipe(me);
    if (now?.me === me) lock();
    news.postMessage({ locked: true });
  }
};

const kept = async url => {
  if (isLocked()) return undefined;
  const { me } = now;
  const found = await aboard.get(me, aboard.addressOf(url));
  // A large picture stays with the shop: the small one stands in its place.
  return found ?? (url.pathname.startsWith('/photos/') ? aboard.get(me, url.pathname.replace(/[^/]+$/, 'thumb')) : undefined);
};

const when = date =>
  new Date(date).toLocaleString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
const asOf = (html, date) =>
  html.replace(
    /<body([^>]*)>/,
    (_, more) =>
      `<body${more} data-as-of="${date}"><p class="as-of" role="status"><strong>Without the shop.</strong> ` +
      `This page is as of ${when(date)}, as it was taken along; what others did since isn’t on it. <a href="">Ask the shop again</a></p>`,
  );
const shown = async ({ head, body }) => {
  if (head.to) return Response.redirect(new URL(head.to, self.location.origin), 302);
  const headers = { 'content-type': head.type, ...(head.policy ? { 'content-security-policy': head.policy } : {}) };
  const isPage = head.type.startsWith('text/html');
  return new Response(isPage ? asOf(new TextDecoder().decode(body), head.at) : body, { headers });
};

const page = async request => {
  const url = new URL(request.url);
  const there = await kept(url).catch(() => undefined);
  if (there && Date.now() < awayUntil) {
    asks(request).catch(() => {});
    return shown(there);
  }
  try {
    return await asks(request, there && patience);
  } catch {
    awayUntil = Date.now() + resting;
    return there ? shown(there) : caches.match(away);
  }
};
// A picture never changes under its name; the forms of a zone are only of use to a page that was taken along with them.
const part = async request => {
  const there = () => kept(new URL(request.url)).catch(() => undefined);
  const first = Date.now() < awayUntil && (await there());
  if (first) return shown(first);
  try {
    return await asks(request);
  } catch {
    const instead = await there();
    return instead ? shown(instead) : Response.error();
  }
};
const asset = async request => {
  const there = await caches.match(request, { ignoreSearch: true });
  if (there && Date.now() < awayUntil) return there;
  try {
    return await Promise.race([fetch(request), ...(there ? [late(patience)] : [])]);
  } catch {
    return there ?? Response.error();
  }
};

self.addEventListener('fetch', event => {
  const { request } = event;
  const url = new URL(request.url);
  // What is said goes out through the outbox, and never from here; a picture that is being taken along is the shop's own.
  if (request.method !== 'GET' || url.origin !== self.location.origin || url.pathname.endsWith('/events')) return;
  if (request.mode === 'navigate') event.respondWith(page(request));
  else if (/^\/(lib\/|rivet\.svg|app\.webmanifest|away\.html)/.test(url.pathname)) event.respondWith(asset(request));
  else if (request.headers.has('X-Rivet-As-Of') || (url.pathname.startsWith('/photos/') && request.cache !== 'no-store'))
    event.respondWith(part(request));
});
