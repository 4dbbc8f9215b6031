// A picture to draw on: annotations are drawn over it as vectors in pixels of the original. What they look like and measure is said by
// whoever laid the picture out; here an annotation is only sketched, from the first touch until it is drawn.
import { vector } from '../../../Browser/page.js';

const nothing = { isOver: () => false };

/**
 * Lets a picture be drawn on.
 * @param page what has the picture, its tools and its list
 * @param width of the picture, pixels
 * @param height of it
 * @param form takes what is drawn; without one there is only looking
 * @param measure draws and lists all annotations anew: comes back with '' once it has, with what hinders it, or with undefined where
 * it was asked again meanwhile
 * @param earlier an earlier picture that lies over it
 */
export const board = (page, { width, height, form, measure, earlier = nothing }) => {
  const picture = page.querySelector('[data-picture]');
  const sketches = picture.querySelector('[data-sketches]');
  const hint = page.querySelector('[data-hint]');
  const annotations = JSON.parse(form?.elements.annotations.value ?? '[]');
  const unmeasured = new Set();
  let view = { x: 0, y: 0, w: width, h: height };
  let tool = null;
  let drawing = null;
  let moving = null;

  const far = (one, other) => Math.hypot(one.x - other.x, one.y - other.y);
  const clamp = (value, most) => Math.min(most, Math.max(0, value));
  const spot = event => {
    const place = new DOMPoint(event.clientX, event.clientY).matrixTransform(picture.getScreenCTM().inverse());
    return { x: Math.round(clamp(place.x, width) * 10) / 10, y: Math.round(clamp(place.y, height) * 10) / 10 };
  };
  // A hand picks a point on the screen to about one and a half pixels: so many pixels of the original.
  const pick = () => Math.max(0.5, Math.round(15 / picture.getScreenCTM().a) / 10);
  const grip = () => 11 / picture.getScreenCTM().a;

  // The shop's drawing of each annotation, and its line in the list, in the order of the annotations.
  const drawn = index => picture.querySelector('[data-drawn]').children[index];
  const listed = index => page.querySelector('.annotation-list').children[index];
  const indexOf = element => [...element.parentElement.children].indexOf(element);

  const sketch = ({ kind, points }) => {
    const group = vector('g', { class: 'annotation sketch' });
    if (kind === 'ring') group.append(vector('circle', { cx: points[0].x, cy: points[0].y, r: far(points[0], points[1]) }));
    else group.append(vector('polyline', { points: points.map(({ x, y }) => `${x},${y}`).join(' ') }));
    for (const { x, y } of points) group.append(vector('circle', { class: 'grip', cx: x, cy: y }));
    return group;
  };
  const showSketches = () => {
    // Lines and letters are as wide on the screen from near as from far.
    picture.style.setProperty('--pixel', `${1 / picture.getScreenCTM().a}px`);
    const shown = [...unmeasured, ...(moving?.annotation ? [moving.annotation] : []), ...(drawing ? [drawing] : [])];
    sketches.replaceChildren(...shown.map(sketch));
    annotations.forEach((annotation, index) => drawn(index)?.classList.toggle('off', shown.includes(annotation)));
  };

  // How to draw with what is chosen, unless something else has to be said.
  const howItGoes = hint.textContent;
  const say = words => {
    hint.textContent = words ?? (tool ? toolOf(tool).how : howItGoes);
  };

  const store = () => {
    form.elements.annotations.value = JSON.stringify(annotations);
  };
  const changed = async () => {
    store();
    showSketches();
    const problem = await measure(annotations);
    if (problem === '') {
      unmeasured.clear();
      showSketches();
    }
    // What was asked before is answered by what was asked since.
    if (problem !== undefined) say(problem || undefined);
    return problem === '';
  };
  let typing;
  const typed = () => {
    clearTimeout(typing);
    typing = setTimeout(changed, 150);
  };
  const takeAway = index => {
    drawn(index)?.remove();
    listed(index)?.remove();
    unmeasured.delete(annotations[index]);
    annotations.splice(index, 1);
  };

  form?.addEventListener('input', event => {
    if (event.target.matches('[data-words]')) annotations[indexOf(event.target.closest('li'))].words = event.target.value;
    // Another thing is another size: it says its own, or it is typed.
    if (event.target.matches('[data-known]')) form.elements.knownMm.value = '';
    typed();
  });

  const finishButton = page.querySelector('[data-finish]');
  const toolOf = kind => page.querySelector(`[data-tool=${kind}]`).dataset;
  const many = kind => Number(toolOf(kind).most) > 2;
  const enough = annotation => annotation.points.length >= Number(toolOf(annotation.kind).least);
  const finish = async () => {
    const annotation = drawing;
    drawing = null;
    if (finishButton) finishButton.hidden = true;
    if (!annotation || !enough(annotation)) {
      showSketches();
      return;
    }
    if (annotation.kind === 'scale' && annotations.some(one => one.kind === 'scale'))
      takeAway(annotations.findIndex(one => one.kind === 'scale'));
    annotations.push(annotation);
    unmeasured.add(annotation);
    if (!(await changed())) return;
    if (annotation.kind === 'scale') form.elements.knownMm.focus();
    if (annotation.kind === 'words') listed(annotations.indexOf(annotation))?.querySelector('input')?.focus();
  };
  const choose = wanted => {
    tool = wanted;
    drawing = null;
    for (const button of page.querySelectorAll('[data-tool]')) button.setAttribute('aria-pressed', button.dataset.tool === tool);
    say();
    if (finishButton) finishButton.hidden = true;
    showSketches();
  };

  picture.addEventListener('pointerdown', event => {
    const here = spot(event);
    const held = !drawing && event.target.closest('[data-drawn] .grip');
    picture.setPointerCapture(event.pointerId);
    if (held && annotations[indexOf(held.closest('.annotation'))]) {
      moving = { annotation: annotations[indexOf(held.closest('.annotation'))], at: Number(held.dataset.point) };
    } else if (form && tool) {
      if (many(tool)) {
        drawing ??= { kind: tool, points: [], words: '', pickPixels: pick() };
        drawing.points.push(here);
        finishButton.hidden = !enough(drawing);
      } else if (tool === 'words') {
        drawing = { kind: tool, points: [here], words: '', pickPixels: pick() };
        finish();
        return;
      } else drawing = { kind: tool, points: [here, here], words: '', pickPixels: pick() };
    } else if (earlier.isOver()) moving = { lay: earlier.held(here) };
    else moving = { pan: { clientX: event.clientX, clientY: event.clientY, x: view.x, y: view.y } };
    showSketches();
  });
  picture.addEventListener('pointermove', event => {
    if (moving?.annotation) {
      moving.annotation.points[moving.at] = spot(event);
      showSketches();
    } else if (moving?.lay) {
      earlier.layAt(moving.lay, spot(event));
    } else if (moving?.pan) {
      const scale = picture.getScreenCTM().a;
      see({
        ...view,
        x: moving.pan.x - (event.clientX - moving.pan.clientX) / scale,
        y: moving.pan.y - (event.clientY - moving.pan.clientY) / scale,
      });
    } else if (drawing && !many(drawing.kind)) {
      drawing.points[1] = spot(event);
      showSketches();
    }
  });
  picture.addEventListener('pointerup', () => {
    if (moving) {
      const held = moving;
      moving = null;
      if (held.annotation) {
        unmeasured.add(held.annotation);
        changed();
      }
      return;
    }
    if (drawing && !many(drawing.kind)) {
      if (far(drawing.points[0], drawing.points[1]) > grip()) finish();
      else {
        drawing = null;
        showSketches();
      }
    }
  });
  picture.addEventListener('dblclick', finish);
  finishButton?.addEventListener('click', finish);

  const see = wanted => {
    view = { ...wanted, x: Math.min(Math.max(wanted.x, 0), width - wanted.w), y: Math.min(Math.max(wanted.y, 0), height - wanted.h) };
    picture.setAttribute('viewBox', `${view.x} ${view.y} ${view.w} ${view.h}`);
    showSketches();
  };
  page.addEventListener('click', event => {
    const button = event.target.closest('button');
    if (button?.dataset.tool) choose(tool === button.dataset.tool ? null : button.dataset.tool);
    else if (button?.dataset.zoom) {
      const w = Math.min(width, Math.max(width / 20, view.w / Number(button.dataset.zoom)));
      const h = (w * height) / width;
      see({ x: view.x + (view.w - w) / 2, y: view.y + (view.h - h) / 2, w, h });
    } else if (button?.matches('[data-take-away]')) {
      takeAway(indexOf(button.closest('li')));
      changed();
    } else if (button?.matches('[data-take-back]')) {
      if (drawing?.points.length > 1 && many(drawing.kind)) {
        drawing.points.pop();
        showSketches();
      } else if (drawing) {
        drawing = null;
        showSketches();
      } else if (annotations.length) {
        takeAway(annotations.length - 1);
        changed();
      }
    }
  });

  addEventListener('resize', showSketches);
  if (form) addEventListener('online', changed);
  showSketches();
  // Nothing is pressed in vain before the picture listens.
  page.querySelector('[data-tools]').disabled = false;
};
