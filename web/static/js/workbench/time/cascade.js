// The cascade: a row for each unit of the selected move with its bar, and the charts of the moves.
// All numbers come from the server; here they are only put where they belong.

import { slanted, listen as listenToHands } from "./timeline_drag.js";
import { packed, rowsInSight, wordsOf } from "../figures/staircase.js";
import { framesRounded, isCrowded, span, stopsOf, weightAt } from "../figures/weights.js";
import { numbers } from "../edits/numbers.js";
import { drawReaches, showReaches } from "../layers/reaches.js";
import { isPlaying } from "../picture/player.js";
import { emit, on, paced, state, url } from "../state.js";
import { select } from "../edits/pending.js";
import { pickLayer } from "../layers/layer_selection.js";
import { showSpans } from "./spans.js";
import { isPicked, listenToUnits } from "./units.js";
import { element } from "../elements.js";

const ROW_HEIGHT = 12; // px, as in the style sheet
const ROWS_BEYOND = 12; // above and below those that are seen
const PLAYING_PAUSE_MS = 100;
const address = () => (state.layer ? `${url("motion", state.shown)}?layer=${state.layer}` : "");
let shownAt = 0;
const fetched = numbers("motion", 60, address, (answer) => ({ ...answer, moves: answer.moves.map(decoded) }));
let drawn = null; // the rows of the cascade: of which move, and which of them are there

const bytesOf = (text) => Int8Array.from(atob(text), (character) => character.charCodeAt(0));

function decoded(move) {
  move.bytes = bytesOf(move.weights);
  for (const reach of move.reaches) reach.bytes = bytesOf(reach.values);
  return move;
}

async function refresh() {
  const found = await fetched.now();
  if (!found) return;
  showSpans(found.spans);
  drawSpans();
  drawRows();
  drawCharts();
  drawReaches(found);
  showFrame();
  emit("motion");
}

const MOST_SIGNS = 40; // side by side below a small chart, so that they can be read

function drawSpans() {
  const holder = document.getElementById(`spans-${state.layer}`);
  if (!holder) return;
  const spans = fetched.drawn.moves.map(span);
  const rows = packed(spans);
  const bars = fetched.drawn.moves.map((move, index) => {
    const card = document.getElementById(`move-${move.id}`);
    const isOff = card?.classList.contains("is-off");
    const [first, end] = spans[index];
    const bar = element(
      "span",
      `span ${isOff ? "span--off" : "span--rise"} ${move.id === state.move ? "is-current" : ""}`,
    );
    bar.textContent = card?.querySelector(".move__name")?.value ?? "";
    bar.style.cssText = `--f: ${first}; --n: ${end - first}; --row: ${rows[index]}`;
    bar.dataset.moveSpan = move.id;
    const when = document.getElementById(`when-${move.id}`);
    if (when) when.textContent = `${isOff ? "off, " : ""}frames ${framesRounded(first)} to ${framesRounded(end)}`;
    return bar;
  });
  holder.replaceChildren(...bars);
  holder.closest(".trow").style.height = `${Math.max(28, (Math.max(-1, ...rows) + 1) * 13 + 9)}px`;
}

/** The move whose rows are shown. */
const moveShown = () => fetched.drawn?.moves.find(({ id }) => id === state.move) ?? fetched.drawn?.moves[0];

function drawRows() {
  const list = document.getElementById("cascade");
  const move = moveShown();
  if (!list) return;
  list.dataset.shown = state.shown;
  if (!move) return drawNothing(list);
  list.classList.toggle("cascade--wide", move.unit !== "character");
  list.style.setProperty("--rows", move.units.length);
  list.dataset.rows = move.units.length;
  drawn = { list, move, words: wordsOf(move), first: -1, end: -1 };
  list.replaceChildren(guide(move));
  drawSeen();
}

/** Says why there are no rows. */
function drawNothing(list) {
  drawn = null;
  list.style.setProperty("--rows", 2);
  list.dataset.rows = 0;
  const isTitle = Boolean(document.getElementById(`text-${state.layer}`));
  const said = isTitle
    ? "No moves yet: add one, and its letters take their turns here."
    : "What has moves is told here, unit by unit. What is keyed stands under Keyframes and Curves.";
  list.replaceChildren(element("li", "krows__none", said));
}

/** Only the rows that can be seen are there: a long title has hundreds. */
function drawSeen() {
  if (!drawn?.list.isConnected) return;
  const { list, move, words } = drawn;
  const body = document.getElementById("time-body").getBoundingClientRect();
  const top = list.getBoundingClientRect().top;
  const { first, end } = rowsInSight(top, body, ROW_HEIGHT, ROWS_BEYOND, move.units.length);
  if (first === drawn.first && end === drawn.end) return;
  Object.assign(drawn, { first, end });
  for (const old of list.querySelectorAll(".crow")) old.remove();
  for (let index = first; index < end; index += 1) list.append(row(move, move.units[index], index, words[index]));
  showAway();
}

