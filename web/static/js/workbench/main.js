// The workbench: each module listens for its own part of the page.

import * as actions from "./actions.js";
import * as audio from "./audio.js";
import * as cascade from "./cascade.js";
import * as choices from "./choices.js";
import * as colors from "./colors.js";
import * as curves from "./curves.js";
import * as disclosure from "./disclosure.js";
import * as fontList from "./font_list.js";
import * as gallery from "./gallery.js";
import * as offers from "./offers.js";
import * as say from "./say.js";
import * as sceneHistory from "./history.js";
import * as keyframeRows from "./keyframe_rows.js";
import * as keyframeSelection from "./keyframe_selection.js";
import * as keyframeToggle from "./keyframe_toggle.js";
import * as keying from "./keying.js";
import * as layerList from "./layer_list.js";
import * as layerSelection from "./layer_selection.js";
import * as liveValues from "./live_values.js";
import * as leaving from "./leaving.js";
import * as markers from "./markers.js";
import * as order from "./order.js";
import * as palette from "./palette.js";
import * as panels from "./panels.js";
import * as pending from "./pending.js";
import * as picture from "./picture.js";
import * as player from "./player.js";
import * as session from "./session.js";
import * as shortcuts from "./shortcuts.js";
import * as spread from "./spread.js";
import { on, open, state } from "./state.js";
import * as sides from "./sides.js";
import * as takes from "./takes.js";
import * as text from "./text.js";
import * as time from "./time.js";
import * as timescale from "./timescale.js";
import * as titles from "./titles.js";
import * as touch from "./touch.js";
import * as typing from "./typing.js";
import * as upload from "./upload.js";
import * as values from "./values.js";
import * as views from "./views.js";
import * as zoom from "./zoom.js";

const MODULES = [
  pending,
  leaving,
  session,
  keying,
  values,
  sides,
  colors,
  choices,
  fontList,
  disclosure,
  gallery,
  say,
  offers,
  palette,
  sceneHistory,
  text,
  player,
  audio,
  takes,
  time,
  titles,
  typing,
  picture,
  cascade,
  keyframeToggle,
  keyframeSelection,
  keyframeRows,
  curves,
  views,
  panels,
  timescale,
  touch,
  markers,
  layerList,
  order,
  upload,
  layerSelection,
  spread,
  actions,
  zoom,
  liveValues,
  shortcuts,
];

for (const module of MODULES) module.listen(on);
open();
// Scenes that this one uses have changed since: it follows them, as an edit, which all tabs that are
// opened at this revision call by one name, so that it is made once.
if ("behind" in document.querySelector(".workbench").dataset)
  pending.commit({ name: "renew-scenes" }, { name: `follow-${state.revision}` });
