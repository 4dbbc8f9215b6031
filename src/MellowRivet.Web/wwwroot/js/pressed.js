// A page changes while it is used: an answer comes in, another person works. What moves away between a finger's down and its up
// gets no click from the browser, and a tired person believes it was pressed. It was: it is pressed here, or its equal if the page
// was drawn anew meanwhile.
const pressable = 'button, a[href], summary, label';
const slip = 10;
let pressed;

addEventListener('pointerdown', event => {
  const what = event.isPrimary && event.button === 0 ? event.target.closest?.(pressable) : null;
  pressed = what ? { what, x: event.clientX, y: event.clientY } : undefined;
}, true);

addEventListener('pointercancel', () => { pressed = undefined; }, true);

addEventListener('pointerup', event => {
  const held = pressed;
  pressed = undefined;
  // Dragged, or still under the finger: the browser knows what that was.
  if (!held || Math.hypot(event.clientX - held.x, event.clientY - held.y) > slip) return;
  if (held.what.isConnected && held.what.contains(document.elementFromPoint(event.clientX, event.clientY))) return;
  const what = held.what.isConnected ? held.what : [...document.querySelectorAll(held.what.localName)].find(other => other.isEqualNode(held.what));
  what?.click();
}, true);
