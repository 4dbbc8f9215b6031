// Found something: shows the chosen pictures, refuses what is too large before it is sent, and keeps the words on the
// device until the shop has them.
const form = document.querySelector('[data-find]');

if (form) {
  const key = `rivet:${form.dataset.draft}`;
  const kept = () => [...form.querySelectorAll('[data-keep]')];
  const problems = document.getElementById('find-problems');

  const restore = () => {
    const draft = JSON.parse(localStorage.getItem(key) ?? 'null');
    if (!draft || form.elements.what.value) return;
    for (const field of kept()) {
      if (field.type === 'radio') field.checked = draft[field.name] === field.value;
      else if (field.type === 'checkbox') field.checked = draft[field.name] === true;
      else field.value = draft[field.name] ?? '';
    }
  };

  const keep = () => {
    const draft = {};
    for (const field of kept()) {
      if (field.type === 'radio') { if (field.checked) draft[field.name] = field.value; }
      else draft[field.name] = field.type === 'checkbox' ? field.checked : field.value;
    }
    localStorage.setItem(key, JSON.stringify(draft));
  };

  const refuse = text => {
    const line = document.createElement('p');
    line.className = 'field-problem';
    line.setAttribute('role', 'alert');
    line.textContent = text;
    problems.replaceChildren(line);
  };

  let large = null;

  const preview = () => {
    const well = form.querySelector('[data-previews]');
    for (const image of well.children) URL.revokeObjectURL(image.src);
    const files = [...form.querySelectorAll('[data-photos]')].flatMap(input => [...input.files]);
    well.replaceChildren(...files.map(file => Object.assign(new Image(), { src: URL.createObjectURL(file), alt: file.name })));
    const most = Number(form.dataset.mostBytes);
    large = files.find(file => file.size > most);
    if (large) refuse(`“${large.name}” is larger than ${Math.round(most / 1048576)} MB. Take it at a smaller size, or send a copy. Your words are still here.`);
  };

  // Nothing is sent that is sure to come back.
  form.addEventListener('htmx:confirm', event => { if (large) event.preventDefault(); });
  restore();
  form.addEventListener('input', keep);
  form.addEventListener('change', event => { if (event.target.matches('[data-photos]')) preview(); else keep(); });
  // The shop answers a kept discrepancy with where to go next; only then are the words let go.
  document.addEventListener('htmx:afterRequest', event => {
    if (event.detail.elt === form && event.detail.xhr.getResponseHeader('HX-Redirect')) localStorage.removeItem(key);
  });
}
