// Compressions, cylinder after cylinder: Enter goes to the next in number order, large keys on a phone, and every
// change is sent by itself.
const sheet = document.querySelector('[data-compressions]');

if (sheet) {
  const fields = () => [...sheet.querySelectorAll('[data-psi]')].sort((a, b) => a.dataset.psi - b.dataset.psi);
  const pad = document.querySelector('[data-keypad]');
  const onPhone = () => window.matchMedia('(max-width: 900px)').matches;
  let last = null;

  const goOn = from => {
    const all = fields();
    const next = all[all.indexOf(from) + 1];
    if (next) {
      next.focus();
      next.select();
    } else from.blur();
  };

  sheet.addEventListener('keydown', event => {
    if (event.key !== 'Enter' || !event.target.matches('[data-psi]')) return;
    event.preventDefault();
    goOn(event.target);
  });

  // A letter has no place in a reading: it notes where the air was heard.
  const chipOf = (field, letter) => field.form.querySelector(`[data-letter="${letter}"]`);
  sheet.addEventListener('keydown', event => {
    if (event.ctrlKey || event.metaKey || event.altKey || !event.target.matches('[data-psi]')) return;
    const chip = /^[a-z]$/i.test(event.key) && chipOf(event.target, event.key.toLowerCase());
    if (!chip) return;
    event.preventDefault();
    chip.click();
  });

  // A hot reading that was low, judged here because the shop can't be asked, is tried again here.
  document.addEventListener('rivet:judged', ({ detail: { form, when, verdict } }) => {
    const template = form.closest('.cylinder')?.querySelector('template[data-try-again]');
    const wants = verdict === 'retest' && when?.startsWith('hot') && form.dataset.try === '1' && form.querySelector('.said-here');
    if (!document.body.dataset.asOf || !template || !wants || template.nextElementSibling?.matches('.again')) return;
    const again = template.content.firstElementChild.cloneNode(true);
    const further = again.querySelector('form');
    further.dataset.judged = `#${again.lastElementChild.id}`;
    if (onPhone()) further.elements.value.inputMode = 'none';
    template.after(again);
    window.htmx.process(again);
    // What waits of it stands in it.
    document.dispatchEvent(new CustomEvent('rivet:outbox'));
  });

  // Nothing typed, nothing to keep.
  sheet.addEventListener('htmx:confirm', event => {
    const value = event.target.matches('[data-fresh-post]') ? event.target.elements.value.value : null;
    if (value === '') event.preventDefault();
  });
  // A reading doesn't go with the letters of its field: it is put right by another. What stands is seen to stand.
  let stood = '';
  sheet.addEventListener('focusin', ({ target }) => {
    if (target.matches('[data-psi]')) stood = target.value;
  });
  sheet.addEventListener('change', ({ target }) => {
    if (!target.matches('[data-psi]') || target.value !== '') return;
    target.value = target.form.querySelector('.said-here') ? stood : target.defaultValue;
    if (target.value) target.dispatchEvent(new Event('input', { bubbles: true }));
  });

  if (pad) {
    sheet.addEventListener('focusin', event => {
      const field = event.target.closest('[data-psi]');
      if (field) {
        last = field;
        showPressed();
      }
      pad.classList.toggle('open', field !== null && onPhone());
      // The pad covers the lower half: the field has to stand above it.
      if (field && onPhone()) field.scrollIntoView({ block: 'center' });
    });
    const showPressed = () => {
      for (const key of pad.querySelectorAll('[data-leak]'))
        key.setAttribute('aria-pressed', chipOf(last, key.dataset.leak)?.checked ?? false);
    };
    for (const field of fields()) if (onPhone()) field.inputMode = 'none';

    const type = change => {
      if (!last) return;
      last.value = change(last.value);
      last.dispatchEvent(new Event('input', { bubbles: true }));
      last.dataset.byPad = 'yes';
    };
    // Pressing a key must not take the focus from the field it types into.
    pad.addEventListener('pointerdown', event => event.preventDefault());
    pad.addEventListener('click', event => {
      const key = event.target.closest('button');
      if (!key || !last) return;
      if (key.dataset.digit) type(value => value + key.dataset.digit);
      else if (key.dataset.leak) {
        chipOf(last, key.dataset.leak)?.click();
        showPressed();
      } else if ('erase' in key.dataset) type(value => value.slice(0, -1));
      else {
        const from = last;
        // A value set by script gives no change event of its own.
        if (from.dataset.byPad) {
          delete from.dataset.byPad;
          from.dispatchEvent(new Event('change', { bubbles: true }));
        }
        goOn(from);
      }
    });
  }
}
