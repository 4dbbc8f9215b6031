// Judges by a table that came along: the same that the shop judges by.
import { rounded, written } from './number.js';

const stands = {
  below: (left, right) => left < right,
  atMost: (left, right) => left <= right,
  above: (left, right) => left > right,
  atLeast: (left, right) => left >= right,
};

const along = (points, x) => {
  for (let at = 1; at < points.length; at++) {
    const [from, to] = [points[at - 1], points[at]];
    if (x >= from[0] && x <= to[0]) return from[1] + ((to[1] - from[1]) * (x - from[0])) / (to[0] - from[0]);
  }
  return undefined;
};
const makes = {
  sum: numbers => numbers.reduce((sum, number) => sum + number, 0),
  less: ([from, what]) => from - what,
  apart: ([one, other]) => Math.abs(one - other),
  least: numbers => Math.min(...numbers),
  most: numbers => Math.max(...numbers),
  else: ([first]) => first,
  along: ([x], points) => along(points, x),
};

const some = ['least', 'most', 'else'];
const made = ({ how, of, digits, points }, numbers) => {
  const there = of.filter(name => numbers.has(name)).map(name => numbers.get(name));
  if (there.length === 0 || (there.length < of.length && !some.includes(how))) return undefined;
  const full = makes[how](there, points);
  return full === undefined || digits === undefined ? full : rounded(full, digits);
};

const filled = (words, numbers) =>
  words.replace(/\{([a-z]+):([0#.]+)\}/g, (all, name, format) => (numbers.has(name) ? written(numbers.get(name), format) : all));

/**
 * What was read comes to.
 * @param table the table
 * @param read the numbers that were read, by name; undefined where one wasn't
 * @returns the verdict with its rule, its source and what to do next, in words; or what is wanted first, at which field
 */
export const judge = (table, read) => {
  const numbers = new Map(Object.entries(table.given));
  const put = (name, number) => number !== undefined && numbers.set(name, number);
  for (const [name, number] of Object.entries(read)) put(name, number);
  for (const one of table.makes) put(one.name, made(one, numbers));
  const want = table.wants.find(one => !numbers.has(one.number));
  if (want) return { field: want.field, problem: filled(want.words, numbers) };
  const holds = ([left, than, right]) => numbers.has(left) && numbers.has(right) && stands[than](numbers.get(left), numbers.get(right));
  const { verdict, rule, source, next } = table.rows.find(row => row.when.every(holds));
  return { verdict, rule: filled(rule, numbers), source: filled(source, numbers), next: filled(next, numbers) };
};
