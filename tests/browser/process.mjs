// The program as a process of its own: what it says, what it serves, and how it ends.
import { expect } from '@playwright/test';
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';

const rivet = new URL('../../rivet', import.meta.url).pathname;

/** Runs a command to its end. */
export const run = (args, command = rivet) =>
  new Promise(done => {
    const child = spawn(command, args);
    let [out, error] = ['', ''];
    child.stdout.on('data', some => (out += some));
    child.stderr.on('data', some => (error += some));
    child.on('close', code => done({ code, out, error }));
  });

/** A port that nothing listens on. */
export const freePort = () =>
  new Promise(done => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });

/** Serves a shop, and waits until it answers. The command may be another that runs it. */
export const serve = async (args, port, before = []) => {
  const [command, ...rest] = [...before, rivet, ...args, '--port', String(port)];
  const server = spawn(command, rest, { stdio: 'ignore', detached: true });
  await expect
    .poll(
      () =>
        fetch(`http://localhost:${port}/health`).then(
          answer => answer.status,
          () => 0,
        ),
      { timeout: 120_000 },
    )
    .toBe(200);
  return { pid: server.pid, stop: () => process.kill(-server.pid, 'SIGKILL') };
};
