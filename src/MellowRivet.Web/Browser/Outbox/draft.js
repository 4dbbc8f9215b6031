// What is being written and isn't said yet: on the device, so that a page that is closed takes nothing with it; sealed as all else.
import * as vault from '../Aboard/vault.js';
import { device } from '../device.js';

/** What was being written; undefined where nothing was, or it can't be read. */
export const load = async (me, name) => {
  // Where the release before this one left it.
  const before = localStorage.getItem(name);
  localStorage.removeItem(name);
  if (before) return JSON.parse(before);
  const row = await (await device()).get('drafts', [me, name]);
  return row && vault.open(me, row.kept);
};

// One after the other: what is forgotten doesn't come back by a letter that was still being sealed.
let turn = Promise.resolve();
const inTurn = work => (turn = turn.then(work, work));

export const save = (me, name, draft) =>
  inTurn(async () => {
    const kept = await vault.seal(me, draft);
    await (await device()).put('drafts', { me, name, kept });
  });

export const forget = (me, name) => inTurn(async () => (await device()).delete('drafts', [me, name]));
