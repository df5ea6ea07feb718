// The workbench: each module listens for its own part of the page.

import * as actions from "./edits/actions.js";
import * as audio from "./picture/audio.js";
import * as cascade from "./time/cascade.js";
import * as choices from "./values/choices.js";
import * as colors from "./values/colors.js";
import * as curves from "./keyframes/curves.js";
import * as disclosure from "./disclosure.js";
import * as fontList from "./values/font_list.js";
import * as firstSteps from "./line/first_steps.js";
import * as gallery from "./line/gallery.js";
import * as offers from "./line/offers.js";
import * as say from "./line/say.js";
import * as sceneHistory from "./edits/history.js";
import * as sceneText from "./edits/scene_text.js";
import * as keyframeRows from "./keyframes/keyframe_rows.js";
import * as keyframeSelection from "./keyframes/keyframe_selection.js";
import * as keyframeToggle from "./keyframes/keyframe_toggle.js";
import * as keying from "./keyframes/keying.js";
import * as layerList from "./layers/layer_list.js";
import * as layerSelection from "./layers/layer_selection.js";
import * as liveValues from "./values/live_values.js";
import * as leaving from "./edits/leaving.js";
import * as markers from "./time/markers.js";
import * as order from "./layers/order.js";
import * as palette from "./line/palette.js";
import * as panels from "./panels.js";
import * as pending from "./edits/pending.js";
import * as picture from "./picture/picture.js";
import * as player from "./picture/player.js";
import * as session from "./edits/session.js";
import * as shortcuts from "./line/shortcuts.js";
import * as spread from "./time/spread.js";
import { on, open, state } from "./state.js";
import * as sides from "./values/sides.js";
import * as takes from "./edits/takes.js";
import * as text from "./layers/text.js";
import * as time from "./time/time.js";
import * as timescale from "./time/timescale.js";
import * as titles from "./layers/titles.js";
import * as touch from "./picture/touch.js";
import * as typing from "./picture/typing.js";
import * as upload from "./layers/upload.js";
import * as values from "./values/values.js";
import * as views from "./time/views.js";
import * as zoom from "./picture/zoom.js";

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
  sceneText,
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
  firstSteps,
];

for (const module of MODULES) module.listen(on);
open();
// Scenes that this one uses have changed since: it follows them, as an edit, which all tabs that are
// opened at this revision call by one name, so that it is made once.
if ("behind" in document.querySelector(".workbench").dataset)
  pending.commit({ name: "renew-scenes" }, { name: `follow-${state.revision}` });
