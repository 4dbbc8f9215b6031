// The rule of a bulletin: a button puts a line in where the hand is, as far in as the line before.
const text = document.querySelector('[data-rule-text]');

if (text) {
  for (const button of document.querySelectorAll('[data-rule-line]'))
    button.addEventListener('click', () => {
      const before = text.value.slice(0, text.selectionStart).replace(/\n$/, '');
      const after = text.value.slice(text.selectionEnd).replace(/^\n/, '');
      const last = before.split('\n').at(-1);
      const indent = last.match(/^ */)[0] + (/of:?\s*$/.test(last) ? '  ' : '');
      const line = indent + button.dataset.ruleLine;
      const head = before === '' ? line : `${before}\n${line}`;
      text.value = after === '' ? head : `${head}\n${after}`;
      text.focus();
      text.setSelectionRange(head.length, head.length);
      text.dispatchEvent(new Event('input', { bubbles: true }));
    });
}
