// A touch on the small drawing sets the pin of a place; the form beside it keeps it.
const drawing = document.querySelector('[data-place=yes]');
const panel = document.querySelector('[data-place-form]');

drawing?.addEventListener('click', event => {
  const place = new DOMPoint(event.clientX, event.clientY).matrixTransform(drawing.getScreenCTM().inverse());
  if (!panel || place.x < 0 || place.x > 300 || place.y < 0 || place.y > 300) return;
  const form = panel.querySelector('form');
  form.elements.x.value = place.x.toFixed(1);
  form.elements.y.value = place.y.toFixed(1);
  drawing.querySelector('[data-pin]').setAttribute('transform', `translate(${place.x} ${place.y})`);
  panel.open = true;
});
