// What was typed or chosen in a field comes to, where the shop can't be asked: by the limits, tables and words that came along.
import { read, to, told, unitOf } from './measure.js';
import { rounded, written } from './number.js';
import { judge } from './table.js';

const stands = { below: (a, b) => a < b, atMost: (a, b) => a <= b, above: (a, b) => a > b, atLeast: (a, b) => a >= b };

// What the field doesn't take.
const refused = ({ by }, field, typed, value, given, wanted) => {
  const hit = field.bounds.find(bound => stands[bound.than](bound.in ? to(given, unitOf(by, bound.in), value) : value, bound.limit));
  return hit && told(hit.words, { unit: wanted.symbol, value: written(value, '0.##'), typed: typed.trim() });
};

// A compression may have its supply behind a stroke.
const held = (by, { behind }, typed, unit) => {
  const [first, supply, ...more] = typed.split('/');
  const { value } = read(by, first, unit);
  if (more.length || value === undefined) return { problem: told(behind.noReading, { typed: typed.trim() }) };
  if (supply !== undefined && read(by, supply, unit).value !== behind.supply)
    return { problem: told(behind.other, { behind: supply.trim() }) };
  return { value };
};

// At the cable, to a tenth of a degree.
const temperature = ({ by, cable }, said) => {
  if (!said.temperature?.trim()) return {};
  const unit = unitOf(by, said.temperatureUnit || '°C');
  const { value } = read(by, said.temperature, unit);
  const celsius = value === undefined ? undefined : to(unit, unitOf(by, '°C'), value);
  return celsius === undefined || Math.abs(celsius) > cable.hottest
    ? { field: 'temperature', problem: told(cable.noTemperature, { typed: said.temperature.trim() }) }
    : { celsius: rounded(celsius, 1) };
};

// What a wrench is set to for a torque, and whether it can be; with an extension in line it is set lower.
const pulled = ({ by, wrenches, pull }, field, said, value) => {
  if (!field.noWrench) return undefined;
  const wrench = wrenches.find(one => one.id === said.wrench);
  if (!wrench) return field.noWrench;
  if (said.today > wrench.until) return wrench.ended;
  const inches = text => (text?.trim() ? (read(by, text, unitOf(by, 'in')).value ?? -1) : undefined);
  const extension = inches(said.extension);
  const length = inches(said.length) ?? wrench.length;
  const isAny =
    extension === undefined || (length > 0 && length <= pull.longestWrench && extension >= 0 && extension <= pull.longestExtension);
  if (!isAny) return pull.wantsLengths;
  const set = to(
    unitOf(by, field.unit),
    unitOf(by, wrench.unit),
    extension === undefined ? value : (value * length) / (length + extension),
  );
  return set >= wrench.least * (1 - pull.readable) && set <= wrench.most * (1 + pull.readable)
    ? undefined
    : told(wrench.beyond, { value: written(set, '0.#') });
};

// What has to be done before, and not to be bad: a plug is torqued once all else of it is done and good.
const before = (judging, { after }, { others }) => {
  if (!after || !others) return undefined;
  if (after.never) return after.never;
  const said = after.fields.map(one => ({ ...one, field: judging.fields.get(one.key), said: others(one.key) }));
  const isDone = ({ field, said: is }) => Boolean(is?.value.trim()) && (!field?.unit || measured(judging, field, is).value !== undefined);
  const missing = said.filter(one => !isDone(one)).map(({ name }) => name);
  if (missing.length) return told(after.missing, { steps: missing.join(', ') });
  // A gap found wide is closed: the gap that it goes back with is what counts.
  const counts = said.filter(({ key }) => !key.endsWith('/GapFound'));
  const bad = counts.map(({ key, said: is }) => judged(judging, key, is)).find(one => one?.verdict === 'reject');
  return bad && `${bad.rule}. ${bad.next}`;
};

/**
 * What stands in a field, as a number.
 * @returns the value in the unit of the field's limits; or a problem; or neither, where nothing stands there
 */
export const measured = (judging, field, said) => {
  const { by } = judging;
  const typed = said.value ?? '';
  if (!typed.trim()) return {};
  const wanted = unitOf(by, field.unit);
  const given = said.unit ? unitOf(by, said.unit) : wanted;
  const { value, problem } = field.behind ? held(by, field, typed, given) : read(by, typed, given);
  if (problem) return { problem };
  const outside = refused(judging, field, typed, value, given, wanted);
  return outside ? { problem: outside } : { value: to(given, wanted, value) };
};

/**
 * What a field comes to.
 * @param judging what came along
 * @param key the field's name
 * @param said what stands in its form: value, unit, temperature, temperatureUnit, wrench, length, extension, orifice, and which table
 * is the one; the day, for a wrench's calibration; and what is said in the others that come before it
 * @returns a verdict with its words; a problem, and at which field; or nothing, where there is nothing to say of it
 */
export const judged = (judging, key, said) => {
  const { fields, tables } = judging;
  const field = fields.get(key);
  const typed = said.value ?? '';
  if (!field) return undefined;
  const table = when => tables[field.tables[when]];
  if (!field.unit) return table(typed) && judge(table(typed), {});
  if (!typed.trim()) return field.empty && said.isKept ? { problem: field.empty } : undefined;
  const { value, problem } = measured(judging, field, said);
  if (problem) return { problem };
  const at = temperature(judging, said);
  if (at.problem) return at;
  const wrong = pulled(judging, field, said, value);
  if (wrong) return { field: 'wrench', problem: wrong };
  const open = before(judging, field, said);
  if (open) return { problem: open };
  const rows = table(said.when ?? '');
  return rows && judge(rows, { value, temperature: at.celsius, orifice: said.orifice ?? field.behind?.orifice });
};
