// What a device has with it: the pages of an inspection and their small pictures, each as the shop sent it, with when. Sealed, and
// under names that say nothing. Pages and the worker share this.
import { device } from '../device.js';
import { forgetGone } from '../Outbox/outbox.js';
import * as vault from './vault.js';

const name = async (me, address) => {
  const hash = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(`${me} ${address}`));
  return btoa(String.fromCharCode(...new Uint8Array(hash)));
};
const through = (bytes, pipe) => new Response(new Blob([bytes]).stream().pipeThrough(pipe)).arrayBuffer();

/** Keeps what an address answered; how many bytes it takes. */
export const put = async (me, inspection, address, { head, body }) => {
  const isText = /^(text\/|application\/json)/.test(head.type);
  const kept = {
    head: await vault.seal(me, { ...head, isText }),
    body: await vault.sealBytes(me, isText ? await through(body, new CompressionStream('deflate-raw')) : body),
  };
  const size = kept.body.sealed.byteLength + kept.head.sealed.byteLength;
  await (await device()).put('aboard', { me, address: await name(me, address), inspection, size, round: head.round, kept });
  return size;
};

const opens = ['task', 'show', 'after'];
/**
 * The address of a page among those aboard: without what only opens a task in it. What names another plug, cylinder or zone than is
 * aboard isn't answered with whichever stands first.
 */
export const addressOf = url => {
  if (url.searchParams.get('handler') === 'Panels') return `${url.pathname}?handler=Panels`;
  const named = [...url.searchParams].filter(([key]) => !opens.includes(key));
  return url.pathname + (named.length ? `?${new URLSearchParams(named)}` : '');
};

/** What an address answered when it was taken along; undefined where it wasn't. */
export const get = async (me, address) => {
  const row = await (await device()).get('aboard', [me, await name(me, address)]);
  if (!row) return undefined;
  const [head, body] = [await vault.open(me, row.kept.head), await vault.openBytes(me, row.kept.body)];
  return { head, body: head.isText ? await through(body, new DecompressionStream('deflate-raw')) : body };
};

const sweep = async (me, isGone) => {
  const transaction = (await device()).transaction('aboard', 'readwrite');
  for (let at = await transaction.store.openCursor(IDBKeyRange.bound([me], [me, []])); at; at = await at.continue())
    if (isGone(at.value)) await at.delete();
  await transaction.done;
};

/** Forgets what an inspection had aboard before the round that has just taken it along. */
export const only = (me, inspection, round) => sweep(me, row => row.inspection === inspection && row.round !== round);

/** Notes what is aboard of an inspection. */
export const note = async (me, id, what) => (await device()).put('inspections', { me, id, kept: await vault.seal(me, { id, ...what }) });

/** What is aboard of a person's inspections. */
export const inspections = async me =>
  Promise.all((await (await device()).getAll('inspections', IDBKeyRange.bound([me], [me, []]))).map(row => vault.open(me, row.kept)));

/** Takes an inspection off the device. */
export const takeOff = async (me, id) => {
  await (await device()).delete('inspections', [me, id]);
  await sweep(me, row => row.inspection === id);
};

/** Takes all off that a person has aboard, and the code that opens it; what waits to be sent stays. */
export const wipe = async me => {
  await sweep(me, () => true);
  const database = await device();
  for (const store of ['inspections', 'drafts']) await database.delete(store, IDBKeyRange.bound([me], [me, []]));
  // What waits is sealed under the same code: it stays unreadable, and isn't lost.
  if (!(await forgetGone(me))) await database.delete('codes', me);
  vault.hold(me);
};
