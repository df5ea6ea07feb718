// The workbench: each module listens for its own part of the page.

import * as actions from "./actions.js";
import * as beads from "./beads.js";
import * as cascade from "./cascade.js";
import * as choices from "./choices.js";
import * as curves from "./curves.js";
import * as gallery from "./gallery.js";
import * as hearing from "./hearing.js";
import * as keybead from "./keybead.js";
import * as keyed from "./keyed.js";
import * as keys from "./keys.js";
import * as more from "./more.js";
import * as order from "./order.js";
import * as markers from "./markers.js";
import * as keying from "./keying.js";
import * as now from "./now.js";
import * as palette from "./palette.js";
import * as picture from "./picture.js";
import * as player from "./player.js";
import * as pending from "./pending.js";
import * as session from "./session.js";
import * as past from "./past.js";
import * as sending from "./sending.js";
import { on, open } from "./state.js";
import * as several from "./several.js";
import * as spread from "./spread.js";
import * as takes from "./takes.js";
import * as text from "./text.js";
import * as time from "./time.js";
import * as titles from "./titles.js";
import * as typing from "./typing.js";
import * as values from "./values.js";
import * as views from "./views.js";
import * as zoom from "./zoom.js";

for (const module of [pending, session, keying, values, choices, more, gallery, palette, past, text, player, hearing, takes, time, titles, typing, picture, cascade, keybead, keyed, beads, curves, views, markers, order, sending, several, spread, actions, zoom, now, keys]) module.listen(on);
open();
