// An earlier photo of the same place: beside this one, blinking with it, or laid over it, dragged, scaled and turned into place.
export const comparing = (page, width, height) => {
  const over = page.querySelector('[data-over]');
  const compare = page.querySelector('[data-compare]');
  const laid = { x: 0, y: 0, scale: 1, turn: 0, opacity: 0.5 };
  const mode = () => compare?.querySelector('input[name=how]:checked')?.value;
  const lay = () => {
    if (!over) return;
    over.setAttribute(
      'transform',
      `translate(${laid.x} ${laid.y}) translate(${width / 2} ${height / 2}) rotate(${laid.turn}) scale(${laid.scale}) ` +
        `translate(${-width / 2} ${-height / 2})`,
    );
    over.setAttribute('opacity', laid.opacity);
  };

  if (compare) {
    const panes = page.querySelector('[data-panes]');
    let blinking;
    const follow = () => {
      const how = mode();
      panes.classList.toggle('two', how === 'beside');
      panes.querySelector('[data-beside]').hidden = how !== 'beside';
      over.classList.toggle('off', how === 'beside');
      compare.querySelector('[data-sliders]').hidden = how === 'beside';
      clearInterval(blinking);
      // Under twice a second: it doesn't flash.
      if (how === 'blink') {
        laid.opacity = 1;
        blinking = setInterval(() => {
          laid.opacity = 1 - laid.opacity;
          lay();
        }, 700);
      } else laid.opacity = compare.querySelector('[name=opacity]').value / 100;
      lay();
      // The picture has another size now: what is drawn on it, too.
      dispatchEvent(new Event('resize'));
    };
    compare.addEventListener('change', follow);
    compare.addEventListener('input', event => {
      if (event.target.name === 'scale') laid.scale = event.target.value / 100;
      if (event.target.name === 'turn') laid.turn = Number(event.target.value);
      if (event.target.name === 'opacity' && mode() === 'over') laid.opacity = event.target.value / 100;
      lay();
    });
    follow();
  }

  return {
    isOver: () => Boolean(over) && mode() === 'over',
    // Where a hand holds it, so that it moves with the hand.
    held: here => ({ x: laid.x - here.x, y: laid.y - here.y }),
    layAt: (hold, here) => {
      [laid.x, laid.y] = [hold.x + here.x, hold.y + here.y];
      lay();
    },
  };
};
