// Keys for the desk: an element says its key and what it does; none works while a person types.
const typing = target => target.closest?.('input:not([type=checkbox],[type=radio],[type=file]), textarea, select, [contenteditable]');

const press = element => {
  if (element.matches('input[type=file]')) element.click();
  else {
    element.focus();
    element.click();
  }
};

// Ctrl and Enter send the form that the hand is in, out of a field of many lines, too; a form that is kept as it is typed needs
// only what is typed last.
document.addEventListener('keydown', event => {
  const form = event.target.form;
  if (!form || event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
  event.preventDefault();
  const button = [...form.elements].find(
    element => element.type === 'submit' && !element.disabled && !element.closest('noscript') && element.offsetParent !== null,
  );
  if (button) form.requestSubmit(button);
  else event.target.dispatchEvent(new Event('change', { bubbles: true }));
});

document.addEventListener('keydown', event => {
  if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector('dialog[open]')) return;
  if (typing(event.target)) {
    if (event.key === 'Escape') event.target.blur();
    return;
  }
  const element = [...document.querySelectorAll('[data-key]')].find(
    candidate =>
      (candidate.dataset.key === event.key && candidate.offsetParent !== null) ||
      (candidate.type === 'file' && candidate.dataset.key === event.key),
  );
  if (element) {
    event.preventDefault();
    press(element);
    return;
  }
  // A figure typed anywhere lands in the field of the measured task.
  const field = document.querySelector('[data-current-value]');
  if (field && /^[0-9.,-]$/.test(event.key)) field.focus();
});

document.addEventListener('click', event => {
  if (event.target.closest('[data-print]')) window.print();
  const opener = event.target.closest('[data-opens]');
  if (!opener) return;
  const dialog = document.getElementById(opener.dataset.opens);
  const list = dialog.querySelector('[data-key-list]');
  list.replaceChildren(
    ...[...document.querySelectorAll('[data-key-says]')].flatMap(element => {
      const key = document.createElement('dt');
      key.append(Object.assign(document.createElement('kbd'), { textContent: element.dataset.key }));
      return [key, Object.assign(document.createElement('dd'), { textContent: element.dataset.keySays })];
    }),
  );
  dialog.showModal();
});

const showCurrent = () => document.querySelector('[data-current]')?.scrollIntoView({ block: 'nearest' });
if (window.innerWidth > 900) showCurrent();
else document.querySelector('.station.here')?.scrollIntoView({ inline: 'center', block: 'nearest' });

// A request that never reached the shop, or was turned away, says so and takes nothing away.
const line = document.getElementById('connection');
const say = text => {
  line.textContent = text;
  line.hidden = text === '';
};
document.addEventListener('htmx:sendError', ({ detail: { requestConfig: asked } }) => {
  // What is judged as it is typed is judged on this device then.
  if (!asked.path.includes('handler=Judge')) say('No connection. What you typed is still here: send it again when the connection is back.');
});
document.addEventListener('htmx:responseError', event =>
  say(
    event.detail.xhr.status === 403
      ? 'Your role in this shop can’t do this. Nothing was changed.'
      : [422, 503, 507].includes(event.detail.xhr.status)
        ? event.detail.xhr.responseText
        : `The shop didn’t take this (${event.detail.xhr.status}). What you typed is still here: ` +
          'load the page anew in another tab, or try again.',
  ),
);
document.addEventListener('htmx:afterRequest', event => {
  if (event.detail.successful) say('');
});
