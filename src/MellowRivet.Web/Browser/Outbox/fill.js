// What was said with a form, put back into it.

/** Puts what was sent into a form's fields, hidden ones that name it included: all that can be typed is as it was. */
export const fill = (form, sent, hidden = []) => {
  const left = sent.map(([name, value]) => ({ name, value }));
  const take = (name, value) => {
    const at = left.findIndex(one => one.name === name && (value === undefined || one.value === value));
    return at < 0 ? undefined : left.splice(at, 1)[0].value;
  };
  for (const field of form.elements) {
    if (!field.name || field.type === 'file' || field.type === 'submit') continue;
    if (field.type === 'radio' || field.type === 'checkbox') field.checked = take(field.name, field.value) !== undefined;
    else if (field.type !== 'hidden' || hidden.includes(field.name)) field.value = take(field.name) ?? field.value;
  }
};

// These differ each time a page is made, and say nothing of what a form is about.
const passing = /^(post|__RequestVerificationToken|reading|seen(\[\w+\])?)$/;

/** What a form is about: where it goes, and what it says that nobody types. */
export const about = form =>
  [
    form.getAttribute('action'),
    ...[...form.elements]
      .filter(field => field.type === 'hidden' && field.name && !passing.test(field.name))
      .map(field => `${field.name}=${field.value}`),
  ].join('|');

/** Whether a field is one that is written in. */
export const isText = field => field.matches('input:not([type=hidden], [type=radio], [type=checkbox], [type=file]), textarea');

/** Whether somebody is writing something on this page that is said nowhere yet. */
export const isWriting = () =>
  [...document.querySelectorAll('main form')].some(
    form =>
      !form.closest('dialog:not([open])') &&
      !form.querySelector('.said-here') &&
      [...form.elements].some(field => isText(field) && field.value !== field.defaultValue),
  );

/** Whether a form still has in it what was said with it, and nothing newer. */
export const stillSays = (form, sent) =>
  [...form.elements].every(field => !isText(field) || sent.some(([name, value]) => name === field.name && value === field.value));