function row(move, unit, index, word = "") {
  const item = element("li", `crow ${word ? "is-first" : ""} ${isPicked(index) ? "is-picked" : ""}`);
  item.tabIndex = index ? -1 : 0;
  item.setAttribute(
    "aria-label",
    `${unit}, frames ${framesRounded(move.starts[index])} to ${framesRounded(move.ends[index])}`,
  );
  item.style.setProperty("--row", index);
  item.dataset.unit = index;
  const gutter = element("div", "gutter");
  gutter.append(
    element("span", "crow__word", word),
    element("span", "col-starts", framesRounded(move.starts[index])),
    element("span", "col-away"),
    element("b", "crow__letter", unit),
  );
  const lane = element("div", "lane");
  const [start, end] = [move.starts[index], move.ends[index]];
  const rest = element("span", "restline");
  rest.style.setProperty("--f", Math.max(0, end));
  const bar = element("span", "bar");
  bar.style.cssText = `--f: ${start}; --n: ${end - start}`;
  bar.style.background = shading(move.shades[index]);
  bar.dataset.unit = index;
  bar.dataset.start = start;
  bar.dataset.end = end;
  lane.append(rest, bar);
  item.append(gutter, lane);
  return item;
}

/** The bar's shading, darkest where the unit is farthest from rest. */
function shading(shades) {
  const stops = stopsOf(shades).map(
    ([far, at]) => `color-mix(in srgb, var(--amount-far) ${far}%, var(--amount-rest)) ${at}%`,
  );
  return `linear-gradient(90deg, ${stops.join(", ")})`;
}

/** The slanted lines along the starts: they follow the order, on each level. */
function guide(move) {
  const item = element("li", "guide");
  item.setAttribute("aria-hidden", "true");
  const lane = element("div", "lane");
  const { lines, grips } = slanted(move);
  const drawn = lines.map(({ look, points }) => `<polyline class="guide__line--${look}" points="${points}"/>`).join("");
  const box = `0 0 ${state.length} ${move.units.length}`;
  lane.innerHTML = `<svg viewBox="${box}" preserveAspectRatio="none">${drawn}</svg>${grips}`;
  item.append(lane);
  return item;
}

function drawCharts() {
  for (const move of fetched.drawn.moves) {
    const chart = document.getElementById(`chart-${move.id}`);
    if (!chart) continue;
    const words = wordsOf(move);
    const most = isCrowded(move.units, MOST_SIGNS);
    const bars = move.units.flatMap((unit, index) => {
      const bar = element("span", "chart__u");
      bar.append(element("i", ""), element("b", "", most ? "" : unit));
      return words[index] && index && !most ? [element("span", "chart__gap"), bar] : [bar];
    });
    chart.classList.toggle("chart--many", most);
    chart.classList.toggle(
      "chart--signed",
      move.bytes.some((byte) => byte < 0),
    );
    chart.replaceChildren(...bars);
  }
}

const weight = (move, index) => weightAt(move, index, state.frame);

/** The charts and rows at the playhead; while it plays ten times a second, since the picture comes
    first. */
function showFrame() {
  const motion = fetched.drawn;
  if (!motion || (isPlaying() && performance.now() - shownAt < PLAYING_PAUSE_MS)) return;
  shownAt = performance.now();
  for (const move of motion.moves) {
    const bars = document.querySelectorAll(`#chart-${CSS.escape(move.id)} .chart__u i`);
    bars.forEach((bar, index) => {
      const away = weight(move, index);
      bar.style.setProperty("--a", Math.min(1.3, Math.abs(away)));
      bar.classList.toggle("is-minus", away < -0.005);
    });
  }
  showReaches(motion, state.frame);
  showAway();
}

/** How far each unit whose row is seen is away, at the playhead. */
function showAway() {
  if (!drawn) return;
  for (const item of drawn.list.querySelectorAll(".crow")) {
    const away = Math.round(weight(drawn.move, Number(item.dataset.unit)) * 100);
    item.querySelector(".col-away").textContent = `${away} %`.replace("-", "−");
  }
}

export function listen() {
  listenToHands(() => fetched.drawn);
  listenToUnits(moveShown);
  document.addEventListener("scroll", (event) => event.target.id === "time-body" && drawSeen(), true);
  addEventListener("resize", drawSeen);
  on("view", drawSeen);
  on("scene", paced(refresh, fetched));
  on("frame", showFrame);
  document.addEventListener("click", (event) => {
    const card = event.target.closest(".move");
    if (card && card.dataset.move !== state.move && !event.target.closest("button, input, summary, .val"))
      select({ move: card.dataset.move });
    const name = event.target.closest("[data-select-layer]");
    const block = event.target.closest(".slab");
    const layer =
      name?.dataset.selectLayer ??
      (event.target.closest("button, input:not(.slab__name), textarea, .val") ? "" : block?.dataset.layer);
    if (layer) pickLayer(layer, event);
  });
}
