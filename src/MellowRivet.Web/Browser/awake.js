// The screen stays on while somebody is at a walk with the device in their hand; the browser lets go of it with the page.
const isHeld = matchMedia('(pointer: coarse)').matches;

const stay = async () => {
  if (document.hidden) return;
  try {
    await navigator.wakeLock.request('screen');
  } catch {
    /* low on battery, or forbidden here: it goes dark as it is set to */
  }
};

if (isHeld && navigator.wakeLock && document.querySelector('.sheet.walk')) {
  document.addEventListener('visibilitychange', stay);
  stay();
}
