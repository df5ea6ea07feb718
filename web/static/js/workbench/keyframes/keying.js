// Keying: while it is on, a value without keyframes gets its first one at the playhead when it is
// changed. (One that has keyframes always gets its next there.)

const button = () => document.getElementById("keying");

export const isKeying = () => button().getAttribute("aria-pressed") === "true";

/** What an edit of a value says while keying is on: which value is to have its first keyframe. */
export const keying = (path) => (isKeying() && path ? { keyed: path } : {});

export function toggleKeying() {
  button().setAttribute("aria-pressed", String(!isKeying()));
  button().classList.toggle("is-on", isKeying());
}

export function listen() {
  button().addEventListener("click", toggleKeying);
}
