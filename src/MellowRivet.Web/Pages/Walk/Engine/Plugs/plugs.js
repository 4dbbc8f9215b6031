// The plug tray: Enter goes from step to step and from plug to plug, a plug is dragged to another place of the tray, and every
// change is sent by itself.
const page = document.querySelector('[data-plugs]');

if (page) {
  let finishing = false;
  const onward = from => {
    const fields = [...page.querySelectorAll('.plug-steps input:not([type=hidden]), .plug-steps select')].filter(
      field =>
        field.type !== 'radio' ||
        field.checked ||
        (!field.form.querySelector(`input[name=${field.name}]:checked`) && field === field.form.querySelector('input[type=radio]')),
    );
    const next =
      fields[
        fields.findIndex(field => field.form === from.form && (field === from || (field.type === 'radio' && from.type === 'radio'))) + 1
      ];
    if (next) {
      next.focus();
      next.select?.();
    } else page.querySelector('[data-next-plug]').click();
  };

  page.addEventListener('keydown', event => {
    if (event.key !== 'Enter' || !event.target.closest('[data-plug-step]')) return;
    event.preventDefault();
    const field = event.target;
    if (field.type === 'radio' && !field.checked) field.click();
    if (field.type === 'checkbox' && !field.checked) field.click();
    // What was typed goes out before the field is left; from the last step it goes on once the plug stands green.
    finishing = field.form.matches('.step-torque');
    field.blur();
    if (!finishing) onward(field);
  });
  page.addEventListener('htmx:afterSettle', () => {
    if (finishing && page.querySelector('#plug-said .judged-good')) page.querySelector('[data-next-plug]').click();
  });

  // The first step that is open has the keyboard when a plug comes up.
  const open = [...page.querySelectorAll('[data-plug-step]')].find(
    form =>
      form.querySelector('[name=value]') &&
      ![...form.querySelectorAll('[name=value]')].some(field => field.checked || (field.type === 'text' && field.value !== '')),
  );
  if (location.search.includes('hole=')) {
    if (window.innerWidth > 900) open?.querySelector('[name=value]').focus();
    else page.querySelector('[data-plug-panel]').scrollIntoView();
  }

  page.addEventListener('htmx:confirm', event => {
    const value = event.target.matches('[data-plug-step]') && event.target.elements.value;
    if (value && value.type === 'text' && value.value.trim() === '') event.preventDefault();
  });

  const move = document.querySelector('[data-move]');
  const place = target => target.closest?.('[data-hole]');
  page.addEventListener('dragstart', event => {
    if (!place(event.target)) return;
    event.dataTransfer.setData('text/plain', place(event.target).dataset.hole);
    event.dataTransfer.effectAllowed = 'move';
  });
  page.addEventListener('dragover', event => {
    if (move && place(event.target)) event.preventDefault();
  });
  page.addEventListener('drop', event => {
    const [from, to] = [event.dataTransfer.getData('text/plain'), place(event.target)?.dataset.hole];
    if (!move || !to || !from || from === to) return;
    event.preventDefault();
    move.elements.from.value = from;
    move.elements.to.value = to;
    move.requestSubmit();
  });
}
