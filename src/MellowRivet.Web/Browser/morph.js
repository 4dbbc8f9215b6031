// The one way in for what the shop's pages send: the old markup takes the shape of the new. What does the same stays the same
// element, so a button under a finger, a field with the caret in it and a panel somebody folded open are still there afterwards.
// What does something else is another element: nobody presses "Good" and answers the task that has just moved up.
import { Idiomorph } from 'idiomorph';

/** A page, or a part of one, as it was sent. */
export const parsed = html => new DOMParser().parseFromString(html, 'text/html');

// These differ each time a page is made, and change nothing of what a form does.
const passing = ['post', '__RequestVerificationToken'];

const does = element => {
  // What a fold holds is what it does.
  const form = element.closest('form') ?? element.closest('details')?.querySelector('form');
  const sent = [...(form?.elements ?? [])].filter(field => field.type === 'hidden' && !passing.includes(field.name));
  return [
    element.localName,
    form?.getAttribute('action'),
    ...sent.map(field => `${field.name}=${field.value}`),
    ...(element === form ? [] : ['href', 'formaction', 'name', 'value', 'class'].map(name => element.getAttribute(name))),
    element === form || element.localName === 'details' ? '' : element.textContent.trim(),
  ].join('|');
};

// Elements are told apart by their ids: for as long as it takes, each one that can be pressed has one that says what it does.
const prefix = 'does:';
const name = root => {
  const times = new Map();
  for (const element of root.querySelectorAll(
    'form:not([id]), button:not([id]), a[href]:not([id]), label:not([id]), details:not([id]), summary:not([id])',
  )) {
    const what = does(element);
    times.set(what, (times.get(what) ?? 0) + 1);
    // A form's own field may be called "id", and hides the property of that name.
    element.setAttribute('id', `${prefix}${times.get(what)}|${what}`);
  }
};
const unname = root => {
  for (const element of root.querySelectorAll(`[id^="${prefix}"]`)) element.removeAttribute('id');
};

/** Brings an element into the shape of another of the same id. One that `keep` names is left as it is, with all that is in it. */
export const morph = (old, fresh, keep) => {
  const parent = old.parentNode;
  [old, fresh].forEach(name);
  Idiomorph.morph(old, fresh, {
    morphStyle: 'outerHTML',
    ignoreActiveValue: true,
    callbacks: {
      beforeNodeMorphed: node => node !== keep,
      beforeNodeRemoved: node => node !== keep,
      // What a person folded open stays open.
      beforeAttributeUpdated: (attribute, node, how) => !(attribute === 'open' && how === 'remove' && node.localName === 'details'),
    },
  });
  unname(parent);
  window.htmx?.process(parent);
};
