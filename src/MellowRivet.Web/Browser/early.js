// Runs before anything else, and before the page is there. A field whose form goes out as it is changed is not sent by Enter while
// the scripts are still on their way: the browser would leave the page with that one field, and what was typed in the others with
// it. Once they are here, everything that was typed goes out (posting.js). Without scripts this doesn't run, and Enter sends.
document.addEventListener(
  'submit',
  event => {
    if (document.readyState !== 'complete' && event.target.matches('form[method="post"][hx-trigger="change"]')) event.preventDefault();
  },
  true,
);

// Letters and colours as this device has them, before anything is seen. Whoever asks their device for more contrast has it here, too.
const kept = name => {
  try {
    return localStorage.getItem(`rivet:${name}`);
  } catch {
    return null;
  }
};
document.documentElement.dataset.letters = kept('letters') ?? '';
document.documentElement.dataset.light = kept('light') ?? (matchMedia('(prefers-contrast: more)').matches ? 'sun' : '');
