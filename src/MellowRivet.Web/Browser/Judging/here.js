// Where the shop can't be asked, what is typed or chosen is judged here: a form says by its data-judges which field it is, and by its
// data-judged where that is said. What the shop says takes its place as soon as it answers.
import { waiting } from '../Outbox/telling.js';
import { isText } from '../Outbox/fill.js';
import { element } from '../page.js';
import { judged } from './field.js';
import { grammar, read, told, unitOf } from './measure.js';
import { standing, together } from './together.js';

const isAway = () => Boolean(document.body.dataset.asOf);
const walk = /^\/walk\/[^/]+/.exec(location.pathname)?.[0];
const unjudged = 'Not judged: the shop can’t be reached. It is judged when it arrives there; until then go by the manual.';
const noOne = 'Judged on this device, by what was taken along; the shop judges it again when it arrives.';

let asked;
const fetched = async () => {
  const answer = await fetch(`${walk}/along?handler=Judging`, { headers: { 'X-Rivet-As-Of': 'yes' }, cache: 'no-store' });
  if (!answer.ok) return undefined;
  const { grammar: shapes, fields, ...rest } = await answer.json();
  return { ...rest, by: grammar(shapes), fields: new Map(fields.map(field => [field.key, field])) };
};
// What came along is read once; where it can't be had it is asked for again with the next value.
const judging = async () => {
  asked ??= walk ? fetched().catch(() => undefined) : Promise.resolve(undefined);
  const had = await asked;
  if (!had) asked = undefined;
  return had;
};

let aboard;
if (isAway())
  judging().then(by => {
    aboard = by;
  });

// A test that was begun on this device waits with its conditions.
const begun = by => {
  const entry = waiting().findLast(one => !one.isRefused && one.url.includes('handler=Begin'));
  if (!entry) return {};
  const said = Object.fromEntries(entry.fields);
  const psi = text => read(by, text ?? '', unitOf(by, 'psi')).value;
  return { hot: said.hot === 'true', supply: psi(said.supply), orifice: psi(said.orifice) };
};

const beside = ['temperature', 'temperatureUnit', 'wrench', 'length', 'extension'];
const saidIn = (form, along) => {
  const { by, fields } = along;
  const value = name => form.elements[name]?.value;
  const field = [...form.elements].find(one => one.name === 'value' && (isText(one) || one.checked));
  const said = {
    // Several choices are said together.
    value: form.dataset.says?.split(' ').map(value).join(' ') ?? field?.value ?? '',
    unit: value('unit') || field?.dataset.measure || undefined,
    ...Object.fromEntries(beside.map(name => [name, value(name)])),
    others: key => formsOf(key).map(one => saidIn(one, along))[0],
    // As dates are written there, and on a wrench's label here.
    today: new Date().toLocaleDateString('sv-SE'),
    isKept: waiting().some(entry => entry.fields?.some(([name, what]) => name === 'reading' && what === value('reading'))),
  };
  const { behind } = fields.get(form.dataset.judges) ?? {};
  if (!behind) return said;
  const { hot = form.dataset.hot === 'true', supply = behind.supply, orifice } = begun(by);
  // Another supply than came along has other limits.
  if (supply !== behind.supply) return undefined;
  const leaks = [...form.querySelectorAll('input[name=leak]:checked')].map(leak => leak.value);
  return { ...said, orifice, when: [hot ? 'hot' : 'cold', ...leaks, ...(form.dataset.again === 'yes' ? ['again'] : [])].join(' ') };
};

const shown = ({ verdicts }, { verdict, rule, source, next }) => {
  const { word, tone, state } = verdicts[verdict];
  const made = document.querySelector('template[data-judgement]').content.firstElementChild.cloneNode(true);
  made.classList.add(`judged-${tone}`);
  made.querySelector('svg').classList.add(`state-${state}`);
  made.querySelector('use').setAttribute('href', `#s-${state}`);
  made.querySelector('strong').textContent = `${word}: ${rule}.`;
  made.querySelector('.next').textContent = next;
  made.querySelector('.source').textContent = source;
  made.lastElementChild.append(element('p', { className: 'soft', textContent: noOne }));
  return made;
};

