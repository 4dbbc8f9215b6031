// What was said with a form, in words.
import { isText } from './fill.js';

const plain = text => (text ?? '').replace(/\s+/g, ' ').trim();

/** What stands on a button, without its key. */
export const onButton = button => {
  const copy = button?.cloneNode(true);
  for (const key of copy?.querySelectorAll('kbd') ?? []) key.remove();
  return plain(copy?.textContent);
};

/** What a person calls it: the heading that it stands under, and what was pressed or filled in. */
export const called = (form, submitter) => {
  const under = form
    .closest('li, article, section, aside, fieldset, .sheet')
    ?.querySelector('h1, h2, h3, .what, strong, legend')?.textContent;
  const typed = [...form.elements].find(field => field.matches('input:not([type=hidden], [type=radio], [type=checkbox]), textarea'));
  const label = typed && `${typed.getAttribute('aria-label') ?? typed.labels[0]?.textContent ?? ''} ${typed.value}`;
  const words = [under ?? document.querySelector('h1')?.textContent, onButton(submitter) || label];
  return plain(words.filter(Boolean).join(': '));
};

const isSaid = field => (field.type === 'radio' || field.type === 'checkbox' ? field.checked : isText(field) && field.value);
const saidIn = field => {
  const label = plain(field.getAttribute('aria-label') ?? field.labels?.[0]?.textContent ?? field.name);
  if (!isText(field)) return label;
  const unit = field.form.elements[field.dataset.measureOf]?.value || field.dataset.measure;
  return [label, field.value, unit].filter(Boolean).join(' ');
};

/** What was said, in the words of the form: they can be read without it. */
export const storyOf = (form, submitter, what = called(form)) => {
  const said = [...form.elements].filter(field => field.name && isSaid(field) && field.value !== what).map(saidIn);
  return [what, onButton(submitter), ...said].filter(Boolean).join('; ');
};
