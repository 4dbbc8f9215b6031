// All that a device has to tell the shop goes through here: it is written down on the device first, goes out in the order it was
// said in, and is let go of when the shop has it. The shop takes a post once, however often it comes. Pages and the worker share it.
import * as vault from '../Aboard/vault.js';
import { device } from '../device.js';

// Pictures take minutes on a slow network: words don't wait behind them.
const lanes = ['words', 'files'];
const [waits, refused, went, late] = ['waits', 'refused', 'went', 'late'];
// What went is remembered for a while, so that whoever asks sees that it did.
const remembered = 50;
// A network may take what is sent and never answer: after so long it is none. Pictures may take their time.
const patience = { words: 20_000, files: 600_000 };
// How often one is sent on which the shop breaks, before it stops holding up the rest.
const tries = 20;

// The work is done, and on the disk, when this comes back.
const write = async work => {
  const transaction = (await device()).transaction(['outbox', 'files'], 'readwrite', { durability: 'strict' });
  const outbox = transaction.objectStore('outbox');
  const [done] = await Promise.all([work(outbox, transaction.objectStore('files')), transaction.done]);
  return done;
};

const shut = (me, files) =>
  Promise.all(
    files.map(async ({ field, name, blob }) => ({
      field,
      name,
      type: blob.type,
      kept: await vault.sealBytes(me, await blob.arrayBuffer()),
    })),
  );

/** Writes an entry down, to be sent. */
export const keep = async (me, { files = [], ...entry }) => {
  const { post } = entry;
  const [kept, shutFiles] = [await vault.seal(me, entry), await shut(me, files)];
  await write((outbox, beside) =>
    Promise.all([
      outbox.add({ post, me, lane: entry.alone && files.length ? 'files' : 'words', state: waits, tries: 0, kept }),
      files.length && beside.put({ post, files: shutFiles }),
    ]),
  );
};

const change = (post, changed) =>
  write(async outbox => {
    const kept = await outbox.index('post').get(post);
    if (kept) await outbox.put({ ...kept, ...changed });
  });

// It is at the shop, or on the aircraft's list: its pictures needn't be here any more, and of all that went the latest are remembered.
const arrived = (me, post, why) =>
  write(async (outbox, files) => {
    const kept = await outbox.index('post').get(post);
    if (!kept) return;
    await Promise.all([outbox.put({ ...kept, state: went, why }), files.delete(post)]);
    const all = [];
    for (const lane of lanes) all.push(...(await outbox.index('turn').getAllKeys([me, lane, went])));
    for (const n of all.sort((a, b) => a - b).slice(0, -remembered)) await outbox.delete(n);
  });

/** Forgets what went; how many the shop doesn't have yet. */
export const forgetGone = me =>
  write(async outbox => {
    const all = await outbox.index('me').getAll(me);
    await Promise.all(all.filter(kept => kept.state === went).map(kept => outbox.delete(kept.n)));
    return all.filter(kept => kept.state !== went).length;
  });

/** Forgets an entry, whether the shop had it or somebody took it back; false where it was gone already. */
export const drop = post =>
  write(async (outbox, files) => {
    const n = await outbox.index('post').getKey(post);
    if (n === undefined) return false;
    await Promise.all([outbox.delete(n), files.delete(post)]);
    return true;
  });

/** One that was refused goes out once more. */
export const again = post => change(post, { state: waits, why: undefined, tries: 0 });

/** What a person's entries are that the shop doesn't have, or those that went, in the order they were said in; without their files. */
export const mine = async (me, state) =>
  Promise.all(
    (await (await device()).getAllFromIndex('outbox', 'me', me))
      .filter(one => (state ? one.state === state : one.state !== went))
      .map(async ({ state: is, why, isSeen, kept }) => ({
        ...(await vault.open(me, kept)),
        isRefused: is === refused,
        isSeen,
        why: why && (await vault.open(me, why)),
      })),
  );

/** What of a person's is left open on an aircraft, signed without it, and wasn't seen to be yet: where, and under which number. */
export const leftOpen = async me =>
  (await mine(me, went))
    .filter(entry => entry.why && !entry.isSeen)
    .map(({ post, what, why: { number, href } }) => ({ post, what, number, href }));

/** Somebody has seen what became of an entry. */
export const seen = post => change(post, { isSeen: true });

/** The pictures, sounds and videos of an entry. */
export const filesOf = async (me, post) =>
  Promise.all(
    ((await (await device()).get('files', post))?.files ?? []).map(async ({ field, name, type, kept }) => ({
      field,
      name,
      blob: new Blob([await vault.openBytes(me, kept)], { type }),
    })),
  );

/** Seals what was kept before its person had a code. */
export const sealAll = async me => {
  for (const one of await (await device()).getAllFromIndex('outbox', 'me', me)) {
    const kept = await vault.seal(me, await vault.open(me, one.kept));
    const why = one.why && (await vault.seal(me, await vault.open(me, one.why)));
    const files = await shut(me, await filesOf(me, one.post));
    await write((outbox, beside) =>
      Promise.all([outbox.put({ ...one, kept, why }), files.length && beside.put({ post: one.post, files })]),
    );
  }
};

const signIn = 'Sign in again to send them.';

// What isn't said on a page of its own.
const says = {
  403: 'Your role in this shop can’t do this.',
  404: 'What it is about isn’t there any more.',
  413: 'It is larger than the shop takes: send a smaller copy.',
};

