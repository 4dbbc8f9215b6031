// Whoever leaves takes off the device what they had aboard. What waits to be sent stays, sealed, and goes out once they are back.
import { me, waiting } from '../Outbox/telling.js';
import { wipe } from './aboard.js';
import { isAble, lock } from './keyring.js';
import { codeOf } from './vault.js';

document.addEventListener('submit', async event => {
  const form = event.target;
  if (form.getAttribute('action') !== '/leave' || !me || !isAble) return;
  event.preventDefault();
  const yet = waiting().length;
  const words =
    `${yet} of what you said here isn’t at the shop yet. It stays on this device, and goes out once you enter here again. ` + 'Leave now?';
  if (yet && !confirm(words)) return;
  if (await codeOf(me)) {
    await lock();
    await wipe(me);
  }
  form.submit();
});
