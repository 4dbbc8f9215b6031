// What lies on a device lies there sealed, once its person has set a code: by AES-GCM with a key of the person's own, which only the
// code opens. The key itself is nowhere but in the memory of the pages and of the worker. Pages and the worker share this.
import { device } from '../device.js';

/** The shortest code that is taken, in letters. */
export const shortest = 8;
// PBKDF2 with SHA-256, the rounds that OWASP's Password Storage Cheat Sheet gives for it (2023; from memory).
const rounds = 600_000;

export class Locked extends Error {}

const keys = new Map();
/** Holds a person's key, or lets go of it. */
export const hold = (me, key) => (key ? keys.set(me, key) : keys.delete(me));
/** A person's key; undefined while it is locked here. */
export const held = me => keys.get(me);

const cipher = iv => ({ name: 'AES-GCM', iv });
const fresh = bytes => crypto.getRandomValues(new Uint8Array(bytes));

// What is made of the code: it opens nothing but the key.
const opener = async (code, salt, times) =>
  crypto.subtle.deriveKey(
    { name: 'PBKDF2', hash: 'SHA-256', salt, iterations: times },
    await crypto.subtle.importKey('raw', new TextEncoder().encode(code.normalize('NFKC')), 'PBKDF2', false, ['deriveKey']),
    { name: 'AES-GCM', length: 256 },
    false,
    ['wrapKey', 'unwrapKey'],
  );

/** Who has a code on this device. */
export const people = async () => (await device()).getAll('codes');

/** What a person's code opens here; undefined where none is set, and nothing is sealed. */
export const codeOf = async me => (await device()).get('codes', me);

// What a code opens: a key that no script can read.
const opened = (sealed, opening, iv) =>
  crypto.subtle.unwrapKey('raw', sealed, opening, cipher(iv), 'AES-GCM', false, ['encrypt', 'decrypt']);

/** Sets a person's code; what is kept from now on is sealed. */
export const setCode = async (me, name, code, more) => {
  const [salt, iv] = [fresh(16), fresh(12)];
  const key = await crypto.subtle.generateKey({ name: 'AES-GCM', length: 256 }, true, ['encrypt', 'decrypt']);
  const opening = await opener(code, salt, rounds);
  const sealed = await crypto.subtle.wrapKey('raw', key, opening, cipher(iv));
  await (await device()).put('codes', { me, name, salt, rounds, iv, sealed, ...more });
  hold(me, await opened(sealed, opening, iv));
};

/** Changes after how many minutes without a touch what a person has here is locked. */
export const lockAfter = async (me, minutes) => (await device()).put('codes', { ...(await codeOf(me)), minutes });

/** The key that a code opens; undefined where it is another code's. */
export const unlock = async (me, code) => {
  const { salt, rounds: times, iv, sealed } = await codeOf(me);
  try {
    const key = await opened(sealed, await opener(code, salt, times), iv);
    hold(me, key);
    return key;
  } catch (problem) {
    if (problem.name === 'OperationError') return undefined;
    throw problem;
  }
};

const keyOf = async me => {
  if (held(me)) return held(me);
  if (await codeOf(me)) throw new Locked();
  return undefined;
};

/** Bytes as they lie on the device. */
export const sealBytes = async (me, bytes) => {
  const key = await keyOf(me);
  if (!key) return { bytes };
  const iv = fresh(12);
  return { iv, sealed: await crypto.subtle.encrypt(cipher(iv), key, bytes) };
};

/** Bytes that lay on the device. */
export const openBytes = async (me, kept) =>
  kept.sealed ? crypto.subtle.decrypt(cipher(kept.iv), (await keyOf(me)) ?? fail(), kept.sealed) : kept.bytes;
const fail = () => {
  throw new Locked();
};

/** What can be written as JSON, as it lies on the device. */
export const seal = (me, value) => sealBytes(me, new TextEncoder().encode(JSON.stringify(value)));
export const open = async (me, kept) => JSON.parse(new TextDecoder().decode(await openBytes(me, kept)));