// What the shop's answer means for what was sent.
const heard = async answer => {
  if (answer.redirected && new URL(answer.url).pathname.startsWith('/enter')) return { how: waits, why: signIn };
  // No room on the shop's disk: it says so itself.
  if (answer.status === 507) return { how: waits, why: await answer.text() };
  // Too many at once, a turn that didn't come, or a server that is just coming up.
  if (answer.status === 429 || answer.status > 500) return { how: waits };
  const isJson = answer.headers.get('content-type')?.startsWith('application/json');
  if (answer.ok) return { how: went, ...(isJson ? { made: await answer.json() } : { html: await answer.text() }) };
  if (answer.status === 422) return { how: refused, html: await answer.text(), isSigned: answer.headers.has('X-Rivet-Signed') };
  const words = says[answer.status] ?? `The shop didn’t take it (${answer.status}).`;
  return { how: refused, status: answer.status, html: `<p class="field-problem">${words}</p>` };
};

// How long ago it was said, by this device's clock both times: that may be wrong. Said before its page was drawn, it was set meanwhile.
const when = ({ at, drawn }) => ({ 'X-Rivet-Age': `${Math.max(0, (Date.now() - at) / 1000)}`, 'X-Rivet-Drawn': `${drawn ?? 0}` });

const sent = async (entry, files, token, ms) => {
  const body = new FormData();
  for (const [name, value] of entry.fields) body.append(name, value);
  for (const file of files) body.append(file.field, file.blob, file.name);
  body.append('__RequestVerificationToken', token);
  const headers = { ...entry.headers, ...when(entry) };
  return heard(await fetch(entry.url, { method: 'POST', headers, body, signal: AbortSignal.timeout(ms) }));
};

// The inspection was signed before this arrived: nothing is added to it, and what was said is left open on the aircraft. What carries
// more than pictures stays here, with why.
const worded = ['what', 'words', 'value'];
const isCalm = ({ kind, fields }) =>
  kind !== 'find' && !fields.some(([name, value]) => (worded.includes(name) && value.trim()) || ['Discrepancy', 'Found'].includes(value));
const leaveOpen = async (entry, files, token, ms, answer) => {
  const [walk, zone] = [/^\/walk\/[^/?]+/.exec(entry.url)?.[0], entry.fields.find(([name]) => name === 'zone')?.[1]];
  if (!walk || files.some(file => !file.blob.type.startsWith('image/'))) return answer;
  const body = new FormData();
  const said = { post: entry.post, words: entry.story ?? entry.what, calm: isCalm(entry) };
  for (const [name, value] of Object.entries({ ...said, zone, __RequestVerificationToken: token })) body.append(name, value ?? '');
  for (const [name, value] of entry.fields) if (name === 'drawn') body.append(name, value);
  for (const file of files) body.append('photos', file.blob, file.name);
  const left = await fetch(`${walk}/along?handler=Late`, { method: 'POST', headers: when(entry), body, signal: AbortSignal.timeout(ms) });
  if (left.ok) return { how: late, ...(await left.json()) };
  return left.status === 429 || left.status > 500 ? { how: waits } : answer;
};

// Whoever is in at the shop now, and a token of theirs: what one person said never goes out under another's name.
const asks = async me => {
  const answer = await fetch('/device/token', { cache: 'no-store', signal: AbortSignal.timeout(patience.words) });
  if (answer.status === 401 || answer.redirected) return { why: signIn };
  const who = answer.ok ? await answer.json() : {};
  if (answer.status === 403) return { why: 'Your role in this shop can’t send them.' };
  return who.me === me ? who : { why: who.me ? 'They go out once you are signed in here again.' : undefined };
};

// A form's token holds for whoever was in when its page was made: one that isn't taken is asked for anew, once.
const send = async (me, entry, door) => {
  try {
    const files = await filesOf(me, entry.post);
    if (!door.token) Object.assign(door, await asks(me));
    if (!door.token) return { how: waits, why: door.why };
    const ms = files.length ? patience.files : patience.words;
    const answer = await sent(entry, files, door.token, ms);
    if (answer.isSigned) return leaveOpen(entry, files, door.token, ms, answer);
    if (answer.status !== 400) return answer;
    const anew = await asks(me);
    door.token = anew.token;
    return anew.token ? await sent(entry, files, anew.token, ms) : { how: waits, why: anew.why };
  } catch {
    return { how: waits };
  }
};

const sendLane = async (lane, me, door, told) => {
  const tried = new Set();
  const next = async () => (await (await device()).getAllKeysFromIndex('outbox', 'turn', [me, lane, waits])).find(n => !tried.has(n));
  for (let n = await next(); n !== undefined; n = await next()) {
    tried.add(n);
    const kept = await (await device()).get('outbox', n);
    if (!kept) continue;
    const entry = await vault.open(me, kept.kept);
    let answer = await send(me, entry, door);
    if (answer.status === 500 && kept.tries + 1 < tries) {
      await change(kept.post, { tries: kept.tries + 1 });
      answer = { how: waits };
    }
    if (answer.how === went) await arrived(me, kept.post);
    else if (answer.how === late) await arrived(me, kept.post, await vault.seal(me, { number: answer.number, href: answer.href }));
    else if (answer.how === refused) await change(kept.post, { state: refused, why: await vault.seal(me, answer.html) });
    await told(entry, answer);
    if (answer.how === waits) return waits;
  }
  return went;
};

// One page of the device sends at a time where the browser sees to that, and one after the other within a page in any case.
const turns = {};
const inTurn = (lane, work) =>
  navigator.locks ? navigator.locks.request(`rivet:${lane}`, work) : (turns[lane] = (turns[lane] ?? Promise.resolve()).then(work));

/**
 * Sends what waits of a person, until all of it went or the shop can't be reached; of each lane, whether something waits still.
 * @param me the person
 * @param door with a token of theirs, where the page has one; it has the shop's program on it afterwards, where that was asked
 * @param told hears of each what became of it
 */
export const flush = (me, door, told) => Promise.all(lanes.map(lane => inTurn(lane, () => sendLane(lane, me, door, told))));
