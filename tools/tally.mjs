// What the tests' parts left in a folder, told: each part with its time, what failed with its words, the ten slowest tests, and one
// closing line. Leaves with 1 where anything failed.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const folder = process.argv[2];
const read = name => readFileSync(join(folder, name), 'utf8');
const tests = [];

const plain = text =>
  text
    .replace(
      /&(?:#x?[0-9A-Fa-f]+|quot|lt|gt|apos);/g,
      sign => ({ '&quot;': '"', '&lt;': '<', '&gt;': '>', '&apos;': "'", '&#xA;': '\n' })[sign] ?? '',
    )
    .replaceAll('&amp;', '&');
const seconds = text => text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);
for (const name of readdirSync(folder).filter(name => name.endsWith('.trx'))) {
  for (const [, of, rest] of read(name).matchAll(/<UnitTestResult ([^>]*)>([\s\S]*?)(?=<UnitTestResult |<\/Results>)/g)) {
    const said = field => of.match(new RegExp(`${field}="([^"]*)"`))?.[1] ?? '';
    tests.push({
      part: name.replace('.trx', ''),
      name: plain(said('testName')),
      said: plain(rest.match(/<Message>([\s\S]*?)<\/Message>/)?.[1] ?? ''),
      took: seconds(said('duration')),
      passed: said('outcome') === 'Passed',
    });
  }
}
if (existsSync(join(folder, 'browser.json'))) {
  const look = suite => {
    for (const spec of suite.specs ?? []) {
      for (const run of spec.tests) {
        tests.push({
          part: 'browser',
          name: `${run.projectName}: ${spec.title}`,
          said: run.results.map(result => result.error?.message ?? '').join('\n'),
          took: run.results.reduce((sum, result) => sum + result.duration / 1000, 0),
          passed: run.status === 'expected',
        });
      }
    }
    suite.suites?.forEach(look);
  };
  JSON.parse(read('browser.json')).suites.forEach(look);
}

let [passed, failed] = [0, 0];
const steps = readdirSync(folder)
  .filter(name => name.endsWith('.step'))
  .map(name => name.replace('.step', ''));
for (const step of steps) {
  const [took, outcome] = read(`${step}.step`).trim().split(' ');
  const own = tests.filter(test => test.part === step);
  const bad = own.filter(test => !test.passed).length;
  // A part of tests counts its tests; anything else counts as one, and so does a part that broke off without a failed test.
  passed += own.length - bad + (own.length === 0 && outcome === 'ok' ? 1 : 0);
  failed += bad + (bad === 0 && outcome !== 'ok' ? 1 : 0);
  console.log(`${step.padEnd(18)}${took.padStart(5)} s  ${own.length ? `${own.length - bad} passed, ${bad} failed` : outcome}`);
  const days = own.filter(test => test.name.includes('.Days.'));
  if (days.length && step !== 'days')
    console.log(
      `  the days of it  ${days
        .reduce((sum, test) => sum + test.took, 0)
        .toFixed(0)
        .padStart(7)} s  ${days.filter(test => test.passed).length} passed, ${days.filter(test => !test.passed).length} failed`,
    );
}
for (const step of steps) {
  if (read(`${step}.step`).includes('ok')) continue;
  // What the shops of the tests log is no test's failure, and there is a great deal of it.
  console.log(
    `\n== ${step}\n${read(`${step}.log`)
      .split('\n')
      .filter(line => !/^\s+at |^\[\d\d:\d\d:\d\d [A-Z]{3}\]|Exception|^\s+--- End of|^(INSERT|VALUES|UPDATE|SELECT|FROM|WHERE)/.test(line))
      .slice(-120)
      .join('\n')}`,
  );
}
console.log('\nThe slowest:');
for (const { took, part, name } of tests.sort((a, b) => b.took - a.took).slice(0, 10))
  console.log(`${took.toFixed(1).padStart(7)} s  ${part}: ${name}`);
// Last, because whoever reads what CI printed may see its end alone.
for (const { part, name, said } of tests.filter(test => !test.passed))
  console.log(`\nFAILED ${part}: ${name}\n${said.split('\n').slice(0, 20).join('\n').slice(0, 2_000)}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
