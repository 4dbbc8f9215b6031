// The page that stands where the shop can't be reached and nothing else can be shown: whose device it is, and what is aboard.
import { button, element } from '../page.js';
import { people } from './vault.js';

const choice = document.querySelector('[data-people]');

// The rest is the same as everywhere, for whoever it is.
const be = async me => {
  document.body.dataset.me = me;
  choice.hidden = true;
  document.querySelector('[data-device]').hidden = false;
  await import('/lib/rivet.js');
};

const who = await people();
if (who.length === 1) await be(who[0].me);
else if (who.length === 0) choice.append(element('p', { textContent: 'Nothing was taken along on this device.' }));
else
  choice.append(
    element('p', { textContent: 'Who are you?' }),
    ...who.map(({ me, name }) => button(name, () => be(me), { className: 'btn btn-plain' })),
  );
