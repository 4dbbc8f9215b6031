// Taking in: what suits depends on the aircraft and the kind, so a change of either asks for the offer anew; what the ticked lists
// leave uncovered is asked anew with every tick.
import { morph, parsed } from '../../Browser/morph.js';

const form = document.querySelector('form:has([data-offers])');

form?.addEventListener('change', async event => {
  const ticks = event.target.name === 'Form.Worksheets';
  if (!ticks && !event.target.matches('[data-offers]')) return;
  const query = new URLSearchParams({
    aircraft: form.querySelector('[data-offers=aircraft]').value,
    kind: form.querySelector('[data-offers=kind]').value,
  });
  if (ticks) {
    query.set('ticked', 'true');
    for (const box of form.querySelectorAll('[name="Form.Worksheets"]:checked')) query.append('sheets', box.value);
  }
  const answer = await fetch(`/take-in?${query}`).catch(() => null);
  if (!answer?.ok) return;
  const page = parsed(await answer.text());
  for (const id of ticks ? ['uncovered'] : ['offers', 'kinds', 'uncovered', 'last-read'])
    morph(document.getElementById(id), page.getElementById(id));
  // Read today already: nobody types it twice.
  form.elements['Form.Hours'].value ||= page.querySelector('[name="Form.Hours"]').value;
});
