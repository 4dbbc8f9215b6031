// What several values come to together, where the shop can't be asked: those that stand in the fields of this page, those that wait on
// this device, and those that came along.
import { measured } from './field.js';
import { to, unitOf } from './measure.js';
import { written } from './number.js';
import { judge } from './table.js';

// "left 140 rpm"; what is judged by itself needs no name.
const told = ({ number, value, unit }) =>
  `${/^[a-z]/.test(number) && number !== 'value' ? `${number} ` : ''}${written(value, '0.##')} ${unit}`;

/** Of several that are called the same, the first that can be judged holds. */
const firsts = found => [...new Map(found.toReversed().map(one => [one.key, one])).values()].toReversed();

/**
 * What values come to together.
 * @param judging what came along
 * @param said what is said of a field or of a look on this device: a value in the field's unit or undefined where nothing stands there,
 * a word; null where nothing is known but what came along
 * @returns each with its name, its values in words, and the verdict with its words
 */
export const together = (judging, said) => {
  const { by, fields, tables } = judging;
  const valueOf = ({ field, unit, stands }) => {
    const value = said(field);
    if (value === null) return stands;
    return value === undefined ? undefined : to(unitOf(by, fields.get(field.split('#')[0]).unit), unitOf(by, unit), value);
  };
  return firsts(
    judging.together.flatMap(one => {
      const parts = one.parts.map(part => ({ ...part, value: valueOf(part) }));
      const read = parts.filter(({ value }) => value !== undefined);
      if (read.length < one.atLeast || parts.some(({ needed, value }) => needed && value === undefined)) return [];
      const when = one.looks.map(({ key, stands }) => said(key) ?? stands).join(' ');
      const saw = read.map(told).join(', ');
      return [{ ...one, saw, ...judge(tables[one.tables[when]], Object.fromEntries(read.map(({ number, value }) => [number, value]))) }];
    }),
  );
};

/** What stands in a field on this device, as a number in its unit; undefined where nothing does, or nothing that can be read. */
export const standing = (judging, key, said) => measured(judging, judging.fields.get(key), said).value;
