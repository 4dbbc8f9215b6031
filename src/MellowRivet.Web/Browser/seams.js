// Under a finger a row of rivets is one target: it opens its list, where each has a line of its own.
const touched = window.matchMedia('(pointer: coarse)');
const dialog = document.getElementById('seam-list');

document.addEventListener(
  'click',
  event => {
    const seam = event.target.closest?.('[data-seam]');
    if (!dialog || !seam || dialog.contains(seam) || !touched.matches) return;
    event.preventDefault();
    event.stopPropagation();
    dialog.querySelector('[data-seam-well]').replaceChildren(seam.cloneNode(true));
    dialog.showModal();
  },
  true,
);
dialog?.addEventListener('click', event => {
  if (event.target === dialog || event.target.closest('[data-seam-close]')) dialog.close();
});
