// Reads a measure as hands write it, by the shapes and units that came along: the same that the shop reads by.
import { written } from './number.js';

/** Words with what they are about in the place of its name. */
export const told = (words, about) => Object.entries(about).reduce((said, [name, what]) => said.replaceAll(`{${name}}`, what), words);

/** The grammar, ready to be read with. */
export const grammar = ({ shapes, marks, words, dimensions, units, openCircuit, most }) => {
  const names = new Map();
  for (const unit of units) for (const name of unit.names) names.set(name, [...(names.get(name) ?? []), unit]);
  return {
    shapes: Object.fromEntries(Object.entries(shapes).map(([name, shape]) => [name, new RegExp(shape)])),
    ...{ marks, words, dimensions, units, names, openCircuit, most },
  };
};

/** The unit with a symbol. */
export const unitOf = ({ units }, symbol) => units.find(unit => unit.symbol === symbol);

/** A value of one unit in another; in its own it stays as it is, to the last bit. */
export const to = (from, other, value) =>
  from.symbol === other.symbol ? value : ((value + from.offset) * from.factor) / other.factor - other.offset;

const folded = ({ marks }, typed) => marks.reduce((text, { key, value }) => text.replaceAll(key, value), typed).trim();

// The last sign of "1,204.5" or "1.204,5" is the point, the others keep thousands apart.
const figures = text => {
  const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
  const isPoint = last >= 0 && text.split(text[last]).length === 2;
  const whole = (isPoint ? text.slice(0, last) : text).replace(/[^0-9]/g, '');
  return Number(isPoint ? `${whole}.${text.slice(last + 1)}` : whole);
};

const begin = (by, typed) => {
  const { shapes, words } = by;
  const text = folded(by, typed);
  const signed = (match, number) => ({ number: match.groups.minus ? -number : number, behind: text.slice(match[0].length).trim() });
  const mixed = shapes.mixed.exec(text);
  if (mixed) {
    const { whole, over, under } = mixed.groups;
    return Number(under) > 0 ? signed(mixed, Number(whole ?? 0) + Number(over) / Number(under)) : {};
  }
  const lettered = shapes.lettered.exec(text);
  if (lettered) {
    const { whole, letter, tenths } = lettered.groups;
    const { number, behind } = signed(lettered, Number(`${whole}.${tenths}`));
    return { number, behind: letter + behind };
  }
  const shape = shapes.grouped.exec(text) ?? shapes.decimal.exec(text);
  if (!shape) return {};
  const { number } = shape.groups;
  if (!shapes.twoMeanings.test(number)) return signed(shape, figures(number));
  const pointed = number.replace(',', '.').replace(/0+$/, '').replace(/\.$/, '');
  return { problem: told(words.two, { written: number, joined: number.replace(',', ''), pointed }) };
};

// "M" stays large where it makes a megohm; everything else reads alike in either case.
const called = ({ names }, text) => {
  const signs = { μ: 'µ', '·': '-', '*': '-', ' ': '-', '.': '-', '”': '"', '″': '"' };
  const name = [...text]
    .map(letter => signs[letter] ?? letter)
    .join('')
    .split('-')
    .filter(Boolean)
    .join('-');
  const small = name.toLowerCase();
  return (name.startsWith('M') && names.get(`M${small.slice(1)}`)) || names.get(small) || [];
};

const short = typed => (typed.length <= 24 ? typed : `${typed.slice(0, 24)}…`);

/**
 * Reads a text.
 * @param by the grammar
 * @param text as typed
 * @param wanted the unit of a number without one, and of the answer
 * @returns the value, or what is wrong with the text; neither where nothing stands there
 */
export const read = (by, text, wanted) => {
  const { shapes, words, dimensions, openCircuit, most } = by;
  const typed = text.trim();
  if (typed === '') return {};
  const is = dimension => wanted.dimension === dimension;
  const asked = (said, about = {}) => ({ problem: told(said, { unit: wanted.symbol, ...about, typed: short(typed) }) });
  if (is('resistance') && shapes.open.test(typed)) return { value: openCircuit };
  const clock = is('time') && shapes.clock.exec(typed);
  if (clock) return { value: to(unitOf(by, 'h'), wanted, Number(clock[1]) + Number(clock[2]) / 60) };
  const { number, behind, problem } = begin(by, typed);
  if (problem) return { problem };
  if (number === undefined) return asked(words.noNumber);
  if (is('pressure') && shapes.fraction.test(typed)) return asked(words.onePressure);
  if (behind === '') return Math.abs(number) > most ? asked(words.tooMuch) : { value: number };
  if (behind === 'm' && is('resistance')) return asked(words.megaOrMilli, { number: written(number, '0.###') });
  const units = called(by, behind);
  const unit = units.find(one => is(one.dimension));
  if (unit) {
    const value = to(unit, wanted, number);
    return Math.abs(value) > most ? asked(words.tooMuch) : { value };
  }
  if (behind.toLowerCase() === 'k' && !is('temperature') && !is('angle'))
    return Math.abs(number) > most / 1000 ? asked(words.tooMuch) : { value: number * 1000 };
  return units.length
    ? asked(words.otherDimension, { other: dimensions[units[0].dimension], wanted: dimensions[wanted.dimension] })
    : asked(words.unreadable);
};
