// What is drawn on the pictures of a form before they are sent.
import { element } from '../../../Browser/page.js';
import { drawOn } from './draw.js';

// The picture's name at the shop.
const shaOf = async blob =>
  [...new Uint8Array(await crypto.subtle.digest('SHA-256', await blob.arrayBuffer()))]
    .map(one => one.toString(16).padStart(2, '0'))
    .join('');

export const drawings = () => {
  const drawn = new WeakMap();
  const says = blob => (drawn.has(blob) ? 'drawn on' : 'Measure');
  return {
    /** A picture that is drawn on where it is pressed. */
    button(blob, name) {
      const line = element('span', { textContent: says(blob) });
      const picture = element('img', { src: URL.createObjectURL(blob), alt: name });
      const press = element('button', { type: 'button', className: 'to-draw', ariaLabel: `Draw and measure on ${name}` }, picture, line);
      press.addEventListener('click', async () => {
        try {
          const kept = await drawOn(blob, drawn.get(blob));
          if (kept) drawn.set(blob, kept);
          else drawn.delete(blob);
          line.textContent = says(blob);
        } catch {
          line.textContent = 'can’t be shown here';
        }
      });
      return press;
    },
    /** What is drawn on a form's files, as it is sent with them. */
    fields: files =>
      Promise.all(
        files
          .filter(({ blob }) => drawn.has(blob))
          .map(async ({ blob }) => ['drawn', JSON.stringify({ sha256: await shaOf(blob), ...drawn.get(blob) })]),
      ),
    /** Puts what was sent back onto its pictures. */
    async restore(files, fields) {
      const sent = fields.filter(([name]) => name === 'drawn').map(([, one]) => JSON.parse(one));
      for (const { blob } of sent.length ? files : []) {
        const sha = await shaOf(blob);
        const { sha256, ...there } = sent.find(one => one.sha256 === sha) ?? {};
        if (sha256) drawn.set(blob, there);
      }
    },
  };
};
