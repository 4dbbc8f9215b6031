// One photo: marks are drawn over it as vectors in pixels of the original; what they measure is reckoned by the shop. An
// earlier photo of the place stands beside it, blinks with it, or lies over it.
import { comparing } from './compare.js';

const page = document.querySelector('[data-photo]');

if (page) {
  const board = page.querySelector('[data-board]');
  const layer = board.querySelector('[data-marks]');
  const form = page.querySelector('[data-marks-form]');
  const list = page.querySelector('[data-mark-list]');
  const hint = page.querySelector('[data-hint]');
  const problem = page.querySelector('[data-marks-problem]');
  const [width, height] = [Number(page.dataset.width), Number(page.dataset.height)];
  const mayDraw = page.dataset.mayDraw === 'yes';
  const marks = JSON.parse(form?.elements.marks.value ?? page.querySelector('[data-marks-read]')?.value ?? '[]');
  let sizes = [];
  let view = { x: 0, y: 0, w: width, h: height };
  let tool = null;
  let drawing = null;
  let moving = null;

  const svg = (tag, attributes) => {
    const made = document.createElementNS('http://www.w3.org/2000/svg', tag);
    for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, value);
    return made;
  };
  const far = (one, other) => Math.hypot(one.x - other.x, one.y - other.y);
  const clamp = (value, most) => Math.min(most, Math.max(0, value));
  const spot = event => {
    const place = new DOMPoint(event.clientX, event.clientY).matrixTransform(board.getScreenCTM().inverse());
    return { x: Math.round(clamp(place.x, width) * 10) / 10, y: Math.round(clamp(place.y, height) * 10) / 10 };
  };
  // A hand picks a point on the screen to about one and a half pixels: so many pixels of the original.
  const pick = () => Math.max(0.5, Math.round(15 / board.getScreenCTM().a) / 10);
  const grip = () => 11 / board.getScreenCTM().a;
  const least = { arrow: 2, ring: 2, words: 1, scale: 2, length: 2, patch: 3 };
  const many = kind => kind === 'length' || kind === 'patch';
  const says = {
    arrow: 'Drag from the words to what you mean.',
    ring: 'Drag from the middle outward.',
    words: 'Touch where the words go, then type them in the list.',
    scale: 'Drag along something of known size, then say how long it is.',
    length: 'Touch along the crack, point after point; then Finish.',
    patch: 'Touch round the edge, point after point; then Finish.',
  };

  const path = mark => {
    const points = mark.points;
    const line = spots => `M${spots.map(({ x, y }) => `${x} ${y}`).join(' L')}`;
    if (mark.kind === 'words' || points.length < 2) return '';
    if (mark.kind === 'ring') {
      const r = far(points[0], points[1]);
      return `M${points[0].x - r} ${points[0].y} a${r} ${r} 0 1 0 ${2 * r} 0 a${r} ${r} 0 1 0 ${-2 * r} 0`;
    }
    if (mark.kind === 'arrow') {
      const turn = Math.atan2(points[1].y - points[0].y, points[1].x - points[0].x);
      const barb = by => ({ x: points[1].x - (width / 40) * Math.cos(turn + by), y: points[1].y - (width / 40) * Math.sin(turn + by) });
      return `${line(points)} ${line([barb(0.45), points[1], barb(-0.45)])}`;
    }
    return line(points) + (mark.kind === 'patch' && points.length > 2 ? ' Z' : '');
  };

  const draw = () => {
    const unit = 1 / board.getScreenCTM().a;
    layer.replaceChildren();
    for (const [index, mark] of [...marks, ...(drawing ? [drawing] : [])].entries()) {
      const group = svg('g', { class: `mark mark-${mark.kind}`, 'stroke-width': 2.5 * unit });
      group.append(svg('path', { d: path(mark), class: 'under', 'stroke-width': 5 * unit }), svg('path', { d: path(mark) }));
      const words =
        mark.kind === 'scale' ? `${mark.knownMm ?? '?'} mm` : many(mark.kind) ? (sizes[index] ?? '').split(' (')[0] : mark.words;
      if (words) {
        const top = mark.kind === 'arrow' ? mark.points[0] : mark.points.reduce((best, point) => (point.y < best.y ? point : best));
        const text = svg('text', { x: top.x, y: top.y - 9 * unit, 'font-size': 15 * unit });
        text.textContent = words;
        group.append(text);
      }
      if (mayDraw)
        mark.points.forEach((point, at) =>
          group.append(svg('circle', { cx: point.x, cy: point.y, r: 4.5 * unit, class: 'grip', 'data-mark': index, 'data-point': at })),
        );
      layer.append(group);
    }
  };

  const showList = () => {
    list.replaceChildren(
      ...marks.map((mark, index) => {
        const row = document.createElement('li');
        row.append(
          Object.assign(document.createElement('b'), { textContent: mark.kind }),
          ' ',
          Object.assign(document.createElement('span'), {
            className: 'mono size',
            textContent: mark.kind === 'scale' ? `${mark.knownMm ?? '?'} mm` : (sizes[index] ?? ''),
          }),
        );
        if (!mayDraw) {
          row.append(` ${mark.words}`);
          return row;
        }
        const words = Object.assign(document.createElement('input'), {
          className: 'form-control',
          value: mark.words ?? '',
          maxLength: 80,
          placeholder: 'words',
        });
        words.setAttribute('aria-label', `Words of the ${mark.kind}`);
        words.addEventListener('input', () => {
          mark.words = words.value;
          draw();
          store();
        });
        const away = Object.assign(document.createElement('button'), {
          type: 'button',
          className: 'btn btn-quiet',
          textContent: 'Take away',
        });
        away.addEventListener('click', () => {
          marks.splice(index, 1);
          changed();
        });
        row.append(words, away);
        return row;
      }),
    );
  };

  const store = () => {
    if (form) form.elements.marks.value = JSON.stringify(marks);
  };

  let asked;
  const measure = () => {
    clearTimeout(asked);
    if (!marks.some(mark => many(mark.kind) || mark.kind === 'scale')) return;
    asked = setTimeout(async () => {
      const token = document.querySelector('input[name=__RequestVerificationToken]')?.value ?? '';
      try {
        const answer = await fetch(page.dataset.measure, {
          method: 'POST',
          body: new URLSearchParams({ marks: JSON.stringify(marks), __RequestVerificationToken: token }),
        });
        if (!answer.ok) return;
        const said = await answer.json();
        if (problem) {
          problem.hidden = !said.problem;
          problem.textContent = said.problem ?? '';
        }
        if (said.sizes) {
          sizes = said.sizes;
          draw();
          for (const [index, place] of list.querySelectorAll('.size').entries())
            if (many(marks[index]?.kind)) place.textContent = sizes[index] ?? '';
        }
      } catch {
        hint.textContent = 'No connection: what is drawn is measured when it is back.';
      }
    }, 150);
  };

  // The scale's true length comes from what lies there, or is typed.
  const known = page.querySelector('[data-known]');
  const knownMm = page.querySelector('[data-known-mm]');
  const scaleFields = page.querySelector('[data-scale-fields]');
  const number = text => Number(text.trim().replace(',', '.'));
  const readScale = () => {
    const mark = marks.find(one => one.kind === 'scale');
    if (!mark) return;
    const choice = known.selectedOptions[0];
    page.querySelector('[data-known-source]').textContent = choice.dataset.source;
    mark.knownMm = number(knownMm.value) > 0 ? number(knownMm.value) : null;
    mark.knownUncertaintyMm = Number(choice.dataset.off);
    mark.words = choice.textContent;
  };
  known?.addEventListener('change', () => {
    if (known.selectedOptions[0].dataset.mm) knownMm.value = known.selectedOptions[0].dataset.mm;
    readScale();
    changed();
  });
  knownMm?.addEventListener('input', () => {
    readScale();
    changed();
  });

  function changed() {
    if (scaleFields) scaleFields.hidden = !marks.some(mark => mark.kind === 'scale');
    sizes = [];
    store();
    showList();
    draw();
    measure();
  }

  const finishButton = page.querySelector('[data-finish]');
  const finish = () => {
    if (drawing && drawing.points.length >= least[drawing.kind]) {
      if (drawing.kind === 'scale') marks.splice(0, marks.length, ...marks.filter(mark => mark.kind !== 'scale'));
      marks.push(drawing);
      if (drawing.kind === 'scale') readScale();
    }
    drawing = null;
    if (finishButton) finishButton.hidden = true;
    changed();
    if (marks.at(-1)?.kind === 'scale' && tool === 'scale') knownMm.focus();
    if (marks.at(-1)?.kind === 'words' && tool === 'words') list.lastElementChild?.querySelector('input')?.focus();
  };
  const choose = wanted => {
    tool = wanted;
    drawing = null;
    for (const button of page.querySelectorAll('[data-tool]')) button.setAttribute('aria-pressed', button.dataset.tool === tool);
    if (tool) hint.textContent = says[tool];
    if (finishButton) finishButton.hidden = true;
    draw();
  };

  const earlier = comparing(page, width, height);

  board.addEventListener('pointerdown', event => {
    const here = spot(event);
    const held = mayDraw && event.target.closest?.('.grip');
    board.setPointerCapture(event.pointerId);
    if (held && !drawing && marks[Number(held.dataset.mark)]) {
      moving = { points: marks[Number(held.dataset.mark)].points, at: Number(held.dataset.point) };
    } else if (mayDraw && tool) {
      if (many(tool)) {
        drawing ??= { kind: tool, points: [], words: '', pickPixels: pick() };
        drawing.points.push(here);
        finishButton.hidden = drawing.points.length < least[tool];
      } else if (tool === 'words') {
        drawing = { kind: tool, points: [here], words: '', pickPixels: pick() };
        finish();
        return;
      } else drawing = { kind: tool, points: [here, here], words: '', pickPixels: pick() };
    } else if (earlier.isOver()) moving = { lay: earlier.held(here) };
    else moving = { pan: { clientX: event.clientX, clientY: event.clientY, x: view.x, y: view.y } };
    draw();
  });
  board.addEventListener('pointermove', event => {
    if (moving?.points) {
      moving.points[moving.at] = spot(event);
      draw();
    } else if (moving?.lay) {
      earlier.layAt(moving.lay, spot(event));
    } else if (moving?.pan) {
      const scale = board.getScreenCTM().a;
      see({
        ...view,
        x: moving.pan.x - (event.clientX - moving.pan.clientX) / scale,
        y: moving.pan.y - (event.clientY - moving.pan.clientY) / scale,
      });
    } else if (drawing && !many(drawing.kind)) {
      drawing.points[1] = spot(event);
      draw();
    }
  });
  board.addEventListener('pointerup', () => {
    if (moving) {
      const held = moving;
      moving = null;
      if (held.points) changed();
      return;
    }
    if (drawing && !many(drawing.kind)) {
      if (far(drawing.points[0], drawing.points[1]) > grip()) finish();
      else {
        drawing = null;
        draw();
      }
    }
  });
  board.addEventListener('dblclick', finish);
  finishButton?.addEventListener('click', finish);

  const see = wanted => {
    view = { ...wanted, x: Math.min(Math.max(wanted.x, 0), width - wanted.w), y: Math.min(Math.max(wanted.y, 0), height - wanted.h) };
    board.setAttribute('viewBox', `${view.x} ${view.y} ${view.w} ${view.h}`);
    draw();
  };
  page.addEventListener('click', event => {
    const button = event.target.closest('button');
    if (button?.dataset.tool) choose(tool === button.dataset.tool ? null : button.dataset.tool);
    else if (button?.dataset.zoom) {
      const w = Math.min(width, Math.max(width / 20, view.w / Number(button.dataset.zoom)));
      const h = (w * height) / width;
      see({ x: view.x + (view.w - w) / 2, y: view.y + (view.h - h) / 2, w, h });
    } else if (button?.matches('[data-take-back]')) {
      if (drawing?.points.length > 1 && many(drawing.kind)) {
        drawing.points.pop();
        draw();
      } else if (drawing) {
        drawing = null;
        draw();
      } else {
        marks.pop();
        changed();
      }
    }
  });

  const there = marks.find(mark => mark.kind === 'scale');
  if (there && known) {
    knownMm.value = there.knownMm ?? '';
    for (const option of known.options) if (option.textContent === there.words) option.selected = true;
    readScale();
  }
  addEventListener('resize', draw);
  changed();
  // Nothing is pressed in vain before the board listens.
  page.querySelector('[data-tools]').disabled = false;
}
