// A page changes while it is used: an answer comes in, another person works. What moves away between a finger's down and its up
// gets no click from the browser, and a tired person believes it was pressed. It was: it is pressed here. One that was taken away
// is not, nor what looks like it: the "Good" that stands in its place may be the next task's.
const pressable = 'button, a[href], summary, label';
const slip = 10;
let pressed;

addEventListener(
  'pointerdown',
  event => {
    const what = event.isPrimary && event.button === 0 ? event.target.closest?.(pressable) : null;
    pressed = what ? { what, x: event.clientX, y: event.clientY } : undefined;
  },
  true,
);

addEventListener(
  'pointercancel',
  () => {
    pressed = undefined;
  },
  true,
);

addEventListener(
  'pointerup',
  event => {
    const held = pressed;
    pressed = undefined;
    // Dragged, or still under the finger: the browser knows what that was.
    if (!held || Math.hypot(event.clientX - held.x, event.clientY - held.y) > slip) return;
    if (held.what.isConnected && !held.what.contains(document.elementFromPoint(event.clientX, event.clientY))) held.what.click();
  },
  true,
);
