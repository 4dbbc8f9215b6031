// What was acknowledged survives a killed server: a discrepancy is posted, the process is killed the moment the answer
// is in, and a new server on the same data has it.
import { expect, request, test } from '@playwright/test';
import { spawn } from 'node:child_process';
import { cpSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lender } from './playwright.config.mjs';
import { token } from './shop.mjs';

const port = 5193;
const data = join(tmpdir(), 'rivet-browser-durability');

async function serve() {
  const server = spawn('../../rivet', ['demo', '--port', String(port), '--data', data, '--today', '2026-11-25T10:00'], { stdio: 'ignore' });
  await expect
    .poll(
      () =>
        fetch(`http://127.0.0.1:${port}/health`).then(
          answer => answer.status,
          () => 0,
        ),
      { timeout: 100_000 },
    )
    .toBe(200);
  return server;
}

async function enter() {
  const shop = await request.newContext({ baseURL: `http://127.0.0.1:${port}` });
  await shop.post('/enter?handler=As', {
    form: { name: 'ines', __RequestVerificationToken: token(await (await shop.get('/enter')).text()) },
  });
  return shop;
}

test('a record that was acknowledged survives kill -9', async () => {
  rmSync(data, { recursive: true, force: true });
  cpSync(await (await fetch(`${lender}/made`)).text(), data, { recursive: true });
  let server = await serve();
  const shop = await enter();
  const hangar = await (await shop.get('/')).text();
  const walk = hangar.match(/\/walk\/[0-9a-f-]{36}/)[0];
  for (let find = 0; find < 3; find += 1) {
    const answer = await shop.post(`${walk}/find`, {
      maxRedirects: 0,
      form: {
        post: crypto.randomUUID(),
        what: `Survivor ${find}`,
        zone: 'gear',
        class: 'Watch',
        __RequestVerificationToken: token(await (await shop.get('/')).text()),
      },
    });
    if (find === 2) server.kill('SIGKILL');
    expect(answer.status()).toBe(302);
  }
  server = await serve();
  const list = await (await shop.get(`${walk}/fix-list`)).text();
  for (const find of [0, 1, 2]) expect(list).toContain(`Survivor ${find}`);
  server.kill();
});
