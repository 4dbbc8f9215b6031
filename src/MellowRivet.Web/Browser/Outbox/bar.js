// The line at the edge of every page that says what waits on this device, and what the shop didn't take.
import { button, element } from '../page.js';
import { drop, held, isOlder, left, me, reason, seen, sendAgain, waiting } from './telling.js';

const bar = document.getElementById('outbox');
const longest = 60;
const older = 'The shop runs a newer program than what is aboard. What waits here goes out all the same; then take it along again.';

const refused = entry => {
  const place = element('a', { href: `${entry.place}#${entry.post}`, textContent: entry.what.slice(0, longest) });
  place.addEventListener('click', event => {
    // Whoever has its form on this page shows it there.
    const shown = !document.dispatchEvent(new CustomEvent('rivet:put-right', { detail: entry, cancelable: true }));
    if (shown) event.preventDefault();
  });
  return element(
    'p',
    {},
    'Not taken: ',
    place,
    `. ${reason(entry)} `,
    button('Send it again', () => sendAgain(entry.post)),
    ' ',
    button('Let it go', () => drop(entry.post)),
  );
};

const leftOpen = ({ post, what, number, href }) =>
  element(
    'p',
    {},
    `Signed without what you said: ${what.slice(0, longest)}. It stays open on the aircraft as `,
    element('a', { href, textContent: number }),
    '. ',
    button('Seen', () => seen(post)),
  );

const show = () => {
  const [no, yet] = [waiting().filter(entry => entry.isRefused), waiting().filter(entry => !entry.isRefused)];
  bar.replaceChildren(
    ...(yet.length ? [element('p', { textContent: `${yet.length} waiting to send, kept on this device. ${held}`.trim() })] : []),
    ...no.map(refused),
    ...left.map(leftOpen),
    ...(isOlder ? [element('p', { textContent: older })] : []),
  );
  bar.hidden = !waiting().length && !isOlder && !left.length;
};

if (me) document.addEventListener('rivet:outbox', show);
