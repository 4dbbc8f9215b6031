// A sheet of the engine station: Enter goes from value to value, and every change is sent by itself.
const sheet = document.querySelector('[data-engine-sheet]');

if (sheet) {
  sheet.addEventListener('keydown', event => {
    if (event.key !== 'Enter' || !event.target.matches('[data-value]')) return;
    event.preventDefault();
    const fields = [...sheet.querySelectorAll('[data-value]')];
    const next = fields[fields.indexOf(event.target) + 1];
    if (next) {
      next.focus();
      next.select();
    } else event.target.blur();
  });
}
