// A disk without room, and then with some: a shop on a small file system of its own, filled to the last byte.
import { expect, request, test } from '@playwright/test';
import { closeSync, mkdtempSync, openSync, readdirSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lender } from './playwright.config.mjs';
import { freePort, serve } from './process.mjs';
import { token } from './shop.mjs';

const noRoom = /There is no room on the disk\. .*nothing was lost of what you typed/;
const days = ['--today', '2026-11-25T10:00'];
let server, port, place, seen, filler;

// The file system is the server's alone, and goes with it: nobody has to be anybody to make one.
test.beforeAll(async () => {
  const made = await (await fetch(`${lender}/made`)).text();
  place = mkdtempSync(join(tmpdir(), 'rivet-full-'));
  port = await freePort();
  const script = 'mount -t tmpfs -o size=64m none "$0" && cp -r "$1"/. "$0" && shift && exec "$@"';
  const apart = process.getuid() === 0 ? ['unshare', '-m'] : ['unshare', '-rm'];
  server = await serve(['demo', '--data', place, ...days], port, [...apart, 'sh', '-c', script, place, made]);
  seen = `/proc/${server.pid}/root${place}`;
  filler = join(seen, 'filler');
});

test.afterAll(() => {
  server?.stop();
  rmSync(place, { recursive: true, force: true });
});

const fill = () => {
  const file = openSync(filler, 'w');
  for (let size = 1 << 20; size >= 1; size >>= 1)
    try {
      for (;;) writeSync(file, Buffer.alloc(size));
    } catch (full) {
      expect(full.code).toBe('ENOSPC');
    }
  closeSync(file);
};
const makeRoom = () => rmSync(filler, { force: true });
