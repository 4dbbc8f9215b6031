// What was understood of a measure that isn't a plain number stands behind its field, before anything is kept: 4.7k is 4700 Ω.
const plain = /^\s*(-?\d+(\.\d*)?)?\s*$/;
const waiting = new WeakMap();

const ask = async field => {
  const said = field.nextElementSibling;
  if (!said?.matches('.understood')) return;
  const text = field.value;
  if (plain.test(text)) {
    said.textContent = '';
    return;
  }
  const unit = field.form?.elements[field.dataset.measureOf]?.value || field.dataset.measure;
  try {
    const answer = await fetch(`/api/v1/bench/measure?${new URLSearchParams({ text, unit })}`, { cache: 'no-store' });
    if (!answer.ok || field.value !== text) return;
    const { understood, problem } = await answer.json();
    said.textContent = problem ?? (understood ? `= ${understood}` : '');
    said.classList.toggle('wrong', Boolean(problem));
  } catch {
    // Without a connection the form says so when it is sent.
  }
};

const later = field => {
  clearTimeout(waiting.get(field));
  waiting.set(field, setTimeout(ask, 200, field));
};

document.addEventListener('input', event => {
  if (event.target.matches?.('[data-measure]')) later(event.target);
});
document.addEventListener('change', event => {
  if (!event.target.matches?.('select[name]')) return;
  for (const field of event.target.form?.querySelectorAll(`[data-measure-of="${event.target.name}"]`) ?? []) later(field);
});
