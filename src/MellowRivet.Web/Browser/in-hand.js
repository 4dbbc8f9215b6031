// What helps somebody who stands at an aircraft all day: letters a step up, colours for the sun, the device's own torch. Each device keeps
// its own; early.js puts letters and colours on before anything is seen.
const within = document.getElementById('in-hand');
const root = document.documentElement.dataset;

for (const press of within?.querySelectorAll('[data-sets]') ?? []) {
  const { sets, to } = press.dataset;
  const show = () => press.setAttribute('aria-pressed', root[sets] === to);
  press.addEventListener('click', () => {
    root[sets] = root[sets] === to ? '' : to;
    localStorage.setItem(`rivet:${sets}`, root[sets]);
    show();
  });
  show();
}

// The torch is the light of the camera at the back. It burns while a page holds the camera, and is lit again by the page after.
const torch = within?.querySelector('[data-torch]');
const lit = 'rivet:torch';
let camera;
const dim = () => {
  for (const track of camera?.getTracks() ?? []) track.stop();
  camera = undefined;
};
const burn = async () => {
  camera ??= await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
  const [track] = camera.getVideoTracks();
  if (!track.getCapabilities?.().torch) throw new Error('It has no light.');
  await track.applyConstraints({ advanced: [{ torch: true }] });
};
const set = async on => {
  let burns = on;
  if (on)
    try {
      await burn();
    } catch {
      burns = false;
      torch.disabled = true;
      torch.textContent = 'No torch that a page may light';
    }
  if (!burns) dim();
  sessionStorage.setItem(lit, burns ? 'yes' : '');
  torch.setAttribute('aria-pressed', burns);
};

if (torch && navigator.mediaDevices?.getSupportedConstraints().torch) {
  torch.hidden = false;
  torch.addEventListener('click', () => set(!camera));
  // A picture is taken with the same camera, which only one holds at a time.
  document.addEventListener('click', event => event.target.closest?.('input[type=file]') && dim(), true);
  addEventListener('focus', () => sessionStorage.getItem(lit) && !camera && set(true));
  if (sessionStorage.getItem(lit)) set(true);
}