// The forms of this page for a field; a cylinder has one for each try.
const formsOf = key => {
  const [judges, cylinder] = key.split('#');
  return [...document.querySelectorAll(`form[data-judges="${judges}"]`)].filter(
    form => cylinder === undefined || form.elements.cylinder.value === cylinder,
  );
};
// What waits of a value or a look of another page.
const waits = key => {
  const [kind, carrier, ...name] = key.split('/');
  const handler = { value: 'Value', look: 'Look' }[kind];
  return waiting().findLast(({ isRefused, url, fields }) => {
    const at = new URL(url, location.href);
    const said = Object.fromEntries(fields ?? []);
    const isOf = kind === 'look' ? said.key === name[1] : [said.of, said.position].join('/') === name.join('/');
    return !isRefused && isOf && at.searchParams.get('handler') === handler && at.pathname.replaceAll('-', '').endsWith(carrier);
  });
};
const saidOf = by => key => {
  const forms = formsOf(key);
  if (forms.length)
    return forms.map(form => standing(by, form.dataset.judges, saidIn(form, by) ?? {})).findLast(value => value !== undefined);
  const fields = Object.fromEntries(waits(key)?.fields ?? []);
  if (key.startsWith('look/')) return fields.state && (['Good', 'Found'].includes(fields.state) ? fields.state : 'none');
  return fields.value === undefined ? null : standing(by, key, fields);
};

// What the whole comes to was said without what stands on this page now.
const isHere = ({ parts }) => parts.some(({ field }) => formsOf(field).length);
const sum = by => {
  const found = by ? together(by, saidOf(by)).filter(isHere) : [];
  const none = () => element('p', { className: 'soft', textContent: 'What the whole comes to, the shop says with what waits here.' });
  const said = one => {
    const saw = element('span', { className: 'soft', textContent: `${one.saw} · ${by.verdicts[one.verdict].word}` });
    return element('div', { className: 'answer-line' }, element('h3', {}, `${one.name} `, saw), shown(by, one));
  };
  for (const place of document.querySelectorAll('[data-sums]'))
    place.replaceChildren(
      ...(place.dataset.sums === 'together' && found.length ? found.map(said) : place.dataset.sums === 'gone' ? [] : [none()]),
    );
};

const latest = new WeakMap();
/** Why a measured task isn't good, by what stands in its form, where the shop can't be asked; undefined where it may be. */
export const notGood = form => {
  const { by, found } = latest.get(form) ?? {};
  const reading = form.querySelector('.reading');
  if (!isAway() || !reading) return undefined;
  if (!reading.value.trim()) return aboard?.fields.get(form.dataset.judges)?.empty;
  if (found?.problem) return found.problem;
  return ['reject', 'retest'].includes(found?.verdict) ? told(by.notGood, { rule: found.rule, next: found.next }) : undefined;
};

// What is typed next may be judged before what was typed first.
const turns = new WeakMap();
const judge = async form => {
  const place = document.querySelector(form.dataset.judged);
  if (!place) return;
  const turn = {};
  turns.set(form, turn);
  const by = await judging();
  if (turns.get(form) !== turn) return;
  const said = by && saidIn(form, by);
  if (!said) {
    place.replaceChildren(element('p', { className: 'field-problem', textContent: unjudged }));
    return;
  }
  const found = judged(by, form.dataset.judges, said);
  latest.set(form, { by, found });
  if (!found) place.replaceChildren();
  else if (found.problem) place.replaceChildren(element('p', { className: 'field-problem', role: 'alert', textContent: found.problem }));
  else place.replaceChildren(shown(by, found));
  if (isAway()) sum(by);
  document.dispatchEvent(new CustomEvent('rivet:judged', { detail: { form, when: said.when, verdict: found?.verdict } }));
};

const formOf = target => target.closest?.('form[data-judges]');
for (const typing of ['input', 'change'])
  document.addEventListener(typing, event => {
    const form = isAway() && formOf(event.target);
    if (form) judge(form);
  });
// A page that can't be asked isn't: what is typed there is judged here at once.
document.addEventListener('htmx:beforeRequest', event => {
  const { requestConfig: request } = event.detail;
  if (isAway() && request.verb === 'get' && formOf(event.target)) event.preventDefault();
});
// The connection has just gone.
document.addEventListener('htmx:sendError', event => {
  const { requestConfig: request } = event.detail;
  const form = request.verb === 'get' && formOf(event.target);
  if (form) judge(form);
});
// What waits stands in its form, and is judged there like what is typed; what only takes a moment to go isn't.
const moment = 1500;
const judgeWaiting = () => {
  if (isAway() && document.querySelector('.said-here')) judging().then(sum);
  for (const form of document.querySelectorAll('form[data-judges]')) if (form.querySelector('.said-here')) judge(form);
};
document.addEventListener('rivet:outbox', () => {
  if (waiting().length) setTimeout(judgeWaiting, isAway() ? 0 : moment);
});
