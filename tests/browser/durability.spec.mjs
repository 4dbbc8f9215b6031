// What was acknowledged survives kill -9: a few kills here, a thousand by `./rivet kill-test` (docs/reliability.md has its figures).
import { expect, test } from '@playwright/test';
import { run } from './process.mjs';

test('what was acknowledged survives kill -9, and what was not is there wholly or not at all', async () => {
  const { code, out, error } = await run(['kill-test', '--kills', '3', '--seed', '5']);
  expect(error).toBe('');
  expect(code).toBe(0);
  expect(out).toMatch(/Seed 5, 3 kills .* [1-9][0-9,]* acknowledged .* 0 lost or by half/);
});
