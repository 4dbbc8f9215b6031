// The network between a device and its shop: as it is in a hangar, where it goes, comes back, and drops what it carries.
import { createServer, request } from 'node:http';

/**
 * Stands between the browser and a shop.
 * @returns its address; `cut` and `mend` it; `drop` to let every so-manieth request fail, before or after it was carried out, in turn
 */
export const networkTo = async first => {
  let port = first;
  let isUp = true;
  let every = 0;
  let count = 0;
  const seen = [];
  const sockets = new Set();
  const server = createServer((asked, answer) => {
    if (!isUp) {
      asked.socket.destroy();
      return;
    }
    const { method, url, headers } = asked;
    count += 1;
    const fails = every && count % every === 0;
    const isLost = fails && (count / every) % 2 === 0;
    if (fails && !isLost) {
      asked.socket.destroy();
      return;
    }
    const body = [];
    asked.on('data', part => body.push(part));
    asked.on('end', () => {
      const bytes = Buffer.concat(body);
      if (method === 'POST') seen.push({ url, text: bytes.toString('latin1') });
      const passed = request({ host: '127.0.0.1', port, method, path: url, headers }, came => {
        if (isLost || !isUp) {
          came.resume();
          asked.socket.destroy();
          return;
        }
        answer.writeHead(came.statusCode, came.headers);
        came.pipe(answer);
      });
      passed.on('error', () => asked.socket.destroy());
      answer.on('close', () => passed.destroy());
      passed.end(bytes);
    });
  });
  // It never hangs up by itself on somebody who has been quiet for a while: only `cut` and `drop` do.
  server.keepAliveTimeout = 600_000;
  server.on('connection', socket => {
    sockets.add(socket);
    socket.on('close', () => sockets.delete(socket));
  });
  await new Promise(listening => server.listen(0, '127.0.0.1', listening));
  return {
    address: `http://127.0.0.1:${server.address().port}`,
    /** What was posted, as it came through. */
    seen,
    cut() {
      isUp = false;
      for (const socket of sockets) socket.destroy();
    },
    mend() {
      isUp = true;
    },
    drop(so) {
      every = so;
    },
    /** From now on it leads to another shop. */
    to(other) {
      port = other;
    },
    close() {
      for (const socket of sockets) socket.destroy();
      return new Promise(closed => server.close(closed));
    },
  };
};
