// Which keyframes are selected: they are found again by their times, whatever an edit makes of their
// numbers, and what is gone is not selected.

import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

import { asked, settled } from "./page.js";

const selection = await import("../../web/static/js/workbench/keyframes/keyframe_selection.js");
const { emit, open, state } = await import("../../web/static/js/workbench/state.js");

const PATH = "t1.transform.opacity";
let revision = 1;

/** The keyed values of a layer, as the server tells them: the times of the keys by their paths. */
const told = (rows) => ({
  spans: {},
  layers: { t1: Object.entries(rows).map(([path, times]) => ({ path, keys: times.map((at) => ({ at })) })) },
});

/** Another state of the scene, with these rows. */
async function become(rows) {
  revision += 1;
  state.digest = state.shown = `d${revision}`;
  emit("view");
  asked.at(-1).answer(200, JSON.stringify(told(rows)));
  await settled();
}

selection.listen();
open();

beforeEach(async () => {
  selection.choose([]);
  await become({ [PATH]: [0, 10, 20] });
});

test("a key is selected, one more, and taken out again", () => {
  selection.choose([[PATH, 0]]);
  selection.toggleChosen(PATH, 2);
  assert.deepEqual(selection.chosenKeys(), { [PATH]: [0, 2] });
  selection.toggleChosen(PATH, 0);
  assert.deepEqual(selection.chosenList(), [{ path: PATH, index: 2, at: 20 }]);
});

test("moved keys stay selected where another one comes to stand before them", async () => {
  selection.choose([[PATH, 0]]);
  selection.expect(selection.chosenList(), ({ at }) => at + 15);
  assert.deepEqual(selection.chosenList(), [{ path: PATH, index: 0, at: 15 }]);
  await become({ [PATH]: [10, 15, 20] });
  assert.deepEqual(selection.chosenList(), [{ path: PATH, index: 1, at: 15 }]);
});

test("an edit that was refused leaves selected what was", async () => {
  selection.choose([[PATH, 1]]);
  selection.expect(selection.chosenList(), ({ at }) => at + 5);
  emit("refused");
  await become({ [PATH]: [0, 10, 20] });
  assert.deepEqual(selection.chosenKeys(), { [PATH]: [1] });
});

test("keys that are gone are not selected, and the row goes with its last one", async () => {
  selection.choose([
    [PATH, 1],
    [PATH, 2],
  ]);
  await become({ [PATH]: [0, 10] });
  assert.deepEqual(selection.chosenKeys(), { [PATH]: [1] });
  await become({});
  assert.deepEqual(selection.chosenKeys(), {});
});

test("a list of before is found by its times, or else by its numbers", async () => {
  selection.choose([
    [PATH, 1],
    [PATH, 2],
  ]);
  const before = selection.chosenList();
  await become({ [PATH]: [5, 10, 25] });
  assert.deepEqual(selection.foundAgain(before), [
    { path: PATH, index: 1, at: 10 },
    { path: PATH, index: 2, at: 25 },
  ]);
});
