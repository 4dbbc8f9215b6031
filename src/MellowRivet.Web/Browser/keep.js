// What waits to be sent, kept in this device's own database: words, pictures and sounds, until the shop has them.
let opened;
const open = () =>
  (opened ??= new Promise((done, failed) => {
    const request = indexedDB.open('rivet', 1);
    request.onupgradeneeded = () => request.result.createObjectStore('captures', { keyPath: 'post' });
    request.onsuccess = () => done(request.result);
    request.onerror = () => failed(request.error);
  }));

const run = async (mode, work) => {
  const database = await open();
  return new Promise((done, failed) => {
    const transaction = database.transaction('captures', mode, { durability: 'strict' });
    const request = work(transaction.objectStore('captures'));
    transaction.oncomplete = () => done(request.result);
    transaction.onerror = transaction.onabort = () => failed(transaction.error);
  });
};

export const put = entry => run('readwrite', store => store.put(entry));
export const drop = post => run('readwrite', store => store.delete(post));
export const all = () => run('readonly', store => store.getAll());
