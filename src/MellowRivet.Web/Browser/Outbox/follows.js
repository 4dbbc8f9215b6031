// What follows from what waits. A page that was taken along has, hidden, what the shop would show once it has what was said: the next
// step of a look, the way back of a tool, the panel that was opened. It is shown as soon as that waits on the device.
//   data-after="Out?tools=7"   once something waits that went to that handler with those fields; several, by spaces
//   data-until="In?tool=7"     and until, later, such a thing waits
//   <template data-each="Open" data-into="#tags">   once for each that waits: [data-of=field] says it, [data-with=field] carries it;
//                              data-at="/walk/…/find" in the place of data-each: for what went to that address
import { newId } from '../ids.js';
import { waiting } from './telling.js';

const paths = entry => new URL(entry.url, location.href);
const says = (entry, said) => {
  const [handler, query = ''] = said.split('?');
  const url = paths(entry);
  // A page may be reached without what its forms name: /compressions is the first engine's.
  const isHere = url.pathname === location.pathname || url.pathname.startsWith(`${location.pathname}/`);
  if (url.searchParams.get('handler') !== handler || !isHere) return false;
  return [...new URLSearchParams(query)].every(
    ([name, value]) => url.searchParams.get(name) === value || entry.fields.some(field => field[0] === name && field[1] === value),
  );
};
const lastOf = (entries, what) => entries.findLastIndex(entry => what?.split(' ').some(said => says(entry, said)));

const addEach = (template, entries) => {
  const into = document.querySelector(template.dataset.into);
  for (const old of into.querySelectorAll('[data-waiting-post]'))
    if (!entries.some(entry => entry.post === old.dataset.waitingPost)) old.remove();
  for (const entry of entries) {
    if (into.querySelector(`[data-waiting-post="${entry.post}"]`)) continue;
    const made = template.content.firstElementChild.cloneNode(true);
    const value = name => (name === 'post' ? entry.post : (entry.fields.find(([of]) => of === name)?.[1] ?? entry[name]));
    for (const place of made.querySelectorAll('[data-of]')) place.textContent = value(place.dataset.of) ?? '';
    for (const field of made.querySelectorAll('[data-with]')) field.value = value(field.dataset.with) ?? '';
    for (const field of made.querySelectorAll('input[name=post]')) field.value = newId();
    made.dataset.waitingPost = entry.post;
    into.prepend(made);
  }
};

/** Brings what follows up to date with what waits. */
export const follow = () => {
  const entries = waiting().filter(entry => !entry.isRefused);
  for (const element of document.querySelectorAll('[data-after]')) {
    const [from, to] = [lastOf(entries, element.dataset.after), lastOf(entries, element.dataset.until)];
    element.hidden = from < 0 || to > from;
  }
  for (const template of document.querySelectorAll('template[data-into]')) {
    const { each, at } = template.dataset;
    addEach(
      template,
      entries.filter(entry => (at ? paths(entry).pathname === at : says(entry, each))),
    );
  }
};
