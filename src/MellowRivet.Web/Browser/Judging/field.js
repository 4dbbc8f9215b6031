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

/**
 * What a field comes to.
 * @param judging what came along
 * @param key the field's name
 * @param said what stands in its form: value, unit, temperature, temperatureUnit, orifice, and which table is the one
 * @returns a verdict with its words; a problem, and at which field; or nothing, where there is nothing to say of it
 */
export const judged = (judging, key, said) => {
  const { by, fields, tables } = judging;
  const field = fields.get(key);
  const typed = said.value ?? '';
  if (!field) return undefined;
  const table = when => tables[field.tables[when]];
  if (!field.unit) return table(typed) && judge(table(typed), {});
  if (!typed.trim()) return field.empty && said.isKept ? { problem: field.empty } : undefined;
  const wanted = unitOf(by, field.unit);
  const given = said.unit ? unitOf(by, said.unit) : wanted;
  const { value, problem } = field.behind ? held(by, field, typed, given) : read(by, typed, given);
  if (problem) return { problem };
  const outside = refused(judging, field, typed, value, given, wanted);
  if (outside) return { problem: outside };
  const at = temperature(judging, said);
  if (at.problem) return at;
  const rows = table(said.when ?? '');
  return rows && judge(rows, { value: to(given, wanted, value), temperature: at.celsius, orifice: said.orifice ?? field.behind?.orifice });
};
