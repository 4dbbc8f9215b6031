// What waited on this device when the release before this one was here: findings in a database of their own, verdicts in a list.
import { deleteDB, openDB } from 'idb';
import { keep } from './outbox.js';

const list = 'rivet:verdicts';
const live = { 'X-Rivet': 'live' };
// Moved already, by a page that was closed before it had moved the rest.
const moved = problem => {
  if (problem.name !== 'ConstraintError') throw problem;
};

export const bringOver = async () => {
  for (const { me, url, post, task, what, body } of JSON.parse(localStorage.getItem(list) ?? '[]'))
    await keep(me, { kind: 'verdict', post, url, what, task, headers: live, fields: body, at: Date.now(), place: url }).catch(moved);
  localStorage.removeItem(list);
  const databases = (await indexedDB.databases?.()) ?? [];
  if (!databases.some(({ name }) => name === 'rivet')) return;
  const before = await openDB('rivet', 1);
  const found = before.objectStoreNames.contains('captures') ? await before.getAll('captures') : [];
  for (const { me, url, post, what, at, fields, files } of found)
    await keep(me, { kind: 'find', alone: true, post, url, what, at, headers: live, fields, files, place: url }).catch(moved);
  before.close();
  await deleteDB('rivet');
};
