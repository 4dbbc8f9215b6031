// Prices down the fix list: Enter and the arrows go from line to line in the same column, and every change is sent by itself.
const list = document.querySelector('[data-prices]');

if (list) {
  list.addEventListener('keydown', event => {
    const step = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[event.key];
    const column = event.target.dataset.price;
    if (!step || !column || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    const fields = [...list.querySelectorAll(`[data-price="${column}"]`)];
    const next = fields[fields.indexOf(event.target) + step];
    if (next) {
      next.focus();
      next.select();
    } else event.target.blur();
  });
}
