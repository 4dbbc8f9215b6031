// The one script of every page, besides early.js and htmx. Each part looks for what it serves and leaves other pages alone.
import './js/pressed.js';
import './js/typed.js';
import './js/shortcuts.js';
import './js/capture.js';
import './js/compressions.js';
import './js/plugs.js';
import './js/sheets.js';
import './js/arrive.js';
import './js/verdicts.js';
import './js/offers.js';
import './js/place.js';
import './js/photo.js';
import './js/rules.js';
