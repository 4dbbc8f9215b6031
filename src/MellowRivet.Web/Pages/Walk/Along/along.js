// Take it along: one touch, and the first time a code of the person's own.
import { inspections } from '../../../Browser/Aboard/aboard.js';
import { begin, isAble, ready } from '../../../Browser/Aboard/keyring.js';
import { take } from '../../../Browser/Aboard/take.js';
import * as vault from '../../../Browser/Aboard/vault.js';
import { clock, megabytes } from '../../../Browser/Aboard/words.js';
import { sealAll } from '../../../Browser/Outbox/outbox.js';
import { button, element } from '../../../Browser/page.js';

const page = document.querySelector('[data-along]');
const me = document.body.dataset.me;
// How often it says how far it is, ms.
const steps = 200;

const problem = words => element('p', { className: 'field-problem', role: 'alert', textContent: words });
const soft = words => element('p', { className: 'soft', textContent: words });

const says = ({ at, size, count, missed }) => [
  element('p', {}, element('strong', { textContent: `Aboard as of ${clock(at)}:` }), ` ${count} pages and pictures, ${megabytes(size)}.`),
  ...(missed ? [problem(`${missed} could not be fetched: take it along once more.`)] : []),
];

const codeForm = begun => {
  const field = name => element('input', { type: 'password', className: 'form-control', autocomplete: 'off', required: true, name });
  const [code, twice] = [field('code'), field('twice')];
  code.minLength = vault.shortest;
  const wrong = problem('The two aren’t the same.');
  wrong.hidden = true;
  const form = element(
    'form',
    { className: 'narrow-form' },
    element('p', {
      textContent:
        'What comes along is sealed on this device by a code of your own. Without it nobody opens it, the shop neither: what waits here ' +
        `to be sent would be lost with it. At least ${vault.shortest} letters or digits; a few words are better than a number.`,
    }),
    element('label', { className: 'field' }, 'Code', code),
    element('label', { className: 'field' }, 'Once more', twice),
    wrong,
    element('button', { className: 'btn btn-primary', textContent: 'Set the code, and take it along' }),
  );
  form.addEventListener('submit', event => {
    event.preventDefault();
    wrong.hidden = code.value === twice.value;
    if (wrong.hidden) begun(code.value);
  });
  return form;
};

const start = async () => {
  const well = page.querySelector('[data-along-well]');
  const show = (...what) => well.replaceChildren(...what);
  const id = page.dataset.along;
  if (!isAble) {
    show(problem('This browser keeps nothing here: it wants the shop at an https address. Whoever runs the shop finds how in its guide.'));
    return;
  }
  const again = () => button('Take it along again', go, { className: 'btn btn-primary' });
  const go = async () => {
    const [bar, line] = [element('progress', { max: 1, value: 0 }), soft('')];
    bar.setAttribute('aria-label', 'How far it is');
    show(bar, line);
    try {
      const stays = await navigator.storage.persist();
      let shown = 0;
      const what = await take(me, id, ({ done, of, size }) => {
        // To draw it for each of hundreds takes a phone as long as to fetch them.
        if (Date.now() - shown < steps) return;
        shown = Date.now();
        [bar.max, bar.value] = [of, done];
        line.textContent = `${done} of ${of}, ${megabytes(size)}`;
      });
      const promise = soft(
        'This browser didn’t promise to keep it: short of room, it may take it away. Send what waits whenever the shop is in reach.',
      );
      show(...says(what), ...(stays ? [] : [promise]), again());
    } catch (failed) {
      show(
        problem(
          failed.name === 'QuotaExceededError'
            ? 'This device has no room for it. What was aboard before is still here: make room, and take it along again.'
            : 'The shop went out of reach while it came along. Take it along again when it is back.',
        ),
        again(),
      );
    }
  };
  const there = (await inspections(me)).find(one => one.id === id);
  if (there) show(...says(there), again());
  else if (await vault.codeOf(me)) await go();
  else
    show(
      codeForm(async code => {
        const { minutes, grant } = await (await fetch('/device/token', { cache: 'no-store' })).json();
        await begin(page.dataset.meName, code, { minutes, grant });
        await sealAll(me);
        await go();
      }),
    );
};

// On every page of the walk: whether it is aboard, and as of when.
const line = document.querySelector('[data-take-along]');
const showLine = async () => {
  const there = (await inspections(me)).find(one => one.id === line.dataset.takeAlong);
  if (there) line.textContent = `Aboard as of ${clock(there.at)}`;
};

if (page) ready.then(start);
else if (line && me && isAble) ready.then(showLine);
