// Found something: over any page of a walk, photo first or words first. What is put on the fix list is kept on this device
// first and sent then.
import { ready } from '../../../Browser/Aboard/keyring.js';
import { newId } from '../../../Browser/ids.js';
import { live } from '../../../Browser/live.js';
import * as drafts from '../../../Browser/Outbox/draft.js';
import { fill } from '../../../Browser/Outbox/fill.js';
import { filesOf } from '../../../Browser/Outbox/outbox.js';
import { storyOf } from '../../../Browser/Outbox/story.js';
import { drop, me, say } from '../../../Browser/Outbox/telling.js';
import { element } from '../../../Browser/page.js';
import { drawings } from './drawings.js';

const dialog = document.querySelector('[data-capture]');
const patience = 2500;

// A line that says where it went, and lets the person go on.
const said = made => {
  const line = document.getElementById('captured');
  line.replaceChildren(element('a', { href: made.href, textContent: `${made.number} is on the fix list` }), ` as ${made.class}.`);
  line.hidden = false;
  clearTimeout(said.closing);
  said.closing = setTimeout(() => {
    line.hidden = true;
  }, 10_000);
  document.dispatchEvent(new CustomEvent('rivet:captured'));
};

// One form: on its own page, or in the dialog. It remembers what is typed until the shop or the device has it.
const forms = [...document.querySelectorAll('[data-find]')].map(form => {
  const draftKey = `rivet:draft-${form.dataset.walk}`;
  const fields = [...form.querySelectorAll('[data-keep]')];
  const problems = form.querySelector('[data-problems]');
  const well = form.querySelector('[data-guess-well]');
  const drawn = drawings();
  let snapped = [];
  let written;
  let asking;
  let touched = false;

  const refuse = html => {
    problems.innerHTML = html;
    problems.querySelector('.field-problem')?.scrollIntoView({ block: 'nearest' });
  };
  const refuseWords = text => {
    problems.replaceChildren(element('p', { className: 'field-problem', role: 'alert', textContent: text }));
  };
  const files = () => [
    ...snapped,
    ...[...form.querySelectorAll('[data-photos]')].flatMap(input =>
      [...input.files].map(blob => ({ field: 'photos', name: blob.name, blob })),
    ),
    ...[...form.querySelector('[data-sounds]').files].map(blob => ({ field: 'sounds', name: blob.name, blob })),
    ...[...form.querySelector('[data-videos]').files].map(blob => ({ field: 'videos', name: blob.name, blob })),
  ];
  const mostOf = file => Number(file.field === 'videos' ? form.dataset.mostVideo : form.dataset.mostBytes);
  const tooLarge = () => files().find(file => file.blob.size > mostOf(file));
  // A picture, a sound or a video may stand alone: words come later.
  const tells = () => files().length > 0 || form.elements.kept !== undefined;

  // How long a video runs, s; 0 where this device can't tell and the shop has to.
  const runs = blob =>
    new Promise(done => {
      const film = element('video', { preload: 'metadata', src: URL.createObjectURL(blob) });
      const say = seconds => {
        URL.revokeObjectURL(film.src);
        done(Number.isFinite(seconds) ? seconds : 0);
      };
      film.addEventListener('loadedmetadata', () => say(film.duration));
      film.addEventListener('error', () => say(0));
    });
  // Said at once: without a connection the shop would say so only once the words are sent.
  const shorten = async input => {
    for (const film of input.files) {
      const seconds = await runs(film);
      if (seconds <= Number(form.dataset.longestVideo)) continue;
      input.value = '';
      preview();
      refuseWords(
        `“${film.name}” runs ${Math.round(seconds)} s, and ${form.dataset.longestVideo} s is the most: ` +
          'cut it to what it shows. Your words are still here.',
      );
      return;
    }
  };

  const preview = () => {
    const place = form.querySelector('[data-previews]');
    for (const shown of place.querySelectorAll('img:not([data-kept])')) URL.revokeObjectURL(shown.src);
    place.replaceChildren(
      ...place.querySelectorAll('[data-kept]'),
      ...files().map(({ field, name, blob }) =>
        field === 'photos' && crypto.subtle
          ? drawn.button(blob, name)
          : field === 'photos'
            ? element('img', { src: URL.createObjectURL(blob), alt: name })
            : element('span', { className: 'sound-chip', textContent: `${field === 'sounds' ? 'sound' : 'video'}: ${name}` }),
      ),
    );
    const large = tooLarge();
    if (large)
      refuseWords(
        `“${large.name}” is larger than ${Math.round(mostOf(large) / 1048576)} MB. ` +
          'Take it at a smaller size, or send a copy. Your words are still here.',
      );
    else problems.replaceChildren();
  };

  const guess = () => {
    clearTimeout(asking);
    if (touched || form.elements.judged.value) return;
    asking = setTimeout(async () => {
      const query = new URLSearchParams({ handler: 'Guess', what: form.elements.what.value, task: form.elements.task.value });
      try {
        const answer = await fetch(`${form.getAttribute('action')}?${query}`, live);
        const said = await answer.text();
        // An answer to fewer words may come after the answer to these.
        if (!answer.ok || answer.redirected || touched || query.get('what') !== form.elements.what.value) return;
        well.innerHTML = said;
        const choice = well.querySelector('[data-guess]')?.dataset.guess;
        for (const radio of form.querySelectorAll('input[name=class]')) radio.checked = radio.value === choice;
      } catch {
        well.replaceChildren(
          element('p', {
            className: 'guess soft',
            textContent: 'Without a connection the class is guessed when it is sent. Touch one to set it yourself.',
          }),
        );
      }
    }, 200);
  };

  const remember = () => {
    const draft = { touched };
    for (const field of fields)
      if (field.type !== 'radio' || field.checked) draft[field.name] = field.type === 'checkbox' ? field.checked : field.value;
    written = draft;
    drafts.save(me, draftKey, draft).catch(() => {});
  };
  const forget = () => {
    written = undefined;
    drafts.forget(me, draftKey);
  };

  const recall = () => {
    const draft = written;
    if (!draft || form.elements.what.value || !draft.what) return;
    touched = draft.touched;
    for (const field of fields) {
      if (field.type === 'radio') field.checked = draft[field.name] === field.value;
      else if (field.type === 'checkbox') field.checked = draft[field.name] === true;
      else if (draft[field.name] !== undefined) field.value = draft[field.name];
    }
  };

  const clear = () => {
    forget();
    form.reset();
    // What the page came with is on its way: it doesn't stand there as if it still had to be put on.
    form.elements.what.value = '';
    form.elements.post.value = crypto.randomUUID();
    [snapped, touched] = [[], false];
    well.replaceChildren();
    preview();
  };

  form.addEventListener('input', event => {
    if (event.target.name === 'class') {
      touched = true;
      well.querySelector('.guess')?.remove();
      form.querySelector('[data-why-less]').hidden = false;
    } else if (event.target.name === 'what') guess();
    remember();
  });
  form.addEventListener('change', event => {
    if (event.target.matches('[data-photos], [data-sounds], [data-videos]')) {
      preview();
      if (event.target.matches('[data-videos]')) shorten(event.target);
    } else remember();
  });
  // The page of one finding leads on once the shop has it, unless another one is being written there.
  const awaited = () => form.dataset.dialog === 'no' && !form.elements.what.value;

  form.addEventListener('submit', async event => {
    event.preventDefault();
    if (tooLarge()) return;
    const words = form.elements.what.value.trim();
    if (!words && !tells()) {
      refuseWords('Say what you found, in a few words, or let a picture, a sound or a video say it.');
      form.elements.what.focus();
      return;
    }
    form.elements.guess.value = touched ? 'false' : 'true';
    const post = form.elements.post.value;
    const button = form.querySelector('button[type=submit]');
    button.disabled = true;
    let sending;
    try {
      sending = await say({
        kind: 'find',
        alone: true,
        post,
        url: form.getAttribute('action'),
        what: words || 'To be put in words',
        story: storyOf(form, undefined, words || 'To be put in words'),
        headers: live.headers,
        files: files(),
        fields: [
          ...[...new FormData(form)].filter(([name, value]) => typeof value === 'string' && name !== '__RequestVerificationToken'),
          ...(await drawn.fields(files())),
        ],
      });
    } catch {
      button.disabled = false;
      refuseWords('This device has no room to keep it. Your words are still here: send it with fewer pictures.');
      return;
    }
    // Kept: it is no draft any more, whatever page comes next. Whoever stands there isn't held up longer than that by a slow connection.
    forget();
    const answer = await Promise.race([sending.answer, new Promise(done => setTimeout(done, patience, { how: 'slow' }))]);
    button.disabled = false;
    if (answer.how === 'slow') sending.answer.then(late => (late.made?.next && awaited() ? location.assign(late.made.next) : settle(late)));
    if (answer.how === 'refused' && !answer.status) {
      await drop(post);
      form.elements.post.value = newId();
      remember();
      refuse(answer.html);
      return;
    }
    clear();
    if (form.dataset.dialog === 'yes') dialog.close();
    else if (answer.made) {
      location.assign(answer.made.next);
      return;
    }
    settle(answer);
  });

  ready
    .then(() => drafts.load(me, draftKey))
    .then(draft => {
      written ??= draft;
      if (form.dataset.dialog === 'no' || dialog?.open) recall();
      if (form.dataset.dialog === 'no' && form.elements.what.value) guess();
    })
    .catch(() => {});
  return {
    form,
    drawn,
    begin(asked, attached) {
      recall();
      for (const [name, value] of Object.entries(asked)) if (form.elements[name] && value) form.elements[name].value = value;
      for (const of of ['task', 'squawk']) form.elements[of].value = asked[of] ?? '';
      if (asked.measured) form.querySelector('.more-find').open = true;
      snapped = [...snapped, ...attached];
      preview();
      guess();
      dialog.showModal();
      form.elements.what.focus();
    },
  };
});

