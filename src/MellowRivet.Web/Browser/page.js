/** An element, with what it is and what is in it. */
export const element = (tag, options, ...children) => {
  const made = Object.assign(document.createElement(tag), options);
  made.append(...children);
  return made;
};

/** A button that does something here. */
export const button = (words, press, options = {}) => {
  const made = element('button', { type: 'button', className: 'btn btn-quiet', textContent: words, ...options });
  made.addEventListener('click', press);
  return made;
};
