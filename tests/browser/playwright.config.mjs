import { defineConfig } from '@playwright/test';

// Who lends each test a shop of its own. tools/test has laid the program out.
export const lender = 'http://127.0.0.1:5190';

const chromium = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-software-rasterizer',
  ],
};

// Whole programs that start, are killed and start again: they take the machine for themselves.
const processes = /(durability|guide|full-disk)\.spec\.mjs/;

export default defineConfig({
  testDir: '.',
  // A busy machine is slow, not wrong: what promises a time says so in its own test.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  workers: 2,
  retries: 0,
  fullyParallel: true,
  outputDir: '../../.rivet/test/browser',
  reporter: [['list'], ['json', { outputFile: '../../.rivet/test/browser.json' }]],
  use: { launchOptions: chromium, trace: 'off' },
  projects: [
    // At the desk: everything but what is only done standing.
    { name: 'sitting', testIgnore: processes, grepInvert: /@standing/, use: { viewport: { width: 1280, height: 800 } } },
    // On a phone: what is laid out, touched or sent otherwise there.
    { name: 'standing', testIgnore: processes, grep: /@standing|@both/, use: { viewport: { width: 390, height: 844 }, hasTouch: true } },
    // Last, when nobody else needs the machine.
    { name: 'processes', testMatch: processes, dependencies: ['sitting', 'standing'], use: { viewport: { width: 1280, height: 800 } } },
  ],
  webServer: {
    command:
      'cd ../../.rivet/test/shops && exec dotnet exec --runtimeconfig MellowRivet.Web.runtimeconfig.json' +
      ' --depsfile MellowRivet.Web.deps.json MellowRivet.Shops.dll 5190',
    url: `${lender}/made`,
    timeout: 180_000,
    stdout: 'ignore',
    stderr: 'pipe',
  },
});
