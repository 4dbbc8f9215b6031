// Draws and measures on a picture that the shop hasn't yet: what is drawn goes to the shop with it, and is drawn and measured anew there.
import { element, vector } from '../../../Browser/page.js';
import { board } from './board.js';
import { hasNoLength, sizesOf } from './sizes.js';

const line = points => `M${points.map(({ x, y }) => `${x} ${y}`).join(' L')}`;
const shapes = {
  words: () => '',
  ring: ([middle, edge]) => {
    const radius = Math.hypot(edge.x - middle.x, edge.y - middle.y);
    const half = way => `a${radius} ${radius} 0 1 0 ${way * 2 * radius} 0`;
    return `M${middle.x - radius} ${middle.y} ${half(1)} ${half(-1)}`;
  },
  arrow: ([tail, tip], size) => {
    const turn = Math.atan2(tip.y - tail.y, tip.x - tail.x);
    const barb = by => ({ x: tip.x - size * Math.cos(turn + by), y: tip.y - size * Math.sin(turn + by) });
    return `${line([tail, tip])} ${line([barb(0.45), tip, barb(-0.45)])}`;
  },
  patch: points => `${line(points)} Z`,
};

const drawnOf = ({ kind, points }, label, width) => {
  const group = vector('g', { class: `annotation annotation-${kind}` });
  const path = (shapes[kind] ?? line)(points, width / 40);
  group.append(vector('path', { d: path, class: 'under' }), vector('path', { d: path }));
  const at = kind === 'arrow' ? points[0] : points.reduce((top, point) => (point.y < top.y ? point : top));
  const [dy, anchor] = [at.y > width / 20 ? '-0.6em' : '1.4em', at.x < width * 0.6 ? 'start' : 'end'];
  if (label) group.append(vector('text', { ...at, dy, 'text-anchor': anchor }, label));
  for (const [n, { x, y }] of points.entries()) group.append(vector('circle', { class: 'grip', cx: x, cy: y, 'data-point': n }));
  return group;
};

const lineOf = ({ kind, words, knownMm }, size, longest) => {
  const made = element('li', {}, element('b', { textContent: kind }));
  const shown = kind === 'scale' ? `${knownMm || '?'} mm` : (size ?? '');
  made.append(' ', element('span', { className: 'mono size', textContent: shown }));
  if (kind !== 'scale') {
    const field = element('input', { className: 'form-control', value: words, maxLength: longest, placeholder: 'words' });
    field.setAttribute('aria-label', `Words of the ${kind}`);
    field.dataset.words = '';
    made.append(' ', field);
  }
  const away = element('button', { type: 'button', className: 'btn btn-quiet', textContent: 'Take away' });
  away.dataset.takeAway = '';
  made.append(' ', away);
  return made;
};

// What the shop would refuse once it has it is said here.
const wrongOf = annotations => {
  const scale = annotations.find(({ kind }) => kind === 'scale');
  const short = annotations.find(one => ['scale', 'length'].includes(one.kind) && hasNoLength(one));
  if (short) return `The ends of the ${short.kind} lie on one another.`;
  if (scale && !(scale.knownMm > 0 && scale.knownMm <= 5000 && scale.knownUncertaintyMm < scale.knownMm))
    return 'Type the true distance between the two ends of the scale, in mm, above 0 and up to 5,000.';
  return annotations.some(({ kind, words }) => kind === 'words' && !words.trim()) ? 'Type the words that stand on the picture.' : '';
};

/**
 * Opens a picture to draw and measure on it.
 * @param blob the picture
 * @param before what was drawn on it before
 * @returns what is drawn, as it goes to the shop; what was there before where nothing was kept
 */
export const drawOn = async (blob, before) => {
  const dialog = document.querySelector('template[data-draw]').content.firstElementChild.cloneNode(true);
  const href = URL.createObjectURL(blob);
  const shown = element('img', { src: href });
  await shown.decode();
  const [width, height] = [shown.naturalWidth, shown.naturalHeight];
  const [picture, form] = [dialog.querySelector('[data-picture]'), dialog.querySelector('[data-drawing]')];
  picture.setAttribute('viewBox', `0 0 ${width} ${height}`);
  picture.prepend(vector('image', { href, width, height }));
  const { annotations: field, known, knownMm } = form.elements;
  field.value = before?.annotations ?? '[]';
  if (before) [known.value, knownMm.value] = [before.known, before.knownMm];
  const problem = dialog.querySelector('.field-problem');
  const list = dialog.querySelector('.annotation-list');
  let drawn = JSON.parse(field.value);

  const measure = async annotations => {
    drawn = annotations;
    const { mm, off, source } = known.selectedOptions[0].dataset;
    const scale = annotations.find(({ kind }) => kind === 'scale');
    if (scale) {
      knownMm.readOnly = Boolean(mm);
      if (mm) knownMm.value = mm;
      scale.words = known.value;
      scale.knownMm = Number(knownMm.value.replace(',', '.'));
      scale.knownUncertaintyMm = Number(off);
    }
    dialog.querySelector('.scale-fields').hidden = !scale;
    dialog.querySelector('.scale-fields .source').textContent = source;
    const sizes = sizesOf(annotations);
    const label = ({ kind, words, knownMm: long }, size) => (kind === 'scale' ? `${long || '?'} mm` : (size?.split(' (')[0] ?? words));
    picture.querySelector('[data-drawn]').replaceChildren(...annotations.map((one, at) => drawnOf(one, label(one, sizes[at]), width)));
    // Whoever types in the list isn't interrupted: of each line only the size is new.
    const same = list.children.length === annotations.length;
    if (same)
      for (const [at, one] of annotations.entries())
        list.children[at].querySelector('.size').textContent = lineOf(one, sizes[at]).querySelector('.size').textContent;
    else list.replaceChildren(...annotations.map((one, at) => lineOf(one, sizes[at], list.dataset.longest)));
    problem.textContent = '';
    return '';
  };

  document.body.append(dialog);
  dialog.showModal();
  board(dialog, { width, height, form, measure });
  await measure(drawn);
  return new Promise(done => {
    let kept = before;
    form.addEventListener('submit', event => {
      event.preventDefault();
      problem.textContent = wrongOf(drawn);
      if (problem.textContent) return;
      kept = drawn.length ? { annotations: JSON.stringify(drawn), known: known.value, knownMm: knownMm.value } : undefined;
      dialog.close();
    });
    // What was drawn isn't lost by a key that was hit: only by the button that says so.
    dialog.addEventListener('cancel', event => {
      if (JSON.stringify(drawn) === (before?.annotations ?? '[]')) return;
      event.preventDefault();
      problem.textContent = 'Keep the drawing, or go back without it.';
    });
    dialog.querySelector('[data-draw-close]').addEventListener('click', () => dialog.close());
    dialog.addEventListener('close', () => {
      dialog.remove();
      URL.revokeObjectURL(href);
      done(kept);
    });
  });
};
