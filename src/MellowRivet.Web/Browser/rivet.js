// The one script of every page, besides early.js and htmx. Each part looks for what it serves and leaves other pages alone.
import './pressed.js';
import './measures.js';
import './typed.js';
import './shortcuts.js';
import './seams.js';
import './awake.js';
import './in-hand.js';
import './Outbox/bar.js';
import '../Pages/Walk/Along/along.js';
import '../Pages/Device/device.js';
import '../Pages/Walk/Found/capture.js';
import '../Pages/Walk/Engine/Compression/compressions.js';
import '../Pages/Walk/Engine/Plugs/plugs.js';
import '../Pages/Walk/Engine/Sheets/sheets.js';
import '../Pages/Walk/Arrive/arrive.js';
import '../Pages/Walk/Tasks/verdicts.js';
import '../Pages/TakeIn/offers.js';
import '../Pages/Walk/Found/place.js';
import '../Pages/Walk/Found/photo.js';
import '../Pages/Walk/Costs/prices.js';
import '../Pages/Walk/Close/unsent.js';
import '../Pages/Library/rules.js';
// Last: what has a way of its own of sending has taken it by then.
import './Outbox/posting.js';
import './Aboard/leave.js';
import './Aboard/as-of.js';
import './Judging/here.js';
