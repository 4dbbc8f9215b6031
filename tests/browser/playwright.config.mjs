import { defineConfig } from '@playwright/test';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

// tools/test makes the demo's shop once. Each posture works on a copy, so that what one changes the other doesn't see.
export const made = '../../.rivet/test/demo';

const chromium = {
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
};

const postures = [
  { name: 'sitting', port: 5191, use: { viewport: { width: 1280, height: 800 } } },
  { name: 'standing', port: 5192, use: { viewport: { width: 390, height: 844 }, hasTouch: true } },
];

const folder = name => join(tmpdir(), `rivet-browser-${name}`);

export default defineConfig({
  testDir: '.',
  timeout: 180_000,
  // A shared machine has slow minutes; what promises a time says so in its own test.
  expect: { timeout: 30_000 },
  workers: 2,
  // Where nobody looks on, what fails once is tried once more, and named as flaky; at a desk it fails.
  retries: process.env.CI ? 1 : 0,
  fullyParallel: false,
  outputDir: '../../.rivet/test/browser',
  reporter: [['list'], ['json', { outputFile: '../../.rivet/test/browser.json' }]],
  use: { launchOptions: chromium, trace: 'off' },
  projects: postures.map(({ name, port, use }) => ({ name, use: { ...use, baseURL: `http://127.0.0.1:${port}` } })),
  webServer: postures.map(({ name, port }) => ({
    command: `rm -rf ${folder(name)} && cp -r ${made} ${folder(name)} && exec ../../rivet demo --port ${port} --data ${folder(name)}`,
    url: `http://127.0.0.1:${port}/health`,
    timeout: 180_000,
    stdout: 'ignore',
    stderr: 'ignore',
  })),
});
