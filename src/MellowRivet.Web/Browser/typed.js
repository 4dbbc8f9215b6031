// Fingers may be faster than the page: what was typed before anything here could listen is looked at now, as if the last key had
// just been pressed. Else a value out of limits would stand there unjudged until the next key.
addEventListener('load', () => {
  for (const field of document.querySelectorAll('input:not([type=hidden], [type=radio], [type=checkbox], [type=file]), textarea'))
    if (field.value !== field.defaultValue) field.dispatchEvent(new Event('input', { bubbles: true }));
});
