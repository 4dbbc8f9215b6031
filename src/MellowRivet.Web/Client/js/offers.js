// Taking in: what suits depends on the aircraft and the kind, so a change of either asks for the offer anew.
const form = document.querySelector('form:has([data-offers])');

form?.addEventListener('change', async event => {
  if (!event.target.matches('[data-offers]')) return;
  const query = new URLSearchParams({ aircraft: form.querySelector('[data-offers=aircraft]').value, kind: form.querySelector('[data-offers=kind]').value });
  const answer = await fetch(`/take-in?${query}`).catch(() => null);
  if (!answer?.ok) return;
  const page = new DOMParser().parseFromString(await answer.text(), 'text/html');
  for (const id of ['offers', 'kinds']) document.getElementById(id).replaceWith(document.importNode(page.getElementById(id), true));
});
