// A page of the workbench with nothing on it but what the logic of its scripts reads, and a server
// whose answers a test gives.

import { JSDOM } from "jsdom";

const STATE = {
  scene: 7,
  revision: 1,
  digest: "d1",
  rate: "30/1",
  length: 100,
  width: 1920,
  height: 1080,
  sound: "no",
  layer: "t1",
  move: "",
  first: "",
  end: "",
  layers: '["t1", "t2"]',
  also: "[]",
  markers: "[]",
};

const stateIs = (changes) =>
  Object.entries({ ...STATE, ...changes })
    .map(([name, value]) => `data-${name}='${value}'`)
    .join(" ");

const dom = new JSDOM(
  `<body data-person="ada" data-token-at="/token/" data-sign-in-at="/sign-in-here/" data-signed-out-at="/sign-in/"
    hx-headers='{"X-CSRFToken": "token"}'>
    <div id="workbench-state" ${stateIs({})}></div>
    <div id="notices"></div><div id="kept"><span></span></div><div id="picture"></div>
    <div class="workbench" data-view="keyframes"></div>
  </body>`,
  { url: "http://localhost/scenes/7/" },
);
const { window } = dom;
for (const name of ["document", "location", "sessionStorage", "localStorage", "Element", "HTMLDetailsElement"])
  globalThis[name] = window[name];
globalThis.window = window;
globalThis.addEventListener = window.addEventListener.bind(window);
globalThis.devicePixelRatio = 1;
globalThis.reportError = (error) => {
  throw error;
};
globalThis.htmx = {
  swap: (_, html) => Object.assign(document.getElementById("workbench-state").dataset, JSON.parse(html)),
};

/** What was asked for, in order: { address, values, answer(status, text, headers), fail() }. */
export const asked = [];

globalThis.fetch = (address, { body } = {}) =>
  new Promise((done, fail) => {
    asked.push({
      address: String(address),
      values: Object.fromEntries(body ?? []),
      answer: (status, text, headers = {}) => done(new Response(text, { status, headers })),
      fail: () => fail(new TypeError("away")),
    });
  });

/** Answers what was asked last with a revision. */
export function revision(number, request = asked.at(-1)) {
  const state = { revision: number, digest: `d${number}` };
  request.answer(200, JSON.stringify(state), { "X-Revision": String(number), "X-Digest": state.digest });
}

/** Waits until all that can go on without the server has gone on. */
export const settled = () => new Promise((done) => setTimeout(done, 5));

/** Waits until something is so, however slow the machine is: the runner ends what never comes. */
export async function until(isSo) {
  while (!isSo()) await settled();
}

/** What was posted as edits. */
export const posted = () => asked.filter(({ values }) => values.edit && !values.preview);
