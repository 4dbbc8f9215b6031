/** An element, with what it is and what is in it. */
export const element = (tag, options, ...children) => {
  const made = Object.assign(document.createElement(tag), options);
  made.append(...children);
  return made;
};

/** A part of a drawing, with its attributes and its words. */
export const vector = (tag, attributes, words = '') => {
  const made = document.createElementNS('http://www.w3.org/2000/svg', tag);
  for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, value);
  made.textContent = words;
  return made;
};

/** A button that does something here. */
export const button = (words, press, options = {}) => {
  const made = element('button', { type: 'button', className: 'btn btn-quiet', textContent: words, ...options });
  made.addEventListener('click', press);
  return made;
};
