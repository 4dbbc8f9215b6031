// Nobody signs over what this device was told about the aircraft and the shop doesn't know yet: a finding that waits may be the one that
// keeps it on the ground.
import { waiting } from '../../../Browser/Outbox/telling.js';

const form = document.querySelector('[data-signs]');
const isUnsent = () => waiting().some(entry => entry.url.startsWith(`${form.dataset.signs}/`));
const words = form?.querySelector('template');
let said;
const show = () => {
  if (!isUnsent()) said?.remove();
  else if (!said?.isConnected) {
    said = words.content.firstElementChild.cloneNode(true);
    words.after(said);
  }
};

if (form) {
  document.addEventListener('rivet:outbox', show);
  form.addEventListener('submit', event => {
    show();
    if (isUnsent()) event.preventDefault();
  });
}
