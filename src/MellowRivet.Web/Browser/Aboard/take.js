// Takes an inspection along: what its pages lead to within the walk is fetched, with its small pictures, and lies on the device sealed.
import * as aboard from './aboard.js';

const atOnce = 4;
const panels = '?handler=Panels';
// What is judged by where the shop can't be asked.
const judging = '/along?handler=Judging';
// What the pages are shown with: nothing of the shop is in it, and it lies there as it is.
const assets = 'rivet-assets';
const faces = ['b612-400', 'b612-700', 'b612-mono-400', 'b612-mono-700'].map(face => `/lib/fonts/${face}.woff2`);
const always = [
  '/away.html',
  ...['away.js', 'htmx.min.js', 'rivet.js', 'rivet.css'].map(name => `/lib/${name}`),
  '/rivet.svg',
  '/app.webmanifest',
  ...faces,
];

// The page that an address is of: without what opens a task in it or sorts it; undefined where it is none of the walk's, or nothing
// without the shop.
const addressOf = (href, walk, list) => {
  const url = new URL(href, location.origin);
  if (url.origin !== location.origin || (url.pathname !== walk && !url.pathname.startsWith(`${walk}/`))) return undefined;
  const rest = url.pathname.slice(walk.length + 1);
  // A picture as large as it was taken, and what is a file and no page, is for where the shop is.
  if (list.not.some(not => rest === not || rest.startsWith(`${not}/`)) || /\/placard$|\/photos\/|\.\w+$/.test(rest)) return undefined;
  const named = [...url.searchParams].filter(([key]) => list.keys.includes(key));
  return url.pathname + (named.length ? `?${new URLSearchParams(named)}` : '');
};

// Hundreds of pages are read for what they lead to, on a phone: by their text, which is many times as fast as building each.
const tags = /<(a|img|link|script)\s([^>]*)>/g;
const inTag = (attributes, name) => new RegExp(`(?:^|\\s)${name}="([^"]*)"`).exec(attributes)?.[1].replaceAll('&amp;', '&');
const leadsTo = (html, path, walk, list, met) => {
  // The forms of a zone's other tasks come along with it.
  const leads = { addresses: html.includes(' data-live-list') ? [path + panels] : [], assets: [] };
  for (const [, tag, attributes] of html.matchAll(tags)) {
    const to = inTag(attributes, tag === 'a' || tag === 'link' ? 'href' : 'src');
    // What stands on every page is looked at once.
    const one = `${tag} ${to}`;
    if (!to || met.has(one)) continue;
    if (!to.startsWith('?')) met.add(one);
    if (tag === 'a') {
      if (to.startsWith('/walk/') || to.startsWith('?')) leads.addresses.push(addressOf(to.startsWith('?') ? path + to : to, walk, list));
    } else if (tag === 'img') {
      // Of a large picture the small one comes along.
      if (/^\/photos\/\w+\/(thumb|large)$/.test(to)) leads.addresses.push(to.replace(/\w+$/, 'thumb'));
    } else if (tag === 'script' || inTag(attributes, 'rel') === 'stylesheet') leads.assets.push(to);
  }
  return leads;
};

/**
 * Takes an inspection along, anew where it was aboard.
 * @param me the person
 * @param id the inspection
 * @param told hears how far it is: how many came, of how many that are known of so far, and their bytes
 * @returns what is aboard of it
 * @throws QuotaExceededError where the device has no room; what was aboard before is still there
 */
export const take = async (me, id, told) => {
  const walk = `/walk/${id}`;
  const list = await (await fetch(`${walk}/along?handler=List`, { cache: 'no-store' })).json();
  const round = crypto.randomUUID();
  const [known, met, todo, shown] = [new Set(), new Set(), [], new Set(always)];
  let [size, count, done, missed, at] = [0, 0, 0, 0, undefined];
  const also = address => {
    if (!address || known.has(address)) return;
    known.add(address);
    todo.push(address);
  };
  const fetchOne = async address => {
    const answer = await fetch(address, { cache: 'no-store' });
    const { pathname } = new URL(answer.url);
    if (!answer.ok || pathname.startsWith('/enter')) {
      missed += 1;
      return;
    }
    const [type, policy, date] = ['content-type', 'content-security-policy', 'date'].map(name => answer.headers.get(name));
    at ??= date;
    const landed = answer.redirected ? addressOf(answer.url, walk, list) : address;
    // It led to what is nothing without the shop: that isn't shown in its place.
    if (!landed) return;
    const body = await answer.arrayBuffer();
    if (type?.startsWith('text/html') && !address.endsWith(panels)) {
      const leads = leadsTo(new TextDecoder().decode(body), pathname, walk, list, met);
      leads.addresses.forEach(also);
      leads.assets.forEach(one => shown.add(one));
    }
    const head = { type, policy, at: date, round };
    const to = landed === address ? undefined : landed;
    const bytes = await aboard.put(me, id, address, { head: { ...head, to }, body: to ? new ArrayBuffer(0) : body });
    // Others were kept meanwhile: what they took is counted already.
    size += bytes;
    count += 1;
    also(to);
  };
  const work = async () => {
    while (todo.length) {
      await fetchOne(todo.shift());
      done += 1;
      told({ done, of: known.size, size });
    }
  };
  list.start.map(address => addressOf(address, walk, list)).forEach(also);
  also(walk + judging);
  await Promise.all(Array.from({ length: atOnce }, work));
  await (await caches.open(assets)).addAll([...shown]);
  await aboard.only(me, id, round);
  const what = { title: list.title, walk, at, size, count, missed, version: list.version };
  await aboard.note(me, id, what);
  return what;
};
