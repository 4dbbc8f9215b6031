// The arrival: a touch on the drawing says where the damage is; a chosen picture is sent at once.
const drawing = document.querySelector('[data-pins=yes]');
const form = document.querySelector('[data-pin-form]');

if (drawing && form) {
  drawing.addEventListener('click', event => {
    if (event.target.closest('a')) return;
    const place = new DOMPoint(event.clientX, event.clientY).matrixTransform(drawing.getScreenCTM().inverse());
    if (place.x < 0 || place.x > 300 || place.y < 0 || place.y > 300) return;
    form.elements.x.value = place.x.toFixed(1);
    form.elements.y.value = place.y.toFixed(1);
    form.elements.zone.value = '';
    drawing.querySelector('[data-provisional]').setAttribute('transform', `translate(${place.x} ${place.y})`);
    form.elements.damage.focus();
  });
  // A zone chosen from the list stands instead of a touched place.
  form.elements.zone.addEventListener('change', () => {
    if (!form.elements.zone.value) return;
    form.elements.x.value = form.elements.y.value = '';
    drawing.querySelector('[data-provisional]').setAttribute('transform', 'translate(-99 -99)');
  });
}

for (const sends of document.querySelectorAll('[data-sends-itself]')) sends.addEventListener('change', () => sends.requestSubmit());