// What became of one that nobody waits for at its form.
const settle = answer => answer.made?.number && said(answer.made);

if (me) {
  const query = href => Object.fromEntries(new URL(href, location.href).searchParams);
  document.addEventListener('click', event => {
    if (event.target.closest('[data-capture-close]')) {
      dialog.close();
      return;
    }
    // What is written down for a judgement, or with a picture that is kept already, has its own page, which shows them.
    const link = event.target.closest('a[href*="/find"]:not([href*="judged="], [href*="kept="], [href*="mirror="])');
    if (
      !dialog ||
      !link ||
      event.ctrlKey ||
      event.metaKey ||
      event.shiftKey ||
      !/\/walk\/[^/]+\/find(\?|$)/.test(link.getAttribute('href'))
    )
      return;
    event.preventDefault();
    const asked = query(link.href);
    forms[0].begin({ ...asked, how: asked.measured ? 'Measurement' : '' }, []);
  });
  document.querySelector('[data-capture-snap] input')?.addEventListener('change', event => {
    const photos = [...event.target.files];
    event.target.value = '';
    if (photos.length)
      forms[0].begin(
        {},
        photos.map(blob => ({ field: 'photos', name: blob.name || 'photo.jpg', blob })),
      );
  });
  // What went out while nobody waited for it any more.
  document.addEventListener('rivet:told', ({ detail: { entry, answer } }) => entry.kind === 'find' && settle(answer));
  // What wasn't taken comes back into the form that it was written in, with its pictures.
  document.addEventListener('rivet:put-right', async event => {
    const entry = event.detail;
    if (entry.kind !== 'find' || forms[0]?.form.getAttribute('action') !== entry.url) return;
    event.preventDefault();
    const attached = await filesOf(me, entry.post);
    await drop(entry.post);
    fill(forms[0].form, entry.fields);
    await forms[0].drawn.restore(attached, entry.fields);
    forms[0].begin(Object.fromEntries(entry.fields.filter(([name]) => ['task', 'squawk'].includes(name))), attached);
  });
}
