// What a device says of each case, beside what the shop says: prints those that differ.
import { readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';

const [source, file] = process.argv.slice(2);
const from = name => import(pathToFileURL(`${source}/${name}.js`));
const [{ judged }, { grammar, read, unitOf }, { written }, { standing, together }] = await Promise.all(
  ['field', 'measure', 'number', 'together'].map(from),
);
const { sizesOf } = await import(pathToFileURL(`${source}/../../Pages/Walk/Found/sizes.js`));
const { judging, cases, sums, drawn, texts, numbers } = JSON.parse(readFileSync(file, 'utf8'));
const along = { ...judging, by: grammar(judging.grammar), fields: new Map(judging.fields.map(field => [field.key, field])) };
const differ = [];
const hold = (about, device, shop) => {
  if (JSON.stringify(device) !== JSON.stringify(shop)) differ.push({ about, device, shop });
};
for (const { key, said, shop } of cases) {
  const { others, ...rest } = said;
  const { verdict, rule, source: from, next, problem } = judged(along, key, others ? { ...rest, others: one => others[one] } : rest) ?? {};
  hold({ key, said }, problem ? { problem } : { verdict, rule, source: from, next }, shop);
}
for (const { of, said, looks, shop } of sums) {
  const stands = key => (said[key] ? standing(along, key.split('#')[0], said[key]) : key in said ? undefined : null);
  const found = together(along, key => looks[key] ?? stands(key)).find(({ key }) => key === of) ?? {};
  const { verdict, rule, source: from, next } = found;
  hold({ of, said, looks }, { verdict, rule, source: from, next }, shop);
}
for (const { annotations, sizes } of drawn) hold(annotations, sizesOf(JSON.parse(annotations)), sizes);
for (const { text, unit, value, problem } of texts) {
  const device = read(along.by, text, unitOf(along.by, unit));
  hold({ text, unit }, { value: device.value, problem: device.problem }, { value, problem });
}
for (const { number, format, shop } of numbers) hold({ number, format }, written(number, format), shop);
const held = [cases, sums, drawn, texts, numbers].reduce((sum, all) => sum + all.length, 0);
console.log(JSON.stringify({ held, differ: differ.length, first: differ.slice(0, 4) }));
