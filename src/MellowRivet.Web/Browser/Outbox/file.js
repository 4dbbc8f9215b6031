// The way out where a device can't send what waits: a file, which any other device of the same person reads in and sends. The shop
// takes each post once, whichever way it comes.
import { filesOf, keep, mine } from './outbox.js';

const kind = 'rivet-outbox';
const inBase64 = blob =>
  new Promise((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result.split(',')[1] ?? '');
    reader.onerror = () => failed(reader.error);
    reader.readAsDataURL(blob);
  });
const fromBase64 = (type, data) => new Blob([Uint8Array.from(atob(data), letter => letter.charCodeAt(0))], { type });

/** All that waits or was refused of a person, as a file. It isn't sealed: whoever has it reads it. */
export const save = async (me, name) => {
  const entries = [];
  for (const { isRefused: _, why: __, ...entry } of await mine(me)) {
    const files = await filesOf(me, entry.post);
    entries.push({
      ...entry,
      files: await Promise.all(files.map(async ({ field, name: called, blob }) => [field, called, blob.type, await inBase64(blob)])),
    });
  }
  return new Blob([JSON.stringify({ kind, me, name, entries }, null, 1)], { type: 'application/json' });
};

// What a file may say: things of a walk that wait on a device, and nothing that somebody signs, or that asks the owner.
const walk = /^\/walk\/[0-9a-f-]{36}\/(?!(close|records|order|money|along)(\?|$|\/)|fix-list\/(owner|choices|estimate))[^/?#][^#]*$/;
const zoneLook = /^\/walk\/[0-9a-f-]{36}\/close\?handler=Zone$/;
const headers = { 'X-Rivet': ['outbox', 'live'], 'HX-Request': ['true'] };
const isOurs = ({ post, url, fields, files, headers: sent }) =>
  /^[0-9a-f-]{36}$/.test(post) &&
  (walk.test(url) || zoneLook.test(url)) &&
  Array.isArray(fields) &&
  Array.isArray(files) &&
  Object.entries(sent ?? {}).every(([name, value]) => headers[name]?.includes(value));

/** Takes a file in, to be sent from here: how many came, or why none did. */
export const read = async (me, file) => {
  let held;
  try {
    held = JSON.parse(await file.text());
  } catch {
    return { problem: 'That isn’t a file of what waits on a device.' };
  }
  if (held?.kind !== kind || !Array.isArray(held.entries) || !held.entries.every(isOurs))
    return { problem: 'That isn’t a file of what waits on a device, or somebody changed it. Nothing was taken from it.' };
  if (held.me !== me) return { problem: `It is ${held.name}’s: nobody else says it for them. They read it in where they are signed in.` };
  let count = 0;
  for (const { files, ...entry } of held.entries) {
    const blobs = files.map(([field, name, type, data]) => ({ field, name, blob: fromBase64(type, data) }));
    try {
      await keep(me, { ...entry, files: blobs });
      count += 1;
    } catch (problem) {
      // It waits here already.
      if (problem.name !== 'ConstraintError') throw problem;
    }
  }
  return { count };
};
