// The edges of the panels: dragged or stepped by arrow keys they resize them, a double click puts them
// back. How large they are is remembered for each person, and whether the layers are told in lines alone.

const LEAST_CENTRE = 420; // pixels that are left for the picture across
const LEAST_STAGE = 170; // pixels that are left above the timeline
const STEP = 20;

/** Of each edge: the property that it sets, along which axis it goes, and what is larger of it. */
const EDGES = {
  layers: { property: "--w-left", axis: "x", sense: 1, least: 200, most: () => innerWidth - LEAST_CENTRE - size("moves") },
  moves: { property: "--w-right", axis: "x", sense: -1, least: 260, most: () => innerWidth - LEAST_CENTRE - size("layers") },
  time: { property: "--h-time", axis: "y", sense: -1, least: 160, most: () => innerHeight - LEAST_STAGE },
};

const bench = () => document.querySelector(".bench");
const keptAs = () => `balletto-panels-${document.body.dataset.person}`;
const size = (name) => parseFloat(getComputedStyle(bench()).getPropertyValue(EDGES[name].property));
let sizes = {}; // by the name of the edge, of those that were set; `lines` for the layers

function remembered() {
  try {
    return JSON.parse(localStorage.getItem(keptAs())) ?? {};
  } catch {
    return {};
  }
}

function set(name, pixels) {
  const { property, least, most } = EDGES[name];
  sizes[name] = Math.round(Math.max(least, Math.min(most(), pixels)));
  bench().style.setProperty(property, `${sizes[name]}px`);
  tell();
}

function reset(name) {
  delete sizes[name];
  bench().style.removeProperty(EDGES[name].property);
  tell();
}

function tell() {
  localStorage.setItem(keptAs(), JSON.stringify(sizes));
  for (const edge of document.querySelectorAll("[data-edge]")) {
    const { least, most } = EDGES[edge.dataset.edge];
    edge.ariaValueMin = least;
    edge.ariaValueMax = most();
    edge.ariaValueNow = size(edge.dataset.edge);
  }
  dispatchEvent(new Event("resize"));
}

/** Twenty layers are seen when nothing more is told of the selected one. */
function setLines(isOn) {
  sizes.lines = isOn;
  bench().classList.toggle("has-lines", isOn);
  document.querySelector("[data-lines-alone]").setAttribute("aria-pressed", String(isOn));
  tell();
}

const along = (event, { axis, sense }) => sense * (axis === "x" ? event.clientX : event.clientY);

function drag(event) {
  const edge = event.currentTarget;
  const { name, from } = { name: edge.dataset.edge, from: along(event, EDGES[edge.dataset.edge]) };
  const began = size(name);
  event.preventDefault();
  edge.setPointerCapture(event.pointerId);
  edge.classList.add("is-dragged");
  const move = (now) => set(name, began + along(now, EDGES[name]) - from);
  const end = () => {
    edge.classList.remove("is-dragged");
    edge.removeEventListener("pointermove", move);
  };
  edge.addEventListener("pointermove", move);
  edge.addEventListener("lostpointercapture", end, { once: true });
}

function step(event) {
  const name = event.currentTarget.dataset.edge;
  const [less, more] = EDGES[name].axis === "x" ? ["ArrowLeft", "ArrowRight"] : ["ArrowUp", "ArrowDown"];
  const by = { [less]: -STEP, [more]: STEP }[event.key];
  if (!by && event.key !== "Home") return;
  event.preventDefault();
  event.stopPropagation();
  if (by) set(name, size(name) + by * EDGES[name].sense);
  else reset(name);
}

export function listen() {
  const known = Object.entries(remembered()).filter(([name, pixels]) => EDGES[name] && pixels > 0);
  for (const [name, pixels] of known) set(name, pixels);
  setLines(Boolean(remembered().lines));
  document.addEventListener("click", (event) => event.target.closest("[data-lines-alone]") && setLines(!sizes.lines));
  for (const edge of document.querySelectorAll("[data-edge]")) {
    edge.addEventListener("pointerdown", drag);
    edge.addEventListener("dblclick", () => reset(edge.dataset.edge));
    edge.addEventListener("keydown", step);
  }
  tell();
}
