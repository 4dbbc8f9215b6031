// One photo of the shop's: the shop draws and measures what is drawn over it. An earlier photo of the place stands beside it, blinks with
// it, or lies over it.
import { morph, parsed } from '../../../Browser/morph.js';
import { board } from './board.js';
import { comparing } from './compare.js';

const page = document.querySelector('[data-photo]');

if (page) {
  const form = page.querySelector('[data-drawing]');
  const [width, height] = [Number(page.dataset.width), Number(page.dataset.height)];

  let asking;
  const measure = async () => {
    asking?.abort();
    asking = new AbortController();
    try {
      const answer = await fetch(page.dataset.measure, {
        method: 'POST',
        body: new URLSearchParams(new FormData(form)),
        signal: asking.signal,
      });
      if (!answer.ok || answer.redirected) return undefined;
      const said = parsed(await answer.text());
      if (!said.getElementById('drawn')) return said.body.textContent.trim();
      for (const id of ['drawn', 'annotation-list']) morph(document.getElementById(id), said.getElementById(id));
      return '';
    } catch (problem) {
      return problem.name === 'AbortError' ? undefined : 'No connection: what is drawn is measured when it is back.';
    }
  };
  board(page, { width, height, form, measure, earlier: comparing(page, width, height) });
}
