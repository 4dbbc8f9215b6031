// Forms that go out by themselves as they are changed: each time under an id made here, so that sending twice keeps one.
import { newId } from './ids.js';

const isChanged = field =>
  field.matches('input[type=radio], input[type=checkbox]')
    ? field.checked !== field.defaultChecked
    : field.matches('input:not([type=hidden]), textarea') && field.value !== field.defaultValue;
const send = form =>
  [...form.elements].find(field => field.matches('input:not([type=hidden])'))?.dispatchEvent(new Event('change', { bubbles: true }));

export const sendsAsChanged = (page, forms) => {
  page.addEventListener('htmx:configRequest', event => {
    if (event.target.matches(forms)) event.detail.parameters.post = newId();
  });

  // What didn't reach the shop is sent again, under its reading's own id, as soon as the connection is back.
  const unsent = new Set();
  page.addEventListener('htmx:sendError', event => {
    if (event.target.matches(forms)) unsent.add(event.target);
  });
  addEventListener('online', () => {
    const again = [...unsent];
    unsent.clear();
    again.forEach(send);
  });

  // Fingers may be faster than the page: what was typed before it could send is sent now.
  addEventListener('load', () => {
    for (const form of page.querySelectorAll(forms)) if ([...form.elements].some(isChanged)) send(form);
  });
};
