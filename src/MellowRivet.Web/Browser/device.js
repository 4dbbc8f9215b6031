// This device's own database: what waits for the shop, and what was taken along. Pages and the worker share it.
import { openDB } from 'idb';

let opened;
/** The database; opened once. */
export const device = () =>
  (opened ??= openDB('rivet-device', 1, {
    upgrade(database) {
      const outbox = database.createObjectStore('outbox', { keyPath: 'n', autoIncrement: true });
      outbox.createIndex('post', 'post', { unique: true });
      outbox.createIndex('turn', ['me', 'lane', 'state']);
      outbox.createIndex('me', 'me');
      database.createObjectStore('files', { keyPath: 'post' });
      database.createObjectStore('drafts', { keyPath: ['me', 'name'] });
      database.createObjectStore('codes', { keyPath: 'me' });
      database.createObjectStore('aboard', { keyPath: ['me', 'address'] });
      database.createObjectStore('inspections', { keyPath: ['me', 'id'] });
    },
    // A newer page wants another shape of it: nobody here holds it up.
    blocking(_now, _next, event) {
      event.target.close();
      opened = undefined;
    },
    terminated() {
      opened = undefined;
    },
  }));
