// Nobody signs over what this device was told about the aircraft and the shop doesn't know yet: a finding that waits may be the one that
// keeps it on the ground.
import { waiting } from '../../../Browser/Outbox/telling.js';

const form = document.querySelector('[data-signs]');
const isUnsent = () => waiting().some(entry => entry.url.startsWith(`${form.dataset.signs}/`));
const show = () => {
  form.querySelector('[data-unsent]').hidden = !isUnsent();
};

if (form) {
  document.addEventListener('rivet:outbox', show);
  form.addEventListener('submit', event => {
    show();
    if (isUnsent()) event.preventDefault();
  });
}
