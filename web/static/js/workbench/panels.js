// The edges of the panels: dragged or stepped by arrow keys they resize them, a double click puts them
// back. How large they are is remembered for each person, and whether the layers are told in lines alone.

import { remember, remembered } from "./preferences.js";

const LEAST_CENTRE = 420; // pixels that are left for the picture across
const LEAST_STAGE = 170; // pixels that are left above the timeline
const STEP = 20;

/** Of each edge: the property that it sets, along which axis it goes, and what is larger of it. */
const EDGES = {
  layers: {
    property: "--w-left",
    axis: "x",
    sense: 1,
    least: 200,
    most: () => innerWidth - LEAST_CENTRE - size("moves"),
  },
  moves: {
    property: "--w-right",
    axis: "x",
    sense: -1,
    least: 260,
    most: () => innerWidth - LEAST_CENTRE - size("layers"),
  },
  time: { property: "--h-time", axis: "y", sense: -1, least: 160, most: () => innerHeight - LEAST_STAGE },
};

const workbench = () => document.querySelector(".workbench");
const size = (name) => parseFloat(getComputedStyle(workbench()).getPropertyValue(EDGES[name].property));
let wanted = {}; // how large panels are to be, by the name of the edge, and `lines` for the layers

/** Shows the panels as they are wanted, as far as there is room. */
function show() {
  for (const [name, { property, least, most }] of Object.entries(EDGES)) {
    if (wanted[name]) workbench().style.setProperty(property, `${Math.max(least, Math.min(most(), wanted[name]))}px`);
    else workbench().style.removeProperty(property);
    const edge = document.querySelector(`[data-edge=${name}]`);
    Object.assign(edge, { ariaValueMin: least, ariaValueMax: most(), ariaValueNow: size(name) });
  }
  workbench().classList.toggle("has-lines", Boolean(wanted.lines));
  document.querySelector("[data-lines-alone]").setAttribute("aria-pressed", String(Boolean(wanted.lines)));
}

function want(changes) {
  wanted = { ...wanted, ...changes };
  remember("panels", wanted);
  show();
  dispatchEvent(new Event("resize")); // what is drawn in the panels fits them
}

const set = (name, pixels) =>
  want({ [name]: Math.round(Math.max(EDGES[name].least, Math.min(EDGES[name].most(), pixels))) });
const reset = (name) => want({ [name]: null });

const along = (event, { axis, sense }) => sense * (axis === "x" ? event.clientX : event.clientY);

function drag(event) {
  const edge = event.currentTarget;
  const name = edge.dataset.edge;
  const [from, began] = [along(event, EDGES[name]), size(name)];
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
  wanted = remembered("panels", {});
  show();
  addEventListener("resize", (event) => event.isTrusted && show());
  // Twenty layers are seen when nothing more is told of the selected one.
  document.addEventListener(
    "click",
    (event) => event.target.closest("[data-lines-alone]") && want({ lines: !wanted.lines }),
  );
  for (const edge of document.querySelectorAll("[data-edge]")) {
    edge.addEventListener("pointerdown", drag);
    edge.addEventListener("dblclick", () => reset(edge.dataset.edge));
    edge.addEventListener("keydown", step);
  }
}
